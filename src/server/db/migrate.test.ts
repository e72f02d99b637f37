import { cpSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { migrate } from './migrate.ts';

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
