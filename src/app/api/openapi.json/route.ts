import { openApi } from '@/server/http/openapi.ts';
import { jsonText, route } from '@/server/http/route.ts';

// It says the same as long as the program runs.
let text: string | null = null;

export const GET = route('openapi', () => {
  text ??= JSON.stringify(openApi());
  return jsonText(text, 200);
});
