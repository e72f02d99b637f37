import { z } from 'zod';
import { at, done, type Routes } from '../route.ts';
import { instant } from '../sharing/sharing.ts';

const accounts = z.strictObject({
  tied: z.array(
    z.strictObject({ handle: z.string(), name: z.string(), address: z.string(), inside: z.boolean(), since: instant }),
  ),
});
export type AccountsAnswer = z.infer<typeof accounts>;

/** Accounts of one person, tied by proof of both; and who is behind an account that several people use. */
export const accountRoutes = {
  listAccounts: {
    ...at('listAccounts'),
    who: 'person',
    by: 'session',
    summary: 'The accounts that are tied to one’s own',
    answer: accounts,
  },
  makeAccountCode: {
    ...at('makeAccountCode'),
    who: 'person',
    by: 'session',
    summary: 'A code to give in one’s other account: it proves this one',
    answer: z.strictObject({ code: z.string(), until: instant }),
  },
  tieAccount: {
    ...at('tieAccount'),
    who: 'person',
    by: 'session',
    summary: 'Tie the account in which a code was made to this one',
    body: z.strictObject({ code: z.string().trim().min(1, 'codeWrong').max(40, 'codeWrong') }),
    answer: accounts,
  },
  untieAccount: {
    ...at('untieAccount'),
    who: 'person',
    by: 'session',
    summary: 'Untie an account from one’s own',
    answer: accounts,
  },
  setOperator: {
    ...at('setOperator'),
    who: 'person',
    by: 'session',
    summary: 'Say who is behind a role account today',
    body: z.strictObject({ name: z.string().trim().min(1, 'nameMissing').max(80, 'tooLong:80') }),
    answer: done,
  },
} as const satisfies Routes;
