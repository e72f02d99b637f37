import { readFileSync } from 'node:fs';

export const dynamic = 'force-dynamic';

// The floor of an answer over HTTP: the same bytes from a handler that does nothing for them.
const text = readFileSync(process.env.BARE_ANSWER ?? '/dev/null', 'utf8');

export function GET() {
  return new Response(text, { headers: { 'content-type': 'application/json; charset=utf-8' } });
}
