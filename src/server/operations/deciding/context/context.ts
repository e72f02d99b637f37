import { now } from '../../../clock.ts';
import { type Connection, database } from '../../../db/index.ts';
import type { Person } from '../../../repositories/people.ts';

/** What every operation is given: the data, the instant of the request, and who is signed in. */
export interface Context {
  readonly db: Connection;
  readonly now: number;
  readonly viewer: Person;
  /** The session the request came with; `null` where something else than a window asks. */
  readonly session?: string | null;
  /** The token the request came with, and the one calendar it is limited to (a row number), if any. */
  readonly token?: { readonly key: string; readonly only: number | null } | null;
  /**
   * Whom outside a meeting goes to for the first time by this write, by their addresses, with their names. Collected only where the viewer
   * wants to be asked first: the write is then refused (`unlessItLeaves`).
   */
  readonly leaving?: Map<string, string> | null;
}

/** A context for a person at this instant. */
export function contextFor(
  viewer: Person,
  db: Connection = database(),
  session: string | null = null,
  token: Context['token'] = null,
): Context {
  return { db, now: now(), viewer, session, token };
}
