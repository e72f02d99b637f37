// @ts-check
import { createServer } from 'node:http';
import next from 'next';

/* Serves the bare handler as the product serves its own: Next behind a server of node's. */
const app = next({ dev: false, dir: import.meta.dirname });
await app.prepare();
const handle = app.getRequestHandler();
createServer((request, response) => void handle(request, response)).listen(Number(process.env.PORT), '127.0.0.1', () =>
  console.log('Bare is ready'),
);
