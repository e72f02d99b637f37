import { parseArgs } from 'node:util';
import type { AudienceWire, SightlineRow } from '../src/contract/sharing.ts';
import { PRESETS, type Rights } from '../src/core/access/index.ts';
import { type Connection, database } from '../src/server/db/index.ts';
import { refusalBody } from '../src/server/http/sentences.ts';
import { type Context, contextFor } from '../src/server/operations/deciding/context.ts';
import { listGroups } from '../src/server/operations/people/groups.ts';
import { calendarForScript, personForScript, tellOthers } from '../src/server/operations/sharing/for-scripts.ts';
import { giveAccess, takeAccess } from '../src/server/operations/sharing/give-access.ts';
import { listSightlines } from '../src/server/operations/sharing/sightlines.ts';
import type { Result } from '../src/server/result.ts';

const HELP = `Grants on any calendar, for an administrator's scripts.

  npm run grants -- --as ADMIN CALENDAR list
  npm run grants -- --as ADMIN CALENDAR add AUDIENCE LEVEL [--from DATE] [--until DATE] [--private] [--tell NOTE]
  npm run grants -- --as ADMIN CALENDAR change AUDIENCE LEVEL [the same]
  npm run grants -- --as ADMIN CALENDAR remove AUDIENCE

  ADMIN      the e-mail address of the administrator in whose name this is done
  CALENDAR   the owner's e-mail address (their main calendar), or a calendar's key
  AUDIENCE   an e-mail address, everyone, or group:NAME
  LEVEL      ${Object.keys(PRESETS).join(', ')}

Lists one JSON object a line. Set PARAMO_DATA to the data of the server; it may be running, and its windows follow.`;

/** What a line of the list holds: the calendar, to whom, and what they have. */
interface Line {
  readonly calendar: string;
  readonly owner: string;
  readonly audience: string;
  readonly name: string;
  readonly preset: string | null;
  readonly rights: Rights;
  readonly from: string | null;
  readonly until: string | null;
  readonly state: string;
  readonly byAdministrator: boolean;
}

/** Runs one command over some data; answers what it prints and how it ended (0 done, 1 refused, 2 not understood). */
export function run(db: Connection, args: readonly string[], at?: number): { code: 0 | 1 | 2; out: string } {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    strict: false,
    options: {
      as: { type: 'string' },
      from: { type: 'string' },
      until: { type: 'string' },
      private: { type: 'boolean' },
      tell: { type: 'string' },
    },
  });
  const text = (value: string | boolean | undefined): string | null => (typeof value === 'string' ? value : null);
  const [calendar = '', verb, who = '', level = ''] = positionals;
  const admin = personForScript(db, text(values.as) ?? '');
  if (!admin?.administrator) return { code: 2, out: `--as must be the address of an administrator.\n\n${HELP}` };
  const ctx: Context = { ...contextFor(admin, db), ...(at === undefined ? {} : { now: at }) };
  const key = calendarForScript(db, calendar);
  if (!key) return { code: 2, out: `There is no calendar ${calendar}.\n\n${HELP}` };
  const lines = listSightlines(ctx, key);
  if (!lines.ok) return refused(lines);
  const { rows, owner } = lines.value;
  if (verb === 'list')
    return {
      code: 0,
      out: rows
        .flatMap((row) => linesOf(key, owner.handle, row))
        .map((l) => JSON.stringify(l))
        .join('\n'),
    };

  const audience = readAudience(ctx, who);
  if (!audience) return { code: 2, out: `There is no ${who}.\n\n${HELP}` };
  const address = audience.kind === 'address' ? audience.address : null;
  const row = rows.find((r) =>
    address ? r.who.detail.split(' · ').at(-1) === address : JSON.stringify(r.audience) === JSON.stringify(audience),
  );
  const standing = row?.grants.find((g) => g.from === null && g.until === null) ?? row?.grants[0];
  if (verb === 'remove') {
    if (!row || !standing) return { code: 1, out: `${who} has nothing of its own there.` };
    return done(ctx, key, takeAccess(ctx, key, { audience: row.audience, seen: standing.key }));
  }
  if (verb !== 'add' && verb !== 'change') return { code: 2, out: HELP };
  if (!Object.hasOwn(PRESETS, level)) return { code: 2, out: `There is no level ${level}.\n\n${HELP}` };
  if (verb === 'add' && standing) return { code: 1, out: `${who} is there already: use change.` };
  if (verb === 'change' && !standing) return { code: 1, out: `${who} isn't there yet: use add.` };
  const rights: Rights = { ...PRESETS[level as keyof typeof PRESETS], ...(values.private ? { private: true } : {}) };
  const [from, until, note] = [text(values.from), text(values.until), text(values.tell)];
  const result = giveAccess(ctx, key, {
    audience: row?.audience ?? audience,
    rights,
    seen: standing?.key ?? null,
    span: from || until ? { from, until, zone: admin.zone } : null,
    tell: note === null ? null : { note },
  });
  return done(ctx, key, result);
}

function linesOf(calendar: string, owner: string, row: SightlineRow): Line[] {
  const a = row.audience;
  return row.grants.map((g) => ({
    calendar,
    owner,
    audience: a.kind === 'everyone' ? a.kind : 'id' in a ? `${a.kind}:${a.id}` : a.kind,
    name: row.who.name,
    preset: g.preset,
    rights: g.rights,
    from: g.from,
    until: g.until,
    state: g.state,
    byAdministrator: g.byAdministrator,
  }));
}

function readAudience(ctx: Context, who: string): AudienceWire | null {
  if (who === 'everyone') return { kind: 'everyone' };
  if (who.startsWith('group:')) {
    const groups = listGroups(ctx);
    const group = groups.ok && groups.value.groups.find((g) => g.name === who.slice('group:'.length));
    return group ? { kind: 'group', id: group.key } : null;
  }
  return who.includes('@') ? { kind: 'address', address: who.toLowerCase() } : null;
}

function done(ctx: Context, key: string, result: Result<unknown>): { code: 0 | 1; out: string } {
  if (!result.ok) return refused(result);
  tellOthers(ctx, key);
  return { code: 0, out: 'done' };
}

function refused(refusal: Result<unknown> & { ok: false }): { code: 1; out: string } {
  const { sentence, fields } = refusalBody(refusal, 'en');
  return { code: 1, out: [...Object.values(fields ?? {}), ...(fields ? [] : [sentence])].join('\n') };
}

if (process.argv[1]?.endsWith('grants.ts')) {
  const { code, out } = run(database(), process.argv.slice(2));
  (code === 0 ? console.log : console.error)(out);
  process.exit(code);
}
