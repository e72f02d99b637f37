import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { must, ok, type Result, refuse } from '../result.ts';
import { type Connection, openDatabase } from './index.ts';

let folder: string;
let db: Connection;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'paramo-connection-'));
  db = openDatabase(folder);
  db.raw.exec('CREATE TABLE noted (word TEXT NOT NULL)');
});
afterEach(() => {
  db.raw.close();
  rmSync(folder, { recursive: true, force: true });
});

const note = (name: string) => db.run('INSERT INTO noted (word) VALUES (?)', name);
const noted = () => db.all<{ word: string }>('SELECT word FROM noted ORDER BY rowid').map((row) => row.word);

test('a write that comes to a refusal, returned or thrown, writes nothing and says so to nobody', () => {
  const told: string[] = [];
  const refused = (how: 'returned' | 'thrown'): Result<number> =>
    db.write((): Result<number> => {
      note(how);
      db.afterWriting(() => told.push(how));
      return how === 'returned' ? refuse('notFound') : ok(must<number>(refuse('notFound')));
    });
  expect([refused('returned'), refused('thrown')]).toMatchObject([{ code: 'notFound' }, { code: 'notFound' }]);
  expect([noted(), told]).toEqual([[], []]);
});

test('a part that is refused is taken back alone where the whole goes on, and takes the whole with it where it doesn’t', () => {
  const whole = (goesOn: boolean) =>
    db.write((): Result<string> => {
      note('whole');
      const part = db.write((): Result<string> => {
        note('part');
        return refuse('notFound');
      });
      return goesOn ? ok('done') : part;
    });
  expect([whole(false), noted()]).toMatchObject([{ code: 'notFound' }, []]);
  expect([whole(true), noted()]).toMatchObject([{ ok: true }, ['whole']]);
});

test('what is to stay stays written once, whether what it is part of is written or refused', () => {
  const write = (name: string, refuses: boolean) =>
    db.write((): Result<string> => {
      db.write((): Result<string> => {
        db.evenIfRefused(() => note(`${name} tried`));
        return refuses ? refuse('notFound') : ok(name);
      });
      note(name);
      return refuses ? refuse('notFound') : ok(name);
    });
  write('a', true);
  write('b', false);
  expect(noted()).toEqual(['a tried', 'b tried', 'b']);
});

test('what fails once a write is there takes nothing of it back, and keeps nothing else from being done', () => {
  const told: string[] = [];
  const done = db.write((): Result<string> => {
    note('written');
    db.afterWriting(() => {
      throw new Error('nobody hears this');
    });
    db.afterWriting(() => told.push('told'));
    return ok('done');
  });
  expect([done, noted(), told]).toMatchObject([{ ok: true }, ['written'], ['told']]);
});
