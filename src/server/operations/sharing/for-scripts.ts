import type { Connection } from '../../db/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { insertChangeNote } from '../../repositories/change-notes.ts';
import { type Person, personByAddress } from '../../repositories/people.ts';
import { shareableByKey } from '../../repositories/shareables.ts';
import type { Context } from '../deciding/index.ts';

/** Somebody inside, by address; `null` for anybody else. */
export function personForScript(db: Connection, address: string): Person | null {
  const person = personByAddress(db, address.toLowerCase());
  return person?.inside ? person : null;
}

/** The key of a calendar by its owner's address (their main one), or of a calendar or a list by itself; `null` where there is none. */
export function calendarForScript(db: Connection, named: string): string | null {
  const owner = named.includes('@') ? personByAddress(db, named.toLowerCase()) : null;
  return (owner ? mainCalendarOf(db, owner.id) : shareableByKey(db, named))?.key ?? null;
}

/** Lets a server that runs on the same data know that the access to a calendar or a list was changed at this instant. */
export function tellOthers(ctx: Context, key: string): void {
  const shared = shareableByKey(ctx.db, key);
  if (shared) ctx.db.write(() => insertChangeNote(ctx.db, shared.id, ctx.now));
}
