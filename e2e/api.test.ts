import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { desksAt } from './desks.ts';
import { rights } from './exits.ts';
import { sampleFor } from './servers.ts';
import { takesAtMost } from './timed.ts';

/** The API as a program uses it: by a token, as docs/api.md says. */
const home = await sampleFor('api');
const { open } = desksAt(home, { byKeys: true });

interface Example {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  readonly answer: unknown;
}

/** The examples of the page: a request, and some of what it answers. */
function examples(): Example[] {
  const text = readFileSync('docs/api.md', 'utf8');
  return [...text.matchAll(/```http\n([A-Z]+) (\S+)\n([\s\S]*?)```\s+```json\n([\s\S]*?)```/g)].map(
    ([, method = '', path = '', body = '', answer = '']) => ({
      method,
      path,
      body: body.trim() === '' ? undefined : JSON.parse(body),
      answer: JSON.parse(answer),
    }),
  );
}

const RIGHTS = { ...rights, sight: 'title' };
const by = (secret: string) => ({ authorization: `Bearer ${secret}` });

async function tokenOf(handle: string, more: object = {}): Promise<{ secret: string; caller: Caller }> {
  const caller = await Caller.stepIn(home, handle);
  const made = await caller.send('POST', '/api/tokens', {
    name: 'A program',
    reads: false,
    calendar: null,
    until: null,
    ...more,
  });
  expect(made.status).toBe(200);
  return { secret: JSON.parse(made.text).secret, caller };
}
async function ownCalendar(caller: Caller): Promise<string> {
  const frame = await caller.json<{ principals: { own: boolean; calendar: string }[] }>('/api/frame');
  return frame.principals.find((p) => p.own)?.calendar ?? '';
}

test('every example of the page is answered as it says, by a token', async () => {
  const { secret, caller } = await tokenOf('ines');
  const calendar = await ownCalendar(caller);
  const nobody = new Caller(home);
  const all = examples();
  expect(all.length).toBeGreaterThan(8);
  for (const { method, path, body, answer } of all) {
    const said = await nobody.send(method, path.replace('{calendar}', calendar), body, by(secret));
    expect([method, path, said.status, said.text.slice(0, 300)]).toEqual([method, path, 200, said.text.slice(0, 300)]);
    expect([path, JSON.parse(said.text)]).toMatchObject([path, answer]);
  }
});

test('a token is made in Settings, shown once, comes in within its limits, and is dead once it is withdrawn', async () => {
  const nils = await open('nils', '/for/nils/settings');
  await nils.press('button', 'Make a token');
  await nils.press('button', 'Create');
  await nils.says('Give a name.');
  await nils.fill('What it is for', 'The wall screen');
  await nils.press('button', 'Create');
  await nils.says('This is shown once.');
  const secret = await (await nils.any('The token')).evaluate((el) => (el as HTMLInputElement).value);
  await nils.press('button', 'I have it');
  await nils.saysNot(secret);
  const program = new Caller(home);
  const frame = await program.send('GET', '/api/frame', undefined, by(secret));
  expect([frame.status, JSON.parse(frame.text).me.handle]).toEqual([200, 'nils']);
  const calendar = JSON.parse(frame.text).principals.find((p: { own: boolean }) => p.own).calendar;
  // It reads, and does nothing else; it opens no window and no other way in.
  const item = { title: 'x', when: { start: '2027-09-09T10:00', end: '2027-09-09T11:00', allDay: false, zone: 'UTC' } };
  const code = async (method: string, path: string, body?: unknown) => {
    const said = await program.send(method, path, body, by(secret));
    return [said.status, JSON.parse(said.text).code];
  };
  expect(await code('POST', `/api/calendars/${calendar}/items`, item)).toEqual([403, 'tokenReads']);
  expect(await code('GET', '/api/tokens')).toEqual([403, 'notByToken']);
  expect(await code('GET', '/api/live')).toEqual([403, 'notByToken']);
  const page = await program.send('GET', '/for/nils/calendar', undefined, by(secret));
  expect(page.text).not.toContain('Nils Farrow');
  await nils.press('button', 'Withdraw: The wall screen');
  await nils.says('Withdrawn. Whatever used it is refused from now on.');
  expect(await code('GET', '/api/frame')).toEqual([401, 'signedOut']);
  expect(nils.errors).toEqual([]);
});

test('a token for one calendar sees that one as its maker does, and nothing of any other', async () => {
  const tomas = await Caller.stepIn(home, 'tomas');
  const frame = await tomas.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  const of = (handle: string) => frame.principals.find((p) => p.handle === handle)?.calendar ?? '';
  const { secret } = await tokenOf('tomas', { calendar: of('ines') });
  const program = new Caller(home);
  const range = 'from=2027-03-01&to=2027-03-08&zone=Europe%2FLisbon';
  const items = async (handle: string, who: Caller, headers = {}) => {
    const said = await who.send('GET', `/api/calendars/${of(handle)}/items?${range}`, undefined, headers);
    return [said.status, said.status === 200 ? JSON.parse(said.text).items : null];
  };
  expect(await items('ines', program, by(secret))).toEqual(await items('ines', tomas));
  for (const handle of ['bruno', 'tomas']) expect(await items(handle, program, by(secret))).toEqual([404, null]);
  for (const path of ['/api/frame', '/api/people', '/api/notices', '/api/search?words=board']) {
    const said = await program.send('GET', path, undefined, by(secret));
    expect([path, said.status, JSON.parse(said.text).code]).toEqual([path, 403, 'tokenOnly']);
  }
});

test('a thousand changes are made in one act within two seconds, or none of them; others’ reads go on beside', async () => {
  const noor = await Caller.stepIn(home, 'noor');
  const people = ['elin', 'rafael', 'maren', 'lars', 'brigid', 'felix', 'nils', 'tobias', 'oona', 'mateo'];
  const address = (n: number) => `reader-${n}@outside-press.example`;
  const changes = people.flatMap((of) =>
    Array.from({ length: 100 }, (_, n) => ({
      of,
      audience: { kind: 'address', address: address(n) },
      rights: RIGHTS,
      note: null,
    })),
  );
  const wrong = [...changes.slice(0, 999), { of: 'elin', audience: { kind: 'person', id: 'elin' }, rights: RIGHTS }];
  const refused = await noor.send('POST', '/api/grants', { changes: wrong });
  expect([refused.status, Object.keys(JSON.parse(refused.text).fields)]).toEqual([400, ['changes.999.audience']]);
  // Who a house does not know yet is let in by a person, not by a program.
  const { secret } = await tokenOf('noor');
  expect((await new Caller(home).send('POST', '/api/grants', { changes }, by(secret))).status).toBe(403);
  const reader = await Caller.stepIn(home, 'ines');
  const slow: number[] = [];
  let going = true;
  const reading = (async () => {
    while (going) {
      const from = performance.now();
      await reader.send('GET', '/api/house-rules');
      slow.push(performance.now() - from);
    }
  })();
  const from = performance.now();
  const made = await noor.send('POST', '/api/grants', { changes });
  const ms = performance.now() - from;
  going = false;
  await reading;
  slow.sort((a, b) => a - b);
  console.log(
    `a thousand changes: ${Math.round(ms)} ms; reads beside median ${slow[Math.floor(slow.length / 2)]?.toFixed(1)} ms, most ${slow.at(-1)?.toFixed(1)} ms`,
  );
  expect([made.status, JSON.parse(made.text).results?.length]).toEqual([200, 1000]);
  takesAtMost('a thousand changes of access', ms, 3000);
  const takes = changes.map(({ of, audience }) => ({ of, audience, rights: null, note: null }));
  expect((await noor.send('POST', '/api/grants', { changes: takes })).status).toBe(200);
});
