import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { type ZoneDefinition, zonesFrom } from '@/core/time/index.ts';
import { log } from '../log.ts';
import { Refused, refusalOf } from '../result.ts';
import { settings } from '../settings.ts';
import { migrate } from './migrate.ts';

/** One connection to a SQLite file; statements are prepared once and kept. */
export class Connection {
  private readonly statements = new Map<string, Database.Statement>();
  private readonly rawStatements = new Map<string, Database.Statement>();
  private readonly afterwards: (() => void)[] = [];
  /**
   * A write that stays even where the transaction around it is rolled back; `undone` says that it was, so that it has to be written again.
   */
  private readonly staying: { readonly work: () => void; undone: boolean }[] = [];
  /** The data folder the file stands in. */
  readonly folder: string;
  constructor(readonly raw: Database.Database) {
    this.folder = dirname(raw.name);
  }

  private statement(text: string): Database.Statement {
    let found = this.statements.get(text);
    if (!found) {
      found = this.raw.prepare(text);
      this.statements.set(text, found);
    }
    return found;
  }

  all<Row>(text: string, ...values: unknown[]): Row[] {
    return this.statement(text).all(...values) as Row[];
  }

  /** Rows as arrays of values in the order of the columns: half the cost of objects where there are many. */
  arrays<Row extends readonly unknown[]>(text: string, ...values: unknown[]): Row[] {
    let found = this.rawStatements.get(text);
    if (!found) {
      found = this.raw.prepare(text).raw();
      this.rawStatements.set(text, found);
    }
    return found.all(...values) as Row[];
  }

  get<Row>(text: string, ...values: unknown[]): Row | undefined {
    return this.statement(text).get(...values) as Row | undefined;
  }

  /** Runs a writing statement; returns the rowid of what it added. */
  run(text: string, ...values: unknown[]): number {
    return Number(this.statement(text).run(...values).lastInsertRowid);
  }

  /** Runs a writing statement; returns how many rows it changed. */
  changes(text: string, ...values: unknown[]): number {
    return this.statement(text).run(...values).changes;
  }

  /**
   * Runs work in one transaction: all of it is written, or, where it throws or comes to a refusal, none. A refusal is answered, whether it was
   * returned or thrown (`Refused`). Work is synchronous.
   */
  write<T>(work: () => T): T {
    const waiting = this.afterwards.length;
    const stayed = this.staying.length;
    let done: T;
    try {
      done = this.raw
        .transaction(() => {
          const value = work();
          const refusal = refusalOf(value);
          if (refusal) throw new Refused(refusal);
          return value;
        })
        .immediate();
    } catch (error) {
      // Work left for after the commit is dropped where its part is rolled back.
      this.afterwards.length = waiting;
      for (const one of this.staying.slice(stayed)) one.undone = true;
      if (!this.raw.inTransaction) this.writeWhatStays();
      const refusal = refusalOf(error);
      if (refusal) return refusal as T;
      throw error;
    }
    if (!this.raw.inTransaction) {
      this.writeWhatStays();
      for (const then of this.afterwards.splice(0)) afterwards(then);
    }
    return done;
  }

  /** Reads in one transaction, so that all of it is of one instant, and no statement opens one of its own. Work is synchronous, and writes nothing. */
  read<T>(work: () => T): T {
    return this.raw.inTransaction ? work() : this.raw.transaction(work).deferred();
  }

  /** Writes something that stays written even where the write it is part of is refused: that a code was tried, say. */
  evenIfRefused(work: () => void): void {
    work();
    if (this.raw.inTransaction) this.staying.push({ work, undone: false });
  }

  private writeWhatStays(): void {
    const undone = this.staying.splice(0).filter((one) => one.undone);
    if (undone.length > 0) this.raw.transaction(() => undone.forEach((one) => void one.work())).immediate();
  }

  /**
   * Does something once what is being written is there for others to read; at once where nothing is being written. Where it fails, that is
   * logged: the write is done, and is answered so.
   */
  afterWriting(then: () => void): void {
    if (this.raw.inTransaction) this.afterwards.push(then);
    else afterwards(then);
  }
}

function afterwards(then: () => void): void {
  try {
    then();
  } catch (error) {
    log().error({ error: error instanceof Error ? error.stack : String(error) }, 'failed after a write');
  }
}

/** Opens (or makes) the file in a folder with the settings every connection here has; brings it up to date where it isn't said to be. */
export function openDatabase(folder: string, upToDate = false): Connection {
  mkdirSync(folder, { recursive: true });
  const raw = new Database(join(folder, 'paramo.db'));
  raw.pragma('journal_mode = WAL');
  raw.pragma('synchronous = FULL');
  raw.pragma('foreign_keys = ON');
  raw.pragma('busy_timeout = 5000');
  if (!upToDate) migrate(raw, folder);
  const db = new Connection(raw);
  zonesIn(db);
  return db;
}

/** Has the zones that a file named looked up in a database: a name is made of its definition's digest, so whichever has it means the same by it. */
function zonesIn(db: Connection): void {
  zonesFrom((name) => {
    const row = db.raw.open
      ? db.get<{ definition: string }>('SELECT definition FROM zone_definition WHERE name = ?', name)
      : undefined;
    return row ? (JSON.parse(row.definition) as ZoneDefinition) : null;
  });
}

const holder = globalThis as { paramoDatabase?: Connection };
/** Whether the zones of these modules are looked up in it: pages and the API are bundles of their own, with one connection between them. */
let zonesAreIn = false;

/** The process's connection, opened on first use. */
export function database(): Connection {
  holder.paramoDatabase ??= openDatabase(settings().data);
  if (!zonesAreIn) zonesIn(holder.paramoDatabase);
  zonesAreIn = true;
  return holder.paramoDatabase;
}

/** Whether a connection is the process's own, whose data other threads of it open too. */
export const isOwn = (db: Connection): boolean => db === holder.paramoDatabase;

/** Opens a SQLite file of its own for the sign-in library, which wants an unwrapped handle. */
export function openAccountsFile(folder: string): Database.Database {
  mkdirSync(folder, { recursive: true });
  const raw = new Database(join(folder, 'accounts.db'));
  raw.pragma('journal_mode = WAL');
  raw.pragma('busy_timeout = 5000');
  return raw;
}
