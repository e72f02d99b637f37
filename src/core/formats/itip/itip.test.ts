import fc from 'fast-check';
import ICAL from 'ical.js';
import { describe, expect, test } from 'vitest';
import type { Message } from '../../meetings/index.ts';
import { readMessage } from './read-message.ts';
import { writeMessage } from './write-message.ts';

const OPTIONS = {
  mostZones: 100,
  mostLines: 20_000,
  zone: 'Europe/Lisbon',
  candidates: ['Europe/Lisbon'],
  nameZone: (text: string) => `~${text.length}-${text.slice(-200)}`,
};
const INES = 'ines@cloudmoor.example';
const MARTA = 'marta@quill-audit.example';

const address = fc.constantFrom(INES, MARTA, 'peat@river.example', 'desk.1+x@far.example');
const words = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 40 })
  .map((s) => s.replace(/\s+/g, ' ').trim())
  .filter((s) => s !== '' && /^[^\p{C}\p{Z}]+( [^\p{C}\p{Z}]+)*$/u.test(s));
const nasty = fc.constantFrom(
  'Weir, consent; and \\ more',
  'Line one\nBEGIN:VEVENT\nMETHOD:CANCEL',
  'ATTENDEE:mailto:x@y.example',
  'Zoë’s café “talk”',
  '<b>not bold</b>',
);
const text = fc.oneof(words, nasty);
const oneLine = text.map((s) => s.replace(/\s+/g, ' ').trim());
const hour = fc.integer({ min: 0, max: 22 });
const pad = (n: number) => String(n).padStart(2, '0');
const time = fc.oneof(
  fc
    .record({
      hour,
      zone: fc.constantFrom('Europe/Lisbon', 'America/Bogota', 'UTC'),
      rule: fc.constantFrom(null, 'FREQ=WEEKLY;COUNT=4'),
    })
    .map(({ hour, zone, rule }) => ({
      start: `2027-03-03T${pad(hour)}:00:00`,
      end: `2027-03-03T${pad(hour + 1)}:30:00`,
      allDay: false,
      zone,
      rule,
      added: [],
      left: rule ? [`2027-03-10T${pad(hour)}:00:00`] : [],
    })),
  fc.constant({
    start: '2027-03-03',
    end: '2027-03-05',
    allDay: true,
    zone: 'Europe/Lisbon',
    rule: null,
    added: [],
    left: [],
  }),
);
const about = fc.record({
  uid: fc.constantFrom('talk-1@cloudmoor.example', 'weir;consent'),
  recurrence: fc.constant(null),
  sequence: fc.nat({ max: 9 }),
  stamp: fc.integer({ min: 0, max: 2_000_000 }).map((n) => Date.UTC(2027, 2, 1) + n * 1000),
  organiser: fc.constant(INES),
});
const answer = fc.constantFrom('needs-action' as const, 'accepted' as const, 'declined' as const, 'tentative' as const);
const invited = fc.uniqueArray(
  fc
    .record({
      address,
      name: fc.option(
        oneLine.map((s) => s.replace(/["]/g, '')).filter((s) => s.trim() === s && s !== ''),
        { nil: null },
      ),
      role: fc.constantFrom('must' as const, 'may' as const),
      kind: fc.constantFrom('person' as const, 'group' as const, 'room' as const, 'thing' as const),
      answer,
    })
    .chain((one) =>
      fc
        .constantFrom(
          {},
          { delegatedFrom: 'far@river.example' },
          { answer: 'declined' as const, delegatedTo: 'far@river.example' },
        )
        .map((more) => ({ ...one, ...more })),
    ),
  { selector: (one) => one.address, minLength: 1, maxLength: 4 },
);
const sentBy = fc.constantFrom(null, 'tomas@cloudmoor.example');
const comment = fc.option(text, { nil: null });
const calling = fc.record({
  about,
  sentBy,
  method: fc.constantFrom('REQUEST' as const, 'PUBLISH' as const, 'ADD' as const),
  time,
  invited,
  matter: fc.record({
    title: oneLine,
    place: fc.option(oneLine, { nil: null }),
    link: fc.constantFrom(null, 'https://meet.example/1?a=b&c=d'),
    notes: fc.option(text, { nil: null }),
  }),
});
const message: fc.Arbitrary<Message> = fc.oneof(
  calling.map(
    ({ about, ...m }): Message => ({
      ...about,
      ...m,
      sender: INES,
      to: [MARTA],
      invited: m.method === 'PUBLISH' ? [] : m.invited,
    }),
  ),
  fc
    .record({ about, sentBy, method: fc.constantFrom('CANCEL' as const) })
    .map(({ about, ...m }): Message => ({ ...about, ...m, sender: INES, to: [MARTA] })),
  fc
    .record({ about, sentBy, comment })
    .map(({ about, ...m }): Message => ({ ...about, ...m, method: 'DECLINECOUNTER', sender: INES, to: [MARTA] })),
  fc
    .record({ about, sentBy, answer, comment })
    .map(
      ({ about, ...m }): Message => ({ ...about, ...m, method: 'REPLY', sender: MARTA, attendee: MARTA, to: [INES] }),
    ),
  fc
    .record({ about, sentBy, time, comment })
    .map(
      ({ about, ...m }): Message => ({ ...about, ...m, method: 'COUNTER', sender: MARTA, attendee: MARTA, to: [INES] }),
    ),
  fc
    .record({ about, sentBy })
    .map(
      ({ about, ...m }): Message => ({ ...about, ...m, method: 'REFRESH', sender: MARTA, attendee: MARTA, to: [INES] }),
    ),
);
const write = (m: Message) => writeMessage(m, { organiserName: 'Inés Varga' });
const read = (t: string, sender = MARTA) => readMessage(t, sender, [INES], OPTIONS);
const trimmed = (m: Message): Message =>
  JSON.parse(JSON.stringify(m), (_, v) => (typeof v === 'string' ? v.trim() : v));

describe('a message as text', () => {
  test('reads as what was written, of every method, whatever its words', () => {
    fc.assert(
      fc.property(message, (m) => {
        const back = readMessage(write(m), m.sender, m.to, OPTIONS);
        expect(back).toMatchObject({ kind: 'messages', unread: 0 });
        const got = back.kind === 'messages' ? back.messages[0] : null;
        const { recurrenceZone: _, ...plain } = got as never as Record<string, unknown>;
        expect(trimmed(plain as never as Message)).toEqual(trimmed(m));
      }),
      { numRuns: 400 },
    );
  });

  test('a name with quotes, carets or a line break in it reads as it was written (RFC 6868)', () => {
    const invited = (cn: string) =>
      read(
        ['BEGIN:VCALENDAR', 'METHOD:REQUEST', 'BEGIN:VEVENT', 'UID:talk', 'DTSTAMP:20270301T000000Z']
          .concat('DTSTART:20270303T100000Z', 'ORGANIZER:mailto:marta@quill-audit.example')
          .concat(`ATTENDEE;CN=${cn}:mailto:ines@cloudmoor.example`, 'END:VEVENT', 'END:VCALENDAR')
          .join('\r\n'),
      );
    const nameOf = (cn: string) => {
      const back = invited(cn);
      const first = back.kind === 'messages' ? back.messages[0] : undefined;
      return first?.method === 'REQUEST' ? first.invited[0]?.name : undefined;
    };
    expect(["Ana ^'Bo^' Lee", '^^', '"^^;^^"', '^^n', 'Ana^nLee', '^x'].map(nameOf)).toEqual([
      'Ana "Bo" Lee',
      '^',
      '^;^',
      '^n',
      'Ana Lee',
      '^x',
    ]);
  });

  test('an address in a parameter has no line break, space or quote in it, however it was written', () => {
    const back = read(
      ['BEGIN:VCALENDAR', 'METHOD:REPLY', 'BEGIN:VEVENT', 'UID:talk', 'DTSTAMP:20270301T000000Z']
        .concat('DTSTART:20270303T100000Z', 'ORGANIZER:mailto:ines@cloudmoor.example')
        .concat(`ATTENDEE;PARTSTAT=ACCEPTED;SENT-BY="mailto:a^nBcc: x^'@evil.example":mailto:${MARTA}`)
        .concat('END:VEVENT', 'END:VCALENDAR')
        .join('\r\n'),
    );
    expect(back).toMatchObject({ messages: [{ method: 'REPLY', sentBy: 'abcc:x@evil.example' }] });
  });

  /** RFC 5546, 3.2: what a VEVENT of each method has to have, and what it must not. */
  const TABLE: Record<Message['method'], { must: string[]; not: string[] }> = {
    PUBLISH: { must: ['dtstamp', 'dtstart', 'organizer', 'summary', 'uid'], not: ['attendee', 'request-status'] },
    REQUEST: {
      must: ['attendee', 'dtstamp', 'dtstart', 'organizer', 'sequence', 'summary', 'uid'],
      not: ['request-status'],
    },
    ADD: {
      must: ['dtstamp', 'dtstart', 'organizer', 'sequence', 'summary', 'uid'],
      not: ['recurrence-id', 'request-status'],
    },
    CANCEL: { must: ['dtstamp', 'organizer', 'sequence', 'uid', 'status'], not: ['request-status'] },
    REPLY: { must: ['attendee', 'dtstamp', 'organizer', 'uid'], not: ['dtstart', 'rrule'] },
    REFRESH: {
      must: ['attendee', 'dtstamp', 'organizer', 'uid'],
      not: ['summary', 'status', 'comment', 'dtstart', 'location'],
    },
    COUNTER: { must: ['dtstamp', 'dtstart', 'organizer', 'sequence', 'summary', 'uid'], not: ['request-status'] },
    DECLINECOUNTER: { must: ['dtstamp', 'organizer', 'sequence', 'uid'], not: ['summary', 'location', 'dtstart'] },
  };

  test('has what its method’s table asks for, and nothing it forbids; an independent parser says so', () => {
    const met = new Set<string>();
    fc.assert(
      fc.property(message, (m) => {
        const t = write(m);
        for (const line of t.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
        const calendar = new ICAL.Component(ICAL.parse(t) as never);
        expect(calendar.getFirstPropertyValue('method')).toBe(m.method);
        const events = calendar.getAllSubcomponents('vevent');
        expect(events).toHaveLength(1);
        const event = events[0] as ICAL.Component;
        for (const name of TABLE[m.method].must)
          expect([m.method, name, event.hasProperty(name)]).toEqual([m.method, name, true]);
        for (const name of TABLE[m.method].not)
          expect([m.method, name, event.hasProperty(name)]).toEqual([m.method, name, false]);
        for (const name of ['uid', 'organizer', 'dtstamp']) expect(event.getAllProperties(name)).toHaveLength(1);
        if (m.method === 'REPLY' || m.method === 'REFRESH') expect(event.getAllProperties('attendee')).toHaveLength(1);
        // Nothing of anybody's own copy.
        expect(t).not.toMatch(/^(CLASS|CATEGORIES|TRANSP|X-PARAMO|PRIORITY)/m);
        const zoned = event
          .getAllProperties()
          .map((p) => p.getFirstParameter('tzid'))
          .filter(Boolean);
        for (const tzid of zoned) expect(t).toContain(`TZID:${tzid}`);
        met.add(m.method);
      }),
      { numRuns: 400 },
    );
    expect([...met].sort()).toEqual(Object.keys(TABLE).sort());
  });

  test('of one occurrence names it on its series’ clock', () => {
    const m: Message = {
      uid: 'weekly',
      recurrence: '2027-03-10T09:00:00',
      sequence: 2,
      stamp: Date.UTC(2027, 2, 1),
      organiser: INES,
      sender: INES,
      sentBy: null,
      method: 'CANCEL',
      to: [MARTA],
    };
    const t = writeMessage(m, { organiserName: null, series: { zone: 'America/Bogota', allDay: false } });
    expect(t).toContain('RECURRENCE-ID;TZID=America/Bogota:20270310T090000');
    expect(read(t, INES)).toMatchObject({ messages: [{ recurrence: m.recurrence, recurrenceZone: 'America/Bogota' }] });
  });
});

describe('what comes from elsewhere', () => {
  const lines = (...event: string[]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Far//EN', ...event, 'END:VCALENDAR', ''].join('\r\n');
  const event = (...more: string[]) => [
    'BEGIN:VEVENT',
    'UID:far-1',
    'DTSTAMP:20270301T090000Z',
    `ORGANIZER:mailto:${INES}`,
    ...more,
    'END:VEVENT',
  ];

  test('an answer with a name, a delegate and words is read; case and quotes make no difference', () => {
    const t = lines(
      'method:reply',
      ...event(
        'ATTENDEE;CN="Quill, Marta";PARTSTAT=declined;SENT-BY="MAILTO:Desk@quill-audit.example":MAILTO:Marta@Quill-Audit.example',
        'COMMENT:Away\\, alas',
        'SEQUENCE:3',
      ),
    );
    expect(read(t)).toMatchObject({
      unread: 0,
      messages: [
        {
          method: 'REPLY',
          attendee: MARTA,
          answer: 'declined',
          comment: 'Away, alas',
          sequence: 3,
          sentBy: 'desk@quill-audit.example',
          organiser: INES,
        },
      ],
    });
  });

  test('an answer that sends somebody instead names both, and theirs who sent them', () => {
    const piet = 'piet@quill-audit.example';
    const sends = lines(
      'METHOD:REPLY',
      ...event(
        `ATTENDEE;PARTSTAT=DELEGATED;DELEGATED-TO="mailto:${piet}":mailto:${MARTA}`,
        `ATTENDEE;CN=Piet;RSVP=TRUE;DELEGATED-FROM="mailto:${MARTA}":mailto:${piet}`,
      ),
    );
    expect(read(sends)).toMatchObject({
      messages: [{ attendee: MARTA, answer: 'declined', delegatedTo: { address: piet, name: 'Piet' } }],
    });
    const comes = lines(
      'METHOD:REPLY',
      ...event(`ATTENDEE;PARTSTAT=ACCEPTED;DELEGATED-FROM="mailto:${MARTA}":mailto:${piet}`),
    );
    expect(read(comes, piet)).toMatchObject({
      messages: [{ attendee: piet, answer: 'accepted', delegatedFrom: MARTA }],
    });
    // The word without whom it means is no answer that anybody could act on, nor is one that names others too.
    const nobody = lines('METHOD:REPLY', ...event(`ATTENDEE;PARTSTAT=DELEGATED:mailto:${MARTA}`));
    expect(read(nobody)).toMatchObject({ messages: [{ answer: 'needs-action' }] });
    const other = sends.replace(`mailto:${piet}\r\nEND`, 'mailto:else@river.example\r\nEND');
    expect(other).not.toBe(sends);
    expect(read(other)).toMatchObject({ messages: [], unread: 1 });
  });

  test.each([
    ['without a method', lines(...event(`ATTENDEE:mailto:${MARTA}`)), 'notAMessage'],
    ['no calendar at all', 'Dear Inés,\r\nsee you on Monday.', 'notAMessage'],
    ['with a method nobody knows', lines('METHOD:SHOUT', ...event()), 'notAMessage'],
  ])('what is %s is no message', (_, t, kind) => {
    expect(read(t).kind).toBe(kind);
  });

  test.each([
    [
      'an answer by two',
      lines('METHOD:REPLY', ...event(`ATTENDEE:mailto:${MARTA}`, 'ATTENDEE:mailto:peat@river.example')),
    ],
    ['an answer by nobody', lines('METHOD:REPLY', ...event())],
    ['an invitation without a time', lines('METHOD:REQUEST', ...event(`ATTENDEE:mailto:${MARTA}`, 'SUMMARY:When?'))],
    ['an invitation to nobody', lines('METHOD:REQUEST', ...event('DTSTART:20270303T100000Z', 'SUMMARY:For whom?'))],
    [
      'this and all later ones, as a range',
      lines('METHOD:CANCEL', ...event('RECURRENCE-ID;RANGE=THISANDFUTURE:20270303T100000Z')),
    ],
    [
      'a meeting of no organiser',
      lines('METHOD:CANCEL', 'BEGIN:VEVENT', 'UID:x', 'DTSTAMP:20270301T090000Z', 'END:VEVENT'),
    ],
  ])('%s is counted as unread, and nothing is made of it', (_, t) => {
    expect(read(t)).toEqual({ kind: 'messages', messages: [], unread: 1, zones: [] });
  });

  test('an occurrence whose time is another stands beside its series', () => {
    const t = lines(
      'METHOD:REQUEST',
      ...event(
        'DTSTART:20270303T100000Z',
        'DTEND:20270303T110000Z',
        'RRULE:FREQ=WEEKLY;COUNT=4',
        'SUMMARY:Weekly',
        `ATTENDEE:mailto:${MARTA}`,
      ),
      ...event(
        'RECURRENCE-ID:20270310T100000Z',
        'DTSTART:20270310T150000Z',
        'DTEND:20270310T160000Z',
        'SUMMARY:Weekly, later',
        `ATTENDEE:mailto:${MARTA}`,
      ),
    );
    expect(read(t, INES)).toMatchObject({
      unread: 0,
      messages: [
        { recurrence: null, time: { rule: 'FREQ=WEEKLY;COUNT=4' } },
        {
          recurrence: '2027-03-10T10:00:00',
          recurrenceZone: 'UTC',
          time: { start: '2027-03-10T15:00:00', rule: null },
        },
      ],
    });
  });

  test('any text at all is read or refused, never thrown at', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), message, fc.nat(), (noise, m, at) => {
        const t = write(m);
        const broken = t.slice(0, at % t.length) + noise + t.slice(at % t.length);
        for (const one of [noise, broken]) expect(['messages', 'notAMessage']).toContain(read(one).kind);
      }),
      { numRuns: 300 },
    );
  });
});
