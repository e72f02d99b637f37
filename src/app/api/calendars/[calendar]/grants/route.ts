import { route } from '@/server/http/route.ts';
import { giveAccess, takeAccess } from '@/server/operations/sharing/give-access.ts';
import { tellAfterwards } from '@/server/operations/sharing/tell.ts';

export const PUT = route('giveAccess', ({ ctx, params, body }) => giveAccess(ctx, params.calendar ?? '', body));
export const DELETE = route('takeAccess', ({ ctx, params, body }) => takeAccess(ctx, params.calendar ?? '', body));
export const POST = route('tellOfAccess', ({ ctx, params, body }) => tellAfterwards(ctx, params.calendar ?? '', body));
