import { spendGuestToken } from '../../auth/accounts.ts';
import { limiter } from '../../auth/limiter.ts';
import { now } from '../../clock.ts';
import { database } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { calendarsNaming } from '../../repositories/grants.ts';
import { insertOutgoing } from '../../repositories/outbox.ts';
import { personByAccount, personByAddress } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';

const QUARTER = 15 * 60_000;
const perAddress = limiter(5, QUARTER);
const perNetwork = limiter(30, QUARTER);
const wrongTokens = limiter(30, QUARTER);

/**
 * Puts a letter with a way in on its way, where the address is of somebody outside who was given something. The answer is the
 * same for every address, so that it confirms nothing; too many are refused for a while.
 */
export function requestWayIn(address: string, headers: Headers): Result<{ done: true }> {
  const at = now();
  const network = headers.get('x-forwarded-for') ?? '';
  if (!perAddress.take(address, at) || !perNetwork.take(network, at)) return refuse('tooManyTries');
  const db = database();
  const person = personByAddress(db, address);
  if (person && !person.inside && calendarsNaming(db, person.id).length > 0)
    db.write(() =>
      insertOutgoing(db, {
        key: newKey(),
        at,
        personId: person.id,
        kind: 'wayIn',
        collectionId: null,
        grantId: null,
        byId: null,
        note: '',
      }),
    );
  return ok({ done: true });
}

/**
 * Comes in by a letter's single-use address; one that doesn't hold is refused, and too many of those for a while, which shuts out
 * nobody whose address does. A letter is dead for whoever belongs inside by now, and where nothing is shared with them any more.
 */
export async function comeIn(token: string, headers: Headers): Promise<Result<{ cookies: string[] }>> {
  const network = headers.get('x-forwarded-for') ?? '';
  const result = await spendGuestToken(token, headers);
  if (!result.ok) return wrongTokens.take(network, now()) ? result : refuse('tooManyTries');
  const { account, cookies, end } = result.value;
  const person = personByAccount(database(), account);
  if (person && !person.inside && calendarsNaming(database(), person.id).length > 0) return ok({ cookies });
  await end();
  return refuse('wayInGone');
}
