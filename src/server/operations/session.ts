import { accountOf } from '../auth/accounts.ts';
import { type Connection, database } from '../db/index.ts';
import { type Person, personByAccount, personByHandle } from '../repositories/people.ts';

/** The person a request's session belongs to; `null` without a session that holds. */
export async function personOf(headers: Headers): Promise<Person | null> {
  const account = await accountOf(headers);
  return account === null ? null : personByAccount(database(), account);
}

/** A person's address by handle, for stepping in as a sample person. */
export function addressOf(handle: string): string | null {
  return personByHandle(database(), handle)?.address ?? null;
}

/** A person of the directory by handle. */
export function findPerson(db: Connection, handle: string): Person | null {
  return personByHandle(db, handle);
}
