import { slowRoute } from '@/server/http/route.ts';
import { choosePassword } from '@/server/operations/people/leaving.ts';

export const POST = slowRoute('choosePassword', ({ body }) => choosePassword(body.token, body.password));
