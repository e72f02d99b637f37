import { openApi } from '@/server/http/openapi.ts';
import { json, route } from '@/server/http/route.ts';

export const GET = route('openapi', () => json(openApi(), 200));
