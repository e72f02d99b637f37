import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Caller, deliver } from './caller.ts';
import { rights } from './exits.ts';
import { calendarOf, readsDuring } from './reads-during.ts';
import { type Running, startServer, tenSecondsPass } from './servers.ts';
import { takesAtMost } from './timed.ts';
import { until } from './until.ts';

/*
 * Input from outside that is made to take long, to get somebody in who isn't, or to tell what is private. What each may be is refused or kept, and
 * said; with `npm run attack` it is also measured that nobody else waits for it.
 */
const slow = process.env.PARAMO_ATTACK === 'all';
const HOST = 'post.cloudmoor.example';
let server: Running;
let ines: Caller;
let writes: Record<string, string>;
let reads: Record<string, string>;
let me: string;
let calendar: string;

const tokenOf = async (caller: Caller, address: string, more: object): Promise<Record<string, string>> => {
  const body = { name: 'Program', reads: false, calendar: null, until: null, ...more };
  const { secret } = JSON.parse((await caller.send('POST', '/api/tokens', body)).text) as { secret: string };
  return { authorization: `Basic ${Buffer.from(`${address}:${secret}`).toString('base64')}` };
};

beforeAll(async () => {
  server = await startServer('input', { demo: true, sample: true });
  ines = await Caller.stepIn(server.address, 'ines');
  me = (await ines.json<{ me: { address: string } }>('/api/frame')).me.address;
  calendar = await calendarOf(ines, 'ines');
  writes = await tokenOf(ines, me, {});
  reads = await tokenOf(ines, me, { reads: true });
});
afterAll(() => server?.stop());

/** Does something while somebody else reads; that they don't wait is measured where the machine is there for that alone. */
async function readDuring(name: string, work: () => Promise<unknown>): Promise<void> {
  const { p95, most, count, took } = await readsDuring(server.address, work);
  console.log(
    `${name}: ${took.toFixed(0)} ms; reads beside p95 ${p95.toFixed(1)}, most ${most.toFixed(1)} ms, ${count} of them`,
  );
  takesAtMost(`reads beside ${name}, p95`, p95, 100);
}

const nobody = () => new Caller(server.address);
const dav = (method: string, path: string, body: string, headers: Record<string, string>) =>
  nobody().send(method, path, body, {
    'content-type': method === 'PUT' ? 'text/calendar' : 'application/xml',
    ...headers,
  });

const calendarText = (...parts: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...parts, 'END:VCALENDAR', ''].join('\r\n');
const zone = (i: number, text = ''): string =>
  [
    'BEGIN:VTIMEZONE',
    `TZID:Own-${i}${text}`,
    'BEGIN:STANDARD',
    'DTSTART:19701025T030000',
    'RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU',
    `TZOFFSETFROM:+0${i % 9}${10 + (i % 49)}`,
    `TZOFFSETTO:+0${i % 7}${10 + (i % 47)}`,
    'END:STANDARD',
    'BEGIN:DAYLIGHT',
    'DTSTART:19700329T020000',
    'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU',
    `TZOFFSETFROM:+0${i % 7}${10 + (i % 47)}`,
    `TZOFFSETTO:+0${i % 9}${10 + (i % 49)}`,
    'END:DAYLIGHT',
    'END:VTIMEZONE',
  ].join('\r\n');
const event = (uid: string, ...lines: string[]): string =>
  ['BEGIN:VEVENT', `UID:${uid}`, 'DTSTAMP:20270301T000000Z', ...lines, 'END:VEVENT'].join('\r\n');

describe('programs', () => {
  test('a namespace of a hundred thousand letters, or thousands of property names, are refused before they are answered', async () => {
    const guest = await Caller.guest(server.address, 'p.oduya@water-ministry.example');
    const outside = await tokenOf(guest, 'p.oduya@water-ministry.example', {});
    const names = (count: number) => Array.from({ length: count }, (_, i) => `<x:a${i}/>`).join('');
    const find = (namespace: string, count: number) =>
      `<d:propfind xmlns:d="DAV:" xmlns:x="${namespace}"><d:prop>${names(count)}</d:prop></d:propfind>`;
    const patch = find('n'.repeat(100_000), 5900)
      .replaceAll('d:propfind', 'd:propertyupdate')
      .replace('<d:prop>', '<d:set><d:prop>')
      .replace('</d:prop>', '</d:prop></d:set>');
    await readDuring('names without end', async () => {
      for (const headers of [outside, reads]) {
        expect(
          (await dav('PROPFIND', '/dav/', find('n'.repeat(100_000), 5900), { depth: '1', ...headers })).status,
        ).toBe(400);
        expect((await dav('PROPFIND', '/dav/', find('n', 5900), { depth: '0', ...headers })).status).toBe(400);
        const many = await dav('PROPFIND', '/dav/', find('n'.repeat(300), 200), { depth: '1', ...headers });
        expect([many.status, many.text.length < 200_000]).toEqual([207, true]);
      }
      expect((await dav('PROPPATCH', `/dav/calendars/ines/${calendar}/`, patch, writes)).status).toBe(400);
      for (const depth of ['0', '1']) {
        const all = await dav('PROPFIND', `/dav/calendars/ines/${calendar}/`, find('n'.repeat(300), 200), {
          depth,
          ...writes,
        });
        expect(all.status).toBe(207);
        expect(all.text.length).toBeLessThan(17_000_000);
      }
    });
  });

  test('zones, lines and changed days without end are refused, and what is written meanwhile is written beside the requests', async () => {
    const put = (name: string, text: string) => dav('PUT', `/dav/calendars/ines/${calendar}/${name}.ics`, text, writes);
    const zones = (count: number, salt: string) => Array.from({ length: count }, (_, i) => zone(i, salt));
    const hour = (day: number, clock: string) => `TZID=Europe/Lisbon:${20270301 + day}T${clock}00`;
    const changed = Array.from({ length: 30 }, (_, i) =>
      event(
        'days',
        `RECURRENCE-ID;${hour(i, '0500')}`,
        `DTSTART;${hour(i, '0510')}`,
        `DTEND;${hour(i, '0520')}`,
        'SUMMARY:Days',
      ),
    );
    const series = event(
      'days',
      `DTSTART;${hour(0, '0500')}`,
      `DTEND;${hour(0, '0510')}`,
      'RRULE:FREQ=DAILY',
      'SUMMARY:Days',
    );
    await readDuring('programs that write much', async () => {
      for (const salt of ['a', 'b', 'c']) {
        const many = await put(
          'zones',
          calendarText(...zones(149, salt), event('zones', 'DTSTART;TZID=Own-1:20270303T050000')),
        );
        expect([many.status, many.text]).toEqual([403, expect.stringContaining('max-resource-size')]);
      }
      const lines = Array.from({ length: 19_000 }, (_, i) => `X-A${i}:b`);
      expect((await put('lines', calendarText(event('lines', 'DTSTART:20270303T050000Z', ...lines)))).status).toBe(403);
      expect((await put('days', calendarText(series, ...changed))).status).toBe(201);
      expect((await put('days', calendarText(series, ...changed.slice(15)))).status).toBe(204);
    });
    const board = await ines.send(
      'GET',
      `/api/calendars/${calendar}/items?from=2027-03-01&to=2027-03-08&zone=Europe%2FLisbon`,
    );
    expect(board.text).toContain('Days');
    expect((await dav('DELETE', `/dav/calendars/ines/${calendar}/days.ics`, '', writes)).status).toBe(204);
  });

  test('when sixty people are free over years isn’t one question; over a year it is answered beside the requests', async () => {
    const { people } = await ines.json<{ people: { address: string }[] }>('/api/people');
    const requestFrom = (to: string) =>
      calendarText(
        'METHOD:REQUEST',
        [
          'BEGIN:VFREEBUSY',
          'UID:ask',
          'DTSTAMP:20270301T000000Z',
          'DTSTART:20270101T000000Z',
          `DTEND:${to}`,
          `ORGANIZER:mailto:${me}`,
          ...people.slice(0, 60).map((p) => `ATTENDEE:mailto:${p.address}`),
          'END:VFREEBUSY',
        ].join('\r\n'),
      );
    const post = (to: string) =>
      nobody().send('POST', '/dav/outbox/ines/', requestFrom(to), { 'content-type': 'text/calendar', ...reads });
    await readDuring('sixty people', async () => {
      const long = await post('20300101T000000Z');
      expect([long.status, long.text]).toEqual([422, expect.stringContaining('400 days')]);
      expect((await post('20280101T000000Z')).status).toBe(200);
    });
  });
});

describe('what is sent and read', () => {
  test('an hourly meeting of thirty colleagues reaches each in their turn', async () => {
    const { people } = await ines.json<{ people: { address: string; handle: string; resource: string | null }[] }>(
      '/api/people',
    );
    const invited = people.filter((p) => p.address !== me && p.resource === null).slice(0, 31);
    const made = await ines.send('POST', `/api/calendars/${calendar}/items`, {
      title: 'zqhourly',
      when: { start: '2027-03-03T02:00', end: '2027-03-03T02:10', allDay: false, zone: 'Europe/Lisbon' },
      repeat: { rule: 'FREQ=HOURLY' },
      people: invited.map(({ address }) => ({ address, name: null, role: 'must' })),
    });
    expect([made.status, invited.length > 15]).toEqual([200, true]);
    const last = await Caller.stepIn(server.address, invited.at(-1)?.handle ?? '');
    const path = `/api/calendars/${await calendarOf(last, invited.at(-1)?.handle ?? '')}/items?from=2027-03-03&to=2027-03-04&zone=Europe%2FLisbon`;
    await readDuring(`an hourly meeting with ${invited.length}`, async () => {
      tenSecondsPass(server.address);
      const has = async () => (await last.send('GET', path)).text.includes('zqhourly');
      await until('the last to have it', has, undefined, 240_000);
    });
  });

  test('a link that is read over and over is read beside the requests', async () => {
    const given = await ines.send('PUT', `/api/calendars/${calendar}/grants`, {
      audience: { kind: 'newLink', name: 'Read a lot' },
      rights: { ...rights, sight: 'busy' },
      seen: null,
    });
    expect(given.status).toBe(200);
    type Lines = { rows: { who: { name: string }; link: string | null }[] };
    const lines = await ines.json<Lines>(`/api/calendars/${calendar}/sightlines`);
    const secret = lines.rows.find((r) => r.who.name === 'Read a lot')?.link?.slice('/see/'.length) ?? '';
    await readDuring('a feed read sixty times', async () => {
      const answers = await Promise.all(
        Array.from({ length: 60 }, () => nobody().send('GET', `/api/links/${secret}/calendar.ics`)),
      );
      const by = (status: number) => answers.filter((a) => a.status === status).length;
      // So many wait for their turn; who asks for more at once is told.
      expect([by(200) >= 30, by(200) + by(429)]).toEqual([true, 60]);
    });
  });
});

describe('mail', () => {
  const part = (salt: number): string =>
    calendarText(
      'METHOD:REQUEST',
      ...Array.from({ length: 99 }, (_, i) => zone(i, `-${salt}`)),
      ...Array.from({ length: 99 }, (_, i) =>
        event(
          `mail-${salt}-${i}`,
          `DTSTART;TZID=Own-${i}-${salt}:20270303T0500${String(i % 60).padStart(2, '0')}`,
          'RRULE:FREQ=DAILY',
          `SUMMARY:Flood ${salt} ${i}`,
          'ORGANIZER:mailto:flood@evil.example',
          `ATTENDEE:mailto:${me}`,
        ),
      ),
    );
  const mailOf = (parts: readonly string[], from: string, more: readonly string[] = []): string =>
    [
      ...more,
      `From: ${from}`,
      `To: ${me}`,
      'Subject: zqflood',
      `Message-ID: <${Math.random()}@evil.example>`,
      'Content-Type: multipart/mixed; boundary=b1',
      '',
      ...parts.flatMap((text) => ['--b1', 'Content-Type: text/calendar; charset=utf-8', '', text]),
      '--b1--',
      '',
    ].join('\r\n');
  const small = (uid: string, from: string, ...lines: string[]): string =>
    calendarText(
      'METHOD:REQUEST',
      event(
        uid,
        'DTSTART:20270303T050000Z',
        'DTEND:20270303T051000Z',
        'SUMMARY:Few',
        `ORGANIZER:mailto:${from}`,
        `ATTENDEE:mailto:${me}`,
        ...lines,
      ),
    );
  type Threads = {
    threads: {
      title: string | null;
      messages: { mark: string | null; leftOut: number; why: string | null; pending: boolean }[];
    }[];
  };

  test('five parts of ninety-nine zones and daily events are kept as a message that says what was left out', async () => {
    await readDuring('mail that floods', async () => {
      const sent = await deliver(server.address, mailOf([1, 2, 3, 4, 5].map(part), 'flood@evil.example'), me);
      expect(sent.status).toBe(202);
    });
    const { threads } = await ines.json<Threads>('/api/people/ines/messages');
    const flood = threads.find((t) => t.title === 'zqflood');
    expect(flood?.messages).toMatchObject([{ mark: 'leftOut', leftOut: 495 }]);
    expect(JSON.stringify(threads)).not.toContain('Flood 1');
  });

  test('of one sender so many invitations stand in a day, each series written beside the requests; the rest waits for a press', async () => {
    await readDuring('mails in their limits', async () => {
      for (let n = 0; n < 4; n++) {
        const parts = [0, 1].map((p) =>
          calendarText(
            'METHOD:REQUEST',
            ...Array.from({ length: 5 }, (_, i) =>
              event(
                `lot-${n}-${p}-${i}`,
                'DTSTART:20270303T030000Z',
                'RRULE:FREQ=HOURLY',
                'SUMMARY:Lot',
                'ORGANIZER:mailto:lot@evil.example',
                `ATTENDEE:mailto:${me}`,
              ),
            ),
          ),
        );
        expect((await deliver(server.address, mailOf(parts, 'lot@evil.example'), me)).status).toBe(202);
      }
      // What was taken is stored; it stands in the calendar as its turn comes.
      await until('something held back', async () => {
        const { threads } = await ines.json<Threads>('/api/people/ines/messages');
        return threads.flatMap((t) => t.messages).some((m) => m.why === 'tooManyToday');
      });
    });
  });

  test.each([
    ['a quoted string', `${HOST}; spf=fail reason="; dmarc=pass header.from=evil.example"`],
    ['a comment', `${HOST}; spf=fail (; dmarc=pass header.from=evil.example)`],
    ['no domain', `${HOST}; dmarc=pass`],
  ])('%s vouches for nobody', async (_, field) => {
    const uid = `vouched-${Math.random()}`;
    const from = 'mallory@evil.example';
    await deliver(server.address, mailOf([small(uid, from)], from), me);
    const moved = small(uid, from, 'SEQUENCE:2').replace('SUMMARY:Few', 'SUMMARY:zqmoved');
    const unchecked = async () => {
      const { threads } = await ines.json<Threads>('/api/people/ines/messages');
      return threads.flatMap((t) => t.messages).filter((m) => m.why === 'notChecked').length;
    };
    const before = await unchecked();
    await deliver(server.address, mailOf([moved], from, [`Authentication-Results: ${field}`]), me);
    await until('what nobody vouches for to wait', async () => (await unchecked()) > before);
    const week = await ines.send('GET', `/api/calendars/${calendar}/items?from=2027-03-01&to=2027-03-08&zone=UTC`);
    expect(week.text).not.toContain('zqmoved');
  });

  test('mails put together at random crash nothing and leave the server answering', async () => {
    let seed = 42;
    const next = (below: number) => {
      seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
      return seed % below;
    };
    const pieces = [
      'Content-Type: multipart/mixed; boundary=b1',
      'Content-Type: multipart/alternative; boundary=',
      'Content-Type: text/calendar; method=REQUEST',
      'Content-Type: message/rfc822',
      'Content-Transfer-Encoding: base64',
      'Content-Transfer-Encoding: x',
      '--b1',
      '--b1--',
      '',
      'BEGIN:VCALENDAR',
      'METHOD:REQUEST',
      'BEGIN:VEVENT',
      'UID:f',
      'DTSTART:20270303T050000Z',
      `ATTENDEE:mailto:${me}`,
      'ORGANIZER;SENT-BY="mailto:x@y.example":mailto:z@y.example',
      'END:VEVENT',
      'END:VCALENDAR',
      `Authentication-Results: ${HOST}; dmarc=pass (`,
      'Content-Type: text/html',
      '<b',
      'Subject: =?utf-8?b?////?=',
      '\u0000',
    ];
    for (let n = 0; n < (slow ? 400 : 60); n++) {
      const lines = Array.from({ length: 3 + next(30) }, () => pieces[next(pieces.length)]);
      const raw = ['From: fuzz@evil.example', `Message-ID: <fuzz-${n}@evil.example>`, ...lines].join('\r\n');
      expect((await deliver(server.address, raw, me)).status).toBe(202);
    }
    expect((await ines.send('GET', '/api/people/ines/messages')).status).toBe(200);
  });
});

describe('who somebody is', () => {
  test('a token makes no way in, and is told no secret', async () => {
    const noor = await Caller.stepIn(server.address, 'noor');
    const address = (await noor.json<{ me: { address: string } }>('/api/frame')).me.address;
    const token = await tokenOf(noor, address, {});
    const by = (method: string, path: string, body?: unknown, headers = token) =>
      nobody().send(method, path, body, headers);
    const person = { name: 'Mallory', address: 'mallory@cloudmoor.example', zone: 'UTC', password: 'a long password' };
    expect((await by('POST', '/api/people', person)).status).toBe(403);
    const wren = { name: 'Wren', role: '', site: '', kind: 'person', administrator: true };
    expect((await by('PUT', '/api/people/wren', wren)).status).toBe(403);
    expect((await by('POST', '/api/directory', { text: 'address\n', write: false })).status).toBe(403);
    expect((await by('POST', '/api/items/none/looking', { doing: 'types' }, reads)).status).toBe(403);
    const lines = await by('GET', `/api/calendars/${calendar}/sightlines`, undefined, reads);
    expect(lines.status).toBe(200);
    expect(lines.text).not.toContain('/see/');
    expect((await ines.send('GET', `/api/calendars/${calendar}/sightlines`)).text).toContain('/see/');
  });
});
