/**
 * A text that programs ask for again and again: kept by whoever asked, and never used without asking here whether it still holds (RFC 9111
 * 5.2.2.4), so that what is withdrawn is served by no cache. What didn't change isn't sent again.
 */
export function feed({ text, tag }: { text: string; tag: string }, name: string, request: Request): Response {
  const etag = `"${tag}"`;
  const headers = { etag, 'cache-control': 'private, no-cache', 'x-robots-tag': 'noindex' };
  const known = (request.headers.get('if-none-match') ?? '').split(',').map((one) => one.trim().replace(/^W\//, ''));
  if (known.includes(etag)) return new Response(null, { status: 304, headers });
  return new Response(text, {
    headers: {
      ...headers,
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `inline; filename="${name}"`,
    },
  });
}
