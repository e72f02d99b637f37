import { spawn } from 'node:child_process';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { START_CODE, startServer } from './servers.ts';
import { startBrowser } from './windows.ts';

const server = await startServer('production', { demo: false, env: { PARAMO_START_CODE: START_CODE } });
afterAll(server.stop);
const home = server.address;
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

describe('outside the demo', () => {
  test('the first start asks for the first administrator, once; the sign-in page lists nobody', async () => {
    const desk = await Desk.open(browser, home);
    await desk.find('heading', 'Begin');
    await desk.fill('Your name', 'Noor Ashby');
    await desk.fill('E-mail address', 'noor at cloudmoor');
    await desk.fill('Password', 'short');
    await desk.press('button', 'Begin with this account');
    await desk.says('This is no e-mail address.');
    await desk.says('At least 10 characters.');
    await desk.fill('E-mail address', 'noor@cloudmoor.example');
    await desk.fill('Password', 'long enough it is');
    await desk.fill('The code of this start', 'guessed');
    await desk.press('button', 'Begin with this account');
    await desk.says('This isn’t the code that the server printed when it started.');
    await desk.fill('The code of this start', START_CODE.toLowerCase());
    await desk.press('button', 'Begin with this account');
    await desk.says('Nothing in this week.');
    await desk.find('region', 'To begin with');
    const stranger = await Desk.open(browser, home);
    await stranger.find('heading', 'Sign in');
    expect(await stranger.text()).not.toContain('Step in');
    const caller = new Caller(home);
    expect((await caller.send('POST', '/api/demo/step-in', { handle: 'noor' })).status).toBe(404);
    const again = {
      code: START_CODE,
      name: 'X',
      address: 'x@cloudmoor.example',
      zone: 'UTC',
      password: 'long enough it is',
    };
    expect((await caller.send('POST', '/api/start', again)).status).toBe(409);
    expect(desk.errors).toEqual([]);
    await desk.close();
    await stranger.close();
  });

  test('a clock set by hand, a missing and a short secret are refused in words', async () => {
    const start = (env: Record<string, string>) =>
      new Promise<{ code: number | null; said: string }>((done) => {
        const child = spawn(process.execPath, ['server.mjs'], {
          env: { ...process.env, NODE_ENV: 'production', PORT: '0', PARAMO_DATA: '.e2e/refused', ...env },
          stdio: ['ignore', 'ignore', 'pipe'],
        });
        let said = '';
        child.stderr.on('data', (data) => {
          said += data;
        });
        child.on('exit', (code) => done({ code, said }));
      });
    const without = await start({ PARAMO_SECRET: '' });
    expect(without).toMatchObject({ code: 1, said: expect.stringContaining('Set PARAMO_SECRET') });
    const short = await start({ PARAMO_SECRET: 'short' });
    expect(short).toMatchObject({ code: 1, said: expect.stringContaining('at least 32 characters') });
    const clock = await start({ PARAMO_SECRET: 'x'.repeat(32), PARAMO_CLOCK: '2027-03-02T09:00:00Z' });
    expect(clock).toMatchObject({ code: 1, said: expect.stringContaining('PARAMO_CLOCK is for the demo alone') });
  });

  test('pages carry a strict policy whose nonce is new each time, and no header that tells too much', async () => {
    const caller = new Caller(home);
    const [one, two] = [await caller.send('GET', '/sign-in'), await caller.send('GET', '/sign-in')];
    const nonce = (answer: typeof one) =>
      /'nonce-([^']+)'/.exec(answer.headers.get('content-security-policy') ?? '')?.[1];
    expect(nonce(one)).toBeTruthy();
    expect(nonce(one)).not.toBe(nonce(two));
    const policy = one.headers.get('content-security-policy') ?? '';
    expect(/script-src [^;]*'unsafe-(inline|eval)'/.test(policy)).toBe(false);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(one.headers.get('x-powered-by')).toBeNull();
    expect(one.headers.get('x-content-type-options')).toBe('nosniff');
  });

  test('the API describes itself', async () => {
    const described = await new Caller(home).json<{ openapi: string; paths: Record<string, unknown> }>(
      '/api/openapi.json',
    );
    expect(described.openapi).toBe('3.0.3');
    expect(Object.keys(described.paths)).toContain('/api/calendars/{calendar}/items');
  });
});
