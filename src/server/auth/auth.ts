import { betterAuth } from 'better-auth';
import { getMigrations } from 'better-auth/db/migration';
import { magicLink } from 'better-auth/plugins';
import { openAccountsFile } from '../db/index.ts';
import { settings } from '../settings.ts';

/** How long an address handed over or mailed lets somebody in: a day, in seconds. */
const WAY_IN_SECONDS = 86_400;

/** What the names of the library's cookies begin with. */
export const COOKIE_PREFIX = 'paramo';

const tokenHolder = globalThis as { paramoTokens?: Map<string, string> };
tokenHolder.paramoTokens ??= new Map();

/** Takes up a token that the library has made, in place of mailing it: letters are written elsewhere. */
export const tokens: Map<string, string> = tokenHolder.paramoTokens;

/** The sign-in library over a file of its own. Accounts are only ever made by an administrator, at the start or in the demo. */
function build() {
  const { data, secret, address, demo } = settings();
  return betterAuth({
    database: openAccountsFile(data),
    secret,
    baseURL: address,
    basePath: '/api/accounts',
    // The demo gives each sample person a host of their own, so that several can be open in one browser.
    trustedOrigins: demo ? [address, address.replace('//', '//*.')] : [address],
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: 10,
      maxPasswordLength: 128,
      resetPasswordTokenExpiresIn: WAY_IN_SECONDS,
      revokeSessionsOnPasswordReset: true,
      sendResetPassword: async ({ user, token }) => {
        tokens.set(`password ${user.email}`, token);
      },
    },
    plugins: [
      magicLink({
        expiresIn: WAY_IN_SECONDS,
        disableSignUp: true,
        storeToken: 'hashed',
        sendMagicLink: async ({ email, token }) => {
          tokens.set(`guest ${email}`, token);
        },
      }),
    ],
    session: { expiresIn: 14 * 86_400, updateAge: 86_400 },
    advanced: { cookiePrefix: COOKIE_PREFIX, useSecureCookies: address.startsWith('https:') },
    telemetry: { enabled: false },
    logger: { disabled: true },
  });
}

type Auth = ReturnType<typeof build>;
const holder = globalThis as { paramoAuth?: Promise<Auth> };

/** The library, its tables made or brought up to date on first use. */
export function auth(): Promise<Auth> {
  holder.paramoAuth ??= (async () => {
    const made = build();
    await (await getMigrations(made.options)).runMigrations();
    return made;
  })();
  return holder.paramoAuth;
}
