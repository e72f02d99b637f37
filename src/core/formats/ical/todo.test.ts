import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Due } from '../../tasks/index.ts';
import { fromWallLenient } from '../../time/index.ts';
import { readTodos, type WrittenTodo, writeTodos } from './todo.ts';

const DAY = 86_400_000;
const NOW = Date.UTC(2027, 2, 2, 9);
const options = {
  zone: 'Europe/Lisbon',
  now: NOW,
  candidates: ['Europe/Lisbon'],
  nameZone: (text: string) => `~${createHash('sha256').update(text).digest('hex').slice(0, 20)}`,
  most: 2000,
};
const read = (text: string) => {
  const found = readTodos(text, options);
  if (found.kind !== 'read') throw new Error(found.kind);
  return found;
};
const file = (...lines: string[]) => ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const todo = (...lines: string[]) => file('BEGIN:VTODO', 'UID:one', 'SUMMARY:Sign', ...lines, 'END:VTODO');
const one = (...lines: string[]) => read(todo(...lines)).todos[0];

const title = fc
  .string({ minLength: 1, maxLength: 60, unit: 'grapheme' })
  .map((s) => s.replace(/\s+/g, ' ').trim())
  .filter((s) => s !== '' && !/[\p{Cc}\u2028\u2029]/u.test(s));
const due: fc.Arbitrary<Due | null> = fc.oneof(
  fc.constant(null),
  fc.integer({ min: 18_000, max: 30_000 }).map((day) => ({ date: day * DAY })),
  fc.integer({ min: 25_000_000, max: 40_000_000 }).map((minute) => ({ instant: minute * 60_000 })),
);
const written: fc.Arbitrary<WrittenTodo> = fc.record({
  uid: fc.uuid(),
  title,
  notes: fc.option(title),
  link: fc.option(fc.webUrl()),
  categories: fc.array(title, { maxLength: 3 }),
  importance: fc.constantFrom('low' as const, 'normal' as const, 'high' as const),
  visibility: fc.constantFrom('follow' as const, 'open' as const, 'outline' as const, 'private' as const),
  due,
  zone: fc.constantFrom('Europe/Lisbon', 'America/Bogota', 'UTC'),
  doneAt: fc.option(fc.integer({ min: 1_700_000_000, max: 1_900_000_000 }).map((s) => s * 1000)),
  rule: fc.constant(null),
  kept: fc.constant([]),
  changedAt: fc.constant(NOW),
  touched: fc.constant(true),
});

describe('a file of tasks', () => {
  test('a category that ends in a backslash is one, and the next another', () => {
    const back = read(
      [
        'BEGIN:VCALENDAR',
        'BEGIN:VTODO',
        'UID:a',
        'SUMMARY:x',
        'CATEGORIES:a\\\\,b\\,c\\;\\n',
        'END:VTODO',
        'END:VCALENDAR',
        '',
      ].join('\r\n'),
    );
    expect(back.todos[0]?.categories).toEqual(['a\\', 'b,c;']);
  });

  test('read back is what was written', () => {
    fc.assert(
      fc.property(fc.array(written, { maxLength: 6 }), (todos) => {
        const back = read(writeTodos(todos, 'Inés, “tasks”; all'));
        expect(back.problems).toEqual([]);
        const plain = (list: readonly object[]) =>
          list.map((t) => {
            const {
              line: _l,
              touched: _t,
              changedAt: _c,
              kept: _k,
              zone,
              ...rest
            } = t as WrittenTodo & { line: number };
            // What has no time has no clock of its own.
            return { ...rest, ...(rest.due === null ? {} : { zone }) };
          });
        expect(plain(back.todos)).toEqual(plain(todos));
      }),
      { numRuns: 300 },
    );
  });

  test('with repeats, of a day and of an hour, counts on as it did', () => {
    const base = {
      uid: 'r',
      title: 'Report',
      notes: null,
      link: null,
      categories: [],
      importance: 'normal' as const,
      visibility: 'follow' as const,
      doneAt: null,
      kept: [],
      changedAt: NOW,
      touched: true,
      zone: 'Europe/Lisbon',
    };
    const at: Due = { instant: fromWallLenient('Europe/Lisbon', Date.UTC(2027, 5, 4, 9)) };
    for (const [when, rule] of [
      [{ date: Date.UTC(2027, 2, 5) }, 'FREQ=MONTHLY;COUNT=3'],
      [at, 'FREQ=WEEKLY;UNTIL=20270901T090000'],
    ] as const) {
      const text = writeTodos([{ ...base, due: when, rule }], 'x');
      expect(text).not.toMatch(/\r\nDUE/);
      expect(read(text).todos[0]).toMatchObject({ due: when, rule, zone: 'Europe/Lisbon' });
    }
  });

  test.each([
    ['a date', ['DUE;VALUE=DATE:20270305'], { date: Date.UTC(2027, 2, 5) }],
    ['an instant', ['DUE:20270305T100000Z'], { instant: Date.UTC(2027, 2, 5, 10) }],
    ['a time of a zone', ['DUE;TZID=America/Bogota:20270305T100000'], { instant: Date.UTC(2027, 2, 5, 15) }],
    ['a start and a length', ['DTSTART;VALUE=DATE:20270305', 'DURATION:P2D'], { date: Date.UTC(2027, 2, 6) }],
    ['a start and hours', ['DTSTART:20270305T100000Z', 'DURATION:PT2H'], { instant: Date.UTC(2027, 2, 5, 12) }],
    ['no time', [], null],
  ])('is due by %s', (_, lines, want) => {
    expect(one(...lines)?.due).toEqual(want);
  });

  test.each([
    [['STATUS:COMPLETED', 'COMPLETED:20270301T080000Z'], Date.UTC(2027, 2, 1, 8)],
    [['STATUS:COMPLETED', 'DTSTAMP:20270228T080000Z'], Date.UTC(2027, 1, 28, 8)],
    [['PERCENT-COMPLETE:100'], NOW],
    [['STATUS:CANCELLED'], NOW],
    [['STATUS:NEEDS-ACTION', 'PERCENT-COMPLETE:100'], null],
    [['PERCENT-COMPLETE:50'], null],
  ])('is done as %s says', (lines, want) => {
    expect(one(...lines)?.doneAt).toBe(want);
  });

  test('keeps what isn’t modelled, and gives it back', () => {
    const alarm = ['BEGIN:VALARM', 'ACTION:DISPLAY', 'TRIGGER:-PT1H', 'END:VALARM'];
    const unmodelled = one('LOCATION:The mill', 'X-ELSEWHERE;A=b:c', 'RELATED-TO:two', ...alarm);
    if (!unmodelled) throw new Error('not read');
    const text = writeTodos([{ ...unmodelled, changedAt: NOW, touched: false }], 'x');
    for (const line of ['LOCATION:The mill', 'X-ELSEWHERE;A=b:c', 'RELATED-TO:two', ...alarm])
      expect(text.split('\r\n')).toContain(line);
  });

  test('names what can’t be read, and takes the rest', () => {
    const text = file(
      'BEGIN:VEVENT',
      'UID:e',
      'DTSTART:20270305T100000Z',
      'END:VEVENT',
      ...['UID:bad\r\nSUMMARY:Bad\r\nDUE;VALUE=DATE:20270230', 'UID:good\r\nSUMMARY:Good', 'SUMMARY:Nameless'].flatMap(
        (body) => ['BEGIN:VTODO', ...body.split('\r\n'), 'END:VTODO'],
      ),
      ...['BEGIN:VTODO', 'UID:good', 'END:VTODO', 'BEGIN:VTODO', 'UID:r', 'SUMMARY:R', 'RRULE:FREQ=DAILY', 'END:VTODO'],
    );
    const found = read(text);
    expect(found.todos.map((t) => t.title)).toEqual(['Good']);
    expect(found.problems.map((p) => [p.code, p.title])).toEqual([
      ['badStart', 'Bad'],
      ['unreadable', 'Nameless'],
      ['twice', null],
      ['noStart', 'R'],
    ]);
    expect(readTodos('nothing', options)).toEqual({ kind: 'notACalendar' });
    const many = file(...Array.from({ length: 2001 }, (_, i) => `BEGIN:VTODO\r\nUID:${i}\r\nEND:VTODO`));
    expect(readTodos(many, options)).toEqual({ kind: 'tooMany' });
  });

  test('mangled never throws, and what it gives can be written', () => {
    const whole = todo(
      'DUE;TZID=Europe/Lisbon:20270305T100000',
      'RRULE:FREQ=WEEKLY',
      'DESCRIPTION:a\\nb',
      'PRIORITY:1',
    );
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(whole.length), fc.nat(12), fc.string({ maxLength: 8, unit: 'binary' })), {
          minLength: 1,
          maxLength: 6,
        }),
        (cuts) => {
          let text = whole;
          for (const [at, gone, put] of cuts) text = text.slice(0, at) + put + text.slice(at + gone);
          const found = readTodos(text, options);
          if (found.kind !== 'read') return;
          const again = writeTodos(
            found.todos.map((t) => ({ ...t, changedAt: NOW, touched: false })),
            'x',
          );
          expect(read(again).problems).toEqual([]);
        },
      ),
      { numRuns: 1500 },
    );
  });
});
