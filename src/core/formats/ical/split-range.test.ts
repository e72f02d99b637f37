import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { expand } from '../../recurrence/index.ts';
import { parseWall, wallText } from '../../time/index.ts';
import { readCalendar } from './read.ts';
import type { ReadItem } from './read-item.ts';

const DAY = 86_400_000;
const HOUR = 3_600_000;
const FIRST = Date.UTC(2027, 2, 1, 9);
const compact = (wall: number) => wallText(wall).replace(/[-:]/g, '');
const zoned = (name: string, wall: number) => `${name};TZID=Europe/Lisbon:${compact(wall)}`;

const read = (events: readonly (readonly string[])[]) => {
  const blocks = events.map((lines) => ['BEGIN:VEVENT', 'UID:u', ...lines, 'END:VEVENT'].join('\r\n'));
  const text = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:x', ...blocks, 'END:VCALENDAR', ''].join('\r\n');
  const limits = { most: 100, mostZones: 5, mostLines: 100 };
  const file = readCalendar(text, { zone: 'UTC', candidates: [], nameZone: () => '~x', ...limits, splits: true });
  if (file.kind !== 'read') throw new Error(file.kind);
  return file;
};

const walls = ({ start, length, allDay, zone, rule, added, left }: ReadItem): number[] =>
  expand(
    {
      startWall: parseWall(start) ?? 0,
      length,
      allDay,
      zone,
      rule: rule === null ? null : { kind: 'rule', text: rule },
      added,
      left,
    },
    FIRST - 100 * DAY,
    FIRST + 200 * DAY,
    500,
  ).occurrences.map(({ wall }) => wall);

describe('an occurrence that stands for all later ones', () => {
  test('cuts its series in two that together happen as the one did, the later ones moved as it was', () => {
    const rules = [
      'FREQ=DAILY;COUNT=9',
      'FREQ=WEEKLY;BYDAY=MO,WE,FR',
      'FREQ=WEEKLY;INTERVAL=2;UNTIL=20270601T000000Z',
      'FREQ=MONTHLY',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...rules),
        fc.nat(30),
        fc.integer({ min: -8, max: 12 }),
        fc.subarray([1, 2, 3, 7, 14, 31]),
        (rule, pick, hours, left) => {
          const series = [zoned('DTSTART', FIRST), zoned('DTEND', FIRST + HOUR), `RRULE:${rule}`];
          for (const n of left) series.push(zoned('EXDATE', FIRST + n * DAY));
          const whole = read([series]).items[0] as ReadItem;
          const all = walls(whole);
          const at = all[pick % all.length] as number;
          const by = hours * HOUR;
          const later = [
            `RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/Lisbon:${compact(at)}`,
            zoned('DTSTART', at + by),
            zoned('DTEND', at + by + HOUR),
          ];
          const { items, problems } = read([series, later]);
          expect(problems).toEqual([]);
          expect(items.every(({ recurrence }) => recurrence === null)).toBe(true);
          const shown = (list: number[]) => list.filter((wall) => wall < FIRST + 150 * DAY).sort((a, b) => a - b);
          expect(shown(items.flatMap(walls))).toEqual(shown(all.map((wall) => (wall < at ? wall : wall + by))));
          expect(new Set(items.map(({ uid }) => uid)).size).toBe(items.length);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('takes along what was changed by itself from there on', () => {
    const day = (n: number) => FIRST + n * DAY;
    const apart = (at: number, to: number) => [
      `RECURRENCE-ID;TZID=Europe/Lisbon:${compact(at)}`,
      zoned('DTSTART', to),
      zoned('DTEND', to + HOUR),
    ];
    const { items } = read([
      [zoned('DTSTART', day(0)), zoned('DTEND', day(0) + HOUR), 'RRULE:FREQ=DAILY'],
      apart(day(1), day(1) + 2 * HOUR),
      ['RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/Lisbon:20270303T090000', zoned('DTSTART', day(2) + HOUR)],
      apart(day(4), day(4) + 5 * HOUR),
    ]);
    expect(items.map(({ uid, recurrence, start }) => [uid, recurrence, start])).toEqual([
      ['u', null, '2027-03-01T09:00:00'],
      ['u', '2027-03-02T09:00:00', '2027-03-02T11:00:00'],
      ['u#2027-03-03T09:00:00', null, '2027-03-03T10:00:00'],
      ['u#2027-03-03T09:00:00', '2027-03-05T10:00:00', '2027-03-05T14:00:00'],
    ]);
  });

  test.each([
    ['its series isn’t there', [], 'DTSTART;TZID=Europe/Lisbon:20270303T100000'],
    [
      'it is on another clock',
      [[zoned('DTSTART', FIRST), 'RRULE:FREQ=DAILY']],
      'DTSTART;TZID=Europe/Paris:20270303T100000',
    ],
    [
      'its series names days of the month by their place',
      [[zoned('DTSTART', FIRST), 'RRULE:FREQ=MONTHLY;BYDAY=MO;BYSETPOS=1']],
      'DTSTART;TZID=Europe/Lisbon:20270304T090000',
    ],
  ])('is a problem, and its series stays as it was, where %s', (_, series: string[][], start) => {
    const later = ['RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/Lisbon:20270303T090000', start];
    const { items, problems } = read([...series, later]);
    expect(problems.map(({ code }) => code)).toEqual(['thisAndFuture']);
    expect(items).toEqual(read(series).items.map((item) => ({ ...item, line: expect.any(Number) })));
  });

  test('is split so often in one text, and named beyond', () => {
    const series = [zoned('DTSTART', FIRST), 'RRULE:FREQ=DAILY'];
    const cuts = Array.from({ length: 25 }, (_, n) => [
      `RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/Lisbon:${compact(FIRST + (n + 1) * DAY)}`,
      zoned('DTSTART', FIRST + (n + 1) * DAY),
    ]);
    const { items, problems } = read([series, ...cuts]);
    expect([items.length, problems.length]).toEqual([21, 5]);
  });
});
