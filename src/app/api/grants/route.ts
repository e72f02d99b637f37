import { slowRoute } from '@/server/http/route.ts';
import { changeGrantsBeside } from '@/server/operations/beside/changes.ts';

export const POST = slowRoute('changeGrants', ({ ctx, body }) => changeGrantsBeside(ctx, body));
