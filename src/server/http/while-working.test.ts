import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { openWhileWorking } from './while-working.ts';

let server: Server;
afterEach(() => new Promise((closed) => server.close(closed)));

test('a connection may be quiet while its answer is worked out, and no longer', async () => {
  const quiet: (number | undefined)[] = [];
  server = createServer((request, response) => {
    const note = () => quiet.push(request.socket.timeout);
    note();
    openWhileWorking(request, response, server.timeout);
    note();
    // By itself, as whatever writes without a head does.
    response.write('begun');
    note();
    response.end();
  });
  server.timeout = 60_000;
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  for (let i = 0; i < 2; i++) expect(await (await fetch(address)).text()).toBe('begun');
  expect(quiet).toEqual([60_000, 900_000, 60_000, 60_000, 900_000, 60_000]);
});
