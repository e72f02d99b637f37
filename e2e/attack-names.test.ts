import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Caller, deliver } from './caller.ts';
import { rights } from './exits.ts';
import { calendarOf } from './reads-during.ts';
import { type Running, START_CODE, startServer, tenSecondsPass } from './servers.ts';
import { until as untilMet } from './until.ts';

/*
 * Who says that they are somebody, and who asks about what isn't theirs to know: over HTTP alone, as a stranger, a colleague and a delegate would.
 */
const HOST = 'post.cloudmoor.example';
const PERPETUA = 'p.oduya@water-ministry.example';
const MALLORY = 'mallory@evil.example';
const WEEK = 'from=2027-03-08&to=2027-03-15&zone=Europe%2FLisbon';
let server: Running;
const people = {} as Record<'ines' | 'tomas' | 'bruno' | 'amara' | 'pim', Caller>;
const addresses = {} as Record<keyof typeof people, string>;
const calendars = {} as Record<keyof typeof people, string>;

beforeAll(async () => {
  server = await startServer('names', { demo: true, sample: true });
  for (const handle of ['ines', 'tomas', 'bruno', 'amara', 'pim'] as const) {
    people[handle] = await Caller.stepIn(server.address, handle);
    addresses[handle] = (await people[handle].json<{ me: { address: string } }>('/api/frame')).me.address;
    calendars[handle] = await calendarOf(people[handle], handle);
  }
});
afterAll(() => server?.stop());

const at = (day: string, hour: string) => ({
  start: `2027-03-${day}T${hour}:00`,
  end: `2027-03-${day}T${hour}:30`,
  allDay: false,
  zone: 'Europe/Lisbon',
});
type Made = { item: { id: string; version: number } };
async function add(handle: keyof typeof people, item: object): Promise<Made['item']> {
  const made = await people[handle].send('POST', `/api/calendars/${calendars[handle]}/items`, item);
  expect([made.status, made.text.slice(0, 100)]).toEqual([200, expect.anything()]);
  return (JSON.parse(made.text) as Made).item;
}
const invited = (...list: string[]) => list.map((address) => ({ address, name: null, role: 'must' }));

/** Asks again until an answer says what it has to, once what waits its ten seconds has left. */
function until<T>(look: () => Promise<T | null | false>): Promise<T> {
  tenSecondsPass(server.address);
  return untilMet('what was sent', look);
}
const board = (handle: keyof typeof people, of: keyof typeof people = handle) =>
  people[handle].send('GET', `/api/calendars/${calendars[of]}/items?${WEEK}`).then((answer) => answer.text);
type Meeting = { state: string; people: { address: string; answer: string; asked: boolean }[] };
const meeting = (id: string) => people.ines.json<Meeting>(`/api/items/${id}/meeting`);

/** What waits for a person because its sender may not say it, in her threads of these titles. */
async function questions(titles: readonly (string | null)[]) {
  type Threads = { threads: { title: string | null; messages: { why: string | null; pending: boolean }[] }[] };
  const { threads } = await people.ines.json<Threads>('/api/people/ines/messages');
  return threads.flatMap((t) => (titles.includes(t.title) ? t.messages.filter((m) => m.why === 'notTheirs') : []));
}

const text = (method: string, ...lines: string[]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//x//x//EN',
    `METHOD:${method}`,
    'BEGIN:VEVENT',
    ...lines,
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ].join('\r\n');
const mail = (from: string, body: string) =>
  deliver(
    server.address,
    [
      `Authentication-Results: ${HOST}; dmarc=pass header.from=${from.split('@')[1]}`,
      `From: ${from}`,
      `To: ${addresses.ines}`,
      `Message-ID: <${Math.random()}@x.example>`,
      'Content-Type: text/calendar; charset=utf-8',
      '',
      body,
    ].join('\r\n'),
    addresses.ines,
  );
const uidOf = async (title: string): Promise<string> => {
  const { text: file } = await people.ines.send('GET', `/api/calendars/${calendars.ines}/file`);
  const event = file
    .replace(/\r\n /g, '')
    .split('BEGIN:VEVENT')
    .find((one) => one.includes(`SUMMARY:${title}`));
  return /UID:(.*)\r\n/.exec(event ?? '')?.[1] ?? '';
};

describe('who somebody is', () => {
  test('a stranger who says that they send for somebody asked answers nothing, sends nobody, and is told nothing', async () => {
    const item = await add('ines', {
      title: 'zqtalk',
      notes: 'zqnotes',
      when: at('09', '06'),
      people: invited(PERPETUA),
    });
    await until(async () => ((await meeting(item.id)).people[0]?.asked ? true : null));
    const uid = await uidOf('zqtalk');
    const as = (params: string) =>
      text(
        'REPLY',
        `UID:${uid}`,
        'SEQUENCE:9',
        'DTSTAMP:20290301T000000Z',
        `ORGANIZER:mailto:${addresses.ines}`,
        `ATTENDEE;${params};SENT-BY="mailto:${MALLORY}":mailto:${PERPETUA}`,
      );
    expect((await mail(MALLORY, as('PARTSTAT=DECLINED'))).status).toBe(202);
    expect((await mail(MALLORY, as(`PARTSTAT=DELEGATED;DELEGATED-TO="mailto:${MALLORY}"`))).status).toBe(202);
    const claims = await until(async () => {
      const found = await questions(['zqtalk']);
      return found.length === 2 ? found : null;
    });
    expect(claims).toMatchObject([{ pending: true }, { pending: true }]);
    const { people: attendees } = await meeting(item.id);
    expect(attendees.map((one) => one.address)).toEqual([PERPETUA]);
    const traffic = (await new Caller(server.address).send('GET', '/correspondents')).text;
    expect(traffic).not.toContain(MALLORY);
  });

  test('nobody moves or calls off another’s meeting by saying that they send for them', async () => {
    const [org, evil] = ['org@freemail.example', 'evil@freemail.example'];
    const calledOff = async () => (await board('ines')).split('"cancelled":true').length;
    const before = await calledOff();
    const first = (...lines: string[]) => ['UID:zqtheirs', `ATTENDEE:mailto:${addresses.ines}`, ...lines];
    const time = ['DTSTART:20270310T060000Z', 'DTEND:20270310T063000Z'];
    await mail(
      org,
      text('REQUEST', ...first('DTSTAMP:20270301T000000Z', 'SUMMARY:zqtheirs', `ORGANIZER:mailto:${org}`, ...time)),
    );
    const by = [`ORGANIZER;SENT-BY="mailto:${evil}":mailto:${org}`, 'SEQUENCE:5', 'DTSTAMP:20290301T000000Z'];
    await mail(evil, text('REQUEST', ...first('SUMMARY:zqmoved', ...by, ...time)));
    await mail(evil, text('CANCEL', ...first(...by)));
    await until(async () => (await questions(['zqtheirs', 'zqmoved'])).length === 2);
    const seen = await board('ines');
    expect([seen.includes('zqtheirs'), seen.includes('zqmoved'), await calledOff()]).toEqual([true, false, before]);
  });

  test('whoever opens the address first becomes nobody without the code that the server printed', async () => {
    const fresh = await startServer('fresh', { demo: false, env: { PARAMO_START_CODE: START_CODE } });
    try {
      const first = { name: 'Mallory', address: MALLORY, zone: 'UTC', password: 'a long password' };
      const start = (code?: string) =>
        new Caller(fresh.address).send('POST', '/api/start', { ...first, ...(code === undefined ? {} : { code }) });
      expect([(await start()).status, (await start('guessed')).status]).toEqual([400, 400]);
      const many = await Promise.all(Array.from({ length: 30 }, (_, i) => start(`guess ${i}`)));
      expect(many.some((answer) => answer.status === 429)).toBe(true);
      expect((await start(START_CODE)).status).toBe(429);
    } finally {
      await fresh.stop();
    }
  });
});

describe('what is private', () => {
  test('is private in the calendars of those it asks, and stays so whoever acts for them', async () => {
    await add('ines', {
      title: 'zqsecret',
      notes: 'zqsecretnotes',
      visibility: 'private',
      when: at('11', '06'),
      people: invited(addresses.bruno),
    });
    await until(async () => ((await board('bruno')).includes('zqsecret') ? true : null));
    // Bruno lets Tomas, who assists him, open what is private: him alone.
    expect(await board('tomas', 'bruno')).toContain('zqsecret');
    for (const who of ['amara', 'pim'] as const)
      expect([who, await board(who, 'bruno')]).not.toEqual([who, expect.stringContaining('zqsecret')]);
  });

  test('tells nothing to who writes an item of their own under its UID', async () => {
    const item = await add('bruno', { title: 'zqclinic', visibility: 'private', when: at('12', '06') });
    const stored = await people.bruno.send('GET', `/api/calendars/${calendars.bruno}/file`);
    const event = stored.text
      .replace(/\r\n /g, '')
      .split('BEGIN:VEVENT')
      .find((one) => one.includes('SUMMARY:zqclinic'));
    const uid = /UID:(.*)\r\n/.exec(event ?? '')?.[1] ?? '';
    const { secret } = JSON.parse(
      (await people.pim.send('POST', '/api/tokens', { name: 'p', reads: false, calendar: null, until: null })).text,
    ) as { secret: string };
    const headers = {
      authorization: `Basic ${Buffer.from(`${addresses.pim}:${secret}`).toString('base64')}`,
      'content-type': 'text/calendar',
    };
    const put = (name: string, as: string) =>
      new Caller(server.address).send(
        'PUT',
        `/dav/calendars/pim/${calendars.pim}/${name}.ics`,
        text(
          'X',
          `UID:${as}`,
          'DTSTAMP:20270301T000000Z',
          'DTSTART;TZID=Europe/Lisbon:20270312T060000',
          'DTEND;TZID=Europe/Lisbon:20270312T063000',
          `SUMMARY:${name}`,
        ).replace('METHOD:X\r\n', ''),
        headers,
      );
    expect([(await put('zqprobe', uid)).status, (await put('zqother', 'made-up')).status]).toEqual([201, 201]);
    const own = await people.pim.json<{ items: { id: string; title: string }[] }>(
      `/api/calendars/${calendars.pim}/items?${WEEK}`,
    );
    const comingWith = async (title: string) => {
      const id = own.items.find((one) => one.title === title)?.id ?? null;
      const body = { when: at('12', '06'), people: [addresses.bruno], item: id };
      return (await people.pim.send('POST', `/api/calendars/${calendars.pim}/coming`, body)).text;
    };
    expect([item.id !== '', await comingWith('zqprobe')]).toEqual([true, await comingWith('zqother')]);
    expect(await comingWith('zqprobe')).not.toContain('"free"');
  });

  test('says nothing on the page, or in the mail, of a time that is offered, but how it was worded', async () => {
    const starts = ['2027-03-13T06:00:00Z', '2027-03-13T07:00:00Z'];
    const held = await people.ines.send('POST', `/api/calendars/${calendars.ines}/holds`, {
      title: 'zqinner',
      place: 'zqplace',
      length: 30,
      starts,
      zone: 'Europe/Lisbon',
      lapses: '2027-03-12T06:00:00Z',
      people: [],
    });
    expect(held.status).toBe(200);
    const id = (JSON.parse(held.text) as { items: { id: string }[] }).items[0]?.id ?? '';
    const offered = await people.ines.send('POST', `/api/items/${id}/offer`, { words: 'A talk in the open' });
    const path = (JSON.parse(offered.text) as { offer: { address: string } }).offer.address.slice('/offer/'.length);
    const stranger = new Caller(server.address);
    const chosen = await stranger.send('POST', `/api/offers/${path}`, {
      start: starts[0],
      name: 'Perpetua',
      address: PERPETUA,
    });
    expect(chosen.status).toBe(200);
    const traffic = await until(async () => {
      const seen = (await stranger.send('GET', '/correspondents')).text;
      return seen.includes('A talk in the open') ? seen : null;
    });
    expect(traffic).not.toMatch(/zqinner|zqplace/);
  });

  test('goes with the stewardship of who made a calendar for somebody', async () => {
    const given = await people.ines.send('PUT', `/api/calendars/${calendars.ines}/grants`, {
      audience: { kind: 'person', id: 'pim' },
      rights: { ...rights, add: true, change: 'all', remove: 'all', speaks: true, shares: true },
      seen: await grantOf('pim'),
    });
    expect([given.status, given.text.slice(0, 200)]).toEqual([200, expect.anything()]);
    const made = await people.pim.send('POST', '/api/calendars', { of: 'ines', name: 'zqkept' });
    expect(made.status).toBe(200);
    const { calendar } = JSON.parse(made.text) as { calendar: string };
    type Notices = { notices: { kind: string; further: { name: string } | null }[] };
    const { notices } = await people.ines.json<Notices>('/api/notices');
    expect(notices[0]).toMatchObject({ kind: 'begun', further: { name: 'zqkept' } });
    const key = await grantOf('pim');
    const taken = await people.ines.send('DELETE', `/api/calendars/${calendars.ines}/grants`, {
      audience: { kind: 'person', id: 'pim' },
      seen: key,
    });
    expect(taken.status).toBe(200);
    const lines = await people.pim.send('GET', `/api/calendars/${calendar}/sightlines`);
    expect([403, 404]).toContain(lines.status);
  });

  async function grantOf(handle: string): Promise<string | null> {
    type Lines = { rows: { audience: { id?: string }; grants: { key: string }[] }[] };
    const lines = await people.ines.json<Lines>(`/api/calendars/${calendars.ines}/sightlines`);
    return lines.rows.find((row) => row.audience.id === handle)?.grants[0]?.key ?? null;
  }
});
