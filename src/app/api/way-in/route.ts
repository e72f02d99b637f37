import { spendPasswordToken } from '@/server/auth/accounts.ts';
import { route } from '@/server/http/route.ts';

export const POST = route('choosePassword', ({ body }) => spendPasswordToken(body.token, body.password));
