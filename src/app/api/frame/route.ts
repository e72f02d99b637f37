import { route } from '@/server/http/route.ts';
import { readFrame } from '@/server/operations/frame/read-frame.ts';
import { ok } from '@/server/result.ts';

export const GET = route('readFrame', ({ ctx }) => ok(readFrame(ctx)));
