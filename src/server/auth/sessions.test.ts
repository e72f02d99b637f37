import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { makeAccount, sessionOf, tryPassword } from './accounts.ts';
import { auth } from './auth.ts';

const PASSWORD = 'a long enough password';
let folder: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'paramo-sessions-'));
  vi.stubEnv('PARAMO_DATA', folder);
  await makeAccount('rosa@cloudmoor.example', 'Rosa Quint', PASSWORD);
});

afterAll(() => {
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
});

async function signIn(): Promise<Headers> {
  const cookies = await tryPassword('rosa@cloudmoor.example', PASSWORD, new Headers());
  return new Headers({ cookie: (cookies ?? []).map((c) => c.split(';')[0]).join('; ') });
}

it('whose a cookie is, is worked out once', async () => {
  const headers = await signIn();
  const getSession = vi.spyOn((await auth()).api, 'getSession');
  const first = await sessionOf(headers);
  expect(first?.session).toEqual(expect.any(String));
  for (let i = 0; i < 5; i++) expect(await sessionOf(headers)).toEqual(first);
  expect(getSession).toHaveBeenCalledTimes(1);
  getSession.mockRestore();
});

it('a session that another process withdraws, or that is over, is dead at the next request', async () => {
  for (const change of [
    'DELETE FROM session WHERE id = ?',
    "UPDATE session SET expiresAt = '2020-01-01' WHERE id = ?",
  ]) {
    const headers = await signIn();
    const found = await sessionOf(headers);
    expect(await sessionOf(headers)).toEqual(found);
    const script = `const db = require('better-sqlite3')(process.argv[1]);
      console.log(db.prepare(process.argv[2]).run(process.argv[3]).changes)`;
    const args = ['-e', script, join(folder, 'accounts.db'), change, String(found?.session)];
    expect(execFileSync(process.execPath, args, { encoding: 'utf8' }).trim()).toBe('1');
    expect(await sessionOf(headers)).toBeNull();
  }
});

it('a cookie that was changed, or is nobody’s, is never taken for a known one', async () => {
  const headers = await signIn();
  const cookie = headers.get('cookie') as string;
  expect(await sessionOf(headers)).not.toBeNull();
  const value = cookie.slice(cookie.indexOf('=') + 1);
  const other = value.replace(/^./, (c) => (c === 'a' ? 'b' : 'a'));
  expect(await sessionOf(new Headers({ cookie: cookie.replace(value, other) }))).toBeNull();
  expect(await sessionOf(new Headers({ cookie: cookie.replace(value, value.split('.')[0] as string) }))).toBeNull();
  expect(await sessionOf(new Headers())).toBeNull();
  expect(await sessionOf(headers)).not.toBeNull();
});
