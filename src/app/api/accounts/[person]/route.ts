import { route } from '@/server/http/route.ts';
import { untieAccount } from '@/server/operations/people/accounts.ts';

export const DELETE = route('untieAccount', ({ ctx, params }) => untieAccount(ctx, params.person ?? ''));
