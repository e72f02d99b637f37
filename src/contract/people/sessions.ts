import { z } from 'zod';
import { at, done, type Routes } from '../route.ts';
import { firstPerson } from './people.ts';

const session = z.strictObject({ id: z.string(), since: z.string(), browser: z.string(), current: z.boolean() });
const signInBody = z.strictObject({
  address: z.string().trim().toLowerCase().max(254).pipe(z.email('address')),
  password: z.string().min(1, 'passwordMissing').max(128, 'tooLong:128'),
});

const stepIn = z.strictObject({ handle: z.string().max(64) });

/** Signing in and out, and where one is signed in. */
export const sessionRoutes = {
  signIn: { ...at('signIn'), who: 'open', summary: 'Sign in', body: signInBody, answer: done },
  signOut: { ...at('signOut'), who: 'person', by: 'session', summary: 'Sign out', answer: done },
  listSessions: {
    ...at('listSessions'),
    who: 'person',
    by: 'session',
    summary: 'Where one is signed in',
    answer: z.strictObject({ sessions: z.array(session) }),
  },
  withdrawSession: {
    ...at('withdrawSession'),
    who: 'person',
    by: 'session',
    summary: 'Withdraw one of one’s sessions',
    answer: done,
  },
  foundOrganisation: {
    ...at('foundOrganisation'),
    who: 'open',
    summary: 'Make the first administrator, by the code that the server printed',
    body: firstPerson,
    answer: done,
  },
  stepIn: {
    ...at('stepIn'),
    who: 'open',
    summary: 'Sign in as a sample person (demo only)',
    body: stepIn,
    answer: done,
  },
} as const satisfies Routes;
