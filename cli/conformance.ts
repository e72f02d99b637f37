import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { caseSchema, runCase } from './conformance-case.ts';
import { deskSchema, runDesk } from './desk-case.ts';
import { asWritten, openingsSchema, runOpenings } from './openings-case.ts';

/** `npm run conformance -- DIR`: runs every case of every `.json` file in a folder; exit 1 when one fails. */
const folder = process.argv[2];
if (!folder || !statSync(folder, { throwIfNoEntry: false })?.isDirectory()) {
  console.error('Name the folder with the case files: npm run conformance -- conformance/access');
  process.exit(2);
}

const MOST_SHOWN = 40;
let passed = 0;
let failed = 0;
for (const file of readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .sort()) {
  for (const [index, raw] of casesOf(join(folder, file)).entries()) {
    const difference = check(raw);
    if (difference === null) passed++;
    else if (failed++ < MOST_SHOWN) console.log(`FAILED ${file} #${index} ${nameOf(raw)}\n  ${difference}`);
  }
}
if (failed > MOST_SHOWN) console.log(`... and ${failed - MOST_SHOWN} more`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);

function casesOf(path: string): unknown[] {
  try {
    const parsed: unknown = JSON.parse(readFileSync(path, 'utf8'));
    return Array.isArray(parsed) ? parsed : [parsed];
  } catch (error) {
    return [{ name: `unreadable file: ${String(error)}` }];
  }
}

function nameOf(raw: unknown): string {
  return raw && typeof raw === 'object' && 'name' in raw ? String(raw.name) : '(no name)';
}

function check(raw: unknown): string | null {
  if (raw && typeof raw === 'object' && 'rule' in raw && raw.rule === 'openings') {
    const parsed = openingsSchema.safeParse(raw);
    if (!parsed.success) return notACase(parsed.error);
    return firstDifference(runOpenings(parsed.data), asWritten(parsed.data.expect), 'expect');
  }
  if (raw && typeof raw === 'object' && 'rule' in raw && raw.rule === 'desk') {
    const parsed = deskSchema.safeParse(raw);
    if (!parsed.success) return notACase(parsed.error);
    return firstDifference({ rows: runDesk(parsed.data) }, { rows: parsed.data.expect }, 'expect');
  }
  const parsed = caseSchema.safeParse(raw);
  if (!parsed.success) return notACase(parsed.error);
  return firstDifference(runCase(parsed.data), parsed.data.expect, 'expect');
}

const notACase = ({ issues }: { issues: readonly { path: PropertyKey[]; message: string }[] }): string =>
  `not a case: ${issues[0]?.path.join('.')}: ${issues[0]?.message}`;

/** Only what a case expects is compared, so that a case may speak of decisions alone. */
function firstDifference(got: object, want: object, path: string): string | null {
  for (const [key, expected] of Object.entries(want)) {
    const actual = (got as Record<string, unknown>)[key];
    if (isDeepStrictEqual(actual, expected)) continue;
    return describe(actual, expected, `${path}.${key}`);
  }
  return null;
}

function describe(got: unknown, want: unknown, path: string): string {
  if (got && want && typeof got === 'object' && typeof want === 'object' && Array.isArray(got) === Array.isArray(want))
    for (const key of new Set([...Object.keys(got), ...Object.keys(want)])) {
      const [a, b] = [(got as Record<string, unknown>)[key], (want as Record<string, unknown>)[key]];
      if (!isDeepStrictEqual(a, b)) return describe(a, b, `${path}.${key}`);
    }
  return `${path}: got ${JSON.stringify(got)}, expected ${JSON.stringify(want)}`;
}
