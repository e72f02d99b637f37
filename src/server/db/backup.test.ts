import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { backUp, restore } from './backup.ts';
import { type Connection, openAccountsFile, openDatabase } from './index.ts';

let folder: string;
let db: Connection;
let accounts: Database.Database;
const data = (): string => join(folder, 'data');
const file = (): string => join(folder, 'copy.db');

/** A pair that is always written together: a person here, an account there, by one number. */
let pairs = 0;
function addPair(): void {
  pairs += 1;
  // The accounts' file first, as the product does: whoever has a person always has an account.
  accounts.prepare('INSERT INTO account_row (id, text) VALUES (?, ?)').run(pairs, 'x'.repeat(2000));
  db.run('INSERT INTO calendar_text (id, text) VALUES (?, ?)', pairs, 'y'.repeat(2000));
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'paramo-backup-'));
  db = openDatabase(data());
  accounts = openAccountsFile(data());
  accounts.exec('CREATE TABLE account_row (id INTEGER PRIMARY KEY, text TEXT)');
  db.raw.exec('CREATE TABLE calendar_text (id INTEGER PRIMARY KEY, text TEXT)');
  pairs = 0;
  for (let i = 0; i < 3000; i++) addPair();
});

afterEach(() => {
  db.raw.close();
  accounts.close();
  rmSync(folder, { recursive: true, force: true });
});

const idsIn = (name: string, table: string): number[] => {
  const raw = new Database(name, { readonly: true });
  const ids = raw.prepare(`SELECT id FROM ${table} ORDER BY id`).pluck().all() as number[];
  raw.close();
  return ids;
};

describe('a backup', () => {
  it('holds both files as they stood at one instant, while others write', async () => {
    let done = false;
    let during = 0;
    const writer = (async () => {
      while (!done) {
        addPair();
        during += 1;
        await new Promise((r) => setImmediate(r));
      }
    })();
    await backUp(data(), file());
    done = true;
    await writer;
    expect(during).toBeGreaterThan(3);
    expect(readdirSync(folder).sort()).toEqual(['copy.db', 'data']);
    expect(statSync(file()).mode & 0o777).toBe(0o600);

    const elsewhere = join(folder, 'elsewhere');
    const facts = restore(file(), elsewhere);
    expect(facts.step).toBeGreaterThan(0);
    expect(readdirSync(elsewhere).sort()).toEqual(['accounts.db', 'paramo.db']);
    const here = idsIn(join(elsewhere, 'paramo.db'), 'calendar_text');
    const there = idsIn(join(elsewhere, 'accounts.db'), 'account_row');
    expect(here).toEqual(there);
    expect(here.length).toBeGreaterThanOrEqual(3000);
    expect(here.length).toBeLessThan(pairs);
    // What was restored is data like any other: it opens, is up to date and holds nothing of the backup's own.
    const opened = openDatabase(elsewhere);
    expect(opened.raw.pragma('integrity_check', { simple: true })).toBe('ok');
    expect(opened.all("SELECT name FROM sqlite_schema WHERE name LIKE 'backup%'")).toEqual([]);
    opened.raw.close();
  });

  it('overwrites nothing, and says what is missing', async () => {
    writeFileSync(file(), 'mine');
    await expect(backUp(data(), file())).rejects.toThrow('exists already');
    expect(readFileSync(file(), 'utf8')).toBe('mine');
    await expect(backUp(join(folder, 'nowhere'), join(folder, 'b.db'))).rejects.toThrow('PARAMO_DATA');
    await expect(backUp(data(), join(folder, 'no', 'b.db'))).rejects.toThrow('Make it first');
  });

  it('is restored into an empty folder alone, whole or not at all', async () => {
    await backUp(data(), file());
    expect(() => restore(file(), data())).toThrow("isn't empty");
    const bytes = readFileSync(file());
    // Not a database, cut short, a byte of the accounts changed, a database of somebody else's.
    const wrong = join(folder, 'wrong.db');
    const at = bytes.indexOf(Buffer.from('x'.repeat(1500)));
    const changed = Buffer.from(bytes);
    changed[at + 700] = 0x7a;
    for (const content of [Buffer.from('nothing'), bytes.subarray(0, bytes.length / 2), changed]) {
      writeFileSync(wrong, content);
      expect(() => restore(wrong, join(folder, 'target'))).toThrow("isn't a whole backup");
      expect(existsSync(join(folder, 'target'))).toBe(false);
    }
    expect(() => restore(join(data(), 'accounts.db'), join(folder, 'target'))).toThrow("isn't a whole backup");
    expect(() => restore(join(folder, 'no.db'), join(folder, 'target'))).toThrow('There is no');
  });
});
