import { sessionOf, signOut, withdrawSession } from '../../auth/accounts.ts';
import { type Connection, database } from '../../db/index.ts';
import { hub } from '../../live/hub.ts';
import { type Person, personByAccount, personByHandle } from '../../repositories/people.ts';
import type { Token } from '../../repositories/tokens.ts';
import type { Result } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { tokenIn } from './tokens.ts';

/** Who asks, and what they came in by: a window's session, or a program's token. */
export interface SignedIn {
  readonly person: Person;
  readonly session: string | null;
  readonly token: Token | null;
}

/**
 * Who asks, by the session of a request or by its token; `null` where neither holds. A request with a token is that token's, whatever cookie
 * it carries besides.
 */
export async function signedIn(headers: Headers): Promise<SignedIn | null> {
  const authorization = headers.get('authorization');
  if (authorization !== null) {
    const found = tokenIn(database(), authorization);
    return found && { person: found.person, session: null, token: found.token };
  }
  return inWindow(headers);
}

/** Who asks by the session of a request, for a page: those are for windows, and no token opens one. `null` without a session that holds. */
export async function inWindow(headers: Headers): Promise<SignedIn | null> {
  const found = await sessionOf(headers);
  const person = found && personByAccount(database(), found.account);
  return found && person ? { person, session: found.session, token: null } : null;
}

/** The person whose window asks for a page; `null` without a session that holds. */
export async function personOf(headers: Headers): Promise<Person | null> {
  return (await inWindow(headers))?.person ?? null;
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
