import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { dateText } from '../src/core/time/index.ts';
import { type Connection, openDatabase } from '../src/server/db/index.ts';
import { contextFor } from '../src/server/operations/deciding/context/context.ts';
import { listItems } from '../src/server/operations/items/list-items.ts';
import { findBoard } from '../src/server/operations/people/people.ts';
import { findPerson } from '../src/server/operations/people/session.ts';
import { search } from '../src/server/operations/search/index.ts';
import { LARGE_NOW, seedLarge } from './large.ts';
import { sideBySide, type Times } from './measure.ts';

/* Boards and search in a large organisation and in one of a tenth of its size: p50, p95, and the ratio to reading the same rows bare. */
const sizes = (process.argv[2] ?? '500,5000').split(',').map(Number);
const DAY = 86_400_000;
const ROUNDS = 120;

console.log(`Node ${process.version}, ${cpus().length} × ${cpus()[0]?.model}\n`);
const all = sizes.map((people) => ({ people, times: measure(people) }));
for (const what of Object.keys(all[0]?.times ?? {})) {
  const each = all.map(({ people, times }) => {
    const { serve, raw } = times[what] as { serve: Times; raw: Times };
    return `${people}: p50 ${serve.median.toFixed(2)} ms, p95 ${serve.p95.toFixed(2)}, ${(serve.median / raw.median).toFixed(2)}x of raw`;
  });
  console.log(`${what.padEnd(28)} ${each.join(' | ')}`);
}

function measure(people: number): Record<string, { serve: Times; raw: Times }> {
  const folder = mkdtempSync(join(tmpdir(), 'paramo-large-'));
  const db = openDatabase(folder);
  try {
    seedLarge(db, people);
    const me = findPerson(db, 'p0');
    if (!me) throw new Error('nobody there');
    const ctx = { ...contextFor(me, db), now: LARGE_NOW };
    const boards = Array.from({ length: 30 }, (_, p) => findBoard(ctx, `p${p}`)?.calendar ?? '');
    const range = (days: number) => ({
      from: '2027-03-01',
      to: dateText(Date.UTC(2027, 2, 1) + days * DAY),
      zone: 'Europe/Lisbon',
    });
    const serve = (n: number, days: number) => () =>
      JSON.stringify(boards.slice(0, n).map((key) => listItems(ctx, key, range(days))));
    const pair = (n: number, days: number) =>
      sideBySide(ROUNDS, { serve: serve(n, days), raw: rawBoards(db, boards.slice(0, n), days) });
    return {
      'a week of one': pair(1, 7),
      'a week of five': pair(5, 7),
      'side by side of thirty': pair(30, 7),
      'a month': pair(1, 42),
      'a search': sideBySide(ROUNDS, {
        serve: () => JSON.stringify(search(ctx, { words: 'weir he' })),
        raw: rawSearch(db),
      }),
    };
  } finally {
    db.raw.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The rows of some boards, as they stand in the file, encoded. */
function rawBoards(db: Connection, keys: readonly string[], days: number): () => string {
  const ids = db.all<{ id: number }>(
    'SELECT id FROM collection WHERE key IN (SELECT value FROM json_each(?))',
    JSON.stringify(keys),
  );
  const rows = db.raw.prepare(
    `SELECT o.start, o.finish, i.key, i.title, i.kind, i.place, i.notes, i.link, i.organiser, i.attendees, i.categories, i.importance, i.shows,
       i.visibility, i.rule, i.added, i.left_out, i.version, i.created_by, i.created_at, i.changed_by, i.changed_at
     FROM occurrence o JOIN item i ON i.id = o.item_id WHERE o.calendar_id = ? AND o.start >= ? AND o.start < ?`,
  );
  const from = Date.UTC(2027, 2, 1);
  return () => JSON.stringify(ids.map(({ id }) => rows.all(id, from - 26 * 3_600_000, from + days * DAY)));
}

/** The query alone, and the items it names. */
function rawSearch(db: Connection): () => string {
  const found = db.raw.prepare(
    `SELECT i.* FROM item_text t JOIN item i ON i.id = t.rowid WHERE item_text MATCH ? AND i.removed_at IS NULL
     ORDER BY abs(i.start - ?) LIMIT 4000`,
  );
  const cals = db.all<{ id: number }>(
    `SELECT collection_id AS id FROM access_grant WHERE person_id = 1 UNION SELECT id FROM collection WHERE owner_id = 1`,
  );
  const match = `{title place notes people categories link briefing} : ("weir"* AND "he"*) AND cal : (${cals.map(({ id }) => `"c${id}"`).join(' OR ')})`;
  return () => JSON.stringify(found.all(match, LARGE_NOW));
}
