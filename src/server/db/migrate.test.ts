import { cpSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { migrate } from './migrate.ts';
import { endRulesOnWallClock } from './rule-ends.ts';

let folder: string;
let steps: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'paramo-migrate-'));
  steps = join(folder, 'steps');
  cpSync(join(process.cwd(), 'src/server/db/migrations'), steps, { recursive: true });
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const open = () => new Database(join(folder, 'paramo.db'));
const files = () => readdirSync(steps).length;
const backups = () => readdirSync(folder).filter((name) => name.startsWith('paramo.before-'));
const next = (text: string) => writeFileSync(join(steps, `${String(files() + 1).padStart(4, '0')}_next.sql`), text);

describe('migrations', () => {
  test('run once each, in order; data that was there is copied first', () => {
    const raw = open();
    migrate(raw, folder, steps);
    expect(backups()).toEqual([]);
    migrate(raw, folder, steps);
    next('CREATE TABLE extra (a INTEGER) STRICT;');
    migrate(raw, folder, steps);
    expect(raw.pragma('user_version', { simple: true })).toBe(files());
    expect(backups()).toHaveLength(1);
    const copy = new Database(join(folder, backups()[0] as string), { readonly: true });
    expect(copy.pragma('integrity_check', { simple: true })).toBe('ok');
    expect(copy.pragma('user_version', { simple: true })).toBe(files() - 1);
    copy.close();
    raw.close();
  });

  test('one that fails halfway leaves nothing of itself', () => {
    const raw = open();
    migrate(raw, folder, steps);
    const version = raw.pragma('user_version', { simple: true });
    next('CREATE TABLE half (a INTEGER) STRICT; INSERT INTO nowhere VALUES (1);');
    expect(() => migrate(raw, folder, steps)).toThrow('nowhere');
    expect(raw.pragma('user_version', { simple: true })).toBe(version);
    expect(raw.prepare("SELECT count(*) AS n FROM sqlite_schema WHERE name = 'half'").get()).toEqual({ n: 0 });
    raw.close();
  });

  test('a file of five steps comes through the sixth with nothing lost', () => {
    const all = readdirSync(steps).sort();
    for (const name of all.slice(5)) rmSync(join(steps, name));
    const raw = open();
    migrate(raw, folder, steps);
    raw.exec(`
      INSERT INTO person (id, key, handle, name, address, zone, inside, created_at) VALUES
        (1, 'p1', 'ines', 'Inés', 'ines@cloudmoor.example', 'Europe/Lisbon', 1, 1),
        (2, 'p2', 'tomas', 'Tomas', 'tomas@cloudmoor.example', 'Europe/Lisbon', 1, 1),
        (3, 'p3', 'marta', 'Marta, the auditor', 'marta@quill.example', 'Europe/Lisbon', 0, 1);
      INSERT INTO calendar (id, key, owner_id, name, zone, main, indexed_until) VALUES (1, 'c1', 1, 'Inés', 'Europe/Lisbon', 1, 1900000000000);
      INSERT INTO access_grant (id, key, calendar_id, audience, person_id, sight, may_add, may_change, may_remove, suggest, private, speaks,
        copies, shares, given_by, given_for, recorded_from) VALUES (1, 'g1', 1, 'person', 3, 'busy', 0, 'none', 'none', 0, 0, 0, 0, 0, 1, 1, 5);
      INSERT INTO notice (id, key, person_id, at, kind, calendar_id, grant_id, by_id, note) VALUES (1, 'n1', 3, 6, 'given', 1, 1, 1, 'Hello');
      INSERT INTO outbox (id, key, at, person_id, kind, next_try) VALUES (1, 'o1', 6, 3, 'wayIn', 6);`);
    const item =
      raw.prepare(`INSERT INTO item (id, key, calendar_id, uid, series_id, recurrence, start, finish, all_day, zone, rule, title,
      kind, importance, shows, visibility, cancelled, version, created_by, created_for, created_at, changed_by, changed_for, changed_at)
      VALUES (?, ?, 1, ?, ?, ?, 1800000000000, 1800003600000, 0, 'UTC', ?, ?, 'meeting', 'normal', 'busy', 'follow', 0, 1, 1, 1, 1, 1, 1, 1)`);
    item.run(1, 'i1', 'series', null, null, 'FREQ=WEEKLY;UNTIL=20270329T160000Z', 'Series');
    item.run(2, 'i2', 'series', 1, '2027-01-22T08:00:00', null, 'Moved');
    item.run(3, 'i3', 'gone#2027-01-22T08:00:00', null, null, null, 'Without its series');
    item.run(4, 'i4', 'plain#text', null, null, null, 'Plain');
    raw.exec(`INSERT INTO occurrence VALUES (1, 1800000000000, 1, 1800003600000), (1, 1800000000001, 3, 1800003600000);
      INSERT INTO suggestion (key, calendar_id, person_id, at, kind, item_id, body) VALUES ('s1', 1, 2, 7, 'remove', 3, '{}');`);
    for (const name of all.slice(5)) cpSync(join(process.cwd(), 'src/server/db/migrations', name), join(steps, name));
    migrate(raw, folder, steps);
    expect(raw.pragma('foreign_key_check')).toEqual([]);
    expect(raw.pragma('foreign_keys', { simple: true })).toBe(1);
    expect(raw.pragma('integrity_check', { simple: true })).toBe('ok');
    expect(raw.prepare('SELECT id, uid, series_id, recurrence, title, kept FROM item ORDER BY id').raw().all()).toEqual(
      [
        [1, 'series', null, null, 'Series', '[]'],
        [2, 'series', 1, '2027-01-22T08:00:00', 'Moved', '[]'],
        [3, 'gone', null, '2027-01-22T08:00:00', 'Without its series', '[]'],
        [4, 'plain#text', null, null, 'Plain', '[]'],
      ],
    );
    expect(raw.prepare('SELECT rule FROM item WHERE id = 1').raw().get()).toEqual([
      'FREQ=WEEKLY;UNTIL=20270329T160000',
    ]);
    expect(raw.prepare('SELECT kind, owner_id, note FROM notice').raw().all()).toEqual([['given', 1, 'Hello']]);
    expect(raw.prepare('SELECT name FROM outsider_name').raw().all()).toEqual([['Marta, the auditor']]);
    expect(raw.prepare('SELECT count(*) FROM occurrence').raw().get()).toEqual([2]);
    expect(raw.prepare('SELECT count(*) FROM outbox').raw().get()).toEqual([1]);
    expect(raw.prepare('SELECT item_id FROM suggestion').raw().all()).toEqual([[3]]);
    raw.close();
  });

  test('the ends of rules within what was said of meetings lose their Z, and instants beside them keep theirs', () => {
    const raw = open();
    migrate(raw, folder, steps);
    raw.pragma('foreign_keys = OFF');
    const put = raw.prepare('INSERT INTO meeting (calendar_id, uid, part, state, changed_at) VALUES (1, ?, ?, ?, 1)');
    const said = (z: string) =>
      JSON.stringify({
        at: '2027-03-01T10:00:00Z',
        times: [{ rule: `FREQ=WEEKLY;UNTIL=20270329T160000${z};BYDAY=MO` }],
      });
    put.run('a', 'organiser', said('Z'));
    put.run('b', 'attendee', said(''));
    endRulesOnWallClock(raw);
    expect(raw.prepare('SELECT state FROM meeting ORDER BY uid').raw().all()).toEqual([[said('')], [said('')]]);
    raw.close();
  });

  test('a file from a newer version is refused in words', () => {
    const raw = open();
    raw.pragma('user_version = 900');
    expect(() => migrate(raw, folder, steps)).toThrow(/newer version/);
    raw.close();
  });

  test('every table is strict', () => {
    const raw = open();
    migrate(raw, folder, steps);
    const loose = raw
      .prepare("SELECT name FROM pragma_table_list WHERE type = 'table' AND strict = 0 AND name NOT LIKE 'sqlite_%'")
      .all();
    expect(loose).toEqual([]);
    raw.close();
  });
});
