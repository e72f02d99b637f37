import { route } from '@/server/http/route.ts';
import { wishForRule } from '@/server/operations/sharing/rule-wishes.ts';

export const POST = route('wishForRule', ({ ctx, body }) => wishForRule(ctx, body));
