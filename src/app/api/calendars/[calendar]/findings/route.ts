import { route } from '@/server/http/route.ts';
import { readFindings } from '@/server/operations/findings.ts';

export const GET = route('readFindings', ({ ctx, params }) => readFindings(ctx, params.calendar ?? ''));
