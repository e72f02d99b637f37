import ical from 'node-ical';
import { createDAVClient } from 'tsdav';
import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { rights } from './exits.ts';
import { sampleFor } from './servers.ts';

/** The calendar protocol, by a client that nobody here wrote: what a calendar program of somebody's finds, writes and is refused. */
const home = await sampleFor('programs');
const WEEK = { start: '2027-09-06T00:00:00Z', end: '2027-09-13T00:00:00Z' };
/** An evening hour at which nobody has anything. */
const EVENING = { start: '2027-09-08T21:00:00Z', end: '2027-09-08T22:00:00Z' };

type Client = Awaited<ReturnType<typeof createDAVClient>>;
interface Person {
  readonly caller: Caller;
  readonly address: string;
  readonly handle: string;
  readonly secret: string;
  readonly key: string;
}

/** Somebody with a token of theirs, whose program has found its way in from the host alone. */
async function programOf(handle: string, more: object = {}): Promise<Person & { client: Client; calendar: string }> {
  const caller = await Caller.stepIn(home, handle);
  const body = { name: 'Calendar program', reads: false, calendar: null, until: null, ...more };
  const made = await caller.send('POST', '/api/tokens', body);
  expect(made.status).toBe(200);
  const { secret } = JSON.parse(made.text) as { secret: string };
  type Frame = { me: { address: string }; principals: { own: boolean; calendar: string }[] };
  const frame = await caller.json<Frame>('/api/frame');
  const { tokens } = await caller.json<{ tokens: { key: string }[] }>('/api/tokens');
  const client = await createDAVClient({
    serverUrl: home,
    credentials: { username: frame.me.address, password: secret },
    authMethod: 'Basic',
    defaultAccountType: 'caldav',
  });
  const calendar = frame.principals.find((p) => p.own)?.calendar ?? '';
  return { caller, address: frame.me.address, handle, secret, key: tokens[0]?.key ?? '', client, calendar };
}

const basic = ({ address, secret }: Person) => ({
  authorization: `Basic ${Buffer.from(`${address}:${secret}`).toString('base64')}`,
});
const nobody = new Caller(home);

const text = (uid: string, title: string, from: string, to: string): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//A program//EN',
    'BEGIN:VEVENT',
    `UID:${uid}`,
    'DTSTAMP:20270302T090000Z',
    `DTSTART;TZID=Europe/Lisbon:${from}`,
    `DTEND;TZID=Europe/Lisbon:${to}`,
    `SUMMARY:${title}`,
    'LOCATION:Ridge House',
    'DESCRIPTION:zqprogramnotes',
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ].join('\r\n');

async function eventsOf(client: Client, url: string, timeRange = WEEK) {
  const objects = await client.fetchCalendarObjects({ calendar: { url }, timeRange });
  return objects.flatMap((one) =>
    Object.values(ical.sync.parseICS(String(one.data))).flatMap((e) =>
      e?.type === 'VEVENT' ? [{ url: one.url, etag: one.etag, title: String(e.summary), starts: e.start as Date }] : [],
    ),
  );
}

test('a program finds its calendars from the host alone, adds, changes and removes, and the board shows it', async () => {
  const ines = await programOf('ines');
  const calendars = await ines.client.fetchCalendars();
  const own = calendars.find((one) => one.url.includes(ines.calendar));
  expect(own?.displayName).toBe('Inés Varga');
  expect(own?.components).toEqual(['VEVENT']);
  const url = own?.url ?? '';
  const iCalString = text('program-1', 'Owls of the uplands', '20270907T100000', '20270907T110000');
  const added = await ines.client.createCalendarObject({ calendar: { url }, filename: 'program-1.ics', iCalString });
  expect(added.status).toBe(201);
  // Added once more it would be written over: that is refused by what the program itself says it saw.
  const twice = await ines.client.createCalendarObject({ calendar: { url }, filename: 'program-1.ics', iCalString });
  expect(twice.status).toBe(412);
  // Under another name it is refused with the address it has already (RFC 4791 5.3.2.1).
  const other = await ines.client.createCalendarObject({ calendar: { url }, filename: 'other.ics', iCalString });
  expect(other.status).toBe(403);
  expect(await other.text()).toMatch(/no-uid-conflict[^>]*><[^>]*href>[^<]*program-1\.ics</);
  const [event] = (await eventsOf(ines.client, url)).filter((e) => e.title === 'Owls of the uplands');
  expect(event?.starts.toISOString()).toBe('2027-09-07T09:00:00.000Z');
  const range = 'from=2027-09-06&to=2027-09-13&zone=Europe%2FLisbon';
  const board = async () => (await ines.caller.send('GET', `/api/calendars/${ines.calendar}/items?${range}`)).text;
  expect(await board()).toContain('"title":"Owls of the uplands"');
  const [object] = await ines.client.fetchCalendarObjects({ calendar: { url }, objectUrls: [event?.url ?? ''] });
  const later = String(object?.data)
    .replace(/T100000/, 'T150000')
    .replace(/T110000/, 'T160000');
  const changed = { url: event?.url ?? '', etag: event?.etag ?? '', data: later };
  expect((await ines.client.updateCalendarObject({ calendarObject: changed })).status).toBe(204);
  expect(await board()).toContain('"start":"2027-09-07T14:00:00Z"');
  // The tag it had is that of what isn't there any more.
  expect((await ines.client.updateCalendarObject({ calendarObject: changed })).status).toBe(412);
  const [now] = (await eventsOf(ines.client, url)).filter((e) => e.title === 'Owls of the uplands');
  const gone = { url: now?.url ?? '', etag: now?.etag ?? '' };
  expect((await ines.client.deleteCalendarObject({ calendarObject: gone })).status).toBe(204);
  expect(await board()).not.toContain('Owls of the uplands');
});

test('what changed since a program last asked is all that it gets, and a token that isn’t kept begins anew', async () => {
  const person = await programOf('mateo');
  const { client, calendar } = person;
  const own = (await client.fetchCalendars()).find((one) => one.url.includes(calendar));
  expect([typeof own?.syncToken, typeof own?.ctag]).toEqual(['string', 'string']);
  const path = `/dav/calendars/mateo/${calendar}/`;
  const sync = (token: string) =>
    nobody.send(
      'REPORT',
      path,
      `<?xml version="1.0"?><D:sync-collection xmlns:D="DAV:"><D:sync-token>${token}</D:sync-token><D:sync-level>1</D:sync-level><D:prop><D:getetag/></D:prop></D:sync-collection>`,
      { ...basic(person), depth: '0' },
    );
  const tokenOf = (text: string) => /<[^<>]*sync-token>([^<]+)</.exec(text)?.[1] ?? '';
  const hrefsOf = (text: string) =>
    [...text.matchAll(/<[^<>/]*href>([^<]+)</g)].map(([, href = '']) => href.split('/').at(-1));
  const first = await sync('');
  expect(first.status).toBe(207);
  const iCalString = text('sync-1', 'Peat walk', '20270907T100000', '20270907T110000');
  const url = `${home}${path}`;
  expect((await client.createCalendarObject({ calendar: { url }, filename: 'sync-1.ics', iCalString })).status).toBe(
    201,
  );
  const second = await sync(tokenOf(first.text));
  expect([second.status, hrefsOf(second.text)]).toEqual([207, ['sync-1.ics']]);
  expect((await client.fetchCalendars()).find((one) => one.url.includes(calendar))?.syncToken).toBe(
    tokenOf(second.text),
  );
  expect((await client.deleteCalendarObject({ calendarObject: { url: `${url}sync-1.ics`, etag: '' } })).status).toBe(
    204,
  );
  const third = await sync(tokenOf(second.text));
  expect(hrefsOf(third.text)).toEqual(['sync-1.ics']);
  expect(third.text).toContain('404');
  expect(hrefsOf((await sync(tokenOf(third.text))).text)).toEqual([]);
  for (const unknown of ['urn:paramo:sync:never', 'https://elsewhere.example/1'])
    expect(await sync(unknown)).toMatchObject({ status: 403, text: expect.stringContaining('valid-sync-token') });
});

test('a program finds the address books from the host alone, adds, changes and removes, and the screen shows it', async () => {
  const me = await programOf('tomas');
  const client = await createDAVClient({
    serverUrl: home,
    credentials: { username: me.address, password: me.secret },
    authMethod: 'Basic',
    defaultAccountType: 'carddav',
  });
  const books = await client.fetchAddressBooks();
  expect(books.map((book) => book.displayName).sort()).toEqual(['Contacts', 'Inés Varga, Contacts']);
  const [own, hers] = ['Contacts', 'Inés Varga, Contacts'].map((name) =>
    books.find((book) => book.displayName === name),
  );
  if (!own || !hers) throw new Error('no address books');
  const cards = await client.fetchVCards({ addressBook: hers });
  expect(cards.map(({ data }) => /^FN:(.*)$/m.exec(data)?.[1]?.trim())).toContain('Marta Quill');
  expect(cards.some(({ data }) => String(data).includes('Serra'))).toBe(false);
  const card = (name: string) =>
    `BEGIN:VCARD\r\nVERSION:3.0\r\nUID:by-a-program\r\nN:;${name};;;\r\nFN:${name}\r\nX-MINE:1\r\nEND:VCARD\r\n`;
  const made = await client.createVCard({ addressBook: own, filename: 'mine.vcf', vCardString: card('Pilot') });
  expect(made.status).toBe(201);
  const there = (await client.fetchVCards({ addressBook: own })).find(({ url }) => url.endsWith('/mine.vcf'));
  expect(there?.data).toContain('X-MINE:1');
  const changed = await client.updateVCard({ vCard: { ...there, url: there?.url ?? '', data: card('Pilot boat') } });
  expect(changed.status).toBe(204);
  type Contacts = { contacts: { name: string }[] };
  const key = own.url.split('/').at(-2) ?? '';
  const { contacts } = await me.caller.json<Contacts>(`/api/books/${key}/contacts`);
  expect(contacts.map(({ name }) => name)).toContain('Pilot boat');
  const stale = await client.deleteVCard({ vCard: { url: there?.url ?? '', etag: there?.etag ?? '' } });
  expect(stale.status).toBe(412);
  const gone = await client.deleteVCard({ vCard: { url: there?.url ?? '' } });
  expect(gone.status).toBe(204);
  const send = (method: string, path: string, body?: string, type = 'text/vcard') =>
    nobody.send(method, new URL(path, home).pathname, body, { ...basic(me), 'content-type': type });
  const bad = await send('PUT', `${own.url}bad.vcf`, 'BEGIN:VCARD\r\nVERSION:2.1\r\nFN:x\r\nEND:VCARD\r\n');
  expect([bad.status, bad.text]).toEqual([403, expect.stringContaining('valid-address-data')]);
  const wrong = await send('PUT', `${own.url}bad.ics`, 'BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n', 'text/calendar');
  expect([wrong.status, wrong.text]).toEqual([403, expect.stringContaining('supported-address-data')]);
});

test('others’ calendars open at exactly one’s sight, say what one may do there, and refuse the rest', async () => {
  const [nils, elin] = [await programOf('nils'), await programOf('elin')];
  const mine = `/dav/calendars/nils/${nils.calendar}/`;
  const theirs = `/dav/calendars/elin/${nils.calendar}/`;
  const iCalString = text('program-2', 'Beaver count', '20270908T220000', '20270908T230000');
  const added = await nils.client.createCalendarObject({
    calendar: { url: home + mine },
    filename: 'program-2.ics',
    iCalString,
  });
  expect(added.status).toBe(201);
  const give = async (more: object) => {
    type Lines = { rows: { audience: { id?: string }; grants: { key: string }[] }[] };
    const lines = await nils.caller.json<Lines>(`/api/calendars/${nils.calendar}/sightlines`);
    const seen = lines.rows.find((row) => row.audience.id === 'elin')?.grants[0]?.key ?? null;
    const body = { audience: { kind: 'person', id: 'elin' }, rights: { ...rights, ...more }, seen };
    const given = await nils.caller.send('PUT', `/api/calendars/${nils.calendar}/grants`, body);
    expect([given.status, given.text.slice(0, 200)]).toEqual([200, given.text.slice(0, 200)]);
  };
  const privileges = async () => {
    const wanted = '<propfind xmlns="DAV:"><prop><current-user-privilege-set/><owner/><displayname/></prop></propfind>';
    const said = await nobody.send('PROPFIND', theirs, wanted, { ...basic(elin), depth: '0' });
    expect(said.status).toBe(207);
    return [...said.text.matchAll(/<d:privilege><(?:\w+):([\w-]+)\/>/g)].map((m) => m[1]);
  };
  const titles = async () => (await eventsOf(elin.client, home + theirs, EVENING)).map((e) => e.title);

  await give({ sight: 'busy' });
  expect(await titles()).toEqual(['Busy']);
  expect(await privileges()).toEqual(['read', 'read-current-user-privilege-set', 'read-free-busy']);
  const put = { calendar: { url: home + theirs }, filename: 'x.ics', iCalString: iCalString.replace('program-2', 'x') };
  expect((await elin.client.createCalendarObject(put)).status).toBe(403);

  await give({ sight: 'outline' });
  const calendars = await elin.client.fetchCalendars();
  expect(calendars.map((one) => one.displayName)).toContain('Nils Farrow');
  expect(await titles()).toEqual(['Beaver count']);
  const outline = await elin.client.fetchCalendarObjects({ calendar: { url: home + theirs }, timeRange: EVENING });
  expect(JSON.stringify(outline)).toContain('Ridge House');
  expect(JSON.stringify(outline)).not.toContain('zqprogramnotes');
  const seen = outline[0] ?? { url: '', etag: '', data: '' };
  const data = String(seen.data).replace('Beaver count', 'Not hers to say');
  expect((await elin.client.updateCalendarObject({ calendarObject: { ...seen, data } })).status).toBe(403);
  expect((await elin.client.deleteCalendarObject({ calendarObject: seen })).status).toBe(403);

  await give({ sight: 'full', add: true, change: 'all', remove: 'all', speaks: true });
  expect(await privileges()).toEqual(
    expect.arrayContaining(['read', 'write', 'bind', 'write-content', 'unbind', 'read-free-busy']),
  );
  const [whole] = await elin.client.fetchCalendarObjects({ calendar: { url: home + theirs }, timeRange: EVENING });
  const words = String(whole?.data).replace('Beaver count', 'Beaver count, east');
  const written = await elin.client.updateCalendarObject({
    calendarObject: { url: whole?.url ?? '', etag: whole?.etag ?? '', data: words },
  });
  expect(written.status).toBe(204);
  const mines = await nils.caller.send(
    'GET',
    `/api/calendars/${nils.calendar}/items?from=2027-09-06&to=2027-09-13&zone=UTC`,
  );
  expect(mines.text).toContain('Beaver count, east');
  expect(mines.text).toContain('"actor":"Elin');

  await give({ sight: 'nothing' });
  const hidden = await nobody.send('PROPFIND', theirs, undefined, { ...basic(elin), depth: '1' });
  const none = await nobody.send('PROPFIND', '/dav/calendars/elin/none/', undefined, { ...basic(elin), depth: '1' });
  expect([hidden.status, hidden.text]).toEqual([none.status, none.text]);
  expect(hidden.status).toBe(404);
  expect((await elin.client.fetchCalendars()).map((one) => one.url).join()).not.toContain(nils.calendar);
});

test('when others are free is asked of one calendar and of several people at once, and answered by one’s sight', async () => {
  const { client, calendar, address, ...who } = await programOf('wren');
  const url = `${home}/dav/calendars/wren/${calendar}/`;
  const iCalString = text('program-3', 'Otter walk', '20270909T100000', '20270909T110000');
  expect((await client.createCalendarObject({ calendar: { url }, filename: '3.ics', iCalString })).status).toBe(201);
  const query = (inside: string) =>
    `<?xml version="1.0"?><free-busy-query xmlns="urn:ietf:params:xml:ns:caldav">${inside}</free-busy-query>`;
  const headers = { ...basic({ ...who, address, client, calendar } as Person), depth: '1' };
  const path = `/dav/calendars/wren/${calendar}/`;
  const said = await nobody.send(
    'REPORT',
    path,
    query('<time-range start="20270909T000000Z" end="20270910T000000Z"/>'),
    headers,
  );
  expect([said.status, said.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8']);
  expect(said.text).toContain('FREEBUSY;FBTYPE=BUSY:20270909T090000Z/20270909T100000Z');
  const question = (organiser: string) =>
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//x//EN',
      'METHOD:REQUEST',
      'BEGIN:VFREEBUSY',
      'UID:q-1',
      'DTSTAMP:20270302T090000Z',
      'DTSTART:20270909T000000Z',
      'DTEND:20270910T000000Z',
      `ORGANIZER:mailto:${organiser}`,
      `ATTENDEE:mailto:${address}`,
      'ATTENDEE:mailto:nobody@cloudmoor.example',
      'END:VFREEBUSY',
      'END:VCALENDAR',
      '',
    ].join('\r\n');
  const calendarType = { 'content-type': 'text/calendar' };
  const answered = await nobody.send('POST', '/dav/outbox/wren/', question(address), { ...headers, ...calendarType });
  expect(answered.status).toBe(200);
  expect([...answered.text.matchAll(/<c:request-status>([^<]*)</g)].map((m) => m[1])).toEqual([
    '2.0;Success',
    '3.7;Invalid calendar user',
  ]);
  expect(answered.text).toContain('FREEBUSY;FBTYPE=BUSY:20270909T090000Z/20270909T100000Z');
  const other = await nobody.send('POST', '/dav/outbox/wren/', question('somebody@cloudmoor.example'), {
    ...headers,
    ...calendarType,
  });
  expect([other.status, other.text.includes('organizer-allowed')]).toEqual([403, true]);
});

test('what can’t be read, is too much or isn’t meant here is refused with its condition, and a withdrawn token opens nothing', async () => {
  const hedda = await programOf('hedda');
  const path = `/dav/calendars/hedda/${hedda.calendar}/`;
  const headers = basic(hedda);
  const send = (method: string, at: string, body?: string, more: Record<string, string> = {}) =>
    nobody.send(method, at, body, { ...headers, ...more });
  const calendarType = { 'content-type': 'text/calendar' };
  const query = (filter: string) =>
    `<c:calendar-query xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav"><d:prop><d:getetag/></d:prop><c:filter>${filter}</c:filter></c:calendar-query>`;
  const cases: [status: number, says: string, answer: ReturnType<typeof send>][] = [
    [400, '', send('PROPFIND', path, 'not xml', { depth: '0' })],
    [
      400,
      '',
      send('PROPFIND', path, '<!DOCTYPE x [<!ENTITY a "b">]><propfind xmlns="DAV:"><allprop/></propfind>', {
        depth: '0',
      }),
    ],
    [403, 'propfind-finite-depth', send('PROPFIND', path, undefined, { depth: 'infinity' })],
    [403, 'supported-report', send('REPORT', path, '<x xmlns="urn:none"/>')],
    [
      403,
      'valid-filter',
      send(
        'REPORT',
        path,
        query(
          '<c:comp-filter name="VCALENDAR"><c:comp-filter name="VEVENT"><c:time-range start="yesterday"/></c:comp-filter></c:comp-filter>',
        ),
      ),
    ],
    [
      403,
      'supported-filter',
      send(
        'REPORT',
        path,
        query(
          '<c:comp-filter name="VCALENDAR"><c:comp-filter name="VTODO"><c:time-range start="20270101T000000Z"/></c:comp-filter></c:comp-filter>',
        ),
      ),
    ],
    [403, 'valid-calendar-data', send('PUT', `${path}a.ics`, 'hello', calendarType)],
    [
      403,
      'valid-calendar-object-resource',
      send(
        'PUT',
        `${path}a.ics`,
        text('m', 'm', '20270907T100000', '20270907T110000').replace('VERSION', 'METHOD:REQUEST\r\nVERSION'),
        calendarType,
      ),
    ],
    [
      403,
      'supported-calendar-component',
      send('PUT', `${path}a.ics`, 'BEGIN:VCALENDAR\r\nBEGIN:VTODO\r\nEND:VTODO\r\nEND:VCALENDAR\r\n', calendarType),
    ],
    [403, 'supported-calendar-data', send('PUT', `${path}a.ics`, '{}', { 'content-type': 'application/json' })],
    [403, 'max-resource-size', send('PUT', `${path}a.ics`, 'x'.repeat(270_000), calendarType)],
    // As much as isn't even read.
    [403, 'max-resource-size', send('PUT', `${path}a.ics`, 'x'.repeat(900_000), calendarType)],
    // From the bare host one is led on, with what one asked.
    [307, '', send('PROPFIND', '/', undefined, { depth: '0' })],
    [404, '', send('GET', `${path}none.ics`)],
    [
      404,
      '',
      send('PUT', '/dav/calendars/ines/none/a.ics', text('a', 'a', '20270907T100000', '20270907T110000'), calendarType),
    ],
    [405, '', send('MKCALENDAR', `${path}new/`)],
    [405, '', send('DELETE', path)],
    [
      207,
      'cannot-modify-protected-property',
      send(
        'PROPPATCH',
        path,
        '<propertyupdate xmlns="DAV:"><set><prop><displayname>x</displayname></prop></set></propertyupdate>',
      ),
    ],
    [200, '', send('OPTIONS', path)],
    [404, '', nobody.send('POST', '/api/dav', '', { ...headers, 'x-dav-method': 'PROPFIND', 'x-dav-path': path })],
    [401, '', nobody.send('PROPFIND', path, undefined, { depth: '0' })],
    [401, '', hedda.caller.send('PROPFIND', path, undefined, { depth: '0' })],
  ];
  for (const [i, [status, says, answer]] of cases.entries()) {
    const said = await answer;
    expect([i, said.status, said.text.includes(says)]).toEqual([i, status, true]);
  }
  const reading = await programOf('hedda', { reads: true });
  const put = await nobody.send('PUT', `${path}b.ics`, text('b', 'b', '20270907T100000', '20270907T110000'), {
    ...basic(reading),
    ...calendarType,
  });
  expect([put.status, put.text.includes('need-privileges')]).toEqual([403, true]);
  expect((await nobody.send('PROPFIND', path, undefined, { ...basic(reading), depth: '0' })).status).toBe(207);
  expect((await hedda.caller.send('DELETE', `/api/tokens/${hedda.key}`)).status).toBe(200);
  expect((await send('PROPFIND', path, undefined, { depth: '0' })).status).toBe(401);
});

const CALDAV = 'xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav"';

test('a program makes a calendar, calls it otherwise, and moves and copies between one’s own', async () => {
  const person = await programOf('wren');
  const send = (method: string, path: string, body?: string, headers: Record<string, string> = {}) =>
    nobody.send(method, path, body, { ...basic(person), ...headers });
  const home = '/dav/calendars/wren/';
  const made = `${home}6f1c0e9a-1b7d-4c55-9d3e-aa01bb02cc03/`;
  const props = (inside: string) => `<d:set><d:prop>${inside}</d:prop></d:set>`;
  const mk = (inside: string) => `<c:mkcalendar ${CALDAV}>${props(inside)}</c:mkcalendar>`;
  const named = mk(
    '<d:displayname>Weir watch</d:displayname><c:calendar-description>By night</c:calendar-description>',
  );
  expect((await send('MKCALENDAR', `${home}weir/`, named)).text).toContain('calendar-collection-location-ok');
  const coloured = await send(
    'MKCALENDAR',
    made,
    mk('<d:displayname>X</d:displayname><x:tint xmlns:x="urn:x">teal</x:tint>'),
  );
  expect([coloured.status, coloured.text.includes('424')]).toEqual([403, true]);
  expect((await send('MKCALENDAR', made, named)).status).toBe(201);
  const again = await send('MKCALENDAR', made, named);
  expect([again.status, again.text.includes('resource-must-be-null')]).toEqual([403, true]);
  const found = async () => (await person.client.fetchCalendars()).find((one) => one.url.includes(made));
  expect(await found()).toMatchObject({ displayName: 'Weir watch', description: 'By night' });

  const patch = (inside: string) => `<d:propertyupdate ${CALDAV}>${inside}</d:propertyupdate>`;
  const set = (at: string, inside: string) => send('PROPPATCH', at, patch(inside));
  expect((await set(made, props('<d:displayname>Night watch</d:displayname>'))).text).toContain('200 OK');
  // All of it or nothing (RFC 4918 9.2).
  const both = await set(made, props('<d:displayname>Other</d:displayname><d:getetag>x</d:getetag>'));
  expect([both.text.includes('403 Forbidden'), both.text.includes('424 Failed')]).toEqual([true, true]);
  expect((await set(made, '<d:remove><d:prop><d:displayname/></d:prop></d:remove>')).text).toContain('403 Forbidden');
  expect(await found()).toMatchObject({ displayName: 'Night watch' });
  const main = `${home}${person.calendar}/`;
  expect((await set(main, props('<d:displayname>Mine</d:displayname>'))).text).toContain('403 Forbidden');

  const at = (where: string, name: string) => `${where}${name}.ics`;
  const put = await send('PUT', at(main, 'owl'), text('owl-1', 'Owl walk', '20270908T210000', '20270908T220000'), {
    'content-type': 'text/calendar',
  });
  expect(put.status).toBe(201);
  const go = (method: string, from: string, destination: string, more: Record<string, string> = {}) =>
    send(method, from, undefined, { destination, ...more });
  expect((await go('MOVE', at(main, 'owl'), at(main, 'night-owl'), { 'if-match': '"other"' })).status).toBe(412);
  expect((await go('MOVE', at(main, 'owl'), at(main, 'night-owl'))).status).toBe(201);
  expect((await send('GET', at(main, 'owl'))).status).toBe(404);
  expect((await go('COPY', at(main, 'night-owl'), at(made, 'copy'))).status).toBe(201);
  expect((await send('GET', at(made, 'copy'))).text).toContain('SUMMARY:Owl walk');
  // What is there stays where the program says so, and one thing has one UID in a calendar.
  expect((await go('COPY', at(main, 'night-owl'), at(made, 'copy'), { overwrite: 'F' })).status).toBe(412);
  expect((await go('COPY', at(main, 'night-owl'), at(main, 'twice'))).text).toContain('no-uid-conflict');
  expect((await go('MOVE', at(main, 'night-owl'), at(made, 'copy'))).status).toBe(204);
  expect((await send('GET', at(main, 'night-owl'))).status).toBe(404);
  expect((await send('GET', at(made, 'copy'))).status).toBe(200);
  expect((await go('MOVE', at(made, 'copy'), `${home}never/x.ics`)).status).toBe(409);
  expect((await go('MOVE', at(made, 'copy'), '/dav/calendars/ines/x/x.ics')).status).toBe(403);
  expect((await go('MOVE', at(made, 'copy'), at(main, 'home'))).status).toBe(201);
  expect((await eventsOf(person.client, new URL(main, nobody.address).href)).map((one) => one.title)).toContain(
    'Owl walk',
  );
});

test('people are looked for by a part of their name or a whole address: those whose calendars one sees', async () => {
  const [ines, dario, elin] = [await programOf('ines'), await programOf('dario'), await programOf('elin')];
  const search = async (who: Person, prop: string, match: string) => {
    const body = `<d:principal-property-search ${CALDAV}><d:property-search><d:prop><${prop}/></d:prop><d:match>${match}</d:match></d:property-search><d:prop><d:displayname/></d:prop></d:principal-property-search>`;
    const { text } = await nobody.send('REPORT', '/dav/people/', body, { ...basic(who), depth: '0' });
    return [...text.matchAll(/displayname>([^<]+)</g)].map(([, name]) => name);
  };
  expect(await search(ines, 'd:displayname', 'TOMAS')).toEqual([expect.stringContaining('Tomas')]);
  expect(await search(ines, 'c:calendar-user-address-set', 'mailto:i.varga@cloudmoor.example')).toEqual(['Inés Varga']);
  expect(await search(ines, 'c:calendar-user-address-set', 'varga')).toEqual([]);
  expect(await search(ines, 'd:getetag', 'Varga')).toEqual([]);
  const [name = ''] = await search(elin, 'c:calendar-user-address-set', dario.address);
  expect(await search(elin, 'd:displayname', name)).toEqual([name]);
  // Of whoever shuts one out there is nobody, by whatever they are looked for.
  type Lines = { rows: { audience: { id?: string }; grants: { key: string }[] }[] };
  const lines = await dario.caller.json<Lines>(`/api/calendars/${dario.calendar}/sightlines`);
  const seen = lines.rows.find((row) => row.audience.id === 'elin')?.grants[0]?.key ?? null;
  const shut = { audience: { kind: 'person', id: 'elin' }, rights: { ...rights, sight: 'nothing' }, seen };
  const done = await dario.caller.send('PUT', `/api/calendars/${dario.calendar}/grants`, shut);
  expect([done.status, done.text.slice(0, 200)]).toEqual([200, done.text.slice(0, 200)]);
  expect(await search(elin, 'd:displayname', name)).toEqual([]);
  expect(await search(elin, 'c:calendar-user-address-set', dario.address)).toEqual([]);
});
