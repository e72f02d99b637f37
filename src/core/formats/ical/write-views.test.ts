import fc from 'fast-check';
import ICAL from 'ical.js';
import { describe, expect, test } from 'vitest';
import { instantText } from '../../time/index.ts';
import { calendarText, freeBusyLines, type SeenOccurrence, seenLines } from './write-views.ts';

const WORDS = {
  busy: 'Ocupado',
  tentative: 'Provisório',
  away: 'Fora',
  reachable: 'Contactável',
  free: 'Livre',
  withheld: 'Privado',
};
const STAMP = '2027-03-02T00:00:00Z';
const AT = Date.UTC(2027, 2, 2, 9);
const busy: SeenOccurrence = {
  id: 'x',
  start: '2027-03-02T09:00:00Z',
  end: '2027-03-02T10:00:00Z',
  allDay: false,
  shows: 'busy',
};
const read = (lines: readonly string[]) => new ICAL.Component(ICAL.parse(calendarText(lines, { name: 'Ana, “a”; b' })));
const event = (seen: SeenOccurrence) => {
  const component = read(seenLines(seen, `${seen.id}@paramo`, STAMP, WORDS)).getFirstSubcomponent('vevent');
  if (!component) throw new Error('no event');
  return component;
};
const names = (seen: SeenOccurrence) =>
  event(seen)
    .getAllProperties()
    .map((p) => p.name);

describe('an occurrence as it is seen', () => {
  test('free/busy is a block with a word in the reader’s language, and has no property more', () => {
    expect(names(busy)).toEqual(['uid', 'dtstamp', 'dtstart', 'dtend', 'summary', 'transp']);
    expect(event(busy).getFirstPropertyValue('summary')).toBe('Ocupado');
    expect(event({ ...busy, shows: 'tentative' }).getFirstPropertyValue('status')).toBe('TENTATIVE');
    expect(event({ ...busy, withheld: true }).getFirstPropertyValue('summary')).toBe('Privado');
  });

  test('what is seen of it stands in it, and comes back as it was from a reader of the format', () => {
    // Controls and the two separators are never kept in what is written.
    const text = fc
      .string({ unit: 'grapheme', maxLength: 60 })
      .map((s) => s.replace(/[\p{Cc}\u2028\u2029]/gu, ' ').trim());
    fc.assert(
      fc.property(text, text, text, (title, place, notes) => {
        const seen = event({ ...busy, title: title || 'T', place, notes });
        expect(seen.getFirstPropertyValue('summary')).toBe(title || 'T');
        expect(seen.getFirstPropertyValue('location') ?? '').toBe(place);
        expect(seen.getFirstPropertyValue('description') ?? '').toBe(notes);
      }),
    );
  });

  test('all day is dates, the last not included', () => {
    const whole = event({ ...busy, allDay: true, start: '2027-03-02', end: '2027-03-04' });
    expect(whole.getFirstProperty('dtstart')?.toICALString()).toBe('DTSTART;VALUE=DATE:20270302');
    expect(whole.getFirstProperty('dtend')?.toICALString()).toBe('DTEND;VALUE=DATE:20270304');
  });
});

describe('free and busy', () => {
  const HOUR = 3_600_000;
  type Taken = Parameters<typeof freeBusyLines>[0][number];
  const taken = fc.record({
    span: fc
      .tuple(fc.integer({ min: -30, max: 30 }), fc.integer({ min: 0, max: 20 }))
      .map(([from, length]) => [AT + from * HOUR, AT + (from + length) * HOUR] as const),
    shows: fc.constantFrom('free', 'busy', 'tentative', 'away', 'reachable'),
  }) as fc.Arbitrary<Taken>;
  const TYPES: Record<string, string> = {
    BUSY: 'busy',
    'BUSY-TENTATIVE': 'tentative',
    'BUSY-UNAVAILABLE': 'away',
    'X-PARAMO-REACHABLE': 'reachable',
  };

  test('says of every hour what is taken then and nothing of free time, in periods that neither overlap nor touch', () => {
    const range = [AT - 20 * HOUR, AT + 20 * HOUR] as const;
    fc.assert(
      fc.property(fc.array(taken, { maxLength: 12 }), (list) => {
        const lines = freeBusyLines(list, range, STAMP, 'u');
        const body = read(lines).getFirstSubcomponent('vfreebusy');
        const said = (body?.getAllProperties('freebusy') ?? []).map((p) => {
          const period = p.getFirstValue() as ICAL.Period;
          const at = (time: ICAL.Time) => time.toUnixTime() * 1000;
          return {
            shows: TYPES[String(p.getFirstParameter('fbtype'))],
            from: at(period.start),
            to: at(period.getEnd()),
          };
        });
        for (let hour = range[0]; hour < range[1]; hour += HOUR)
          for (const shows of ['busy', 'tentative', 'away', 'reachable']) {
            const is = list.some((t) => t.shows === shows && t.span[0] <= hour && hour < t.span[1]);
            expect([
              instantText(hour),
              shows,
              said.some((s) => s.shows === shows && s.from <= hour && hour < s.to),
            ]).toEqual([instantText(hour), shows, is]);
          }
        for (const [i, a] of said.entries())
          for (const b of said.slice(i + 1)) if (a.shows === b.shows) expect(a.to < b.from || b.to < a.from).toBe(true);
      }),
    );
  });
});
