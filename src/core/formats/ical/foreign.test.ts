import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { expand } from '../../recurrence/index.ts';
import { fromWallLenient, instantText, parseWall } from '../../time/index.ts';
import { type ReadFile, type ReadItem, readCalendar, type WrittenItem, writeCalendar } from '../index.ts';

/* What files that others write say, by RFC 5545, and what is left of it when it is written again. */

const options = {
  mostZones: 100,
  mostLines: 20_000,
  zone: 'Europe/Lisbon',
  candidates: ['Europe/Lisbon', 'Europe/Berlin', 'America/New_York'],
  most: 1000,
  nameZone: (text: string) => `~${text}`,
};
const calendar = (...parts: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...parts, 'END:VCALENDAR', ''].join('\r\n');
const event = (...lines: string[]): string =>
  ['BEGIN:VEVENT', 'UID:u1', 'SUMMARY:T', ...lines, 'END:VEVENT'].join('\r\n');
type Whole = Extract<ReadFile, { kind: 'read' }>;
const read = (text: string): Whole => {
  const file = readCalendar(text, options);
  if (file.kind !== 'read') throw new Error(file.kind);
  return file;
};
const item = (...lines: string[]): ReadItem => {
  const file = read(calendar(event(...lines)));
  expect(file.problems).toEqual([]);
  return file.items[0] as ReadItem;
};
const occurrences = (i: ReadItem, from: string, to: string): string[] =>
  expand(
    {
      startWall: parseWall(i.start) as number,
      length: i.length,
      allDay: i.allDay,
      zone: i.zone,
      rule: i.rule === null ? null : { kind: 'rule', text: i.rule },
      added: i.added,
      left: i.left,
    },
    Date.parse(from),
    Date.parse(to),
    100,
  ).occurrences.map((o) => `${instantText(o.start)} ${instantText(o.end)}`);
const written = (i: ReadItem, more: Partial<WrittenItem> = {}): WrittenItem => ({
  ...i,
  touched: false,
  changedAt: Date.UTC(2027, 0, 1),
  ...more,
});
const lines = (text: string): string[] => text.replace(/\r\n[ \t]/g, '').split('\r\n');

const oldEastern = (tzid: string): string =>
  [
    'BEGIN:VTIMEZONE',
    `TZID:${tzid}`,
    'BEGIN:STANDARD',
    'DTSTART:19671029T020000',
    'RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10',
    'TZOFFSETFROM:-0400',
    'TZOFFSETTO:-0500',
    'END:STANDARD',
    'BEGIN:DAYLIGHT',
    'DTSTART:19870405T020000',
    'RRULE:FREQ=YEARLY;BYDAY=1SU;BYMONTH=4',
    'TZOFFSETFROM:-0500',
    'TZOFFSETTO:-0400',
    'END:DAYLIGHT',
    'END:VTIMEZONE',
  ].join('\r\n');

describe('an end on another clock than the start', () => {
  test('is kept by its zone’s name, and written as it came', () => {
    const [start, end] = ['DTSTART;TZID=Europe/Lisbon:20270303T100000', 'DTEND;TZID=America/Bogota:20270303T143000'];
    const flight = item(start, end);
    expect([flight.end, flight.endZone, flight.endAt]).toEqual([
      '2027-03-03T14:30:00',
      'America/Bogota',
      Date.UTC(2027, 2, 3, 19, 30),
    ]);
    const back = lines(writeCalendar([written(flight)], 'Journeys'));
    expect(back).toEqual(expect.arrayContaining([start, end, 'TZID:America/Bogota', 'TZID:Europe/Lisbon']));
    expect(item('DTSTART;TZID=Europe/Lisbon:20270303T100000', 'DTEND:20270303T193000Z').endZone).toBeNull();
  });

  test('by a definition that no named zone agrees with, it is said that the clock is not kept', () => {
    const odd = [
      ...['BEGIN:VTIMEZONE', 'TZID:Odd', 'BEGIN:STANDARD', 'DTSTART:19700101T000000'],
      ...['TZOFFSETFROM:+0017', 'TZOFFSETTO:+0017', 'END:STANDARD', 'END:VTIMEZONE'],
    ].join('\r\n');
    const file = read(
      calendar(odd, event('DTSTART;TZID=Europe/Lisbon:20270303T100000', 'DTEND;TZID=Odd:20270303T120000')),
    );
    expect(file.items[0]).toMatchObject({ endZone: null, end: '2027-03-03T11:43:00' });
    expect(file.remarks.map((r) => r.code)).toContain('endZone');
  });
});

describe('the file’s own definition is the truth for its times', () => {
  test('where it still holds, the named zone stands for it', () => {
    const file = read(calendar(oldEastern('America/New_York'), event('DTSTART;TZID=America/New_York:20260702T100000')));
    expect(file.items[0]?.zone).toBe('America/New_York');
    expect(file.zones).toEqual([]);
  });
  test('where it differs from the named zone, the definition is kept and its instants are right', () => {
    // 20 March: by the old rule still standard time, by the zone's present one not.
    const file = read(calendar(oldEastern('America/New_York'), event('DTSTART;TZID=America/New_York:20260320T100000')));
    const [first] = file.items as [ReadItem];
    expect(instantText(first.startAt)).toBe('2026-03-20T15:00:00Z');
    expect(first.zone.startsWith('~')).toBe(true);
    expect(file.zones[0]).toMatchObject({ tzid: 'America/New_York', near: 'America/New_York' });
    const again = read(writeCalendar([written(first)], 'x', file.zones));
    expect(again.items[0]).toMatchObject({ startAt: first.startAt, start: first.start, zone: first.zone });
  });
  // One change of a year and no rule: nothing is said of the summers before and after, where Lisbon has its own.
  const winterAlone = (...more: string[]) =>
    [
      'BEGIN:VTIMEZONE',
      'TZID:Europe/Lisbon',
      'BEGIN:STANDARD',
      'DTSTART:20261025T020000',
      'TZOFFSETFROM:+0100',
      'TZOFFSETTO:+0000',
      'END:STANDARD',
      ...more,
      'END:VTIMEZONE',
    ].join('\r\n');
  const summerOf2027 = [
    'BEGIN:DAYLIGHT',
    'DTSTART:20270328T010000',
    'TZOFFSETFROM:+0000',
    'TZOFFSETTO:+0100',
    'END:DAYLIGHT',
  ];
  test.each([
    ['20270115T100000', '2027-01-15T10:00:00Z'],
    ['20270705T100000', '2027-07-05T09:00:00Z'],
    ['20260705T100000', '2026-07-05T09:00:00Z'],
    ['20280705T100000', '2028-07-05T09:00:00Z'],
    ['20290115T100000', '2029-01-15T10:00:00Z'],
  ])('what is told of some years only is not the truth for the others: %s', (start, at) => {
    for (const definition of [winterAlone(), winterAlone(...summerOf2027)]) {
      const file = read(calendar(definition, event(`DTSTART;TZID=Europe/Lisbon:${start}`)));
      expect([file.items[0]?.zone, instantText(file.items[0]?.startAt ?? 0), file.zones]).toEqual([
        'Europe/Lisbon',
        at,
        [],
      ]);
    }
  });
  test('a series over the years told of and those that aren’t keeps its hour in the named zone', () => {
    const weekly = event('DTSTART;TZID=Europe/Lisbon:20270101T100000', 'RRULE:FREQ=MONTHLY');
    const [series] = read(calendar(winterAlone(), weekly)).items as [ReadItem];
    expect(series.zone).toBe('Europe/Lisbon');
  });
  test('for the years it tells of it is the truth, also beside its name', () => {
    // It keeps summer time until the end of 2027, as Lisbon doesn't.
    const long = winterAlone(
      ...summerOf2027,
      'BEGIN:STANDARD',
      'DTSTART:20271231T020000',
      'TZOFFSETFROM:+0100',
      'TZOFFSETTO:+0000',
      'END:STANDARD',
    );
    const at = (start: string) => {
      const [one] = read(calendar(long, event(`DTSTART;TZID=Europe/Lisbon:${start}`))).items as [ReadItem];
      return [one.zone.startsWith('~'), instantText(one.startAt)];
    };
    expect(at('20271201T100000')).toEqual([true, '2027-12-01T09:00:00Z']);
    expect(at('20280705T100000')).toEqual([false, '2028-07-05T09:00:00Z']);
  });
  test('a definition whose first line changes nothing holds from there on all the same', () => {
    const fixed = [
      'BEGIN:VTIMEZONE',
      'TZID:Europe/Lisbon',
      'BEGIN:STANDARD',
      'DTSTART:20270401T000000',
      'TZOFFSETFROM:+0500',
      'TZOFFSETTO:+0500',
      'END:STANDARD',
      'END:VTIMEZONE',
    ].join('\r\n');
    const at = (start: string) =>
      instantText(read(calendar(fixed, event(`DTSTART;TZID=Europe/Lisbon:${start}`))).items[0]?.startAt ?? 0);
    expect(at('20270315T100000')).toBe('2027-03-15T10:00:00Z');
    expect(at('20270705T100000')).toBe('2027-07-05T05:00:00Z');
    expect(at('20271215T100000')).toBe('2027-12-15T10:00:00Z');
  });
  test('a series keeps its hour on the defined clock', () => {
    const file = read(
      calendar(
        oldEastern('Old Eastern'),
        event('DTSTART;TZID=Old Eastern:20260316T100000', 'RRULE:FREQ=WEEKLY;COUNT=4'),
      ),
    );
    expect(
      occurrences(file.items[0] as ReadItem, '2026-01-01T00:00:00Z', '2027-01-01T00:00:00Z').map((h) =>
        h.slice(11, 16),
      ),
    ).toEqual(['15:00', '15:00', '15:00', '14:00']);
  });
  test('a definition without rules holds its last offset for ever', () => {
    const fixed = [
      'BEGIN:VTIMEZONE',
      'TZID:Fixed',
      'BEGIN:STANDARD',
      'DTSTART:19700101T000000',
      'TZOFFSETFROM:+0545',
      'TZOFFSETTO:+0545',
      'END:STANDARD',
      'END:VTIMEZONE',
    ].join('\r\n');
    expect(
      instantText(read(calendar(fixed, event('DTSTART;TZID=Fixed:20270701T100000'))).items[0]?.startAt as number),
    ).toBe('2027-07-01T04:15:00Z');
  });
});

describe('lengths', () => {
  test('a DURATION in hours is exact over a clock change, in days it is nominal', () => {
    const night = 'DTSTART;TZID=Europe/Lisbon:20270327T230000';
    expect(item(night, 'DURATION:PT4H').end).toBe('2027-03-28T04:00:00');
    expect(item(night, 'DURATION:P1D').end).toBe('2027-03-28T23:00:00');
    expect(item(night, 'DURATION:PT24H').end).toBe('2027-03-29T00:00:00');
  });
  test('a series with an end as a time keeps its exact length, one with days its clock', () => {
    const rule = 'RRULE:FREQ=DAILY;COUNT=2';
    const range = ['2027-03-01T00:00:00Z', '2027-04-01T00:00:00Z'] as const;
    expect(
      occurrences(
        item('DTSTART;TZID=Europe/Lisbon:20270326T230000', 'DTEND;TZID=Europe/Lisbon:20270327T070000', rule),
        ...range,
      ),
    ).toEqual(['2027-03-26T23:00:00Z 2027-03-27T07:00:00Z', '2027-03-27T23:00:00Z 2027-03-28T07:00:00Z']);
    expect(occurrences(item('DTSTART;TZID=Europe/Lisbon:20270326T230000', 'DURATION:P1D', rule), ...range)).toEqual([
      '2027-03-26T23:00:00Z 2027-03-27T23:00:00Z',
      '2027-03-27T23:00:00Z 2027-03-28T22:00:00Z',
    ]);
  });
  test('a start that the clocks leave out keeps its length and its series', () => {
    const gap = item(
      'DTSTART;TZID=Europe/Lisbon:20270328T013000',
      'DTEND;TZID=Europe/Lisbon:20270328T023000',
      'RRULE:FREQ=WEEKLY;COUNT=2',
    );
    expect(gap.endAt - gap.startAt).toBe(3_600_000);
    expect(occurrences(gap, '2027-03-01T00:00:00Z', '2027-05-01T00:00:00Z')).toEqual([
      '2027-03-28T01:30:00Z 2027-03-28T02:30:00Z',
      '2027-04-04T00:30:00Z 2027-04-04T01:30:00Z',
    ]);
  });
});

describe('what is written in other ways than ours', () => {
  test('a leap second, a rule in small letters, an empty exception', () => {
    expect(item('DTSTART:20161231T235960Z').start).toBe('2016-12-31T23:59:59');
    expect(item('DTSTART:20270302T100000Z', 'RRULE:freq=weekly;byday=tu;count=3', 'EXDATE:').rule).toBe(
      'FREQ=WEEKLY;COUNT=3;BYDAY=TU',
    );
  });
  test('an added date with a length of its own has it', () => {
    const file = read(
      calendar(
        event(
          'DTSTART:20270302T100000Z',
          'DTEND:20270302T110000Z',
          'RDATE;VALUE=PERIOD:20270304T100000Z/PT3H,20270305T090000Z/20270305T093000Z',
        ),
      ),
    );
    expect(file.items.map((i) => [i.recurrence, (i.endAt - i.startAt) / 60_000])).toEqual([
      [null, 60],
      ['2027-03-04T10:00:00', 180],
      ['2027-03-05T09:00:00', 30],
    ]);
  });
  test('of two revisions the higher sequence stands, then the later stamp', () => {
    const two = (a: string, b: string) =>
      read(calendar(event('DTSTART:20270302T100000Z', a), event('DTSTART:20270303T100000Z', b)));
    expect(two('SEQUENCE:4', 'SEQUENCE:2').items.map((i) => i.start)).toEqual(['2027-03-02T10:00:00']);
    expect(two('SEQUENCE:2', 'SEQUENCE:4').items.map((i) => i.start)).toEqual(['2027-03-03T10:00:00']);
    expect(two('DTSTAMP:20260102T000000Z', 'DTSTAMP:20260101T000000Z').items.map((i) => i.start)).toEqual([
      '2027-03-02T10:00:00',
    ]);
    expect(two('X-A:1', 'X-A:2').problems.map((p) => p.code)).toEqual(['twice']);
  });
  test('people without a mail address are kept as they are named', () => {
    const i = item(
      'DTSTART:20270302T100000Z',
      'ORGANIZER;CN=Board:urn:uuid:F81D4FAE-7DEC',
      'ATTENDEE;CN=Room:https://rooms.example/4',
      'ATTENDEE:MAILTO:Ada@Fen.Example',
    );
    expect(i.organiser).toEqual({ address: 'urn:uuid:F81D4FAE-7DEC', name: 'Board' });
    expect(i.attendees.map((a) => a.address)).toEqual(['https://rooms.example/4', 'ada@fen.example']);
    const text = writeCalendar([written({ ...i, kept: [] })], 'x');
    expect(text).toContain(':urn:uuid:F81D4FAE-7DEC');
    expect(read(text).items[0]?.attendees).toEqual(i.attendees);
  });
  test('more added dates than a series may have are named', () => {
    const many = Array.from({ length: 2001 }, (_, n) =>
      instantText(Date.UTC(2027, 0, 1) + n * 3_600_000).replace(/[-:]/g, ''),
    );
    expect(read(calendar(event('DTSTART:20270302T100000Z', `RDATE:${many.join(',')}`))).problems).toMatchObject([
      { code: 'tooManyDates' },
    ]);
  });
});

const RICH = [
  'DTSTART:20270302T100000Z',
  'DTEND:20270302T110000Z',
  'CREATED:20200101T000000Z',
  'LAST-MODIFIED:20200102T000000Z',
  'STATUS:CONFIRMED',
  'PRIORITY:5',
  'CLASS:CONFIDENTIAL',
  'GEO:38.7;-9.1',
  'ATTACH:https://files.example/a.pdf',
  'COMMENT:bring\\, please',
  'RELATED-TO:other@x',
  'CONFERENCE;VALUE=URI;FEATURE=AUDIO:tel:+351-21',
  'X-COLOUR-OF-DAY;X-P="a;b":heather',
  'DESCRIPTION;LANGUAGE=pt:Notas',
  'ORGANIZER;CN=Ada;SENT-BY="mailto:t@fen.example":mailto:ada@fen.example',
  'ATTENDEE;ROLE=CHAIR;CUTYPE=ROOM;RSVP=TRUE;PARTSTAT=ACCEPTED;DELEGATED-FROM="mailto:c@fen.example":mailto:b@fen.example',
  'BEGIN:VALARM',
  'ACTION:DISPLAY',
  'TRIGGER:-PT15M',
  'DESCRIPTION:soon',
  'END:VALARM',
];

describe('nothing is lost', () => {
  test('what isn’t modelled is written back as it came', () => {
    const out = lines(writeCalendar([written(item(...RICH))], 'x'));
    for (const line of RICH) expect(out).toContain(line);
    expect(out.filter((l) => /^(DESCRIPTION|PRIORITY|CLASS|STATUS|ORGANIZER|ATTENDEE)/.test(l))).toHaveLength(7);
  });
  test('but not where it was changed since in what it depends on', () => {
    const i = item(...RICH);
    const out = lines(
      writeCalendar(
        [
          written(i, {
            touched: true,
            shows: 'free',
            visibility: 'follow',
            importance: 'high',
            notes: 'Other',
            attendees: [{ ...(i.attendees[0] as (typeof i.attendees)[number]), answer: 'declined' }],
          }),
        ],
        'x',
      ),
    );
    for (const gone of [
      'STATUS:CONFIRMED',
      'PRIORITY:5',
      'CLASS:CONFIDENTIAL',
      'LAST-MODIFIED:20200102T000000Z',
      'DESCRIPTION;LANGUAGE=pt:Notas',
    ])
      expect(out).not.toContain(gone);
    expect(out).toEqual(
      expect.arrayContaining([
        'PRIORITY:1',
        'CLASS:PUBLIC',
        'TRANSP:TRANSPARENT',
        'DESCRIPTION:Other',
        'CREATED:20200101T000000Z',
        'ATTACH:https://files.example/a.pdf',
      ]),
    );
    expect(out.some((l) => l.includes('ROLE=CHAIR'))).toBe(false);
  });
  test('but not how far a message came, which is the server’s to say (RFC 6638 3.2.9)', () => {
    const said = [
      'ATTENDEE;CN="a;SCHEDULE-STATUS=2.0";X-P=1;schedule-status="2.0,3.7";PARTSTAT=DECLINED:mailto:b@fen.example',
      'ORGANIZER;SCHEDULE-STATUS=1.1;CN=Ada;SENT-BY="mailto:t@fen.example":mailto:ada@fen.example',
    ];
    const out = lines(writeCalendar([written(item('DTSTART:20270302T100000Z', ...said))], 'x'));
    expect(out).toContain('ATTENDEE;CN="a;SCHEDULE-STATUS=2.0";X-P=1;PARTSTAT=DECLINED:mailto:b@fen.example');
    expect(out).toContain('ORGANIZER;CN=Ada;SENT-BY="mailto:t@fen.example":mailto:ada@fen.example');
  });
  test('what is too long to keep is named', () => {
    const file = read(
      calendar(event('DTSTART:20270302T100000Z', `ATTACH;ENCODING=BASE64;VALUE=BINARY:${'QUJD'.repeat(20_000)}`)),
    );
    expect(file.remarks).toMatchObject([{ code: 'notKept', fact: 'ATTACH' }]);
  });
});

describe('what is written can be read by anybody', () => {
  const plain: WrittenItem = written(item('DTSTART:20270302T100000Z', 'DTEND:20270302T110000Z'));
  test('no text ends its line or its item, and none of it is lost', () => {
    const texts = fc.string({
      unit: fc.oneof(
        fc.constantFrom('\r', '\n', '\u0000', '\u001b', ';', ',', '\\', ':', '"', 'é', '漢', '🌄', ' '),
        fc.string({ minLength: 1, maxLength: 1 }),
      ),
      maxLength: 90,
    });
    fc.assert(
      fc.property(texts, texts, texts, (title, notes, name) => {
        const text = writeCalendar(
          [
            {
              ...plain,
              title: `t${title}`,
              notes: `n\rEND:VEVENT\r\nBEGIN:VEVENT\r\n${notes}`,
              place: `p${title}`,
              organiser: { address: 'a@x.example', name: `n${name}` },
            },
          ],
          `c\r\nX-EVIL:${name}`,
        );
        const file = read(text);
        expect(file.problems).toEqual([]);
        expect(file.items).toHaveLength(1);
        expect(file.items[0]?.notes).toContain('END:VEVENT\nBEGIN:VEVENT');
        expect(lines(text).filter((l) => l.startsWith('X-EVIL'))).toEqual([]);
        // biome-ignore lint/suspicious/noControlCharactersInRegex: none of these may be written
        expect(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/.test(text)).toBe(false);
        for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
      }),
      { numRuns: 400 },
    );
  });
  test('an item without length has no end, and no end equals its start', () => {
    const out = writeCalendar([{ ...plain, end: plain.start, length: { days: 0, ms: 0 } }], 'x');
    expect(out).not.toContain('DTEND');
    expect(read(out).items[0]?.end).toBe(plain.start);
  });
  test('a moved occurrence names the one it replaces on the series’ clock', () => {
    const series = written(
      item(
        'DTSTART;TZID=Europe/Lisbon:20270705T090000',
        'DTEND;TZID=Europe/Lisbon:20270705T100000',
        'RRULE:FREQ=WEEKLY;COUNT=5',
      ),
    );
    const moved: WrittenItem = {
      ...plain,
      uid: series.uid,
      recurrence: '2027-07-12T09:00:00',
      zone: 'America/Bogota',
      start: '2027-07-13T15:00:00',
      end: '2027-07-13T16:00:00',
    };
    const file = read(writeCalendar([series, moved], 'x'));
    expect(file.items[1]).toMatchObject({
      recurrence: '2027-07-12T09:00:00',
      zone: 'America/Bogota',
      start: '2027-07-13T15:00:00',
    });
  });
  test.each([
    'Europe/Lisbon',
    'America/Bogota',
    'Australia/Lord_Howe',
    'Africa/Casablanca',
    'Asia/Kathmandu',
    'America/New_York',
  ])('the definition of %s is right for a lifetime', (zone) => {
    const series = written({ ...item(`DTSTART;TZID=${zone}:20100705T090000`, 'RRULE:FREQ=WEEKLY') });
    const text = writeCalendar([series], 'x').replaceAll(zone, 'Of our own');
    for (const date of ['20100705', '20200705', '20260105', '20310705', '20451205', '20620715']) {
      const file = read(text.replace('DTSTART;TZID=Of our own:20100705', `DTSTART;TZID=Of our own:${date}`));
      const iso = `${date.slice(0, 4)}-${date.slice(4, 6)}-${date.slice(6)}T09:00:00`;
      expect([date, file.items[0]?.startAt]).toEqual([date, fromWallLenient(zone, parseWall(iso) as number)]);
    }
  });
});
