import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { KINDS, STATUSES, VISIBILITIES } from '../../calendar/index.ts';
import { dateText, wallText } from '../../time/index.ts';
import { type ReadFile, type ReadItem, readCalendar, type WrittenItem, writeCalendar } from '../index.ts';

const options = {
  mostZones: 100,
  mostLines: 20_000,
  zone: 'Europe/Lisbon',
  candidates: ['Europe/Lisbon', 'Europe/Berlin', 'America/Bogota'],
  most: 1000,
  nameZone: (text: string) => `~${text.length}-${text.slice(-200)}`,
};
const calendar = (...events: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...events, 'END:VCALENDAR', ''].join('\r\n');
const event = (...lines: string[]): string =>
  ['BEGIN:VEVENT', 'UID:u1', 'SUMMARY:T', ...lines, 'END:VEVENT'].join('\r\n');
const read = (text: string): Extract<ReadFile, { kind: 'read' }> => {
  const file = readCalendar(text, options);
  if (file.kind !== 'read') throw new Error(file.kind);
  return file;
};

describe('times', () => {
  test('UTC, floating, zoned, all-day and a duration', () => {
    const items = [
      event('DTSTART:20270302T100000Z', 'DTEND:20270302T110000Z'),
      event('DTSTART:20270302T100000', 'DTEND:20270302T110000'),
      event('DTSTART;TZID=America/Bogota:20270302T100000', 'DURATION:PT90M'),
      event('DTSTART;VALUE=DATE:20270302'),
      event('DTSTART;VALUE=DATE:20270302', 'DTEND;VALUE=DATE:20270305'),
    ].map((text, i) => read(calendar(text.replace('UID:u1', `UID:u${i}`))).items[0]);
    expect(items.map((i) => [i?.start, i?.end, i?.zone, i?.allDay])).toEqual([
      ['2027-03-02T10:00:00', '2027-03-02T11:00:00', 'UTC', false],
      ['2027-03-02T10:00:00', '2027-03-02T11:00:00', 'Europe/Lisbon', false],
      ['2027-03-02T10:00:00', '2027-03-02T11:30:00', 'America/Bogota', false],
      ['2027-03-02', '2027-03-03', 'Europe/Lisbon', true],
      ['2027-03-02', '2027-03-05', 'Europe/Lisbon', true],
    ]);
  });
  test('a zone with a name of its own is recognised by its offsets, and said', () => {
    const zone = [
      'BEGIN:VTIMEZONE',
      'TZID:Our Middle Time',
      'BEGIN:STANDARD',
      'DTSTART:19961027T030000',
      'RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU',
      'TZOFFSETFROM:+0200',
      'TZOFFSETTO:+0100',
      'END:STANDARD',
      'BEGIN:DAYLIGHT',
      'DTSTART:19810329T020000',
      'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU',
      'TZOFFSETFROM:+0100',
      'TZOFFSETTO:+0200',
      'END:DAYLIGHT',
      'END:VTIMEZONE',
    ].join('\r\n');
    const file = read(
      calendar(
        zone,
        event('DTSTART;TZID=Our Middle Time:20270702T100000', 'DTEND;TZID=Our Middle Time:20270702T110000'),
      ),
    );
    expect(file.items[0]?.zone).toBe('Europe/Berlin');
    expect(file.remarks[0]).toMatchObject({ code: 'zoneByOffsets', fact: 'Our Middle Time = Europe/Berlin' });
  });
  test('a zone nobody knows is a problem of its items alone', () => {
    const file = read(
      calendar(
        event('DTSTART;TZID=Mars/Olympus:20270302T100000'),
        event('DTSTART:20270302T100000Z').replace('u1', 'u2'),
      ),
    );
    expect(file.problems).toMatchObject([{ code: 'unknownZone', fact: 'Mars/Olympus', title: 'T' }]);
    expect(file.items).toHaveLength(1);
  });
});

describe('series', () => {
  test('a rule, left-out and added dates, and a moved one, in the series’ own zone', () => {
    const file = read(
      calendar(
        event(
          'DTSTART;TZID=Europe/Lisbon:20270705T090000',
          'DTEND;TZID=Europe/Lisbon:20270705T100000',
          'RRULE:FREQ=WEEKLY;COUNT=5',
          'EXDATE:20270712T080000Z',
          'RDATE;TZID=Europe/Lisbon:20270714T090000',
        ),
        event(
          'RECURRENCE-ID:20270719T080000Z',
          'DTSTART;TZID=Europe/Lisbon:20270720T150000',
          'DTEND;TZID=Europe/Lisbon:20270720T160000',
        ),
      ),
    );
    expect(file.problems).toEqual([]);
    expect(file.items[0]).toMatchObject({
      rule: 'FREQ=WEEKLY;COUNT=5',
      left: ['2027-07-12T09:00:00'],
      added: ['2027-07-14T09:00:00'],
    });
    expect(file.items[1]).toMatchObject({ recurrence: '2027-07-19T09:00:00', start: '2027-07-20T15:00:00' });
  });
});

describe('what a file says of an item', () => {
  test.each([
    ['CLASS:PUBLIC', 'follow'],
    ['CLASS:PRIVATE', 'private'],
    ['CLASS:CONFIDENTIAL', 'private'],
    ['CLASS: PRIVATE ', 'private'],
    ['CLASS: public', 'follow'],
    ['CLASS:X-BOARD-ONLY', 'private'],
    ['CLASS:whatever', 'private'],
    ['X-NOTHING:1', 'follow'],
  ])('%s reads as %s', (line, visibility) => {
    expect(read(calendar(event('DTSTART:20270302T100000Z', line))).items[0]?.visibility).toBe(visibility);
  });
  test('away and reachable all the same is so by a property of our own, and busy to whoever doesn’t know it', () => {
    const file = calendar(event('DTSTART:20270302T100000Z', 'X-PARAMO-SHOWS:reachable', 'TRANSP:OPAQUE'));
    expect(read(file).items[0]?.shows).toBe('reachable');
    expect(read(file.replace(/X-PARAMO.*\r\n/, '')).items[0]?.shows).toBe('busy');
    const [item] = read(file).items;
    const written = writeCalendar([{ ...(item as ReadItem), touched: false, changedAt: 0 } as WrittenItem], null);
    expect(written).toMatch(/X-PARAMO-SHOWS[^\r]*:reachable/);
    expect(written).toContain('TRANSP:OPAQUE');
  });
  test('our own value wins over the class', () => {
    expect(
      read(calendar(event('DTSTART:20270302T100000Z', 'CLASS:CONFIDENTIAL', 'X-PARAMO-VISIBILITY:outline'))).items[0]
        ?.visibility,
    ).toBe('outline');
  });
  test('a link that is no web address is left out', () => {
    expect(read(calendar(event('DTSTART:20270302T100000Z', 'URL:javascript:alert(1)'))).items[0]?.link).toBeNull();
  });
  test.each([
    [event(), 'noStart'],
    [event('DTSTART:nonsense'), 'badStart'],
    [event('DTSTART:20270230T100000Z'), 'badStart'],
    [event('DTSTART:20270302T100000Z', 'DTEND:20270301T100000Z'), 'endBeforeStart'],
    [event('DTSTART:20270302T100000Z', 'DTEND:20370301T100000Z'), 'tooLong'],
    [event('DTSTART:20270302T100000Z', 'RRULE:FREQ=DAILY', 'RRULE:FREQ=WEEKLY'), 'manyRules'],
    [event('DTSTART:99991231T230000Z'), 'outOfBounds'],
    [event('DTSTART:00010101T000000Z'), 'outOfBounds'],
    [event('DTSTART:20270302T100000Z', 'RRULE:FREQ=DAILY;COUNT=0'), 'ruleUnreadable'],
    [event('DTSTART:20270302T100000Z', 'RRULE:FREQ=DAILY;INTERVAL=0'), 'ruleInterval'],
    [event('DTSTART:20270302T100000Z', 'RRULE:FREQ=MONTHLY;SKIP=BACKWARD;RSCALE=GREGORIAN'), 'rulePart'],
    [event('DTSTART:20270302T100000Z', 'RRULE:FREQ=DAILY;X-WHEN=DRY'), 'rulePart'],
    [event('DTSTART:20270302T100000Z', 'RRULE:FREQ=WEEKLY;BYDAY=MO;BYDAY=TU'), 'ruleUnreadable'],
    [event('DTSTART:20270302T100000Z', 'RECURRENCE-ID;RANGE=THISANDFUTURE:20270302T100000Z'), 'thisAndFuture'],
    ['BEGIN:VTODO\r\nUID:x\r\nEND:VTODO', 'otherKind'],
  ])('%#: %s', (text, code) => {
    expect(read(calendar(text)).problems.map((p) => p.code)).toEqual([code]);
  });
  test('a truncated file gives what is whole, and names what isn’t', () => {
    const text = calendar(
      event('DTSTART:20270302T100000Z'),
      event('DTSTART:20270303T100000Z', 'DESCRIPTION:longer').replace('u1', 'u2'),
    );
    const file = read(text.slice(0, text.indexOf('DESCRIPTION')));
    expect(file.items).toHaveLength(1);
    expect(file.problems.map((p) => p.code)).toEqual(['unended']);
    expect(file.ended).toBe(false);
  });
  test('text that is no calendar is said to be none', () => {
    expect(readCalendar('<html>', options).kind).toBe('notACalendar');
    expect(readCalendar('', options).kind).toBe('notACalendar');
  });
  test('more items than allowed are refused as a whole', () => {
    const many = Array.from({ length: 12 }, (_, i) => event('DTSTART:20270302T100000Z').replace('u1', `m${i}`));
    expect(readCalendar(calendar(...many), { ...options, most: 10 }).kind).toBe('tooMany');
  });
});

const texts = fc.string({ maxLength: 60, unit: 'grapheme' }).map((s) =>
  s
    .replace(/[\p{C}\r\n]/gu, '')
    .replace(/\s+/g, ' ')
    .trim(),
);
const wall = fc
  .integer({ min: Date.UTC(2026, 0), max: Date.UTC(2028, 0) })
  .map((ms) => Math.floor(ms / 60_000) * 60_000);
const address = fc.constantFrom('a@cloudmoor.example', 'b@fenwater.example');
const written: fc.Arbitrary<WrittenItem> = fc
  .record({
    at: wall,
    minutes: fc.integer({ min: 1, max: 3000 }),
    allDay: fc.boolean(),
    zone: fc.constantFrom('Europe/Lisbon', 'America/Bogota', 'UTC'),
    repeats: fc.boolean(),
    title: texts.filter(Boolean),
    kind: fc.constantFrom(...KINDS),
    place: fc.option(texts.filter(Boolean), { nil: null }),
    notes: fc.option(texts.filter(Boolean), { nil: null }),
    categories: fc.array(texts.filter(Boolean), { maxLength: 3 }),
    importance: fc.constantFrom('low', 'normal', 'high'),
    shows: fc.constantFrom(...STATUSES),
    visibility: fc.constantFrom(...VISIBILITIES),
    cancelled: fc.boolean(),
    organiser: fc.option(
      fc.record({
        name: fc.option(
          texts.filter((s) => s !== '' && !s.includes('"')),
          { nil: null },
        ),
        address,
      }),
      { nil: null },
    ),
    attendees: fc.array(
      fc.record({
        name: fc.constant(null),
        address,
        answer: fc.constantFrom('accepted', 'declined', 'tentative', 'needs-action'),
      }),
      { maxLength: 2 },
    ),
    sequence: fc.nat(50),
  })
  .map(({ at, minutes, repeats, ...r }, i = 0) => {
    const text = r.allDay ? dateText : wallText;
    const days = 86_400_000 * (1 + (minutes % 4));
    return {
      ...r,
      uid: `u${i}@x`,
      recurrence: null,
      start: text(at),
      end: text(at + (r.allDay ? days : minutes * 60_000)),
      zone: r.allDay ? 'Europe/Lisbon' : r.zone,
      rule: repeats ? 'FREQ=WEEKLY;COUNT=4' : null,
      added: [],
      left: repeats ? [text(at + 7 * 86_400_000)] : [],
      link: null,
      length: r.allDay ? { days: days / 86_400_000, ms: 0 } : { days: 0, ms: minutes * 60_000 },
      kept: [],
      touched: false,
      changedAt: Date.UTC(2027, 0, 1),
    } as WrittenItem;
  });

describe('writing and reading back', () => {
  test('gives the same items', () => {
    fc.assert(
      fc.property(written, (item) => {
        const file = read(writeCalendar([item], 'x'));
        expect(file.problems).toEqual([]);
        const { line: _line, startAt, endAt, stamp: _stamp, ...back } = file.items[0] as ReadItem;
        const { changedAt: _changedAt, touched: _touched, end, length, ...given } = item;
        // An end across a clock change is as long as it was, whatever its own clock says.
        expect(back).toMatchObject(given);
        expect(back.length.days).toBe(length.days);
        if (item.zone === 'UTC' || item.allDay) expect(back.end).toBe(end);
        expect(endAt).toBeGreaterThanOrEqual(startAt);
      }),
      { numRuns: 300 },
    );
  });
  test('a thousand mangled files break nothing', () => {
    const whole = writeCalendar(fc.sample(written, { numRuns: 6, seed: 7 }), 'x');
    fc.assert(
      fc.property(fc.nat(whole.length), fc.nat(60), fc.string({ maxLength: 12 }), (at, cut, put) => {
        const mangled = whole.slice(0, at) + put + whole.slice(at + cut);
        expect(['read', 'notACalendar', 'tooMany']).toContain(readCalendar(mangled, options).kind);
      }),
      { numRuns: 1000 },
    );
  });
});
