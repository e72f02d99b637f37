import { spendGuestToken } from '../auth/accounts.ts';
import { limiter } from '../auth/limiter.ts';
import { now } from '../clock.ts';
import { database } from '../db/index.ts';
import { newKey } from '../ids.ts';
import { calendarsNaming } from '../repositories/grants.ts';
import { insertOutgoing } from '../repositories/outbox.ts';
import { personByAddress } from '../repositories/people.ts';
import { ok, type Result, refuse } from '../result.ts';

const QUARTER = 15 * 60_000;
const perAddress = limiter(5, QUARTER);
const perNetwork = limiter(30, QUARTER);

/**
 * Puts a letter with a way in on its way, where the address is of somebody outside who was given something. The answer is the
 * same for every address, so that it confirms nothing; too many are refused for a while.
 */
export function askWayIn(address: string, headers: Headers): Result<{ done: true }> {
  const at = now();
  const network = headers.get('x-forwarded-for') ?? '';
  if (!perAddress.may(address, at) || !perNetwork.may(network, at)) return refuse('tooManyTries');
  perAddress.count(address, at);
  perNetwork.count(network, at);
  const db = database();
  const person = personByAddress(db, address);
  if (person && !person.inside && calendarsNaming(db, person.id).length > 0)
    db.write(() =>
      insertOutgoing(db, {
        key: newKey(),
        at,
        personId: person.id,
        kind: 'wayIn',
        calendarId: null,
        grantId: null,
        byId: null,
        note: '',
      }),
    );
  return ok({ done: true });
}

/** Comes in by a letter's single-use address; too many that don't hold are refused for a while. */
export async function comeIn(token: string, headers: Headers): Promise<Result<{ cookies: string[] }>> {
  const at = now();
  const network = headers.get('x-forwarded-for') ?? '';
  if (!perNetwork.may(network, at)) return refuse('tooManyTries');
  const result = await spendGuestToken(token, headers);
  if (!result.ok) perNetwork.count(network, at);
  return result;
}
