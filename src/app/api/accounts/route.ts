import { route } from '@/server/http/route.ts';
import { listAccounts, makeAccountCode, tieAccount } from '@/server/operations/people/accounts.ts';

export const GET = route('listAccounts', ({ ctx }) => ({ ok: true, value: listAccounts(ctx) }));
export const POST = route('makeAccountCode', ({ ctx }) => makeAccountCode(ctx));
export const PUT = route('tieAccount', ({ ctx, body }) => tieAccount(ctx, body));
