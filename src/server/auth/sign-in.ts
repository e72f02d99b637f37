import { createHash, createHmac, hkdfSync, timingSafeEqual } from 'node:crypto';
import { newKey } from '../ids.ts';
import { ok, type Result, refuse } from '../result.ts';
import { settings } from '../settings.ts';
import { tryPassword } from './accounts.ts';
import { limiter } from './limiter.ts';

const QUARTER = 15 * 60_000;
/**
 * How many passwords may be tried in a quarter of an hour: on one account from one place, on one account from anywhere, from one place on
 * any account, and in a browser in which the person has signed in before. The last is counted apart, so that somebody else's guessing
 * doesn't shut the person out.
 */
const onAccountFromPlace = limiter(8, QUARTER);
const onAccount = limiter(60, QUARTER);
const fromPlace = limiter(100, QUARTER);
const inKnownBrowser = limiter(20, QUARTER);

const HALF_A_YEAR = 180 * 86_400;

/**
 * Signs in; the answer carries the session's cookie, and one by which this browser is known again. A wrong password and an unknown
 * address take the same way and the same time, and too many of either are refused for a while.
 */
export async function signIn(
  address: string,
  password: string,
  headers: Headers,
  at: number,
): Promise<Result<{ cookies: string[] }>> {
  const place = headers.get('x-forwarded-for') ?? '';
  const known = knownBrowser(address, headers);
  const counted: [ReturnType<typeof limiter>, string][] = known
    ? [[inKnownBrowser, known]]
    : [
        [onAccountFromPlace, `${place} ${address}`],
        [onAccount, address],
        [fromPlace, place],
      ];
  for (const [tries, name] of counted) if (!tries.take(name, at)) return refuse('tooManyTries');
  const cookies = await tryPassword(address, password, headers);
  if (!cookies) return refuse('wrongPassword');
  for (const [tries, name] of counted) tries.give(name);
  onAccountFromPlace.clear(`${place} ${address}`);
  return ok({ cookies: [...cookies, knownCookie(address, known ?? newKey())] });
}

let key: Buffer | null = null;
const proofOf = (address: string, id: string): Buffer => {
  key ??= Buffer.from(hkdfSync('sha256', settings().secret, '', 'paramo known browsers', 32));
  return createHmac('sha256', key).update(`${id} ${address}`).digest().subarray(0, 16);
};
const cookieName = (address: string): string =>
  `paramo.known-${createHash('sha256').update(address).digest('hex').slice(0, 12)}`;

/** The id under which this browser is known to an account's person; `null` where they never signed in there. */
function knownBrowser(address: string, headers: Headers): string | null {
  const name = `${cookieName(address)}=`;
  const value =
    (headers.get('cookie') ?? '')
      .split(/; */)
      .find((c) => c.startsWith(name))
      ?.slice(name.length) ?? '';
  const [id = '', proof = ''] = value.split('.');
  const given = Buffer.from(proof, 'base64url');
  const right = proofOf(address, id);
  return given.length === right.length && timingSafeEqual(given, right) ? id : null;
}

function knownCookie(address: string, id: string): string {
  const secure = settings().address.startsWith('https:') ? '; Secure' : '';
  const value = `${id}.${proofOf(address, id).toString('base64url')}`;
  return `${cookieName(address)}=${value}; Path=/api; Max-Age=${HALF_A_YEAR}; HttpOnly; SameSite=Lax${secure}`;
}
