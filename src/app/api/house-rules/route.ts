import { route } from '@/server/http/route.ts';
import { changeHouseRules, readHouseRules } from '@/server/operations/sharing/house-rules.ts';

export const GET = route('readHouseRules', ({ ctx }) => readHouseRules(ctx));
export const PUT = route('changeHouseRules', ({ ctx, body }) => changeHouseRules(ctx, body));
