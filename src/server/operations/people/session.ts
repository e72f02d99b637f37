import { sessionOf, signOut, withdrawSession } from '../../auth/accounts.ts';
import { type Connection, database } from '../../db/index.ts';
import { hub } from '../../live/hub.ts';
import { type Person, personByAccount, personByHandle } from '../../repositories/people.ts';
import type { Result } from '../../result.ts';
import type { Context } from '../deciding/index.ts';

/** Who a request's session belongs to, and which session that is; `null` without a session that holds. */
export async function signedIn(headers: Headers): Promise<{ person: Person; session: string } | null> {
  const found = await sessionOf(headers);
  const person = found && personByAccount(database(), found.account);
  return found && person ? { person, session: found.session } : null;
}

/** The person a request's session belongs to; `null` without a session that holds. */
export async function personOf(headers: Headers): Promise<Person | null> {
  return (await signedIn(headers))?.person ?? null;
}

/** A person's address by handle, for stepping in as a sample person. */
export function addressOf(handle: string): string | null {
  return personByHandle(database(), handle)?.address ?? null;
}

/** A person of the directory by handle. */
export function findPerson(db: Connection, handle: string): Person | null {
  return personByHandle(db, handle);
}

/** Ends a request's session; its open windows hear nothing more. The answer takes the session's cookie away. */
export async function signOutHere(headers: Headers): Promise<{ cookies: string[] }> {
  const here = await signedIn(headers);
  const answer = await signOut(headers);
  if (here) hub().end(here.person.id, here.session);
  return answer;
}

/** Withdraws one of one's own sessions: whoever uses it is signed out at their next request, and its windows hear nothing more. */
export async function withdrawOwnSession(ctx: Context, headers: Headers, id: string): Promise<Result<{ done: true }>> {
  const answer = await withdrawSession(headers, id);
  if (answer.ok) hub().end(ctx.viewer.id, id);
  return answer;
}
