import { route } from '@/server/http/route.ts';
import { changePreferences } from '@/server/operations/people/people.ts';

export const PUT = route('savePreferences', ({ ctx, body }) => changePreferences(ctx, body));
