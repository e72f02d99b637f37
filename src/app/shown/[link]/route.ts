import { randomBytes } from 'node:crypto';
import { languageOf } from '@/messages/languages.ts';
import { evenOut } from '@/server/http/route.ts';
import { readLinkInWorker } from '@/server/operations/in-worker/in-worker.ts';
import { plainGone, plainWeek } from '@/ui/sharing/links/plain-week.ts';

const TOO_MANY = ['tooManyTries', 'tooManyAtOnce', 'tooSlow'];
export const dynamic = 'force-dynamic';

/**
 * A link's week as a page without script. Its policy is its own (the server leaves it out for this address): it loads nothing at all, and
 * stands in a frame on the one website that was named for the link, if any.
 */
export async function GET(request: Request, { params }: { params: Promise<{ link: string }> }): Promise<Response> {
  const begun = performance.now();
  const { link } = await params;
  const nonce = randomBytes(16).toString('base64');
  const wanted = new URL(request.url).searchParams.get('from');
  const read = await readLinkInWorker('week', link, request.headers, wanted);
  const here = languageOf(request.headers.get('accept-language'));
  if (!read.ok) {
    await evenOut(begun);
    return page(plainGone(here, nonce), TOO_MANY.includes(read.code) ? 429 : 404, nonce, null);
  }
  const { language, framedBy, ...week } = read.value;
  return page(plainWeek(week, language ?? here, `/shown/${encodeURIComponent(link)}`, nonce), 200, nonce, framedBy);
}

const page = (html: string, status: number, nonce: string, framedBy: string | null): Response =>
  new Response(html, {
    status,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'x-robots-tag': 'noindex',
      'content-security-policy': [
        "default-src 'none'",
        `style-src 'nonce-${nonce}'`,
        "base-uri 'none'",
        "form-action 'none'",
        `frame-ancestors ${framedBy ?? "'none'"}`,
      ].join('; '),
      ...(framedBy === null ? { 'x-frame-options': 'DENY' } : {}),
    },
  });
