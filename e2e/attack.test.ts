import { connect, type Socket } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { calendarOf, readsDuring as readsOn } from './reads-during.ts';
import { type Running, startServer } from './servers.ts';
import { takesAtMost } from './timed.ts';

/*
 * The product attacked from outside, over HTTP alone: what would make others wait, what is sent while a right is taken away, who
 * guesses, and what leads elsewhere. `npm run attack` runs the slow ones too.
 */
const slow = process.env.PARAMO_ATTACK === 'all';
let server: Running;
let ines: Caller;
let tomas: Caller;

beforeAll(async () => {
  server = await startServer('attacked', { demo: true, sample: true });
  ines = await Caller.stepIn(server.address, 'ines');
  tomas = await Caller.stepIn(server.address, 'tomas');
});
afterAll(() => server?.stop());

const file = (events: readonly string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...events, 'END:VCALENDAR', ''].join('\r\n');
const events = (count: number, name: string, ...lines: string[]): string =>
  file(
    Array.from({ length: count }, (_, i) =>
      ['BEGIN:VEVENT', `UID:${name}-${i}`, `SUMMARY:${name} ${i}`, ...lines, 'END:VEVENT'].join('\r\n'),
    ),
  );
const MONDAY = 'from=2027-03-01&to=2027-03-08&zone=Europe%2FLisbon';

const readsWhile = (work: () => Promise<unknown>) => readsOn(server.address, work);

type Preview = { preview: string; counts: { fresh: number; problems: number }; problems: { code: string }[] };
const preview = async (text: string): Promise<Preview> => {
  const key = await calendarOf(ines, 'ines');
  const read = await ines.send('POST', `/api/calendars/${key}/imports`, text, { 'content-type': 'text/calendar' });
  expect([read.status, read.text.slice(0, 200)]).toEqual([200, expect.anything()]);
  return JSON.parse(read.text);
};
const bringIn = async (text: string): Promise<{ broughtIn: number; undo: string }> => {
  const read = await preview(text);
  const done = await ines.send('POST', `/api/imports/${read.preview}`);
  expect([done.status, done.text.slice(0, 200)]).toEqual([200, expect.anything()]);
  return JSON.parse(done.text);
};
const takeBack = (undo: string) => ines.send('POST', '/api/undo', { undo });
const EIGHT = 'BYHOUR=1,2,3,4,5,6,7,8';

describe('while the worst files come in, others read as before', () => {
  const daily = ['DTSTART:20270301T010000Z', 'DTEND:20270301T013000Z'];
  test.each([
    [
      'a thousand rules that never happen',
      () => events(1000, 'never', ...daily, `RRULE:FREQ=DAILY;BYMONTHDAY=31;BYMONTH=2,4,6,9,11;${EIGHT}`),
    ],
    ['a hundred rules of eight a day', () => events(100, 'eight', ...daily, `RRULE:FREQ=DAILY;${EIGHT}`)],
    [
      'a hundred with positions',
      () => events(100, 'positions', ...daily, 'RRULE:FREQ=DAILY;BYHOUR=6,14,19;BYSETPOS=1,-1'),
    ],
  ])('%s', async (name, text) => {
    let took = 0;
    const reads = await readsWhile(async () => {
      const begun = performance.now();
      const read = await preview(text());
      if (read.counts.fresh > 0) {
        const done = JSON.parse((await ines.send('POST', `/api/imports/${read.preview}`)).text);
        expect(done.broughtIn).toBe(read.counts.fresh);
        const key = await calendarOf(ines, 'ines');
        const far = await ines.send('GET', `/api/calendars/${key}/items?from=2045-03-06&to=2045-03-13&zone=UTC`);
        expect(far.status).toBe(200);
        expect((await takeBack(done.undo)).status).toBe(200);
      } else expect(new Set(read.problems.map((p) => p.code))).toEqual(new Set(['ruleNeverHappens']));
      took = performance.now() - begun;
    });
    console.log(
      `${name}: ${Math.round(took)} ms; reads beside p95 ${reads.p95.toFixed(1)} ms, most ${reads.most.toFixed(1)} ms, ${reads.count} of them`,
    );
    takesAtMost(name, took, 20_000);
    takesAtMost(`reads beside ${name}, p95`, reads.p95, 100);
  });

  test.runIf(slow)('twenty thousand single items, within ten seconds, and taken back as one', async () => {
    const singles = file(
      Array.from({ length: 20_000 }, (_, i) => {
        const day = String(1 + (i % 28)).padStart(2, '0');
        const hour = String(i % 24).padStart(2, '0');
        return [
          'BEGIN:VEVENT',
          `UID:single-${i}`,
          `SUMMARY:Single ${i}`,
          `DTSTART:20270${1 + (i % 9)}${day}T${hour}0000Z`,
          `DURATION:PT30M`,
          'END:VEVENT',
        ].join('\r\n');
      }),
    );
    let took = 0;
    let back = 0;
    const reads = await readsWhile(async () => {
      const begun = performance.now();
      const done = await bringIn(singles);
      took = performance.now() - begun;
      expect(done.broughtIn).toBe(20_000);
      expect((await takeBack(done.undo)).status).toBe(200);
      back = performance.now() - begun - took;
    });
    console.log(
      `20,000 single items: ${Math.round(took)} ms in, ${Math.round(back)} ms back; reads beside p95 ${reads.p95.toFixed(1)} ms, most ${reads.most.toFixed(1)} ms`,
    );
    takesAtMost('twenty thousand items', took, 10_000);
    takesAtMost('reads beside, p95', reads.p95, 100);
  });

  test('bringing in can be stopped, and nothing of it stays', async () => {
    const read = await preview(events(3000, 'stopped', 'DTSTART:20270302T090000Z', 'DURATION:PT1H'));
    const coming = ines.send('POST', `/api/imports/${read.preview}`);
    let state = { kind: 'ready', done: 0 };
    while (state.kind !== 'comingIn' || state.done === 0) state = await ines.json(`/api/imports/${read.preview}`);
    expect((await ines.send('DELETE', `/api/imports/${read.preview}`)).status).toBe(200);
    const ended = await coming;
    expect([ended.status, JSON.parse(ended.text).code]).toEqual([409, 'stopped']);
    const key = await calendarOf(ines, 'ines');
    expect((await ines.send('GET', `/api/calendars/${key}/items?${MONDAY}`)).text).not.toContain('stopped 1');
  });
});

test('one person’s slow files wait for each other, not others’ for them', async () => {
  const rule = 'RRULE:FREQ=MINUTELY;INTERVAL=61;BYDAY=MO,TU,WE,TH,FR,SA,SU;BYHOUR=3;BYSETPOS=1';
  const slowFile = events(80, 'slow', 'DTSTART:19000101T080000Z', rule);
  const key = await calendarOf(ines, 'ines');
  const type = { 'content-type': 'text/calendar' };
  let over = 0;
  const sent = Array.from({ length: 6 }, async () => {
    const read = await ines.send('POST', `/api/calendars/${key}/imports`, slowFile, type);
    over += read.status === 200 ? 1 : 0;
    return read.status;
  });
  // Two too many are refused at once; by then the others are under way.
  await Promise.race(sent);
  const kofi = await Caller.stepIn(server.address, 'kofi');
  const path = `/api/calendars/${await calendarOf(kofi, 'kofi')}/imports`;
  const own = await kofi.send('POST', path, events(1, 'quick', 'DTSTART:20270302T090000Z'), type);
  expect([own.status, over < 4]).toEqual([200, true]);
  expect((await Promise.all(sent)).sort()).toEqual([200, 200, 200, 200, 429, 429]);
});

test('an answer has a most, says so, and is asked on behind', async () => {
  const key = await calendarOf(ines, 'ines');
  for (let i = 0; i < 20; i++) {
    const made = await ines.send('POST', `/api/calendars/${key}/items`, {
      when: {
        start: `2027-04-05T${String(i).padStart(2, '0')}:00`,
        end: `2027-04-05T${String(i).padStart(2, '0')}:30`,
        allDay: false,
        zone: 'UTC',
      },
      repeat: { rule: `FREQ=DAILY;${EIGHT};BYMINUTE=${i};UNTIL=20270715T000000Z` },
      title: `Heavy ${i}`,
      notes: 'n'.repeat(20_000),
      visibility: 'private',
    });
    expect(made.status).toBe(200);
  }
  const path = `/api/calendars/${key}/items?from=2027-04-05&to=2027-07-12&zone=UTC`;
  let after: number | null = 0;
  let items = 0;
  let answers = 0;
  while (after !== null) {
    const answer = await ines.send('GET', `${path}&after=${after}`);
    expect(answer.status).toBe(200);
    expect(answer.text.length).toBeLessThan(8_000_000);
    const read = JSON.parse(answer.text);
    items += read.items.length;
    expect(read.items.length).toBeLessThanOrEqual(5000);
    after = read.more;
    answers++;
  }
  expect(answers).toBeGreaterThan(2);
  expect(items).toBeGreaterThan(20 * 8 * 90);
});

/** A request sent by hand, so that it can be sent in parts. */
async function rawRequest(head: string): Promise<{ socket: Socket; said: () => string; ended: Promise<void> }> {
  const socket = connect(server.port, '127.0.0.1');
  let said = '';
  socket.on('data', (data) => {
    said += data.toString();
  });
  const ended = new Promise<void>((done) => {
    socket.on('close', () => done());
    socket.on('error', () => done());
  });
  await new Promise<void>((done) => socket.once('connect', () => done()));
  socket.write(head);
  return { socket, said: () => said, ended };
}
const until = async (what: () => boolean): Promise<void> => {
  for (let i = 0; i < 600 && !what(); i++) await new Promise((go) => setTimeout(go, 20));
  expect(what()).toBe(true);
};

describe('bodies', () => {
  test('larger than may be are refused by what they say of themselves, and by what comes', async () => {
    const lines = ['POST /api/session HTTP/1.1', `Host: localhost:${server.port}`, 'Content-Type: application/json'];
    const said = await rawRequest([...lines, 'Content-Length: 300000000', '', ''].join('\r\n'));
    await until(() => said.said().includes(' 413 '));
    await said.ended;
    const chunked = await rawRequest([...lines, 'Transfer-Encoding: chunked', '', ''].join('\r\n'));
    const chunk = `${(65_536).toString(16)}\r\n${'x'.repeat(65_536)}\r\n`;
    for (let i = 0; i < 100 && !chunked.socket.destroyed; i++) {
      chunked.socket.write(chunk);
      await new Promise((go) => setTimeout(go, 5));
    }
    await until(() => chunked.said().includes(' 413 '));
    await chunked.ended;
  });
  test.runIf(slow)('half-sent are closed in time', async () => {
    const half = await rawRequest(
      [
        'POST /api/session HTTP/1.1',
        `Host: localhost:${server.port}`,
        'Content-Type: application/json',
        'Content-Length: 100',
        '',
        '{"a',
      ].join('\r\n'),
    );
    const begun = Date.now();
    await half.ended;
    expect(half.said()).toContain(' 408 ');
    takesAtMost('half a request', Date.now() - begun, 20_000);
  });
});

describe('rights hold at the instant something is written', () => {
  /** Sends the beginning of a write, does something meanwhile, and sends the rest; answers the status. */
  async function meanwhile(caller: Caller, method: string, path: string, body: object, act: () => Promise<unknown>) {
    const text = JSON.stringify(body);
    const head = [
      `${method} ${path} HTTP/1.1`,
      `Host: localhost:${server.port}`,
      `Cookie: ${caller.cookieLine()}`,
      'Content-Type: application/json',
      `Content-Length: ${Buffer.byteLength(text)}`,
      '',
      text.slice(0, 5),
    ].join('\r\n');
    const sent = await rawRequest(head);
    await act();
    sent.socket.write(text.slice(5));
    await until(() => /HTTP\/1\.1 \d+ /.test(sent.said()));
    sent.socket.destroy();
    return Number(/HTTP\/1\.1 (\d+) /.exec(sent.said())?.[1]);
  }
  const newItem = (title: string) => ({
    title,
    when: { start: '2027-06-09T10:00', end: '2027-06-09T11:00', allDay: false, zone: 'UTC' },
  });

  test('of somebody who is signed out while they send', async () => {
    const leaving = await Caller.stepIn(server.address, 'bruno');
    const key = await calendarOf(leaving, 'bruno');
    const status = await meanwhile(leaving, 'POST', `/api/calendars/${key}/items`, newItem('After signing out'), () =>
      leaving.copy().send('DELETE', '/api/session'),
    );
    expect(status).toBe(401);
  });
  test('of a delegate whose access is taken away while they send', async () => {
    const key = await calendarOf(ines, 'ines');
    type Lines = { rows: { audience: { kind: string; id?: string }; grants: { key: string; rights: object }[] }[] };
    const lines = await ines.json<Lines>(`/api/calendars/${key}/sightlines`);
    const grant = lines.rows.find((r) => r.audience.id === 'tomas')?.grants[0];
    const audience = { kind: 'person', id: 'tomas' };
    const status = await meanwhile(tomas, 'POST', `/api/calendars/${key}/items`, newItem('After being demoted'), () =>
      ines.send('DELETE', `/api/calendars/${key}/grants`, { audience, seen: grant?.key }),
    );
    expect([403, 404]).toContain(status);
    const given = await ines.send('PUT', `/api/calendars/${key}/grants`, {
      audience,
      rights: grant?.rights,
      seen: null,
    });
    expect(given.status).toBe(200);
  });
  test('of an administrator who is none any more', async () => {
    const noor = await Caller.stepIn(server.address, 'noor');
    const wren = { name: 'Wren Castellan', role: '', site: '', kind: 'person' };
    expect((await noor.send('PUT', '/api/people/wren', { ...wren, administrator: true })).status).toBe(200);
    const helper = await Caller.stepIn(server.address, 'wren');
    const status = await meanwhile(helper, 'POST', '/api/groups', { name: 'After' }, () =>
      noor.send('PUT', '/api/people/wren', { ...wren, administrator: false }),
    );
    expect(status).toBe(403);
  });
});

describe('what is asked wrongly', () => {
  test.each(['/api/items/%E0%A4%A', '/for/%E0%A4%A/calendar', '/%', '/api/calendars/%ff/items'])(
    '%s is not there',
    async (path) => {
      expect((await ines.send('GET', path)).status).toBe(404);
    },
  );
  test.each(['/%09/evil.example', '//evil.example', '/\\evil.example', 'https://evil.example', '/%0a/evil.example'])(
    'signing in leads to %s nowhere but here',
    async (to) => {
      const page = await new Caller(server.address).send(
        'GET',
        `/sign-in?to=${encodeURIComponent(decodeURIComponent(to))}`,
      );
      expect(page.status).toBe(200);
      expect(page.text).not.toMatch(/"goal\\?":\\?"[^"]*evil/);
    },
  );
  test('two of one address at once are one person and a refusal', async () => {
    const noor = await Caller.stepIn(server.address, 'noor');
    const person = {
      name: 'Twice Over',
      address: 'twice@cloudmoor.example',
      role: '',
      zone: 'Europe/Lisbon',
      password: 'long enough indeed',
    };
    const answers = await Promise.all([
      noor.send('POST', '/api/people', person),
      noor.send('POST', '/api/people', person),
    ]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
  });
  test('an end of time is refused at its field, and the calendar still comes out', async () => {
    const key = await calendarOf(ines, 'ines');
    const made = await ines.send('POST', `/api/calendars/${key}/items`, {
      title: 'Last',
      when: { start: '9999-12-31T22:00', end: '9999-12-31T23:00', allDay: false, zone: 'America/Bogota' },
    });
    expect([made.status, JSON.parse(made.text).fields.start]).toEqual([400, expect.stringContaining('1900 to 2200')]);
    expect((await ines.send('GET', `/api/calendars/${key}/file`)).status).toBe(200);
  });
  test('a happening without its series comes in once, and joins the series when that comes', async () => {
    const moved = [
      'BEGIN:VEVENT',
      'UID:joined',
      'RECURRENCE-ID:20270614T090000Z',
      'DTSTART:20270615T090000Z',
      'DURATION:PT1H',
      'SUMMARY:Moved',
      'END:VEVENT',
    ].join('\r\n');
    const series = [
      'BEGIN:VEVENT',
      'UID:joined',
      'DTSTART;TZID=Europe/Lisbon:20270607T100000',
      'DURATION:PT1H',
      'RRULE:FREQ=WEEKLY;COUNT=3',
      'SUMMARY:Series',
      'END:VEVENT',
    ].join('\r\n');
    expect((await bringIn(file([moved]))).broughtIn).toBe(1);
    expect((await preview(file([moved]))).counts.fresh).toBe(0);
    expect((await bringIn(file([moved, series]))).broughtIn).toBe(1);
    const key = await calendarOf(ines, 'ines');
    type Listed = { items: { title: string; start: string }[] };
    const { items } = await ines.json<Listed>(`/api/calendars/${key}/items?from=2027-06-07&to=2027-06-28&zone=UTC`);
    expect(items.filter((i) => ['Moved', 'Series'].includes(i.title)).map((i) => `${i.title} ${i.start}`)).toEqual([
      'Series 2027-06-07T09:00:00Z',
      'Moved 2027-06-15T09:00:00Z',
      'Series 2027-06-21T09:00:00Z',
    ]);
  });
});

test('the server that was attacked stands, and wrote no failure of its own', async () => {
  expect((await ines.send('GET', '/api/frame')).status).toBe(200);
});
