import { ok, type Result, refuse } from '../result.ts';
import { auth, tokens } from './auth.ts';
import { type Limiter, limiter } from './limiter.ts';

/** Makes an account that may sign in with a password; answers its id. */
export async function makeAccount(address: string, name: string, password: string): Promise<string> {
  const { internalAdapter, password: hasher } = await (await auth()).$context;
  const user = await internalAdapter.createUser({ email: address, name, emailVerified: true }, { method: 'admin' });
  await internalAdapter.linkAccount({
    userId: user.id,
    providerId: 'credential',
    accountId: user.id,
    password: await hasher.hash(password),
  });
  return user.id;
}

/** Makes an account that has no password: whoever is to use it comes in by a single-use address. Answers the one there is. */
export async function makeBareAccount(address: string, name: string): Promise<string> {
  const { internalAdapter } = await (await auth()).$context;
  const known = await internalAdapter.findUserByEmail(address);
  if (known) return known.user.id;
  const user = await internalAdapter.createUser({ email: address, name, emailVerified: true }, { method: 'admin' });
  return user.id;
}

const taken = (name: string): string => {
  const token = tokens.get(name);
  tokens.delete(name);
  if (!token) throw new Error('the sign-in library made no token');
  return token;
};

/** A token by which an account chooses a new password, once, within a day. */
export async function makePasswordToken(address: string): Promise<string> {
  await (await auth()).api.requestPasswordReset({ body: { email: address } });
  return taken(`password ${address}`);
}

/** Sets a password by such a token and ends every session of before. Refused where the token is spent, old or made up. */
export async function spendPasswordToken(token: string, password: string): Promise<Result<{ done: true }>> {
  try {
    await (await auth()).api.resetPassword({ body: { token, newPassword: password } });
    return ok({ done: true });
  } catch {
    return refuse('wayInGone');
  }
}

/** A token by which somebody outside comes in, once, within a day. */
export async function makeGuestToken(address: string): Promise<string> {
  await (await auth()).api.signInMagicLink({ body: { email: address }, headers: new Headers() });
  return taken(`guest ${address}`);
}

/** Opens a session by such a token; the answer carries its cookie. Refused where the token is spent, old or made up. */
export async function spendGuestToken(token: string, headers: Headers): Promise<Result<{ cookies: string[] }>> {
  const answer = await (await auth()).api.magicLinkVerify({ query: { token }, headers, asResponse: true });
  return answer.ok ? ok({ cookies: answer.headers.getSetCookie() }) : refuse('wayInGone');
}

/** Whether an account has a password to sign in with. */
export async function hasPassword(account: string): Promise<boolean> {
  const { internalAdapter } = await (await auth()).$context;
  return (await internalAdapter.findAccounts(account)).some((a) => a.providerId === 'credential');
}

/** Takes an account away with its sessions: for when somebody leaves, or the rest of adding them failed. */
export async function dropAccount(id: string): Promise<void> {
  const { internalAdapter } = await (await auth()).$context;
  await internalAdapter.deleteUser(id);
}

/** The account a request's session belongs to; `null` without a session that holds. */
export async function accountOf(headers: Headers): Promise<string | null> {
  const session = await (await auth()).api.getSession({ headers });
  return session?.user.id ?? null;
}

/** How many wrong passwords an account, and an address on the network, may see in a quarter of an hour. */
const perAccount: Limiter = limiter(8, 15 * 60_000);
const perNetwork: Limiter = limiter(100, 15 * 60_000);

/**
 * Signs in; the answer carries the session's cookie. A wrong password and an unknown address take the same way and the
 * same time, and too many of either are refused for a while.
 */
export async function signIn(
  address: string,
  password: string,
  headers: Headers,
  at: number,
): Promise<Result<{ cookies: string[] }>> {
  const network = headers.get('x-forwarded-for') ?? '';
  if (!perAccount.may(address, at) || !perNetwork.may(network, at)) return refuse('tooManyTries');
  const answer = await (await auth()).api.signInEmail({
    body: { email: address, password },
    headers,
    asResponse: true,
  });
  if (!answer.ok) {
    perAccount.count(address, at);
    perNetwork.count(network, at);
    return refuse('wrongPassword');
  }
  perAccount.clear(address);
  return ok({ cookies: answer.headers.getSetCookie() });
}

/** Ends the request's session; the answer takes its cookie away. */
export async function signOut(headers: Headers): Promise<{ cookies: string[] }> {
  const answer = await (await auth()).api.signOut({ headers, asResponse: true });
  return { cookies: answer.headers.getSetCookie() };
}

/** One of a person's sessions. The token itself never leaves the server. */
export interface SessionLine {
  readonly id: string;
  readonly since: string;
  readonly browser: string;
  readonly current: boolean;
}

export async function sessionsOf(headers: Headers): Promise<SessionLine[]> {
  const api = (await auth()).api;
  const current = await api.getSession({ headers });
  const all = await api.listSessions({ headers });
  return all.map((s) => ({
    id: s.id,
    since: s.createdAt.toISOString(),
    browser: s.userAgent ?? '',
    current: s.id === current?.session.id,
  }));
}

/** Withdraws one of one's own sessions: whoever uses it is signed out at their next request. */
export async function withdrawSession(headers: Headers, id: string): Promise<Result<{ done: true }>> {
  const api = (await auth()).api;
  const found = (await api.listSessions({ headers })).find((s) => s.id === id);
  if (!found) return refuse('notFound');
  await api.revokeSession({ headers, body: { token: found.token } });
  return ok({ done: true });
}
