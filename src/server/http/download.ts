/**
 * A file of somebody's as an answer: something to save under its name (RFC 6266, with RFC 8187 for letters beyond ASCII), whatever it is. Its
 * kind is told to nobody, and its policy lets it do nothing, were it opened as a page after all.
 */
export function download({ name, bytes, body }: { name: string; bytes: number; body: ReadableStream }): Response {
  const plain = name.replace(/[^\x20-\x7e]|["\\%]/g, '_');
  const exact = encodeURIComponent(name).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`);
  return new Response(body, {
    headers: {
      'content-type': 'application/octet-stream',
      'content-length': String(bytes),
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${exact}`,
      'content-security-policy': "default-src 'none'; sandbox",
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
}

/** Pictures and plain text are shown by a browser without anything in them doing anything. */
const SHOWN: ReadonlySet<string> = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'text/plain']);

/**
 * A file from outside as an answer: a picture or plain text to be looked at where nothing in it can do anything (its policy is a
 * sandbox), all else to be saved.
 */
export function sandboxed(file: { name: string; bytes: number; type: string; body: ReadableStream }): Response {
  const answer = download(file);
  if (!SHOWN.has(file.type)) return answer;
  answer.headers.set('content-type', file.type === 'text/plain' ? 'text/plain; charset=utf-8' : file.type);
  answer.headers.set(
    'content-disposition',
    (answer.headers.get('content-disposition') ?? '').replace('attachment', 'inline'),
  );
  return answer;
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
