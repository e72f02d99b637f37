import { describe, expect, test } from 'vitest';
import { changeMeeting, listApart } from '../meetings/index.ts';
import { board, eachProgramDay, edit, event, lines, list, org, put, textOf } from './program-day.ts';

eachProgramDay();

/*
 * What the standard allows and few programs write (RFC 5545 3.2.13, 3.8.4.4, 3.8.5.2).
 */

const starts = () => board().map(({ title, start }) => [title, start.slice(0, 16)]);

describe('a date that was added at an hour of its own', () => {
  const walk = lines(
    ...event(
      'UID:walk',
      'DTSTART;TZID=Europe/Lisbon:20270302T100000',
      'DTEND;TZID=Europe/Lisbon:20270302T110000',
      'RDATE;TZID=Europe/Lisbon:20270304T153000,20270305T100000',
      'SUMMARY:Weir walk',
    ),
  );
  const days = [
    ['Weir walk', '2027-03-02T10:00'],
    ['Weir walk', '2027-03-04T15:30'],
    ['Weir walk', '2027-03-05T10:00'],
  ];

  test('stays at it, comes back so, and is moved with its series', () => {
    expect(put('ines', 'walk.ics', walk)).toMatchObject({ ok: true });
    expect(starts()).toEqual(days);
    const { text } = textOf('ines', 'Weir walk');
    expect(text).toMatch(/RDATE[^\r]*20270304T153000/);
    expect(put('ines', 'walk.ics', edit(text, ['Weir walk', 'Weir talk']))).toMatchObject({ ok: true });
    expect(starts().map(([, start]) => start)).toEqual(days.map(([, start]) => start));
    expect(put('ines', 'walk.ics', edit(text, ['20270304T153000', '20270304T170000']))).toMatchObject({ ok: true });
    expect(starts()[1]).toEqual(['Weir walk', '2027-03-04T17:00']);
  });

  test('stays at it where a day is added in the window', () => {
    put('ines', 'walk.ics', walk);
    const [item] = board();
    const apart = listApart(org.ctx('ines'), item?.id ?? '');
    expect(apart).toMatchObject({ value: { days: ['2027-03-02', '2027-03-04T15:30:00', '2027-03-05'] } });
    const dates = [...(apart.ok ? apart.value.days : []), '2027-03-06'];
    const change = { scope: 'all' as const, version: item?.version ?? 0, dates, fields: {} };
    expect(changeMeeting(org.ctx('ines'), item?.id ?? '', change)).toMatchObject({ ok: true });
    expect(starts()).toEqual([...days, ['Weir walk', '2027-03-06T10:00']]);
  });

  test('may be earlier than the others, and then begins the series', () => {
    expect(put('ines', 'walk.ics', edit(walk, ['20270304T153000', '20270301T083000']))).toMatchObject({ ok: true });
    expect(starts()).toEqual([
      ['Weir walk', '2027-03-01T08:30'],
      ['Weir walk', '2027-03-02T10:00'],
      ['Weir walk', '2027-03-05T10:00'],
    ]);
  });
});

describe('an occurrence that comes without its series', () => {
  const one = lines(
    ...event(
      'UID:round@elsewhere',
      'RECURRENCE-ID:20270304T100000Z',
      'DTSTART:20270304T110000Z',
      'DTEND:20270304T120000Z',
      'ORGANIZER;CN=Perpetua:mailto:p@water-ministry.example',
      'ATTENDEE;PARTSTAT=NEEDS-ACTION:mailto:ines@house.example',
      'SUMMARY:Round of the weirs',
    ),
  );

  test('is kept as the one it stands for, comes back so, is changed and removed', () => {
    expect(put('ines', 'one.ics', one)).toMatchObject({ value: { added: true } });
    expect(starts()).toEqual([['Round of the weirs', '2027-03-04T11:00']]);
    const { name, text } = textOf('ines', 'Round of the weirs');
    expect(name).toBe('one.ics');
    expect(text).toMatch(/RECURRENCE-ID[^\r]*:20270304T100000/);
    expect(put('ines', name, text)).toMatchObject({ value: { added: false } });
    expect(put('ines', name, edit(text, ['SUMMARY:', 'SUMMARY:My ']))).toMatchObject({ ok: true });
    expect(list('ines')[0]?.text).toContain('My Round');
    // It doesn't come to stand for another.
    expect(put('ines', name, edit(text, ['20270304T100000', '20270305T100000']))).toMatchObject({ ok: false });
  });

  test('is refused where there are several of them, or two objects', () => {
    const two = edit(one, ['END:VCALENDAR', one.slice(one.indexOf('BEGIN:VEVENT'))]);
    const second = two.lastIndexOf('RECURRENCE-ID:20270304');
    const several = `${two.slice(0, second)}RECURRENCE-ID:20270305${two.slice(second + 22)}`;
    expect(put('ines', 'several.ics', several)).toMatchObject({ fields: { uid: 'oneThing' } });
    expect(board()).toEqual([]);
  });
});

describe('an occurrence that stands for all later ones', () => {
  const series = (...override: string[]) =>
    lines(
      ...event(
        'UID:gate',
        'DTSTART;TZID=Europe/Lisbon:20270301T090000',
        'DTEND;TZID=Europe/Lisbon:20270301T093000',
        'RRULE:FREQ=DAILY;COUNT=6',
        'EXDATE;TZID=Europe/Lisbon:20270305T090000',
        'SUMMARY:Gate check',
      ),
      ...event('UID:gate', ...override),
    );
  const later = [
    'RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/Lisbon:20270303T090000',
    'DTSTART;TZID=Europe/Lisbon:20270303T140000',
    'DTEND;TZID=Europe/Lisbon:20270303T150000',
    'SUMMARY:Gate check, long',
  ];
  const split = [
    ['Gate check', '2027-03-01T09:00'],
    ['Gate check', '2027-03-02T09:00'],
    ['Gate check, long', '2027-03-03T14:00'],
    ['Gate check, long', '2027-03-04T14:00'],
    ['Gate check, long', '2027-03-06T14:00'],
  ];

  test('makes a second series of them, each an object of its own', () => {
    expect(put('ines', 'gate.ics', series(...later))).toMatchObject({ value: { added: true } });
    expect(starts()).toEqual(split);
    expect(list('ines').map(({ name }) => name === 'gate.ics')).toEqual([true, false]);
  });

  test('does the same to a series that stands', () => {
    const plain = series(...later).replace(
      /BEGIN:VEVENT\r\nDTSTAMP:\w+\r\nUID:gate\r\nRECURRENCE[\s\S]*?END:VEVENT\r\n/,
      '',
    );
    expect(put('ines', 'gate.ics', plain)).toMatchObject({ value: { added: true } });
    expect(starts()).toHaveLength(5);
    const { text } = textOf('ines', 'Gate check');
    const override = event('UID:gate', ...later).join('\r\n');
    const sent = edit(text, ['END:VEVENT\r\n', `END:VEVENT\r\n${override}\r\n`]);
    expect(put('ines', 'gate.ics', sent)).toMatchObject({ value: { added: false } });
    expect(starts()).toEqual(split);
  });

  test('ends its series where it is called off', () => {
    const off = [...later.slice(0, 1), 'DTSTART;TZID=Europe/Lisbon:20270303T090000', 'STATUS:CANCELLED'];
    expect(put('ines', 'gate.ics', series(...off))).toMatchObject({ ok: true });
    expect(starts()).toEqual(split.slice(0, 2));
  });
});
