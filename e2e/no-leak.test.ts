import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { beforeAll, describe, expect, test } from 'vitest';
import { Caller, deliver } from './caller.ts';
import { exitsOf, RANGE, rights, wholly } from './exits.ts';
import {
  addContacts,
  addMails,
  addTasks,
  CONTACT_FIELDS,
  contactMark,
  holdsContact,
  ITEMS,
  type ItemName,
  MAIL_FIELDS,
  MAY_CONTACTS,
  MAY_MAILS,
  MAY_TASKS,
  mailMark,
  NOTHING_LISTED,
  TASK_FIELDS,
  taskMark,
} from './marked-lists.ts';
import { bookRequests, type ProgramRequest, programRequests } from './program-requests.ts';
import { sampleFor } from './servers.ts';

/*
 * Everything the server can send is an exit. Each is asked for by each kind of viewer, for a calendar in which every text
 * carries a marker; what a viewer may not see must be in no byte of any answer. An exit this file doesn't know fails it.
 */
const home = await sampleFor('no-leak');
const FIELDS = ['title', 'place', 'notes', 'link', 'briefing', 'category', 'attendee', 'file', 'kept'] as const;
type Field = (typeof FIELDS)[number];
const mark = (item: ItemName, field: Field) => `zq${item}${field}qz`;

/** What each kind of viewer may meet of each item, written down from the page of the rule. */
const OUTLINE: Field[] = ['title', 'place'];
const FULL: Field[] = ['title', 'place', 'notes', 'link', 'category', 'attendee', 'file'];
/** What a file once said of an item beside that is only in a file taken out again, by those who may. */
const ACTS: Field[] = [...FULL, 'briefing'];
const MAY: Record<string, Record<ItemName, readonly Field[]>> = {
  ines: { follow: FIELDS, open: FIELDS, outline: FIELDS, private: FIELDS },
  tomas: { follow: ACTS, open: ACTS, outline: ACTS, private: [] },
  bruno: { follow: FULL, open: FULL, outline: OUTLINE, private: [] },
  pim: { follow: FULL, open: FULL, outline: OUTLINE, private: [] },
  hedda: { follow: OUTLINE, open: FULL, outline: OUTLINE, private: [] },
  amara: { follow: OUTLINE, open: FULL, outline: OUTLINE, private: [] },
  kofi: { follow: [], open: FULL, outline: [], private: [] },
  dario: { follow: [], open: [], outline: [], private: [] },
  // An administrator gives and takes on every calendar, and sees no more by it.
  noor: { follow: [], open: FULL, outline: [], private: [] },
  // From outside, free/busy by name; the house rules keep her to that for open items too.
  marta: { follow: [], open: [], outline: [], private: [] },
  'nobody signed in': { follow: [], open: [], outline: [], private: [] },
};

const callers = new Map<string, Caller>();
let calendar = '';
let ids: string[] = [];
let link = '';
let outlineLink = '';
/** The calendar it leads to. */
let shownBy = '';
let suggestion = '';
let preview = '';
/** The secret of times of hers that are offered to somebody without an account. */
let offer = '';
/** The key of what Kofi asks her for, and who meets his words: he, she, and those who give access for her. */
let accessRequest = '';
const ASKED = ['ines', 'kofi'];
/** The keys of the files at the items. */
const files: string[] = [];
/** Who meets what Pim put forward: Pim, and those who may say yes to it. */
const MEETS = ['ines', 'tomas', 'pim'];
/** A list of her tasks, and what is in it; an address book of hers, and whom it holds. */
let list = '';
let tasks: readonly string[] = [];
let book = '';
let contacts: readonly string[] = [];
/** A folder of hers, and the mails in it. */
let folder = '';
let mails: readonly string[] = [];
/** Who sets her away notice, and to whom nothing of it is said. */
const SETS = ['ines', 'tomas'];
const STRANGERS = ['dario', 'marta', 'nobody signed in'];
const MARTA = 'marta@quill-audit.example';

beforeAll(async () => {
  for (const who of Object.keys(MAY)) {
    if (who === 'nobody signed in') callers.set(who, new Caller(home));
    else callers.set(who, who === 'marta' ? await Caller.guest(home, MARTA) : await Caller.stepIn(home, who));
  }
  const ines = callers.get('ines') as Caller;
  const frame = await ines.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  calendar = frame.principals.find((p) => p.handle === 'ines')?.calendar ?? '';
  await bringInMarked(ines);
  ids = [...ids, 'Zm9vYmFyYmF6cXV4eHl6'];
  await putForward(callers.get('pim') as Caller, ines);
  link = await makeLink(calendar, 'busy');
  await shownByLink(ines);
  await writeMarked();
  offer = await offerTimes(ines);
  ({ key: list, keys: tasks } = await addTasks(ines, ids));
  ({ key: book, keys: contacts } = await addContacts(ines));
  ({ key: folder, keys: mails } = await addMails(ines, async (raw) => {
    expect((await deliver(home, raw, 'i.varga@cloudmoor.example')).status).toBe(202);
  }));
  const away = { from: '2027-11-02', until: '2027-11-03', inside: 'zqawayin', outside: 'zqawayout', cover: null };
  const set = await ines.send('POST', '/api/people/ines/absences', { ...away, declines: false });
  expect(set.status).toBe(200);
  const body = { to: ['ines'], rights, why: 'zqaskwhyqz' };
  expect((await (callers.get('kofi') as Caller).send('POST', '/api/asks', body)).status).toBe(200);
  const { waiting } = await ines.json<{ waiting: { key: string; why: string }[] }>('/api/asks');
  accessRequest = waiting.find((one) => one.why === 'zqaskwhyqz')?.key ?? '';
  expect(accessRequest).not.toBe('');
});

/** Times of hers held and offered: worded for a stranger, under a title and a place that are hers. */
async function offerTimes(ines: Caller): Promise<string> {
  const held = await ines.send('POST', `/api/calendars/${calendar}/holds`, {
    title: 'heldtitle',
    place: 'heldplace',
    length: 60,
    starts: ['2027-06-11T16:00:00Z', '2027-06-12T16:00:00Z'],
    zone: 'Europe/Lisbon',
    lapses: '2027-08-01T00:00:00Z',
  });
  const { items } = JSON.parse(held.text) as { items: { id: string }[] };
  const made = await ines.send('POST', `/api/items/${items[0]?.id}/offer`, { words: 'A talk about the weir' });
  return (JSON.parse(made.text) as { offer: { address: string } }).offer.address.slice('/offer/'.length);
}

/** What arrives for Inés from outside: an invitation, a private one, and plain mail, every text marked. */
async function writeMarked(): Promise<void> {
  const to = 'i.varga@cloudmoor.example';
  const from = 'p.oduya@water-ministry.example';
  const head = (id: string, subject: string, type: string) =>
    [
      'Authentication-Results: post.cloudmoor.example; dmarc=pass header.from=water-ministry.example',
      `From: Perpetua <${from}>`,
      `To: ${to}`,
      `Subject: ${subject}`,
      `Message-ID: <${id}@water-ministry.example>`,
      `Content-Type: ${type}; charset=utf-8`,
      '',
    ].join('\r\n');
  for (const [i, [name, kind]] of [
    ['open', 'PUBLIC'],
    ['private', 'PRIVATE'],
  ].entries()) {
    const event = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//x//x//EN',
      'METHOD:REQUEST',
      'BEGIN:VEVENT',
      `UID:leak-mail-${name}`,
      'DTSTAMP:20270302T090000Z',
      `DTSTART:20270611T1${i}0000Z`,
      `DTEND:20270611T1${i}3000Z`,
      `SUMMARY:zqmail${name}titleqz`,
      `DESCRIPTION:zqmail${name}notesqz`,
      `CLASS:${kind}`,
      `ORGANIZER:mailto:${from}`,
      `ATTENDEE;PARTSTAT=NEEDS-ACTION:mailto:${to}`,
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ].join('\r\n');
    const raw = `${head(name ?? '', `zqmail${name}subjectqz`, 'text/calendar; method=REQUEST')}\r\n${event}`;
    expect((await deliver(home, raw, to)).status).toBe(202);
  }
  const plain = `${head('plain', 'zqmailplainsubjectqz', 'text/plain')}\r\nzqmailplaintextqz\r\n`;
  expect((await deliver(home, plain, to)).status).toBe(202);
}
/** What of the mail each may meet: hers whole, and of others what her calendar shows them of what she is asked to. */
const MAIL: Record<string, readonly string[]> = {
  ines: ['opennotes', 'opentitle', 'plainsubject', 'plaintext', 'privatenotes', 'privatetitle'],
  // Her mail is run with her: what arrived is his to read too.
  tomas: ['opennotes', 'opentitle', 'plainsubject', 'plaintext'],
  bruno: ['opennotes', 'opentitle'],
  pim: ['opennotes', 'opentitle'],
  hedda: ['opentitle'],
  amara: ['opentitle'],
};

/** Items whose every text is marked, brought in with a file: who is on them, and what isn't modelled, come no other way. */
async function bringInMarked(ines: Caller): Promise<void> {
  const events = ITEMS.flatMap((item, i) => [
    'BEGIN:VEVENT',
    `UID:leak-${item}`,
    `DTSTART;TZID=Europe/Lisbon:20270609T1${i}0000`,
    `DTEND;TZID=Europe/Lisbon:20270609T1${i}3000`,
    `SUMMARY:${mark(item, 'title')}`,
    `LOCATION:${mark(item, 'place')}`,
    `DESCRIPTION:${mark(item, 'notes')}`,
    `URL:https://${mark(item, 'link')}.example/`,
    `CATEGORIES:${mark(item, 'category')}`,
    `ATTENDEE;PARTSTAT=ACCEPTED:mailto:${mark(item, 'attendee')}@river.example`,
    `COMMENT:${mark(item, 'kept')}`,
    `X-PARAMO-VISIBILITY:${item}`,
    'END:VEVENT',
  ]);
  const text = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...events, 'END:VCALENDAR', ''].join('\r\n');
  const read = await ines.send('POST', `/api/calendars/${calendar}/imports`, text, { 'content-type': 'text/calendar' });
  expect(read.status).toBe(200);
  expect((await ines.send('POST', `/api/imports/${JSON.parse(read.text).preview}`)).status).toBe(200);
  // A second reading is kept: what it would bring is its maker's alone.
  const again = await ines.send('POST', `/api/calendars/${calendar}/imports`, text, {
    'content-type': 'text/calendar',
  });
  preview = JSON.parse(again.text).preview;
  type Listed = { items: { id: string; title: string; version: number }[] };
  const { items } = await ines.json<Listed>(`/api/calendars/${calendar}/items?${RANGE}`);
  for (const item of ITEMS) {
    const { id = '', version } = items.find((i) => i.title === mark(item, 'title')) ?? {};
    const fields = { briefing: mark(item, 'briefing') };
    expect((await ines.send('PATCH', `/api/items/${id}`, { version, fields })).status).toBe(200);
    ids.push(id);
    // A file whose name and whose bytes are marked.
    const name = encodeURIComponent(`${mark(item, 'file')}.txt`);
    const added = await ines.send('POST', `/api/items/${id}/attachments?name=${name}`, mark(item, 'file'));
    expect(added.status).toBe(200);
    files.push(JSON.parse(added.text).files[0].key);
  }
}

/** A change of an item put forward, its every text marked. */
async function putForward(pim: Caller, ines: Caller): Promise<void> {
  const put = await pim.send('POST', `/api/calendars/${calendar}/suggestions`, {
    kind: 'change',
    item: ids[0],
    fields: { title: 'zqforwardtitleqz', notes: 'zqforwardnotesqz' },
    why: 'zqforwardwhyqz',
  });
  expect(put.status).toBe(200);
  type Waiting = { waiting: { key: string; why: string }[] };
  const { waiting } = await ines.json<Waiting>('/api/suggestions');
  suggestion = waiting.find((s) => s.why === 'zqforwardwhyqz')?.key ?? '';
  expect(suggestion).not.toBe('');
}

/** A link to one of Inés's calendars, as its secret stands in its address. */
async function makeLink(of: string, sight: string): Promise<string> {
  const ines = callers.get('ines') as Caller;
  const made = await ines.send('PUT', `/api/calendars/${of}/grants`, {
    audience: { kind: 'newLink', name: `Leak test ${sight}` },
    rights: { ...rights, sight },
    seen: null,
  });
  expect(made.status).toBe(200);
  const { id } = JSON.parse(made.text).audience;
  type Lines = { rows: { audience: { id?: string }; link: string | null }[] };
  const lines = await ines.json<Lines>(`/api/calendars/${of}/sightlines`);
  return lines.rows.find((r) => r.audience.id === id)?.link?.slice('/see/'.length) ?? '';
}

/** A further calendar with an item whose every text is marked, and a link that shows its outline. */
async function shownByLink(ines: Caller): Promise<void> {
  const answer = await ines.json<{ rules: { main: object; further: object | null } }>('/api/house-rules');
  const further = { ...answer.rules.main, linkSight: 'outline' };
  expect((await ines.send('PUT', '/api/house-rules', { ...answer.rules, further })).status).toBe(200);
  const made = await ines.send('POST', '/api/calendars', { of: 'ines', name: 'Leak test' });
  const key = JSON.parse(made.text).calendar;
  shownBy = key;
  const item = await ines.send('POST', `/api/calendars/${key}/items`, {
    when: { start: '2027-06-09T10:00', end: '2027-06-09T10:30', allDay: false, zone: 'Europe/Lisbon' },
    ...Object.fromEntries((['title', 'place', 'notes', 'briefing'] as const).map((f) => [f, `zqlink${f}qz`])),
    link: 'https://zqlinklinkqz.example/',
  });
  expect(item.status).toBe(200);
  outlineLink = await makeLink(key, 'outline');
}

const exitsNow = () =>
  exitsOf({
    calendar,
    ids,
    link,
    suggestion,
    preview,
    files,
    offer,
    accessRequest,
    list,
    tasks,
    book,
    contacts,
    folder,
    mails,
  });

/** Every page and every route that has a file of its own, read off the files. */
function exitsInFiles(folder = 'src/app', below = ''): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    const name = below ? `${below}/${entry.name}` : entry.name;
    if (entry.isDirectory()) return exitsInFiles(path, name);
    if (entry.name === 'route.ts')
      return [
        ...readFileSync(path, 'utf8').matchAll(
          /export (?:const|async function|function) (GET|POST|PUT|PATCH|DELETE|HEAD)\b/g,
        ),
      ].map((m) => `${name} ${m[1]}`);
    return /^(page|not-found|error|loading|template|default|opengraph-image)\.tsx?$/.test(entry.name) ? [name] : [];
  });
}

/** What somebody is answered: what only reads is asked at once, what may write one after the other. */
async function answersTo(caller: Caller, requests: readonly ProgramRequest[]) {
  const send = (request: ProgramRequest) => caller.send(request.method, request.path, request.body, request.headers);
  if (requests.every((request) => request.method === 'GET')) return Promise.all(requests.map(send));
  const answers: Awaited<ReturnType<typeof send>>[] = [];
  for (const request of requests) answers.push(await send(request));
  return answers;
}

test('every exit is known here', async () => {
  type Described = { paths: Record<string, Record<string, unknown>> };
  const { paths } = await new Caller(home).json<Described>('/api/openapi.json');
  const routes = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
  );
  expect([...exitsInFiles(), ...routes].sort()).toEqual(Object.keys(exitsNow()).sort());
});

describe.each(Object.keys(MAY))('%s', (who) => {
  test('gets what they may see and no byte of the rest, from every exit', async () => {
    const caller = callers.get(who) as Caller;
    const may = MAY[who] as (typeof MAY)[string];
    const met = new Set<string>();
    const forward = new Set<string>();
    const mail = new Set<string>();
    const requested = new Set<string>();
    const todo = new Set<string>();
    const mayTasks = MAY_TASKS[who] ?? NOTHING_LISTED;
    const known = new Set<string>();
    const mayContacts = MAY_CONTACTS[who] ?? NOTHING_LISTED;
    const mayMails = MAY_MAILS[who] ?? NOTHING_LISTED;
    const read = new Set<string>();
    for (const [exit, requests] of Object.entries(exitsNow()))
      for (const answer of await answersTo(caller, requests())) {
        expect([exit, answer.status >= 500]).toEqual([exit, false]);
        const said = `${answer.text}\n${[...answer.headers].join('\n')}`;
        // What holds nothing that was marked is not looked through for each.
        if (!said.includes('zq')) continue;
        if (said.includes('zqforward')) forward.add(exit);
        if (said.includes('zqask')) requested.add(exit);
        // What a stranger is answered while she is away is for who sets it; what colleagues are answered isn't for strangers.
        if (said.includes('zqawayout')) expect([exit, who, SETS.includes(who)]).toEqual([exit, who, true]);
        if (said.includes('zqawayin')) expect([exit, who, STRANGERS.includes(who)]).toEqual([exit, who, false]);
        for (const [, name] of said.matchAll(/zqmail(\w+?)qz/g)) mail.add(name as string);
        // What a list is called is told to whoever sees it, and to administrators, for what somebody's leaving would hand on.
        if (said.includes('zqlist')) expect([exit, who, who in MAY_TASKS || who === 'noor']).toEqual([exit, who, true]);
        if (said.includes('zqbook'))
          expect([exit, who, who in MAY_CONTACTS || who === 'noor']).toEqual([exit, who, true]);
        if (said.includes('zqfold')) expect([exit, who, who in MAY_MAILS || who === 'noor']).toEqual([exit, who, true]);
        for (const item of ITEMS)
          for (const field of MAIL_FIELDS) {
            if (!said.includes(mailMark(item, field))) continue;
            read.add(mailMark(item, field));
            expect([exit, item, field, mayMails[item].includes(field as 'line')]).toEqual([exit, item, field, true]);
          }
        for (const item of ITEMS)
          for (const field of CONTACT_FIELDS) {
            if (!holdsContact(said, item, field)) continue;
            known.add(contactMark(item, field));
            expect([exit, item, field, mayContacts[item].includes(field as 'name')]).toEqual([exit, item, field, true]);
          }
        for (const item of ITEMS)
          for (const field of TASK_FIELDS) {
            if (!said.includes(taskMark(item, field))) continue;
            todo.add(taskMark(item, field));
            expect([exit, item, field, mayTasks[item].includes(field)]).toEqual([exit, item, field, true]);
          }
        for (const item of ITEMS)
          for (const field of FIELDS) {
            if (!said.includes(mark(item, field))) continue;
            met.add(mark(item, field));
            expect([exit, item, field, may[item].includes(field)]).toEqual([exit, item, field, true]);
          }
      }
    const allTasks = ITEMS.flatMap((item) => mayTasks[item].map((field) => taskMark(item, field)));
    expect([...todo].sort()).toEqual(allTasks.sort());
    const allContacts = ITEMS.flatMap((item) => mayContacts[item].map((field) => contactMark(item, field)));
    expect([...known].sort()).toEqual(allContacts.sort());
    const allMails = ITEMS.flatMap((item) => mayMails[item].map((field) => mailMark(item, field)));
    expect([...read].sort()).toEqual(allMails.sort());
    const all = ITEMS.flatMap((item) => may[item].map((field) => mark(item, field)));
    expect([...met].sort()).toEqual(all.sort());
    expect([...mail].sort()).toEqual(MAIL[who] ?? []);
    // Who decides it has it on their Desk too; who only said it doesn't.
    const desk = (list: readonly string[]) => (list.includes(who) && who !== list.at(-1) ? ['GET /api/desk'] : []);
    expect([...requested].sort()).toEqual(ASKED.includes(who) ? ['GET /api/asks', ...desk(ASKED)] : []);
    expect([...forward].sort()).toEqual(MEETS.includes(who) ? [...desk(MEETS), 'GET /api/suggestions'] : []);
  });
});

test.each(Object.keys(MAY).filter((who) => who !== 'nobody signed in'))(
  'a calendar program of %s gets what they may see and no byte of the rest',
  async (who) => {
    const caller = callers.get(who) as Caller;
    const may = MAY[who] as (typeof MAY)[string];
    const token = { name: 'Calendar program', reads: false, calendar: null, until: null };
    const made = await caller.send('POST', '/api/tokens', token);
    expect(made.status).toBe(200);
    const { me } = await caller.json<{ me: { handle: string; address: string } }>('/api/frame');
    const authorization = `Bearer ${JSON.parse(made.text).secret}`;
    const program = new Caller(home);
    const met = new Set<string>();
    const mail = new Set<string>();
    const todo = new Set<string>();
    const mayTasks = MAY_TASKS[who] ?? NOTHING_LISTED;
    const cards = new Set<string>();
    const mayContacts = MAY_CONTACTS[who] ?? NOTHING_LISTED;
    for (const [key, known, requestsOf] of [
      [calendar, ids, programRequests],
      [list, tasks, (...of: [string, string, readonly string[]]) => programRequests(...of, 'VTODO')],
      [book, contacts, bookRequests],
    ] as const) {
      // What it finds is asked for by its own names too.
      const listed = await program.send('PROPFIND', `/dav/calendars/${me.handle}/${key}/`, undefined, {
        authorization,
        depth: '1',
      });
      const found = [...listed.text.matchAll(/([\w~-]+)\.(?:ics|vcf)</g)].map((m) => m[1] as string);
      // Of another week there is nothing by itself; of this one there is as much as they see.
      for (const request of requestsOf(me.handle, key, [...known, ...found.slice(0, 40)])) {
        const body = typeof request.body === 'string' ? request.body.replace('ORGANISER', me.address) : request.body;
        const answer = await program.send(request.method, request.path, body, { authorization, ...request.headers });
        expect([request.method, request.path, answer.status >= 500]).toEqual([request.method, request.path, false]);
        const said = `${answer.text}\n${[...answer.headers].join('\n')}`;
        for (const [, name] of said.matchAll(/zqmail(\w+?)qz/g)) mail.add(name as string);
        expect([request.path, /zq(forward|ask|mess|fold)/.test(said)]).toEqual([request.path, false]);
        if (said.includes('zqlist')) expect([request.path, who in MAY_TASKS]).toEqual([request.path, true]);
        if (said.includes('zqbook')) expect([request.path, who in MAY_CONTACTS]).toEqual([request.path, true]);
        for (const item of ITEMS) {
          for (const field of CONTACT_FIELDS) {
            if (!holdsContact(said, item, field)) continue;
            cards.add(contactMark(item, field));
            expect([request.path, item, field, mayContacts[item].includes(field as 'name')]).toEqual([
              request.path,
              item,
              field,
              true,
            ]);
          }
          for (const field of TASK_FIELDS) {
            if (!said.includes(taskMark(item, field))) continue;
            todo.add(taskMark(item, field));
            expect([request.path, item, field, mayTasks[item].includes(field)]).toEqual([
              request.path,
              item,
              field,
              true,
            ]);
          }
          for (const field of FIELDS) {
            if (!said.includes(mark(item, field))) continue;
            met.add(mark(item, field));
            expect([request.path, item, field, may[item].includes(field)]).toEqual([request.path, item, field, true]);
          }
        }
      }
    }
    const allTasks = ITEMS.flatMap((item) => mayTasks[item].map((field) => taskMark(item, field)));
    expect([...todo].sort()).toEqual(allTasks.sort());
    // The other lines of a card, a picture among them, are her own program’s alone.
    const inCards = (field: string) => who === 'ines' || field !== 'picture';
    const allCards = ITEMS.flatMap((item) =>
      mayContacts[item].filter(inCards).map((field) => contactMark(item, field)),
    );
    expect([...cards].sort()).toEqual(allCards.sort());
    // A briefing and files come no such way; the other lines of an item come to whoever may have the calendar as a file.
    const ways = (field: Field) => !['briefing', 'file'].includes(field);
    const all = ITEMS.flatMap((item) => may[item].filter(ways).map((field) => mark(item, field)));
    expect([...met].sort()).toEqual(all.sort());
    expect([...mail].sort()).toEqual((MAIL[who] ?? []).filter((name) => !name.startsWith('plain')));
  },
);

test('what is hidden and what isn’t there answer alike, to the byte', async () => {
  const dario = callers.get('dario') as Caller;
  const kofi = callers.get('kofi') as Caller;
  const none = 'Zm9vYmFyYmF6cXV4eHl6';
  const same = async (
    caller: Caller,
    method: string,
    path: (key: string) => string,
    hidden: string,
    body?: unknown,
  ) => {
    const [a, b] = [await caller.send(method, path(hidden), body), await caller.send(method, path(none), body)];
    expect([path(''), a.status, a.text]).toEqual([path(''), b.status, b.text]);
    expect(a.status).toBe(404);
  };
  for (const [method, tail, body] of [
    ['GET', `items?${RANGE}`],
    ['GET', `load?${RANGE}`],
    ['GET', 'file'],
    ['GET', 'sightlines'],
    [
      'POST',
      'items',
      { title: 'x', when: { start: '2027-06-09T10:00', end: '2027-06-09T11:00', allDay: false, zone: 'UTC' } },
    ],
    ['PUT', 'grants', { ...wholly, seen: null }],
    ['POST', 'suggestions', { kind: 'remove', item: ids[0] }],
    ['POST', 'imports', 'BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n'],
  ] as const)
    await same(dario, method, (key) => `/api/calendars/${key}/${tail}`, calendar, body);
  const made = await dario.send('POST', '/api/tokens', { name: 'x', reads: false, calendar: null, until: null });
  const authorization = `Bearer ${JSON.parse(made.text).secret}`;
  const requestsOn = (key: string, known: readonly string[], holds: 'VEVENT' | 'VTODO') =>
    programRequests('dario', key, known, holds)
      .filter((one) => one.path.includes('/dav/calendars/dario/'))
      .map((one, i) => ({ one, known, holds, i }));
  for (const { one: request, known, holds, i } of [
    ...requestsOn(calendar, ids, 'VEVENT'),
    ...requestsOn(list, tasks, 'VTODO'),
  ]) {
    const other = requestsOn(none, known, holds)[i]?.one;
    const [a, b] = await Promise.all(
      [request, other].map((one) =>
        dario.send(one?.method ?? '', one?.path ?? '', one?.body, { authorization, ...one?.headers }),
      ),
    );
    expect([request.method, a?.status, a?.text]).toEqual([request.method, b?.status, b?.text]);
  }
  for (const id of ids.slice(0, 4)) {
    await same(dario, 'GET', (key) => `/api/items/${key}`, id);
    await same(dario, 'PATCH', (key) => `/api/items/${key}`, id, { version: 1, fields: { title: 'x' } });
    await same(dario, 'DELETE', (key) => `/api/items/${key}?version=1`, id);
  }
  for (const task of tasks) {
    await same(dario, 'PATCH', (key) => `/api/tasks/${key}`, task, { version: 1, done: true });
    await same(dario, 'DELETE', (key) => `/api/tasks/${key}?version=1`, task);
    await same(dario, 'POST', (key) => `/api/tasks/${key}`, task, { yes: true });
    await same(dario, 'PUT', (key) => `/api/tasks/${key}/time`, task, { version: 1, when: null });
  }
  // What she keeps private is nowhere for whoever reads all the rest.
  const tomas = callers.get('tomas') as Caller;
  await same(tomas, 'PATCH', (key) => `/api/tasks/${key}`, tasks[3] ?? '', { version: 1, done: true });
  for (const tail of ['tasks', 'tasks?done=1', 'file'])
    await same(dario, 'GET', (key) => `/api/lists/${key}/${tail}`, list);
  await same(dario, 'POST', (key) => `/api/lists/${key}/tasks`, list, { title: 'x' });
  await same(dario, 'DELETE', (key) => `/api/lists/${key}`, list);
  for (const tail of ['sightlines', 'history'])
    await same(dario, 'GET', (key) => `/api/calendars/${key}/${tail}`, list);
  for (const contact of contacts) {
    await same(dario, 'GET', (key) => `/api/contacts/${key}`, contact);
    for (const tail of ['around', 'picture'])
      await same(dario, 'GET', (key) => `/api/contacts/${key}/${tail}`, contact);
    await same(dario, 'PUT', (key) => `/api/contacts/${key}/picture?version=1`, contact, 'GIF89a');
    await same(dario, 'DELETE', (key) => `/api/contacts/${key}/picture?version=1`, contact);
    await same(dario, 'PATCH', (key) => `/api/contacts/${key}`, contact, { version: 1, fields: { role: 'x' } });
    await same(dario, 'DELETE', (key) => `/api/contacts/${key}?version=1`, contact);
    await same(dario, 'POST', (key) => `/api/contacts/${key}/copy`, contact, { book: 'none' });
  }
  for (const tail of ['', '/around', '/picture'])
    await same(tomas, 'GET', (key) => `/api/contacts/${key}${tail}`, contacts[3] ?? '');
  await same(tomas, 'PATCH', (key) => `/api/contacts/${key}`, contacts[3] ?? '', { version: 1, fields: {} });
  for (const tail of ['contacts', 'contacts?words=zqcont', 'alike', 'file'])
    await same(dario, 'GET', (key) => `/api/books/${key}/${tail}`, book);
  await same(dario, 'POST', (key) => `/api/books/${key}/contacts`, book, { name: 'x' });
  for (const mail of mails) {
    await same(dario, 'GET', (key) => `/api/messages/${key}`, mail);
    await same(dario, 'GET', (key) => `/api/messages/${key}/files/0`, mail);
    await same(dario, 'POST', (key) => `/api/messages/${key}`, mail);
  }
  await same(tomas, 'GET', (key) => `/api/messages/${key}`, mails[1] ?? '');
  await same(tomas, 'GET', (key) => `/api/messages/${key}/files/0`, mails[1] ?? '');
  await same(dario, 'POST', (key) => `/api/folders/${key}/messages`, folder, { messages: [...mails], flagged: true });
  await same(dario, 'PUT', (key) => `/api/folders/${key}`, folder, { name: 'x' });
  await same(dario, 'DELETE', (key) => `/api/folders/${key}`, folder);
  await same(dario, 'GET', (key) => `/api/people/dario/messages?folder=${key}`, folder);
  await same(kofi, 'GET', (key) => `/api/items/${key}`, ids[0] ?? '');
  await same(kofi, 'PUT', (key) => `/api/suggestions/${key}`, suggestion, { answer: 'no' });
  await same(dario, 'POST', (key) => `/api/asks/${key}`, accessRequest, { answer: 'refuse', turns: 0 });
  await same(dario, 'PUT', (key) => `/api/asks/${key}`, accessRequest);
  await same(dario, 'DELETE', (key) => `/api/asks/${key}`, accessRequest);
});

describe('the live stream', () => {
  const listenAll = async (write: () => Promise<void>, until: string): Promise<Map<string, string>> => {
    const all = [...Object.keys(MAY).filter((who) => who !== 'nobody signed in'), 'link'];
    let open = 0;
    let go = () => {};
    const everyone = new Promise<void>((done) => {
      go = done;
    });
    const heard = all.map(async (who) => {
      const caller = callers.get(who === 'link' ? 'nobody signed in' : who) as Caller;
      const started = async () => {
        if (++open === all.length) {
          await write();
          go();
        } else await everyone;
      };
      return [
        who,
        await caller.listen(
          started,
          (said) => said.includes(until),
          who === 'link' ? `/api/links/${link}/live` : undefined,
        ),
      ] as const;
    });
    return new Map(await Promise.all(heard));
  };

  test('shows each who hears of a change what they may see of it and no byte of the rest', async () => {
    const ines = callers.get('ines') as Caller;
    type Listed = { items: { id: string; title: string; version: number }[] };
    const heard = await listenAll(async () => {
      const { items } = await ines.json<Listed>(`/api/calendars/${calendar}/items?${RANGE}`);
      for (const [i, item] of ITEMS.entries()) {
        const { id = '', version } = items.find((it) => it.title === mark(item, 'title')) ?? {};
        const when = { start: `2027-06-09T1${i}:05`, end: `2027-06-09T1${i}:25`, allDay: false, zone: 'Europe/Lisbon' };
        const changed = await ines.send('PATCH', `/api/items/${id}`, { version, when, fields: { importance: 'high' } });
        expect(changed.status).toBe(200);
      }
    }, '"start":"2027-06-09T12:05:00Z"');
    for (const [who, said] of heard) {
      const may = MAY[who] ?? { follow: [], open: [], outline: [], private: [] };
      const want = ITEMS.flatMap((item) =>
        may[item].filter((f) => f !== 'kept' && f !== 'file').map((field) => mark(item, field)),
      );
      expect([who, [...new Set(said.match(/zq\w+qz/g))].sort()]).toEqual([who, want.sort()]);
      // Four changes of what they see as blocks at least, or, of what isn't theirs to know of, nothing.
      expect([who, said.includes('data:')]).toEqual([who, who !== 'dario']);
      if (!['ines', 'tomas'].includes(who)) expect([who, said.includes('"asSet"')]).toEqual([who, false]);
    }
  });

  test('says nothing of a change to those for whom nothing changed', async () => {
    const ines = callers.get('ines') as Caller;
    const write = async () => {
      const made = await ines.send('POST', `/api/calendars/${calendar}/items`, {
        when: { start: '2027-06-10T10:00', end: '2027-06-10T10:30', allDay: false, zone: 'Europe/Lisbon' },
        title: mark('follow', 'title'),
        notes: mark('follow', 'notes'),
        shows: 'free',
      });
      expect(made.status).toBe(200);
    };
    const heard = await (callers.get('amara') as Caller).listen(write, (all) => all.includes('data:'));
    expect(heard).toContain(mark('follow', 'title'));
    expect(heard).not.toContain(mark('follow', 'notes'));
    // A free item is no busy block: nothing that Kofi or Dario gets has changed, and so nothing is said.
    const kofi = (callers.get('kofi') as Caller).listen(write, (all) => all.includes('data:'));
    const dario = (callers.get('dario') as Caller).listen(write, (all) => all.includes('data:'));
    expect(await kofi).not.toContain('data:');
    expect(await dario).not.toContain('data:');
  });

  test('tells a window what came while its page was on its way, once, without a word of it, and nobody else', async () => {
    const ines = callers.get('ines') as Caller;
    const amara = callers.get('amara') as Caller;
    const { text } = await amara.send('GET', '/for/amara/calendar?of=ines');
    const page = /\\"page\\":\\"([\w-]+)\\"/.exec(text)?.[1] ?? '';
    expect(page).not.toBe('');
    const when = { start: '2027-06-10T12:00', end: '2027-06-10T12:30', allDay: false, zone: 'Europe/Lisbon' };
    const write = async () => {
      const made = await ines.send('POST', `/api/calendars/${calendar}/items`, { when, title: 'zqonitswayqz' });
      expect(made.status).toBe(200);
    };
    // Another window of hers has heard of it: so has what is kept.
    expect(await amara.listen(write, (said) => said.includes('"changed"'))).toContain('zqonitsway');
    const listen = (who: string, until: string) =>
      (callers.get(who) as Caller).listen(
        async () => {},
        (said) => said.includes(until),
        `/api/live?page=${page}`,
      );
    const others = await listen('kofi', '"held"');
    expect(others).toContain('"held":false');
    expect(others).not.toContain('"changed"');
    const theirs = await listen('amara', '"changed"');
    expect(theirs).toContain('"held":true');
    expect(theirs).toContain('"seen":null');
    expect(theirs).not.toContain('zqonitsway');
    expect(await listen('amara', '"held"')).toContain('"held":false');
  });
});

test('a link shows what it may and not a byte more, to whoever holds its address, and nothing once it is withdrawn', async () => {
  const nobody = callers.get('nobody signed in') as Caller;
  const items = await nobody.send('GET', `/api/links/${outlineLink}/items?${RANGE}`);
  const page = await nobody.send('GET', `/see/${outlineLink}`);
  expect([items.status, page.status]).toEqual([200, 200]);
  const feed = await nobody.send('GET', `/api/links/${outlineLink}/calendar.ics`);
  const taken = await nobody.send('GET', `/api/links/${outlineLink}/free-busy.ifb`);
  const plain = await nobody.send('GET', `/shown/${outlineLink}?from=2027-06-07`);
  expect([feed.status, taken.status, plain.status]).toEqual([200, 200, 200]);
  expect(feed.headers.get('cache-control')).toBe('private, no-cache');
  for (const shows of [items, feed, plain])
    expect([...new Set(shows.text.match(/zqlink\w+qz/g))].sort()).toEqual(['zqlinkplaceqz', 'zqlinktitleqz']);
  expect(taken.text).toContain('FREEBUSY;FBTYPE=BUSY:20270609T090000Z/20270609T093000Z');
  const said = [items, page, feed, taken, plain].map((one) => one.text).join('\n');
  const met = [...new Set(said.match(/zqlink\w+qz/g))].sort();
  expect(met).toEqual(['zqlinkplaceqz', 'zqlinktitleqz']);
  // Its own page alone can be framed, and only by the website that is named for it.
  const framable = async (path: string) => {
    const { headers } = await nobody.send('GET', path);
    return [
      headers.get('x-frame-options'),
      /frame-ancestors ([^;]*)/.exec(headers.get('content-security-policy') ?? '')?.[1],
    ];
  };
  expect(await framable(`/shown/${outlineLink}`)).toEqual(['DENY', "'none'"]);
  const set = { ahead: 366, language: null, zone: null, framedBy: 'https://www.cloudmoor.example' };
  const owner = callers.get('ines') as Caller;
  const done = await owner.send('PUT', `/api/calendars/${shownBy}/links/${outlineLink.split('.')[0]}`, set);
  expect(done.status).toBe(200);
  expect(await framable(`/shown/${outlineLink}`)).toEqual([null, 'https://www.cloudmoor.example']);
  for (const path of [`/see/${outlineLink}`, `/shown/${outlineLink}/more`, '/shown/never', '/sign-in'])
    expect([path, await framable(path)]).toEqual([path, ['DENY', "'none'"]]);
  // Nobody's address, handle or id stands in it.
  expect(said).not.toMatch(/@cloudmoor\.example|"handle":"\w/);
  const [key = ''] = outlineLink.split('.');
  const wrong = await nobody.send('GET', `/api/links/${key}.${'A'.repeat(22)}/items?${RANGE}`);
  const none = await nobody.send('GET', `/api/links/none/items?${RANGE}`);
  expect([wrong.status, wrong.text]).toEqual([none.status, none.text]);
  const ines = callers.get('ines') as Caller;
  const calendarFeed = await nobody.send('GET', `/api/links/${link}/calendar.ics`);
  const again = await nobody.send('GET', `/api/links/${link}/calendar.ics`, undefined, {
    'if-none-match': calendarFeed.headers.get('etag') ?? '',
  });
  expect([calendarFeed.status, again.status, again.text]).toEqual([200, 304, '']);
  const heard = await nobody.listen(
    async () => {
      const taken = await ines.send('DELETE', `/api/calendars/${calendar}/grants`, {
        audience: { kind: 'link', id: link.split('.')[0] },
        seen: await grantOf(ines, link),
      });
      expect(taken.status).toBe(200);
    },
    (all) => all.includes('data:'),
    `/api/links/${link}/live`,
  );
  expect(heard).toContain('"kind":"over"');
  // A copy that a program keeps is asked about before it is used, and there is nothing it holds for any more.
  const known = { 'if-none-match': calendarFeed.headers.get('etag') ?? '' };
  const [feedGone, feedNone] = [
    await nobody.send('GET', `/api/links/${link}/calendar.ics`, undefined, known),
    await nobody.send('GET', '/api/links/never/calendar.ics', undefined, known),
  ];
  expect([feedGone.status, feedGone.text]).toEqual([feedNone.status, feedNone.text]);
  const after = await nobody.send('GET', `/api/links/${link}/items?${RANGE}`);
  expect([after.status, after.text]).toEqual([none.status, none.text]);
});

async function grantOf(ines: Caller, secret: string): Promise<string> {
  type Lines = { rows: { link: string | null; grants: { key: string }[] }[] };
  const lines = await ines.json<Lines>(`/api/calendars/${calendar}/sightlines`);
  return lines.rows.find((r) => r.link === `/see/${secret}`)?.grants[0]?.key ?? '';
}

test('asking for a way in answers alike for an address that has one and for one that hasn’t', async () => {
  const nobody = callers.get('nobody signed in') as Caller;
  const [known, unknown] = [
    await nobody.send('POST', '/api/guest', { address: 'p.oduya@water-ministry.example' }),
    await nobody.send('POST', '/api/guest', { address: 'nobody@water-ministry.example' }),
  ];
  expect([known.status, known.text]).toEqual([unknown.status, unknown.text]);
});

test('an offer shows how it was worded and its times, and nothing else of the calendar they are in', async () => {
  const nobody = callers.get('nobody signed in') as Caller;
  const read = await nobody.send('GET', `/api/offers/${offer}`);
  expect(JSON.parse(read.text)).toEqual({
    words: 'A talk about the weir',
    minutes: 60,
    times: [
      { start: '2027-06-11T16:00:00Z', end: '2027-06-11T17:00:00Z' },
      { start: '2027-06-12T16:00:00Z', end: '2027-06-12T17:00:00Z' },
    ],
  });
  const page = await nobody.send('GET', `/offer/${offer}`);
  for (const word of ['heldtitle', 'heldplace', 'Varga'])
    expect([word, page.text.includes(word)]).toEqual([word, false]);
});
