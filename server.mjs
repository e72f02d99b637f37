// @ts-check
import { randomBytes } from 'node:crypto';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { createRequestListener } from '@remix-run/node-fetch-server';
import compression from 'compression';
import next from 'next';
import sirv from 'sirv';
import { load } from './scripts/built.mjs';

/*
 * The web server around Next: it says who is asking (never believing a client's own word for its address), refuses writes
 * from other sites, and gives each page a content-security policy with a nonce of its own.
 */
const dev = process.argv.includes('--dev');
const port = Number(process.env.PORT ?? 3000);
const demo = process.env.PARAMO_DEMO === '1';
const address = new URL(process.env.PARAMO_ADDRESS ?? `http://localhost:${port}`);
process.env.NEXT_TELEMETRY_DISABLED = '1';

if (!dev && !process.env.PARAMO_SECRET) {
  console.error('Set PARAMO_SECRET to a secret of at least 32 characters, for example: openssl rand -hex 32');
  process.exit(1);
}

/**
 * The API as it was built, which is answered here; in development Next compiles and answers it.
 * @type {typeof import('./src/server/http/serve.ts') | null}
 */
const api = dev ? null : load(fileURLToPath(new URL('./dist/server/serve.cjs', import.meta.url)));
api?.startJobs();
const app = next({ dev, port, hostname: process.env.HOST ?? '127.0.0.1', turbopack: dev });
const handle = app.getRequestHandler();
await app.prepare();

const STATIC = '/_next/static';
/** The built scripts, styles and fonts as the build left them, already compressed; what isn't there goes on to Next. */
const files = dev ? null : sirv('.next/static', { gzip: true, immutable: true, maxAge: 31_536_000, etag: true });

const answerApi = api && createRequestListener((request) => api.answer(request));
// An answer marked `no-transform` goes out unpacked.
const pack = compression();

/**
 * Hands a request of the API to what answers it.
 * @param {(request: import('node:http').IncomingMessage, response: import('node:http').ServerResponse) => void} listener
 * @param {import('node:http').IncomingMessage} request @param {import('node:http').ServerResponse} response
 */
function serveApi(listener, request, response) {
  const { writeHead } = response;
  /** @param {number} status @param {any[]} rest */
  response.writeHead = (status, ...rest) =>
    // The listener gives a status an empty reason; without one, Node writes the usual words.
    writeHead.apply(response, [status, .../** @type {[]} */ (rest.filter((one) => one !== ''))]);
  pack(/** @type {never} */ (request), /** @type {never} */ (response), () => listener(request, response));
}

/** @param {string | undefined} origin */
function isOurs(origin) {
  if (!origin) return false;
  try {
    const url = new URL(origin);
    if (url.host === address.host && url.protocol === address.protocol) return true;
    return (
      demo &&
      url.port === String(port) &&
      (url.hostname === 'localhost' || url.hostname.endsWith('.localhost') || url.hostname === '127.0.0.1')
    );
  } catch {
    return false;
  }
}

/** @param {import('node:http').IncomingMessage} request */
function mayWrite(request) {
  const { origin } = request.headers;
  const site = request.headers['sec-fetch-site'];
  if (origin !== undefined) return isOurs(origin);
  // Without an Origin there was no browser page behind it, or the browser says that the page was ours.
  return site === undefined || site === 'same-origin' || site === 'none';
}

/** @param {string} nonce */
function policy(nonce) {
  const others = demo ? ` http://*.localhost:${port} http://localhost:${port}` : '';
  return [
    `default-src 'self'`,
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ''}`,
    `style-src 'self' 'nonce-${nonce}'`,
    `style-src-attr 'unsafe-inline'`,
    `img-src 'self' data: blob:`,
    `font-src 'self'`,
    `connect-src 'self'${dev ? ' ws:' : ''}`,
    `object-src 'none'`,
    `base-uri 'none'`,
    `form-action 'self'${others}`,
    `frame-ancestors 'none'`,
  ].join('; ');
}

/** How many proxies of ours stand in front: so many hops from the right, the address was written by one of them. */
const proxies = Number(process.env.PARAMO_TRUST_PROXY ?? 0);

/** Where a request came from, by what our own proxy wrote and nothing a client says. @param {import('node:http').IncomingMessage} request */
function placeOf(request) {
  const hops = String(request.headers['x-forwarded-for'] ?? '').split(',');
  const hop = proxies > 0 ? hops.at(-proxies)?.trim() : '';
  return hop || (request.socket.remoteAddress ?? '');
}

const MOST_BODY = 300_000;
/** Many changes of access at once. */
const MOST_CHANGES = 1_501_000;
const MOST_FILE = Number(process.env.PARAMO_IMPORT_BYTES ?? 10_000_000) + 1000;
const MOST_MAIL = 25_001_000;
const BODY_WITHIN_MS = 15_000;
const FILE_WITHIN_MS = 60_000;

/** @param {import('node:http').ServerResponse} response @param {number} status @param {string} code @param {string} sentence */
function refuse(response, status, code, sentence) {
  if (response.headersSent) return;
  response.writeHead(status, { 'content-type': 'application/json; charset=utf-8' });
  response.end(JSON.stringify({ code, sentence }));
}

const TOO_LARGE_FOR_PROGRAMS =
  '<?xml version="1.0" encoding="utf-8"?>\n<error xmlns="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav" xmlns:A="urn:ietf:params:xml:ns:carddav"><C:max-resource-size/><A:max-resource-size/></error>';

/**
 * Bounds a request's body before anything reads it: by what it says of itself, by what has come, and by how long it takes. Whatever
 * is left of it when the answer has gone is not waited for.
 * @param {import('node:http').IncomingMessage} request @param {import('node:http').ServerResponse} response
 * @returns {boolean} whether it may go on
 */
function bounded(request, response) {
  const isMail = request.url === '/api/inbound';
  const isFile = isMail || /^\/api\/calendars\/[^/]+\/imports$/.test(request.url ?? '');
  const most = isMail ? MOST_MAIL : isFile ? MOST_FILE : request.url === '/api/grants' ? MOST_CHANGES : MOST_BODY;
  const tooLarge = isFile
    ? `This is larger than ${Math.floor(most / 1_000_000)} MB, the most that is taken. Export a shorter time and try again.`
    : `This is larger than ${most / 1_000_000} MB, the most that is taken.`;
  const refuseSize = () => {
    if (request.headers['x-dav-path'] === undefined) refuse(response, 413, 'fileTooLarge', tooLarge);
    else if (!response.headersSent)
      // What a program sends is bounded by a condition it knows (RFC 4791 5.3.2.1, RFC 6352 6.3.2.1).
      response.writeHead(403, { 'content-type': 'application/xml; charset=utf-8' }).end(TOO_LARGE_FOR_PROGRAMS);
  };
  const { socket } = request;
  // A sender that is still sending hears the answer only once it has sent: what comes is dropped, for a moment.
  const letGo = () => {
    if (request.complete) return;
    request.resume();
    setTimeout(() => request.complete || socket.destroy(), 2000).unref();
  };
  response.on('finish', letGo);
  if (Number(request.headers['content-length'] ?? 0) > most) {
    refuseSize();
    return false;
  }
  if (request.complete || (request.headers['content-length'] === undefined && !request.headers['transfer-encoding']))
    return true;
  const before = socket.bytesRead;
  const begun = Date.now();
  const watch = setInterval(() => {
    if (request.complete || socket.destroyed) clearInterval(watch);
    else if (socket.bytesRead - before > most + 65_536) refuseSize();
    else if (Date.now() - begun > (isFile ? FILE_WITHIN_MS : BODY_WITHIN_MS))
      refuse(response, 408, 'tooSlow', 'This took too long to arrive and was given up. Send it again.');
    else return;
    clearInterval(watch);
  }, 250);
  watch.unref();
  return true;
}

/** @param {string} url */
function isReadable(url) {
  try {
    decodeURIComponent(url.split('?')[0] ?? '');
    return true;
  } catch {
    return false;
  }
}

/**
 * The calendar protocol has methods, and addresses that end in a slash, that no route takes: what comes for it goes to one route, as a POST
 * with the method and the address it came with beside it. Nobody else can say those.
 * @param {import('node:http').IncomingMessage} request
 */
function handOnPrograms(request) {
  delete request.headers['x-dav-method'];
  delete request.headers['x-dav-path'];
  if (!/^\/dav(\/|$)/.test(request.url ?? '')) return;
  request.headers['x-dav-method'] = request.method ?? 'GET';
  request.headers['x-dav-path'] = request.url ?? '/';
  request.method = 'POST';
  request.url = '/api/dav';
}

const server = createServer({ connectionsCheckingInterval: 2000 }, (request, response) => {
  request.headers['x-forwarded-for'] = placeOf(request);
  // Where programs begin that were given no more than the host (RFC 6764 5), at its well-known address or at the host itself.
  const atHost = request.url === '/' && ['PROPFIND', 'REPORT'].includes(request.method ?? '');
  if (atHost || /^\/\.well-known\/ca(?:l|rd)dav\/?$/.test(request.url ?? '')) {
    // 307: a client repeats what it asked, its body too.
    response.writeHead(307, { location: '/dav/' }).end();
    return;
  }
  handOnPrograms(request);
  const nonce = randomBytes(16).toString('base64');
  const csp = policy(nonce);
  request.headers['content-security-policy'] = csp;
  request.headers['x-nonce'] = nonce;
  request.headers['x-path'] = request.url ?? '/';
  // A link's page without script says itself on which website it may stand in a frame; a second policy here would forbid it everywhere.
  const framed = /^\/shown\/[^/?]+(\?|$)/.test(request.url ?? '') && request.method === 'GET';
  if (!framed) {
    response.setHeader('Content-Security-Policy', csp);
    response.setHeader('X-Frame-Options', 'DENY');
  }
  response.setHeader('X-Content-Type-Options', 'nosniff');
  response.setHeader('Referrer-Policy', 'same-origin');
  response.setHeader('Permissions-Policy', 'camera=(), microphone=(), geolocation=()');
  if (address.protocol === 'https:') response.setHeader('Strict-Transport-Security', 'max-age=31536000');
  if (!['GET', 'HEAD', 'OPTIONS'].includes(request.method ?? 'GET') && !mayWrite(request)) {
    response.writeHead(403, { 'content-type': 'application/json; charset=utf-8' });
    response.end(
      JSON.stringify({
        code: 'originRefused',
        sentence: 'This came from another site and was refused. Open Paramo itself and try again.',
      }),
    );
    return;
  }
  if (!isReadable(request.url ?? '/')) {
    refuse(
      response,
      404,
      'notFound',
      'There is no such thing here for you. It may be gone, or no longer shared with you.',
    );
    return;
  }
  if (!bounded(request, response)) return;
  const { url } = request;
  if (api && answerApi && api.answersTo(request.method ?? 'GET', url ?? '/')) {
    api.openWhileWorking(request, response, server.timeout);
    return serveApi(answerApi, request, response);
  }
  if (!files || !url?.startsWith(`${STATIC}/`)) return void handle(request, response);
  request.url = url.slice(STATIC.length);
  files(request, response, () => {
    request.url = url;
    void handle(request, response);
  });
});
// Half-sent requests and quiet connections are closed in time.
server.headersTimeout = 10_000;
server.requestTimeout = 90_000;
server.timeout = 60_000;
server.keepAliveTimeout = 10_000;
server.listen(port, process.env.HOST ?? '127.0.0.1', () => {
  console.log(`Paramo is ready at ${address.origin}`);
});
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
