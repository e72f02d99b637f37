import { createHash } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readSync,
  renameSync,
  rmdirSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import Database from 'better-sqlite3';

/*
 * A backup is one SQLite file that holds paramo.db, accounts.db and the files at items in pieces, with a digest of all their bytes. Both
 * databases are as they stood at one instant, so that no account is without its person and no person without their account; the server goes
 * on writing. A file at an item is there before its row is and never changes, so those that the copied rows name are read afterwards.
 */

const NAMES = ['paramo.db', 'accounts.db'] as const;
/** Bytes of a file in one row. */
const PIECE = 1_000_000;
/** Pages copied before others get a turn. */
const PAGES = 500;

/** What a backup holds, as it was checked. */
export interface BackupFacts {
  readonly bytes: number;
  readonly people: number;
  readonly items: number;
  /** The migration the data stands at. */
  readonly step: number;
}

/** A sentence for whoever ran the command. */
export class BackupRefused extends Error {}

/**
 * Writes what a data folder holds to one file while the server runs, and checks what was written before it gets its name.
 * Throws `BackupRefused` where there is no data, where the file exists already, or where what was written isn't whole.
 */
export async function backUp(data: string, file: string): Promise<BackupFacts> {
  for (const name of NAMES)
    if (!existsSync(join(data, name)))
      throw new BackupRefused(`There is no ${join(data, name)}. Say with PARAMO_DATA where the data stands.`);
  if (existsSync(file)) throw new BackupRefused(`${file} exists already. Name another file, or remove it first.`);
  const folder = dirname(resolve(file));
  if (!existsSync(folder)) throw new BackupRefused(`There is no folder ${folder}. Make it first.`);
  const work = `${resolve(file)}.part`;
  rmSync(work, { recursive: true, force: true });
  mkdirSync(work, { mode: 0o700 });
  try {
    const readers = atOneInstant(data);
    try {
      for (const name of NAMES) await readers[name].backup(join(work, name), { progress: () => PAGES });
    } finally {
      for (const name of NAMES) readers[name].close();
    }
    const facts = check(work);
    pack(work, join(work, 'whole'), data);
    // Whoever can read it reads everything.
    chmodSync(join(work, 'whole'), 0o600);
    sync(join(work, 'whole'));
    renameSync(join(work, 'whole'), file);
    sync(folder);
    return { ...facts, bytes: statSync(file).size };
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

/**
 * Puts a backup's files into a folder that is empty or not there yet, whole or not at all.
 * Throws `BackupRefused` where the folder holds something or the file isn't a whole backup.
 */
export function restore(file: string, data: string): BackupFacts {
  if (!existsSync(file)) throw new BackupRefused(`There is no ${file}.`);
  if (existsSync(data) && readdirSync(data).length > 0)
    throw new BackupRefused(
      `${data} isn't empty, and nothing in it is overwritten. Name an empty folder with PARAMO_DATA.`,
    );
  const made = mkdirSync(data, { recursive: true, mode: 0o700 }) !== undefined;
  // Inside the folder, which may be a disk of its own; the files get their names once all of it is there and sound.
  const work = join(data, '.restoring');
  mkdirSync(work);
  try {
    unpack(file, work);
    const facts = check(work);
    for (const name of NAMES) sync(join(work, name));
    if (existsSync(join(work, 'files'))) renameSync(join(work, 'files'), join(data, 'files'));
    for (const name of NAMES.toReversed()) renameSync(join(work, name), join(data, name));
    sync(data);
    return { ...facts, bytes: statSync(file).size };
  } catch (error) {
    rmSync(work, { recursive: true });
    if (made) rmdirSync(data);
    if (error instanceof NotWhole || error instanceof Database.SqliteError)
      throw new BackupRefused(`${file} isn't a whole backup of Paramo (${error.message}). Take another one.`);
    throw error;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

/** What is wrong with a file that is read through. */
class NotWhole extends Error {}

/** A reader of each file, both staying at one instant: nobody writes to either while they begin. */
function atOneInstant(data: string): Record<(typeof NAMES)[number], Database.Database> {
  const lock = new Database(join(data, 'paramo.db'));
  const readers: Database.Database[] = [];
  const begin = (name: string): Database.Database => {
    const reader = new Database(join(data, name), { readonly: true });
    readers.push(reader);
    reader.exec('BEGIN');
    reader.prepare('SELECT count(*) FROM sqlite_schema').get();
    return reader;
  };
  try {
    lock.pragma('busy_timeout = 30000');
    lock.prepare('ATTACH ? AS accounts').run(join(data, 'accounts.db'));
    lock.exec('BEGIN IMMEDIATE');
    return { 'paramo.db': begin('paramo.db'), 'accounts.db': begin('accounts.db') };
  } catch (error) {
    for (const reader of readers) reader.close();
    throw error;
  } finally {
    lock.close();
  }
}

/** Reads the files of a folder through: sound, nothing in them pointing at nothing. Leaves each without a journal beside it. */
function check(folder: string): Omit<BackupFacts, 'bytes'> {
  for (const name of NAMES) {
    const db = new Database(join(folder, name));
    try {
      db.pragma('journal_mode = DELETE');
      if (db.pragma('integrity_check', { simple: true }) !== 'ok') throw new NotWhole(`${name} in it is damaged`);
      if ((db.pragma('foreign_key_check') as unknown[]).length > 0)
        throw new NotWhole(`rows of ${name} in it point at nothing`);
    } finally {
      db.close();
    }
  }
  const main = new Database(join(folder, 'paramo.db'), { readonly: true });
  try {
    const count = (table: string): number => main.prepare(`SELECT count(*) FROM ${table}`).pluck().get() as number;
    const step = Number(main.pragma('user_version', { simple: true }));
    return { people: count('person'), items: count('item'), step };
  } finally {
    main.close();
  }
}

/** The files at items that a database names, by their digests. None in one of a step that had none. */
function filesNamed(folder: string): string[] {
  const db = new Database(join(folder, 'paramo.db'), { readonly: true });
  try {
    const has = db.prepare("SELECT 1 FROM sqlite_schema WHERE name = 'attachment'").get();
    if (!has) return [];
    return db.prepare('SELECT DISTINCT digest FROM attachment ORDER BY digest').pluck().all() as string[];
  } finally {
    db.close();
  }
}

const placeOf = (digest: string): string => join('files', digest.slice(0, 2), digest);

/** Packs the databases of a folder into one file, with the files they name of the data they were copied from. */
function pack(folder: string, file: string, data: string): void {
  const to = new Database(file);
  to.exec(`CREATE TABLE backup_piece (name TEXT, number INTEGER, bytes BLOB NOT NULL, PRIMARY KEY (name, number));
    CREATE TABLE backup_about (made INTEGER NOT NULL, digest TEXT NOT NULL)`);
  const digest = createHash('sha256');
  const insert = to.prepare('INSERT INTO backup_piece (name, number, bytes) VALUES (?, ?, ?)');
  to.transaction(() => {
    for (const name of NAMES) {
      digest.update(name);
      for (const [number, bytes] of piecesOf(join(folder, name))) {
        digest.update(bytes);
        insert.run(name, number, bytes);
      }
    }
    for (const name of filesNamed(folder).map(placeOf)) {
      if (!existsSync(join(data, name))) continue;
      digest.update(name);
      for (const [number, bytes] of piecesOf(join(data, name))) {
        digest.update(bytes);
        insert.run(name, number, bytes);
      }
    }
    to.prepare('INSERT INTO backup_about (made, digest) VALUES (?, ?)').run(Date.now(), digest.digest('hex'));
  })();
  to.close();
}

/** Unpacks them again. Throws where a byte isn't as it was packed. */
function unpack(file: string, folder: string): void {
  const from = new Database(file, { readonly: true });
  try {
    const about = from.prepare('SELECT digest FROM backup_about').get() as { digest: string } | undefined;
    const pieces = from.prepare('SELECT bytes FROM backup_piece WHERE name = ? ORDER BY number').pluck();
    const digest = createHash('sha256');
    // What stands beside the databases is named by a digest alone; any other name is nobody's of ours.
    const files = from.prepare('SELECT DISTINCT name FROM backup_piece ORDER BY name').pluck().all() as string[];
    const ours = files.filter((name) => /^files\/[0-9a-f]{2}\/[0-9a-f]{64}$/.test(name));
    for (const name of [...NAMES, ...ours]) {
      mkdirSync(dirname(join(folder, name)), { recursive: true, mode: 0o700 });
      const to = openSync(join(folder, name), 'w', 0o600);
      digest.update(name);
      try {
        for (const bytes of pieces.iterate(name) as Iterable<Buffer>) {
          digest.update(bytes);
          writeSync(to, bytes);
        }
        fsyncSync(to);
      } finally {
        closeSync(to);
      }
    }
    if (about?.digest !== digest.digest('hex')) throw new NotWhole('it is damaged');
  } finally {
    from.close();
  }
}

/** A file's bytes in pieces, numbered from 0. */
function* piecesOf(file: string): Generator<[number, Buffer]> {
  const from = openSync(file, 'r');
  try {
    for (let number = 0; ; number++) {
      const bytes = Buffer.alloc(PIECE);
      const read = readSync(from, bytes, 0, PIECE, null);
      if (read > 0) yield [number, bytes.subarray(0, read)];
      if (read < PIECE) return;
    }
  } finally {
    closeSync(from);
  }
}

/** Waits until the disk has what was written. */
function sync(path: string): void {
  const handle = openSync(path, 'r');
  fsyncSync(handle);
  closeSync(handle);
}
