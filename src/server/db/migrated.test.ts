import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import type { Context } from '../operations/deciding/context/context.ts';
import { readFrame } from '../operations/frame/read-frame.ts';
import { listItems } from '../operations/items/list-items.ts';
import { listNotices } from '../operations/messages/notices.ts';
import { listPeople } from '../operations/people/list-people.ts';
import { listSightlines, readHistory } from '../operations/sharing/sightlines.ts';
import { START } from '../operations/small-organisation.ts';
import { listSuggestions } from '../operations/suggestions/suggestions.ts';
import { chainOf } from '../operations/trail/chain.ts';
import { personByHandle } from '../repositories/people.ts';
import { trailHead } from '../repositories/trail.ts';
import { type Connection, openDatabase } from './index.ts';

/*
 * A file as the sixth step left it, with something in nearly every table (`db/recorded/six-steps.sql`), and what everybody in it
 * was answered by the program of that day (`six-steps.json`). Brought to today's step it holds the same and answers the same.
 */
// Links' addresses and the ids below full are made under the server's secret: the one of the day it was recorded.
vi.stubEnv('PARAMO_SECRET', 'a secret for tests alone, 32 characters long');

const RECORDED = join(process.cwd(), 'src/server/db/recorded');
const TEXT = readFileSync(join(RECORDED, 'six-steps.sql'), 'utf8');
const ANSWERS: Record<string, unknown> = JSON.parse(readFileSync(join(RECORDED, 'six-steps.json'), 'utf8'));

/** Where a column of then is found now: beside its new name, in another table. */
const MOVED: Record<string, Record<string, string>> = {
  calendar: { key: 'collection', owner_id: 'collection', name: 'collection', main: 'collection' },
};
const RENAMED = [
  'suspension',
  'access_grant',
  'notice',
  'link',
  'outbox',
  'change_note',
  'suggestion',
  'trail',
  'outsider_name',
];

let folder: string;
let old: Database.Database;
let db: Connection;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'paramo-migrated-'));
  const raw = new Database(join(folder, 'paramo.db'));
  raw.pragma('foreign_keys = OFF');
  raw.exec(TEXT);
  raw.close();
  old = new Database(':memory:');
  old.pragma('foreign_keys = OFF');
  old.exec(TEXT);
  db = openDatabase(folder);
});
afterAll(() => {
  old.close();
  db.raw.close();
  rmSync(folder, { recursive: true, force: true });
});

test('no row and no value of a row is lost', () => {
  const tables = old
    .prepare("SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")
    .pluck()
    .all() as string[];
  expect(tables.length).toBeGreaterThan(20);
  let rows = 0;
  for (const table of tables)
    for (const row of old.prepare(`SELECT * FROM ${table}`).all() as Record<string, unknown>[]) {
      rows++;
      const homes = new Map<string, Record<string, unknown>>();
      for (const [column, value] of Object.entries(row)) {
        const home = MOVED[table]?.[column] ?? table;
        const name = column === 'calendar_id' && RENAMED.includes(table) ? 'collection_id' : column;
        homes.set(home, { ...homes.get(home), [name]: value });
      }
      for (const [home, values] of homes) {
        const kept = MOVED[table] ? { ...values, id: row.id } : values;
        const where = Object.keys(kept).map((k) => `${k} IS @${k}`);
        const found = db.raw
          .prepare(`SELECT count(*) FROM ${home} WHERE ${where.join(' AND ')}`)
          .pluck()
          .get(kept);
        expect([table, home, row, found]).toEqual([table, home, row, 1]);
      }
    }
  expect(rows).toBeGreaterThan(120);
  expect(db.raw.pragma('foreign_key_check')).toEqual([]);
  expect(db.raw.pragma('integrity_check', { simple: true })).toBe('ok');
  expect(db.raw.prepare('SELECT DISTINCT kind FROM collection').pluck().all()).toEqual([
    'calendar',
    'contacts',
    'folder',
    'tasks',
  ]);
});

test('everybody is answered as before', () => {
  const ctx = (handle: string): Context => {
    const viewer = personByHandle(db, handle);
    if (!viewer) throw new Error(`nobody called ${handle}`);
    return { db, now: START + 20_000, viewer };
  };
  const calendar = (name: string): string =>
    db.raw
      .prepare(
        name === 'travel'
          ? `SELECT key FROM collection WHERE main = 0 AND kind = 'calendar'`
          : `SELECT c.key FROM collection c JOIN person p ON p.id = c.owner_id WHERE c.main = 1 AND p.handle = '${name}'`,
      )
      .pluck()
      .get() as string;
  const range = { from: '2027-02-22', to: '2027-04-12', zone: 'Europe/Lisbon' };
  for (const [question, recorded] of Object.entries(ANSWERS)) {
    const [who = '', what, of = ''] = question.split(' ');
    const answer = {
      items: () => listItems(ctx(who), calendar(of), range),
      sightlines: () => listSightlines(ctx(who), calendar(of)),
      history: () => readHistory(ctx(who), calendar(of)),
      notices: () => listNotices(ctx(who)),
      suggestions: () => listSuggestions(ctx(who)),
      people: () => listPeople(ctx(who)),
      frame: () => readFrame(ctx(who)),
    }[what as 'items']();
    // Since then a date is said only where it changes something.
    const then = (of: unknown) =>
      what === 'people' ? JSON.parse(JSON.stringify(of), (key, value) => (key === 'until' ? undefined : value)) : of;
    expect([question, then(asThen(what as string, answer))]).toEqual([question, then(recorded)]);
  }
});

test('whoever spoke for somebody sets their away notice, and the trail of before is a chain', () => {
  const odd = `SELECT count(*) FROM access_grant g JOIN collection c ON c.id = g.collection_id WHERE g.absence <> (g.speaks AND c.main)`;
  expect(db.raw.prepare(odd).pluck().get()).toBe(0);
  expect(db.raw.prepare('SELECT count(*) FROM access_grant WHERE absence = 1').pluck().get()).not.toBe(0);
  const { entries } = trailHead(db);
  expect(entries).toBe(old.prepare('SELECT count(*) FROM trail').pluck().get());
  expect(chainOf(db, null)).toMatchObject({ whole: true, entries });
});

/** An answer without what answers have had since: versions, how dates and hours are read, what may be done, and what there is of meetings. */
function asThen(what: string, answer: unknown): unknown {
  const plain = JSON.parse(JSON.stringify(answer), (key, value) => (key === 'absence' ? undefined : value));
  if (what === 'items' && plain.ok) {
    delete plain.value.version;
    delete plain.value.head.calendar.description;
    delete plain.value.head.hours;
    delete plain.value.head.hoursZone;
    for (const more of ['speak', 'arrange', 'whole', 'run', 'seePrivate', 'bringBack'])
      delete plain.value.head.may[more];
    for (const item of plain.value.items) {
      delete item.calledHere;
      delete item.may?.move;
      for (const more of ['endZone', 'hold', 'fixed']) delete item.asSet?.[more];
    }
  }
  if (what === 'people' && plain.ok)
    for (const person of plain.value.people) {
      delete person.resource;
      delete person.size;
      delete person.phone;
      delete person.lists;
      delete person.next;
      for (const one of person.further) {
        one.sight = one.rights.sight;
        for (const more of ['rights', 'through', 'until', 'next']) delete one[more];
      }
    }
  if (what === 'sightlines' && plain.ok) {
    // Since then there are lists of tasks too, and address books.
    const { value } = plain;
    value.others = value.others.filter(({ kind }: { kind: string }) => kind === 'calendar');
    for (const one of [value.calendar, ...value.others]) delete one.kind;
    delete plain.value.told;
    for (const row of plain.value.rows) {
      delete row.shown;
      for (const grant of row.grants) {
        delete grant.heard;
        delete grant.hanging;
      }
    }
  }
  if (what === 'notices' && plain.ok) delete plain.value.findings;
  if (what === 'history' && plain.ok)
    for (const entry of plain.value.entries) {
      delete entry.hands;
      delete entry.ended;
    }
  if (what === 'frame') {
    delete plain.me.dateOrder;
    delete plain.me.workHours;
    delete plain.me.secondZone;
    delete plain.me.phone;
    delete plain.me.language;
    delete plain.me.colour;
    for (const one of plain.principals) {
      delete one.tasks;
      delete one.contacts;
      delete one.further;
    }
    delete plain.tasksAsked;
    delete plain.findings;
    delete plain.hands;
  }
  return plain;
}
