// @ts-check
import { randomBytes } from 'node:crypto';
import { createServer } from 'node:http';
import next from 'next';

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

const app = next({ dev, port, hostname: process.env.HOST ?? '127.0.0.1', turbopack: dev });
const handle = app.getRequestHandler();
await app.prepare();

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

const server = createServer((request, response) => {
  request.headers['x-forwarded-for'] =
    process.env.PARAMO_TRUST_PROXY === '1' && typeof request.headers['x-forwarded-for'] === 'string'
      ? request.headers['x-forwarded-for']
      : (request.socket.remoteAddress ?? '');
  const nonce = randomBytes(16).toString('base64');
  const csp = policy(nonce);
  request.headers['content-security-policy'] = csp;
  request.headers['x-nonce'] = nonce;
  request.headers['x-path'] = request.url ?? '/';
  response.setHeader('Content-Security-Policy', csp);
  response.setHeader('X-Content-Type-Options', 'nosniff');
  response.setHeader('Referrer-Policy', 'same-origin');
  response.setHeader('X-Frame-Options', 'DENY');
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
  void handle(request, response);
});
server.listen(port, process.env.HOST ?? '127.0.0.1', () => {
  console.log(`Paramo is ready at ${address.origin}`);
});
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
