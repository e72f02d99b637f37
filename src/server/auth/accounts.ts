import { getSessionCookie } from 'better-auth/cookies';
import { openAccountsFile } from '../db/index.ts';
import { ok, type Result, refuse } from '../result.ts';
import { settings } from '../settings.ts';
import { auth, COOKIE_PREFIX, tokens } from './auth.ts';
import { sessionHolds } from './sessions.ts';

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

/** A token by which an account chooses a new password, once, within a day; tokens made for it before are dead by it. */
export async function makePasswordToken(address: string): Promise<string> {
  const { internalAdapter } = await (await auth()).$context;
  const user = await internalAdapter.findUserByEmail(address);
  if (user) forgetTokens(PASSWORD, (value) => value === user.user.id);
  await (await auth()).api.requestPasswordReset({ body: { email: address } });
  return taken(`password ${address}`);
}

/**
 * Sets a password by such a token and ends every session of before; answers the account. Refused where the token is spent, old or
 * made up.
 */
export async function spendPasswordToken(token: string, password: string): Promise<Result<{ account: string }>> {
  try {
    const { internalAdapter } = await (await auth()).$context;
    const account = (await internalAdapter.findVerificationValue(`${PASSWORD}${token}`))?.value;
    await (await auth()).api.resetPassword({ body: { token, newPassword: password } });
    return account ? ok({ account }) : refuse('wayInGone');
  } catch {
    return refuse('wayInGone');
  }
}

const PASSWORD = 'reset-password:';
const GUEST = 'magic-link:';

/** Makes the tokens of one kind dead whose record is somebody's. */
function forgetTokens(kind: string, theirs: (value: string) => boolean): void {
  const file = openAccountsFile(settings().data);
  try {
    const rows = file.prepare('SELECT id, value FROM verification WHERE identifier LIKE ?').all(`${kind}%`);
    for (const { id, value } of rows as { id: string; value: string }[])
      if (theirs(value)) file.prepare('DELETE FROM verification WHERE id = ?').run(id);
  } finally {
    file.close();
  }
}

/** A token by which somebody outside comes in, once, within a day; one made for them before is dead by it. */
export async function makeGuestToken(address: string): Promise<string> {
  forgetTokens(GUEST, (value) => value.includes(`"email":${JSON.stringify(address)}`));
  await (await auth()).api.signInMagicLink({ body: { email: address }, headers: new Headers() });
  return taken(`guest ${address}`);
}

/**
 * Opens a session by such a token; the answer carries its cookie, the account, and a way to end it again. Refused where the token
 * is spent, old or made up.
 */
export async function spendGuestToken(
  token: string,
  headers: Headers,
): Promise<Result<{ cookies: string[]; account: string; end(): Promise<void> }>> {
  const answer = await (await auth()).api.magicLinkVerify({ query: { token }, headers, asResponse: true });
  if (!answer.ok) return refuse('wayInGone');
  const { user, token: session } = (await answer.json()) as { user: { id: string }; token: string };
  const { internalAdapter } = await (await auth()).$context;
  return ok({
    cookies: answer.headers.getSetCookie(),
    account: user.id,
    end: async () => internalAdapter.deleteSession(session),
  });
}

/** Ends every session of an account. */
export async function endSessions(account: string): Promise<void> {
  const { internalAdapter } = await (await auth()).$context;
  await internalAdapter.deleteUserSessions(account);
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

/** Whose a cookie is. The cookie carries a signature that the library has checked once; whether its session stands is asked each time. */
interface KnownCookie {
  readonly account: string;
  readonly session: string;
  readonly at: number;
}
const cookieHolder = globalThis as { paramoCookies?: Map<string, KnownCookie> };
const MOST_COOKIES = 5000;
/** The library is asked again after a minute: it is what makes a session last longer while it is used. */
const COOKIE_MS = 60_000;

/**
 * The account a request's session belongs to, and the session's id; `null` without a session that holds. Who a cookie belongs to is
 * worked out once; that its session stands is read from the file at every request, so that a withdrawn one is dead at once.
 */
export async function sessionOf(headers: Headers): Promise<{ account: string; session: string } | null> {
  const cookie = getSessionCookie(headers, { cookiePrefix: COOKIE_PREFIX });
  if (!cookie) return null;
  cookieHolder.paramoCookies ??= new Map();
  const known = cookieHolder.paramoCookies;
  const found = known.get(cookie);
  if (found && Date.now() - found.at < COOKIE_MS && sessionHolds(found.session))
    return { account: found.account, session: found.session };
  known.delete(cookie);
  const answer = await (await auth()).api.getSession({ headers });
  if (!answer) return null;
  const oldest = known.size >= MOST_COOKIES ? known.keys().next().value : undefined;
  if (oldest !== undefined) known.delete(oldest);
  known.set(cookie, { account: answer.user.id, session: answer.session.id, at: Date.now() });
  return { account: answer.user.id, session: answer.session.id };
}

/** Holds a password against an account's; the answer carries the new session's cookie, `null` where it isn't right. */
export async function tryPassword(address: string, password: string, headers: Headers): Promise<string[] | null> {
  const answer = await (await auth()).api.signInEmail({
    body: { email: address, password },
    headers,
    asResponse: true,
  });
  return answer.ok ? answer.headers.getSetCookie() : null;
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
