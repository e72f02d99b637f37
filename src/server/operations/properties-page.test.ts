import { afterEach, expect, test } from 'vitest';
import { mainCalendarOf } from '../repositories/calendars.ts';
import { itemsByUid } from '../repositories/items.ts';
import { putObject } from './dav/index.ts';
import { bringIn, previewImport } from './in-worker/imports.ts';
import { exportFile } from './items/index.ts';
import { listItems } from './items/list-items.ts';
import { releaseDue } from './meetings/index.ts';
import { takeMail } from './messages/receive-mail.ts';
import { type SmallOrganisation, START, smallOrganisation } from './small-organisation.ts';

/*
 * What becomes of each property that an event may have, tried in all three ways by which one comes in. The page says it; this says it again.
 */

const INES = 'ines@cloudmoor.example';
const HOST = 'mx.cloudmoor.example';

/** What stands before is there without the property too; what follows `AND` is a second event of the same UID. */
const WITH = 'with';
const AND = 'and';

/** The properties and components of an event, each with a line of it as an event would have it. */
const PROPERTIES: Readonly<Record<string, readonly (readonly [name: string, ...lines: string[]])[]>> = {
  'RFC 5545': [
    ['ATTACH', 'ATTACH:https://files.quill-audit.example/plan.pdf'],
    ['CATEGORIES', 'CATEGORIES:Audit'],
    ['CLASS', 'CLASS:PRIVATE'],
    ['COMMENT', 'COMMENT:Bring the map'],
    ['DESCRIPTION', 'DESCRIPTION:The weir first'],
    ['GEO', 'GEO:38.7;-9.1'],
    ['LOCATION', 'LOCATION:Marsh Lab'],
    ['PRIORITY', 'PRIORITY:1'],
    ['RESOURCES', 'RESOURCES:PROJECTOR'],
    ['STATUS', 'STATUS:TENTATIVE'],
    ['SUMMARY', 'SUMMARY:Another title'],
    ['DTEND', 'DTEND:20270303T113000Z'],
    ['DTSTART', 'DTSTART:20270303T093000Z'],
    ['DURATION', 'DURATION:PT90M'],
    ['TRANSP', 'TRANSP:TRANSPARENT'],
    ['ATTENDEE', 'ATTENDEE;ROLE=OPT-PARTICIPANT:mailto:p.oduya@water-ministry.example'],
    ['CONTACT', 'CONTACT:The front desk'],
    ['ORGANIZER', 'ORGANIZER;CN=Marta Quill:mailto:marta@quill-audit.example'],
    ['RECURRENCE-ID', 'RECURRENCE-ID:20270303T090000Z'],
    [
      'RECURRENCE-ID with RANGE',
      'RRULE:FREQ=DAILY;COUNT=3',
      AND,
      'RECURRENCE-ID;RANGE=THISANDFUTURE:20270304T100000Z',
      'DTSTART:20270304T120000Z',
      'DTEND:20270304T130000Z',
    ],
    ['RELATED-TO', 'RELATED-TO:another@quill-audit.example'],
    ['URL', 'URL:https://quill-audit.example/plan'],
    ['EXDATE', 'RRULE:FREQ=DAILY;COUNT=3', WITH, 'EXDATE:20270304T100000Z'],
    ['RDATE', 'RDATE:20270305T140000Z'],
    ['RRULE', 'RRULE:FREQ=DAILY;COUNT=2'],
    ['VALARM', 'BEGIN:VALARM', 'ACTION:DISPLAY', 'DESCRIPTION:Soon', 'TRIGGER:-PT15M', 'END:VALARM'],
    ['CREATED', 'CREATED:20260101T000000Z'],
    ['DTSTAMP', 'DTSTAMP:20260202T000000Z'],
    ['LAST-MODIFIED', 'LAST-MODIFIED:20260303T000000Z'],
    ['SEQUENCE', 'SEQUENCE:3'],
    ['REQUEST-STATUS', 'REQUEST-STATUS:2.0;Success'],
    ['EXRULE (RFC 2445)', 'RRULE:FREQ=DAILY;COUNT=3', WITH, 'EXRULE:FREQ=DAILY;INTERVAL=2'],
    ['any X- property', 'X-QUILL-COLOUR:teal'],
    ['any other name', 'WEATHER:fair'],
  ],
  'RFC 7986': [
    ['COLOR', 'COLOR:teal'],
    ['CONFERENCE', 'CONFERENCE;VALUE=URI;FEATURE=AUDIO:tel:+351-555-0100'],
    ['IMAGE', 'IMAGE;VALUE=URI:https://quill-audit.example/plan.png'],
  ],
  'RFC 9073': [
    [
      'PARTICIPANT',
      'BEGIN:PARTICIPANT',
      'UID:p1',
      'PARTICIPANT-TYPE:SPEAKER',
      'CALENDAR-ADDRESS:mailto:x@quill-audit.example',
      'END:PARTICIPANT',
    ],
    ['STRUCTURED-DATA', 'STRUCTURED-DATA;VALUE=URI:https://quill-audit.example/plan.json'],
    ['STYLED-DESCRIPTION', 'STYLED-DESCRIPTION;VALUE=TEXT;FMTTYPE=text/html:<p>The weir</p>'],
    ['VLOCATION', 'BEGIN:VLOCATION', 'UID:l1', 'NAME:Marsh Lab', 'LOCATION-TYPE:office', 'END:VLOCATION'],
    ['VRESOURCE', 'BEGIN:VRESOURCE', 'UID:r1', 'NAME:Projector', 'RESOURCE-TYPE:projector', 'END:VRESOURCE'],
  ],
};

const BASE = {
  DTSTAMP: 'DTSTAMP:20270301T080000Z',
  DTSTART: 'DTSTART:20270303T100000Z',
  DTEND: 'DTEND:20270303T110000Z',
  SUMMARY: 'SUMMARY:Audit',
};
const invitedBy = (sender: string) => ({
  ORGANIZER: `ORGANIZER:mailto:${sender}`,
  ATTENDEE: `ATTENDEE:mailto:${INES}`,
});

const nameOf = (line: string): string => /^(?:BEGIN:)?[A-Z-]+/.exec(line)?.[0] ?? '';

/** What stands beside a property in its event, and what is of it alone. */
function apartOf(lines: readonly string[]): { others: readonly string[]; own: readonly string[] } {
  const at = lines.findIndex((line) => line === WITH || line === AND);
  return { others: lines.slice(0, Math.max(at, 0)), own: lines.slice(at + 1) };
}

/** An event like the usual one, with some lines in place of its own; and a second one, where there is more. */
function eventsOf(uid: string, lines: readonly string[], base: Readonly<Record<string, string>>): string[] {
  const at = lines.indexOf(AND);
  if (at < 0)
    return eventOf(
      uid,
      lines.filter((line) => line !== WITH),
      base,
    );
  return [...eventOf(uid, lines.slice(0, at), base), ...eventOf(uid, lines.slice(at + 1), base)];
}

function eventOf(uid: string, lines: readonly string[], base: Readonly<Record<string, string>>): string[] {
  const names = new Set(lines[0]?.startsWith('BEGIN:') ? [] : lines.map(nameOf));
  const standing = Object.values(base).filter((line) => !names.has(nameOf(line)) || nameOf(line) === 'ATTENDEE');
  const own = standing.filter((line) => !(names.has('DURATION') && line.startsWith('DTEND')));
  return ['BEGIN:VEVENT', `UID:${uid}`, ...own, ...lines, 'END:VEVENT'];
}

const calendarOf = (events: readonly string[], method = ''): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//x//x//EN',
    ...(method ? [`METHOD:${method}`] : []),
    ...events,
    'END:VCALENDAR',
    '',
  ].join('\r\n');

/** Whatever an event is told by beside its place in the store. */
const BESIDE = new Set(['id', 'key', 'uid', 'kept', 'createdAt', 'changedAt', 'batch', 'version']);
const sameSender = (text: string): string => text.replace(/marta\d@/g, 'marta@');
const plain = (value: object): string =>
  sameSender(
    JSON.stringify(
      Object.entries(value)
        .filter(([name]) => !BESIDE.has(name))
        .sort(),
    ),
  );

/** A way by which events come in. */
type Way = (org: SmallOrganisation, events: readonly { uid: string; lines: readonly string[] }[]) => Promise<void>;
const ways: Readonly<Record<string, Way>> = {
  async file(org, events) {
    const text = calendarOf(events.flatMap(({ uid, lines }) => eventsOf(uid, lines, BASE)));
    const seen = await previewImport(org.ctx('ines'), org.calendar('ines'), new TextEncoder().encode(text));
    if (seen.ok) await bringIn(org.ctx('ines'), seen.value.preview);
  },
  async program(org, events) {
    for (const { uid, lines } of events)
      putObject(org.ctx('ines'), org.calendar('ines'), `${uid}.ics`, calendarOf(eventsOf(uid, lines, BASE)), {
        match: null,
        noneMatch: null,
      });
    // What asks people goes out, and says so at the item, some seconds later.
    releaseDue(org.db, START + 60_000);
  },
  async mail(org, events) {
    for (const [i, { uid, lines }] of events.entries()) {
      // Of one sender only so many come in in a day.
      const sender = `marta${i % 4}@quill-audit.example`;
      const raw = [
        `Authentication-Results: ${HOST}; dmarc=pass header.from=quill-audit.example`,
        `From: ${sender}`,
        `To: ${INES}`,
        `Message-ID: <${uid}@x.example>`,
        'Content-Type: text/calendar; charset=utf-8',
        '',
        calendarOf(
          eventsOf(
            uid,
            lines.map((line) => line.replace('marta@', `marta${i % 4}@`)),
            { ...BASE, ...invitedBy(sender) },
          ),
          'REQUEST',
        ),
      ].join('\r\n');
      await takeMail(org.db, START + i * 1000, Buffer.from(raw), [], HOST);
    }
  },
};

let org: SmallOrganisation | null = null;
afterEach(() => org?.close());

/** What became of each property that came in one way: a word for it. */
async function tried(way: Way): Promise<Map<string, string>> {
  org?.close();
  org = smallOrganisation(['ines', 'tomas']);
  const all = Object.values(PROPERTIES).flat();
  const uidOf = (name: string) => `it-${name.replace(/[^A-Za-z]/g, '')}`;
  const without = all.map(([name, ...lines]) => ({ uid: `${uidOf(name)}-without`, lines: apartOf(lines).others }));
  const events = all.map(([name, ...lines]) => ({ uid: uidOf(name), lines }));
  await way(org, [...without.filter(({ lines }) => lines.length > 0), { uid: 'it-usual', lines: [] }, ...events]);
  const { db } = org;
  const calendar = mainCalendarOf(db, org.person('ines').id)?.id ?? 0;
  const stored = (uid: string) => itemsByUid(db, calendar, uid)[0];
  const listed = listItems(org.ctx('ines'), org.calendar('ines'), {
    from: '2027-03-01',
    to: '2027-03-08',
    zone: 'Europe/Lisbon',
  });
  const views = listed.ok ? listed.value.items : [];
  const shown = (key: string) => {
    const found = views
      .filter(({ id }) => id.startsWith(key))
      .map(({ id: _id, asSet, version: _v, ...view }) => ({
        ...view,
        set: asSet && { ...asSet, created: null, changed: null },
      }));
    return sameSender(JSON.stringify(found));
  };
  const out = exportFile(org.ctx('ines'), org.calendar('ines'));
  const text = out.ok ? out.value.text.replace(/\r\n[ \t]/g, '') : '';
  const written = (uid: string) => text.split('BEGIN:VEVENT').find((part) => part.includes(`UID:${uid}\r\n`)) ?? '';
  return new Map(
    all.map(([name, ...lines]): [string, string] => {
      const item = stored(uidOf(name));
      if (!item) return [name, 'refused'];
      const usual = stored(`${item.uid}-without`) ?? stored('it-usual');
      if (!usual) throw new Error('the usual event didn’t come in');
      const { own } = apartOf(lines);
      const staysSame = own.every((line) => written(item.uid).includes(line));
      if (shown(item.key) !== shown(usual.key)) return [name, 'shown'];
      if (plain(item) !== plain(usual)) return [name, 'understood'];
      if (staysSame) return [name, 'kept'];
      return [
        name,
        [own[0] ?? ''].some((line) => written(item.uid).includes(`\r\n${nameOf(line)}`)) ? 'written anew' : 'left out',
      ];
    }),
  );
}

test('the page of properties says what becomes of each', async () => {
  const [file, program, mail] = [
    await tried(ways.file as Way),
    await tried(ways.program as Way),
    await tried(ways.mail as Way),
  ];
  const rows = Object.entries(PROPERTIES).flatMap(([of, list]) =>
    list.map(([name]) => `| ${name} | ${of} | ${file.get(name)} | ${program.get(name)} | ${mail.get(name)} |`),
  );
  const page = [
    '# What becomes of an event’s properties',
    '',
    'Written by a test that brings each of them in (`src/server/operations/properties-page.test.ts`). *Shown*: it is understood, and seen at the item;',
    '*understood*: it means something here and isn’t seen by itself; *kept*: it comes out again as it came in, in files and in calendar programs,',
    'until what it depends on changes; *written anew*: its value here is our own; *left out*: nothing remains of it; *refused*: the event doesn’t come in.',
    '',
    '| Property | Of | In a file | From a calendar program | In mail |',
    '| --- | --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
  await expect(page).toMatchFileSnapshot('../../../docs/properties.md');
});
