import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type Database from 'better-sqlite3';
import { endRulesOnWallClock } from './rule-ends.ts';
import { chainTrail } from './trail-digest.ts';

const FOLDER = join(process.cwd(), 'src/server/db/migrations');

/** What steps do that SQL can't. */
const BESIDE: Readonly<Record<string, (raw: Database.Database) => void>> = {
  '0036_trail_chain.sql': chainTrail,
  '0046_rules_end_on_the_wall.sql': endRulesOnWallClock,
};

/**
 * Brings a file to the newest numbered migration: each in a transaction of its own, the file copied beside itself first
 * where it already held data. Throws where the file is newer than this program knows.
 */
export function migrate(raw: Database.Database, folder: string, migrations = FOLDER): void {
  const files = readdirSync(/*turbopackIgnore: true*/ migrations)
    .filter((name) => /^\d{4}_.*\.sql$/.test(name))
    .sort();
  const current = Number(raw.pragma('user_version', { simple: true }));
  if (current > files.length)
    throw new Error(
      `The data in ${folder} was written by a newer version of Paramo (step ${current}, this knows ${files.length}).`,
    );
  if (current === files.length) return;
  // SQLite can only rebuild a table that others reference while foreign keys are off; they are checked again below.
  raw.pragma('foreign_keys = OFF');
  if (current > 0) raw.prepare('VACUUM INTO ?').run(join(folder, `paramo.before-${current + 1}.${Date.now()}.db`));
  for (const [index, name] of files.entries()) {
    const step = index + 1;
    if (Number(name.slice(0, 4)) !== step) throw new Error(`Migration ${name} should be number ${step}.`);
    if (step <= current) continue;
    const text = readFileSync(/*turbopackIgnore: true*/ join(/*turbopackIgnore: true*/ migrations, name), 'utf8');
    raw.transaction(() => {
      raw.exec(text);
      BESIDE[name]?.(raw);
      const broken = raw.pragma('foreign_key_check') as unknown[];
      if (broken.length > 0)
        throw new Error(`Migration ${name} would leave ${broken.length} rows that point at nothing.`);
      raw.pragma(`user_version = ${step}`);
    })();
  }
  raw.pragma('foreign_keys = ON');
}
