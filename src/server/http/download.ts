/**
 * A file of somebody's as an answer: something to save under its name (RFC 6266, with RFC 8187 for letters beyond ASCII), whatever it is. Its
 * kind is told to nobody, and the policy of its address (`server.mjs`) lets it do nothing, were it opened as a page after all.
 */
export function download({ name, bytes, body }: { name: string; bytes: number; body: ReadableStream }): Response {
  const plain = name.replace(/[^\x20-\x7e]|["\\%]/g, '_');
  const exact = encodeURIComponent(name).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`);
  return new Response(body, {
    headers: {
      'content-type': 'application/octet-stream',
      'content-length': String(bytes),
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${exact}`,
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
}

const textFile = (type: string, name: string, text: string): Response =>
  new Response(text, {
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'content-disposition': `attachment; filename="${name}"`,
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });

/** A table as an answer (RFC 4180), saved under its name. */
export const csvFile = (name: string, text: string): Response => textFile('text/csv', name, text);

/** A calendar file as an answer (RFC 5545), saved under its name. */
export const calendarFile = (name: string, text: string): Response => textFile('text/calendar', name, text);

/** A file of contacts as an answer (RFC 6350), saved under its name. */
export const cardFile = (name: string, text: string): Response => textFile('text/vcard', name, text);
