import fc from 'fast-check';
import { beforeEach, describe, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import { readItem } from '../deciding/index.ts';
import { changeMeeting, createMeeting, releaseDue } from '../meetings/index.ts';
import { at, START } from '../small-organisation.ts';
import { readObject } from './objects.ts';
import {
  board,
  calendar,
  eachProgramDay,
  edit,
  event,
  inboxOf,
  lines,
  list,
  NONE,
  org,
  put,
  textOf,
} from './program-day.ts';
import { clearInbox } from './scheduling.ts';
import { deleteObject, putObject } from './write-object.ts';

eachProgramDay();

const { outline, delegate } = PRESETS;

describe('what a program writes', () => {
  beforeEach(() => {
    org.give('ines', 'amara', outline);
    org.give('ines', 'tomas', delegate);
  });

  test('is added under the name and the UID it has there, and read back', () => {
    const text = lines(
      ...event(
        'UID:own-1@x',
        'DTSTART;TZID=Europe/Lisbon:20270304T100000',
        'DTEND;TZID=Europe/Lisbon:20270304T113000',
        'SUMMARY:Landowners',
        'LOCATION:Marsh Lab',
      ),
    );
    expect(put('ines', 'own-1.ics', text, { match: null, noneMatch: '*' })).toMatchObject({ value: { added: true } });
    expect(board()).toMatchObject([
      { title: 'Landowners', place: 'Marsh Lab', start: '2027-03-04T10:00:00Z', end: '2027-03-04T11:30:00Z' },
    ]);
    const back = readObject(org.ctx('ines'), calendar, 'own-1.ics');
    expect(back.ok && back.value.text).toContain('UID:own-1@x');
    // To others it has no such name; and there is none of that name a second time.
    expect(readObject(org.ctx('tomas'), calendar, 'own-1.ics')).toMatchObject({ code: 'notFound' });
    expect(put('ines', 'own-1.ics', text, { match: null, noneMatch: '*' })).toMatchObject({ code: 'seenOtherwise' });
    expect(put('ines', 'other.ics', text)).toMatchObject({ code: 'alreadyThere', data: 'own-1.ics' });
    expect(board()).toHaveLength(1);
  });

  test('an event without an end is a moment, and one of a day that day; both come back as they were sent', () => {
    const moment = lines(...event('UID:m', 'DTSTART:20270304T100000Z', 'SUMMARY:Doors open'));
    const day = lines(...event('UID:d', 'DTSTART;VALUE=DATE:20270305', 'SUMMARY:Founders’ day'));
    expect(put('ines', 'm.ics', moment)).toMatchObject({ ok: true });
    expect(put('ines', 'd.ics', day)).toMatchObject({ ok: true });
    expect(board().map(({ title, start, end }) => [title, start, end])).toEqual([
      ['Doors open', '2027-03-04T10:00:00Z', '2027-03-04T10:00:00Z'],
      ['Founders’ day', '2027-03-05', '2027-03-06'],
    ]);
    const { name, text, tag } = textOf('ines', 'Doors open');
    expect(text).toContain('DTSTART:20270304T100000Z');
    expect(
      put('ines', name, edit(text, ['Doors open', 'Doors shut']), { match: `"${tag}"`, noneMatch: null }),
    ).toMatchObject({ ok: true });
    expect(put('ines', name, edit(text, ['20270304T100000Z', '20270304T110000Z']))).toMatchObject({ ok: true });
    expect(board()[0]).toMatchObject({ start: '2027-03-04T11:00:00Z', end: '2027-03-04T11:00:00Z' });
  });

  test('is written where one may, in both names, and refused where one may not', () => {
    const text = lines(...event('UID:t', 'DTSTART:20270304T100000Z', 'DTEND:20270304T110000Z', 'SUMMARY:From Tomas'));
    expect(put('amara', 'a.ics', text)).toMatchObject({ code: 'mayNotAdd' });
    expect(put('wren', 'a.ics', text)).toMatchObject({ code: 'mayNotAdd' });
    expect(put('tomas', 'a.ics', text)).toMatchObject({ ok: true });
    expect(board()).toMatchObject([{ title: 'From Tomas', asSet: { created: { actor: 'Tomas', principal: 'Ines' } } }]);
    const { name, text: mine, tag } = textOf('amara', 'From Tomas');
    expect(
      put('amara', name, edit(mine, ['From Tomas', 'Mine now']), { match: `"${tag}"`, noneMatch: null }),
    ).toMatchObject({ code: 'mayNotChange' });
    expect(deleteObject(org.ctx('amara'), calendar, name, NONE)).toMatchObject({ code: 'mayNotRemove' });
    expect(deleteObject(org.ctx('tomas'), calendar, 'a.ics', NONE)).toMatchObject({ ok: true });
    expect(board()).toEqual([]);
  });

  test('changes what differs from what was given, and nothing that a program doesn’t know of', () => {
    const { id } = org.add('ines', 'ines', {
      title: 'Weir talk',
      visibility: 'outline',
      kind: 'focus',
      shows: 'away',
      briefing: 'Ask for the map',
      when: at('2027-03-03', 10),
    });
    const { name, text, tag } = textOf('ines', 'Weir talk');
    const plain = edit(text, ['SUMMARY:Weir talk', 'SUMMARY:Weir walk']).replace(/^X-PARAMO.*\r\n/gm, '');
    expect(put('ines', name, plain, { match: `"${tag}"`, noneMatch: null })).toMatchObject({ ok: true });
    expect(itemByKey(org.db, id)).toMatchObject({
      title: 'Weir walk',
      visibility: 'outline',
      kind: 'focus',
      shows: 'away',
      briefing: 'Ask for the map',
      version: 2,
    });
    // What was seen isn't there any more.
    expect(put('ines', name, text, { match: `"${tag}"`, noneMatch: null })).toMatchObject({ code: 'seenOtherwise' });
    const now = textOf('ines', 'Weir walk');
    expect(put('ines', name, now.text)).toMatchObject({ ok: true });
    expect(itemByKey(org.db, id)?.version).toBe(2);
    // Made private by the standard's own word.
    const hidden = now.text.replace(/^X-PARAMO.*\r\n/gm, '').replace('CLASS:CONFIDENTIAL', 'CLASS:PRIVATE');
    expect(put('ines', name, hidden)).toMatchObject({ ok: true });
    expect(itemByKey(org.db, id)).toMatchObject({ visibility: 'private', shows: 'away' });
  });

  test('one occurrence of a series changed, one left out, one given back, and the whole moved', () => {
    const { id } = org.add('ines', 'ines', {
      title: 'Standup',
      when: at('2027-03-01', 9),
      repeat: { rule: 'FREQ=DAILY;COUNT=5' },
    });
    const key = id.split('~')[0] ?? '';
    const name = `${key}.ics`;
    const days = () => board().map((item) => `${item.start.slice(8, 13)} ${item.title}`);
    const text = () => {
      const read = readObject(org.ctx('ines'), calendar, name);
      return (read.ok && read.value.text) || '';
    };
    const apart = event(
      'UID:@',
      'RECURRENCE-ID;TZID=Europe/Lisbon:20270303T090000',
      'DTSTART;TZID=Europe/Lisbon:20270303T110000',
      'DTEND;TZID=Europe/Lisbon:20270303T120000',
      'SUMMARY:Standup\\, late',
    );
    const uid = /UID:(.*)\r/.exec(text())?.[1] ?? '';
    const first = edit(
      text(),
      ['RRULE:FREQ=DAILY', 'EXDATE;TZID=Europe/Lisbon:20270302T090000\r\nRRULE:FREQ=DAILY'],
      ['END:VCALENDAR', `${apart.join('\r\n').replace('UID:@', `UID:${uid}`)}\r\nEND:VCALENDAR`],
    );
    expect(put('ines', name, first)).toMatchObject({ ok: true });
    expect(days()).toEqual(['01T09 Standup', '03T11 Standup, late', '04T09 Standup', '05T09 Standup']);
    // Sent back as it is now it changes nothing.
    const before = text();
    expect(put('ines', name, before)).toMatchObject({ ok: true });
    expect(text()).toBe(before);
    // The second occurrence comes back, the third goes its series' way again.
    const second = before
      .replace(/EXDATE[^\r]*\r\n/, '')
      .replace(/BEGIN:VEVENT(?:(?!BEGIN:VEVENT)[\s\S])*RECURRENCE-ID[\s\S]*?END:VEVENT\r\n/, '');
    expect(put('ines', name, second)).toMatchObject({ ok: true });
    expect(days()).toEqual(['01T09 Standup', '02T09 Standup', '03T09 Standup', '04T09 Standup', '05T09 Standup']);
    const moved = edit(
      text(),
      ['DTSTART;TZID=Europe/Lisbon:20270301T090000', 'DTSTART;TZID=Europe/Lisbon:20270301T100000'],
      ['DTEND;TZID=Europe/Lisbon:20270301T100000', 'DTEND;TZID=Europe/Lisbon:20270301T110000'],
    );
    expect(put('ines', name, moved)).toMatchObject({ ok: true });
    expect(days()[4]).toBe('05T10 Standup');
    expect(deleteObject(org.ctx('ines'), calendar, name, NONE)).toMatchObject({ ok: true });
    expect(days()).toEqual([]);
  });

  test('a series whose first day was left out moves with what was left out of it, and days picked by hand are all of them', () => {
    const { id } = org.add('ines', 'ines', {
      title: 'Standup',
      when: at('2027-03-01', 9),
      repeat: { rule: 'FREQ=DAILY;COUNT=4' },
    });
    const name = `${id.split('~')[0]}.ics`;
    const days = () => board().map((item) => `${item.start.slice(8, 13)} ${item.title}`);
    const text = () => {
      const read = readObject(org.ctx('ines'), calendar, name);
      return (read.ok && read.value.text) || '';
    };
    expect(
      put(
        'ines',
        name,
        edit(text(), ['RRULE:FREQ=DAILY', 'EXDATE;TZID=Europe/Lisbon:20270301T090000\r\nRRULE:FREQ=DAILY']),
      ),
    ).toMatchObject({ ok: true });
    expect(days()).toEqual(['02T09 Standup', '03T09 Standup', '04T09 Standup']);
    expect(
      put(
        'ines',
        name,
        text()
          .replace(/T090000/g, 'T110000')
          .replace(/T100000/g, 'T120000'),
      ),
    ).toMatchObject({ ok: true });
    expect(days()).toEqual(['02T11 Standup', '03T11 Standup', '04T11 Standup']);
    const gaps = lines(
      ...event(
        'UID:g',
        'DTSTART:20270301T170000Z',
        'DTEND:20270301T173000Z',
        'RRULE:FREQ=DAILY;COUNT=4',
        'EXDATE:20270301T170000Z,20270303T170000Z',
        'SUMMARY:Gaps',
      ),
    );
    expect(put('ines', 'g.ics', gaps)).toMatchObject({ ok: true });
    expect(days().filter((one) => one.endsWith('Gaps'))).toEqual(['02T17 Gaps', '04T17 Gaps']);
    const apart = (n: number) =>
      event(
        'UID:m',
        `RECURRENCE-ID:${new Date(Date.UTC(2027, 2, 1 + n, 18)).toISOString().replace(/[-:]|\.000/g, '')}`,
        'DTSTART:20270301T190000Z',
        'DTEND:20270301T193000Z',
      );
    const many = lines(
      ...event('UID:m', 'DTSTART:20270301T180000Z', 'DTEND:20270301T183000Z', 'RRULE:FREQ=DAILY;COUNT=80'),
      ...Array.from({ length: 61 }, (_, n) => apart(n)).flat(),
    );
    expect(put('ines', 'm.ics', many)).toMatchObject({ code: 'tooManyApart' });
    const picked = lines(
      ...event(
        'UID:p',
        'DTSTART:20270302T150000Z',
        'DTEND:20270302T160000Z',
        'RDATE:20270304T150000Z,20270305T150000Z',
        'SUMMARY:Picked',
      ),
    );
    expect(put('ines', 'p.ics', picked)).toMatchObject({ ok: true });
    const own = () => days().filter((one) => one.endsWith('Picked'));
    expect(own()).toEqual(['02T15 Picked', '04T15 Picked', '05T15 Picked']);
    const mine = textOf('ines', 'Picked');
    expect(put('ines', mine.name, mine.text)).toMatchObject({ ok: true });
    expect(put('ines', mine.name, edit(mine.text, [/RDATE:20270304T150000Z\r\n/, '']))).toMatchObject({ ok: true });
    expect(own()).toEqual(['02T15 Picked', '05T15 Picked']);
  });

  test('is all of it or nothing: what is refused in the midst leaves nothing behind', () => {
    const text = lines(
      ...event(
        'UID:s',
        'DTSTART:20270301T090000Z',
        'DTEND:20270301T100000Z',
        'RRULE:FREQ=DAILY;COUNT=3',
        'SUMMARY:Daily',
      ),
      ...event(
        'UID:s',
        'RECURRENCE-ID:20270309T090000Z',
        'DTSTART:20270309T110000Z',
        'DTEND:20270309T120000Z',
        'SUMMARY:On no day of it',
      ),
    );
    expect(put('ines', 's.ics', text)).toMatchObject({ code: 'badInput', fields: { recurrence: 'noSuchDay' } });
    expect(board()).toEqual([]);
  });

  test.each([
    ['no calendar', 'hello', 'notACalendar'],
    ['nothing in it', lines(), 'badInput'],
    [
      'two things',
      lines(
        ...event('UID:a', 'DTSTART:20270304T100000Z', 'DTEND:20270304T110000Z'),
        ...event('UID:b', 'DTSTART:20270304T100000Z', 'DTEND:20270304T110000Z'),
      ),
      'badInput',
    ],
    ['no such day', lines(...event('UID:a', 'DTSTART:20270230T100000Z')), 'badInput'],
    [
      'an end before its start',
      lines(...event('UID:a', 'DTSTART:20270304T100000Z', 'DTEND:20270304T090000Z')),
      'badInput',
    ],
    ['an unknown clock', lines(...event('UID:a', 'DTSTART;TZID=Far/Away:20270304T100000')), 'badInput'],
    [
      'every second',
      lines(...event('UID:a', 'DTSTART:20270304T100000Z', 'DTEND:20270304T110000Z', 'RRULE:FREQ=SECONDLY')),
      'badInput',
    ],
  ])('%s is refused with a reason, and nothing is added', (_what, text, code) => {
    expect(put('ines', 'x.ics', text)).toMatchObject({ ok: false, code });
    expect(board()).toEqual([]);
  });

  test('calls a meeting by whom it names, as the form does; an invitation is answered by one’s own answer in it', () => {
    const text = lines(
      ...event(
        'UID:m',
        'DTSTART:20270304T100000Z',
        'DTEND:20270304T110000Z',
        'SUMMARY:Budget',
        'ORGANIZER:mailto:ines@cloudmoor.example',
        'ATTENDEE;PARTSTAT=ACCEPTED:mailto:ines@cloudmoor.example',
        'ATTENDEE;CN=Bruno;PARTSTAT=NEEDS-ACTION:mailto:bruno@cloudmoor.example',
      ),
    );
    expect(put('ines', 'm.ics', text)).toMatchObject({ ok: true });
    const waiting = () => org.db.all<{ act: string }>('SELECT act FROM sending').map((s) => s.act);
    expect(waiting()).toEqual(['tell']);
    org.add(
      'bruno',
      'bruno',
      { title: 'Asked to', when: at('2027-03-05', 10) },
      {
        organiser: { address: 'ines@cloudmoor.example', name: 'Ines' },
        attendees: [{ address: 'bruno@cloudmoor.example', name: 'Bruno', answer: 'needs-action' }],
        ownerAnswer: 'needs-action',
      },
    );
    const brunos = org.calendar('bruno');
    const inbox = inboxOf(org.ctx('bruno'));
    expect(inbox).toHaveLength(1);
    expect(inbox[0]?.text).toContain('METHOD:REQUEST');
    expect(clearInbox(org.ctx('wren'), inbox[0]?.name ?? '')).toMatchObject({ code: 'notFound' });
    expect(clearInbox(org.ctx('bruno'), inbox[0]?.name ?? '')).toMatchObject({ ok: true });
    expect(inboxOf(org.ctx('bruno'))).toEqual([]);
    const name = inbox[0]?.name ?? '';
    const own = readObject(org.ctx('bruno'), brunos, name);
    const mine = (own.ok && own.value.text) || '';
    const yes = edit(mine, ['PARTSTAT=NEEDS-ACTION', 'PARTSTAT=ACCEPTED']);
    expect(putObject(org.ctx('bruno'), brunos, name, yes, NONE)).toMatchObject({ ok: true });
    expect(waiting()).toEqual(['tell', 'answer']);
    // What others call is theirs from then on.
    const read = readObject(org.ctx('bruno'), brunos, name);
    const theirs = edit((read.ok && read.value.text) || '', ['SUMMARY:Asked to', 'SUMMARY:My words']);
    expect(putObject(org.ctx('bruno'), brunos, name, theirs, NONE)).toMatchObject({ code: 'calledByOthers' });
  });
});

test('what a program sends back as it was given changes nothing, by one that knows our own properties and by one that doesn’t', () => {
  const line = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }).filter((s) => s.trim() === s && s !== '');
  const zone = fc.constantFrom('Europe/Lisbon', 'America/Bogota', 'Asia/Kolkata', 'UTC');
  const item = fc.record({
    title: line,
    place: fc.option(line),
    notes: fc.option(fc.array(line, { maxLength: 3 }).map((all) => all.join('\n') || null)),
    shows: fc.constantFrom('free', 'tentative', 'busy', 'away'),
    visibility: fc.constantFrom('follow', 'open', 'outline', 'private'),
    importance: fc.constantFrom('low', 'normal', 'high'),
    kind: fc.constantFrom('meeting', 'focus', 'travel'),
    categories: fc.array(line, { maxLength: 2 }),
    rule: fc.constantFrom(null, 'FREQ=DAILY;COUNT=4', 'FREQ=WEEKLY;BYDAY=TU,TH', 'FREQ=MONTHLY;BYMONTHDAY=2;COUNT=3'),
    allDay: fc.boolean(),
    zone,
    endZone: fc.option(zone),
    day: fc.integer({ min: 1, max: 28 }),
    month: fc.constantFrom(3, 10),
  });
  let n = 0;
  fc.assert(
    fc.property(item, ({ rule, allDay, zone, endZone, day, month, ...fields }) => {
      const date = (d: number) => `2027-${String(month).padStart(2, '0')}-${String(d).padStart(2, '0')}`;
      const when = allDay
        ? { start: date(day), end: date(day + 1), allDay, zone }
        : { start: `${date(day)}T05:30`, end: `${date(day + (endZone ? 1 : 0))}T06:15`, allDay, zone, endZone };
      const key = org.calendar('ines');
      const made = createMeeting(
        org.ctx('ines'),
        key,
        newItem.parse({ ...fields, when, ...(rule ? { repeat: { rule } } : {}) }),
      );
      // What the form itself refuses is nothing to send back.
      if (!made.ok) return;
      n++;
      const itemKey = made.value.item?.id.split('~')[0] ?? '';
      const name = `${itemKey}.ics`;
      const before = readObject(org.ctx('ines'), key, name);
      if (!before.ok) throw new Error(`${name} isn't found`);
      const text = before.value.text ?? '';
      for (const sent of [text, text.replace(/^X-PARAMO-[^\r\n]*(\r\n[ \t][^\r\n]*)*\r\n/gm, '')])
        expect(putObject(org.ctx('ines'), key, name, sent, NONE)).toEqual({ ok: true, value: { added: false } });
      expect(itemByKey(org.db, itemKey)?.version).toBe(1);
    }),
    { numRuns: 60 },
  );
  expect(n).toBeGreaterThan(20);
});

test('who adds and changes their own alone does so by a program too, and sees the rest as blocks', () => {
  org.give('ines', 'bruno', PRESETS.booker);
  org.add('ines', 'ines', { title: 'Weir talk', when: at('2027-03-03', 14) });
  const text = lines(
    ...event(
      'UID:b',
      'DTSTART;TZID=Europe/Lisbon:20270303T100000',
      'DTEND;TZID=Europe/Lisbon:20270303T110000',
      'SUMMARY:Bank',
    ),
  );
  expect(put('bruno', 'b.ics', text)).toMatchObject({ value: { added: true } });
  const all = list('bruno').map((one) => one.text ?? '');
  expect(all.filter((one) => one.includes('SUMMARY:Bank'))).toHaveLength(1);
  expect(all.filter((one) => one.includes('SUMMARY:Busy'))).toHaveLength(1);
  const mine = textOf('bruno', 'SUMMARY:Bank');
  expect(
    put(
      'bruno',
      mine.name,
      edit(mine.text, ['SUMMARY:Bank', 'SUMMARY:Bank\\, later'], ['T100000', 'T150000'], ['T110000', 'T160000']),
    ),
  ).toMatchObject({ ok: true });
  expect(board().map((item) => [item.title, item.start])).toContainEqual(['Bank, later', '2027-03-03T15:00:00Z']);
  const busy = list('bruno').find((one) => one.text?.includes('SUMMARY:Busy'));
  expect(deleteObject(org.ctx('bruno'), calendar, busy?.name ?? '', NONE)).toMatchObject({ code: 'mayNotRemove' });
  expect(deleteObject(org.ctx('bruno'), calendar, textOf('bruno', 'Bank').name, NONE)).toMatchObject({ ok: true });
});

describe('a repeat with an end', () => {
  const times = (rule: string) =>
    lines(
      ...event(
        'UID:ends@x',
        'DTSTART;TZID=America/Bogota:20270301T160000',
        'DTEND;TZID=America/Bogota:20270301T170000',
        `RRULE:${rule}`,
        'SUMMARY:Ends',
      ),
    );
  const APRIL = { from: '2027-03-01', to: '2027-04-10', zone: 'America/Bogota' };

  // RFC 5545 3.3.10: the end is in UTC where the start has a zone. The last time is on the very end.
  test('ends where the program said, as often as it is sent to and fro, and by the API too', () => {
    const rule = 'FREQ=WEEKLY;UNTIL=20270329T210000Z';
    expect(put('ines', 'ends.ics', times(rule))).toMatchObject({ ok: true });
    for (let n = 0; n < 3; n++) {
      expect(board('ines', APRIL)).toHaveLength(5);
      const { name, text, tag } = textOf('ines', 'Ends');
      expect(text).toContain(rule);
      const sent = edit(text, [/SUMMARY:Ends.*/, `SUMMARY:Ends ${n}`]);
      expect(put('ines', name, sent, { match: `"${tag}"`, noneMatch: null })).toMatchObject({ ok: true });
    }
    const id = board('ines', APRIL)[0]?.id ?? '';
    const read = readItem(org.ctx('ines'), id);
    const said = read.ok ? read.value.repeats?.rule : null;
    expect(said).toBe('FREQ=WEEKLY;UNTIL=20270329T160000');
    const version = read.ok ? (read.value.version ?? 0) : 0;
    const repeat = { rule: said ?? '' };
    const changed = changeMeeting(org.ctx('ines'), id, { version, scope: 'all', fields: {}, repeat });
    expect(changed).toMatchObject({ ok: true });
    expect(board('ines', APRIL)).toHaveLength(5);
  });
});

describe('what was called off (RFC 5545 3.8.1.11)', () => {
  const weekly = (...more: string[]) =>
    lines(
      ...event(
        'UID:off@x',
        'DTSTART;TZID=Europe/Lisbon:20270301T100000',
        'DTEND;TZID=Europe/Lisbon:20270301T110000',
        'RRULE:FREQ=DAILY;COUNT=4',
        'SUMMARY:Off',
      ),
      ...more,
    );
  const occurrence = (day: string, ...more: string[]) =>
    event(
      'UID:off@x',
      `RECURRENCE-ID;TZID=Europe/Lisbon:${day}T100000`,
      `DTSTART;TZID=Europe/Lisbon:${day}T100000`,
      `DTEND;TZID=Europe/Lisbon:${day}T110000`,
      'SUMMARY:Off',
      ...more,
    );
  const days = () => board().map(({ start }) => start.slice(8, 10));

  test('an occurrence that comes so is left out of its series, from the beginning or later, and stays out', () => {
    const text = weekly(...occurrence('20270302', 'STATUS:CANCELLED'));
    expect(put('ines', 'off.ics', text)).toMatchObject({ ok: true });
    expect(days()).toEqual(['01', '03', '04']);
    const twice = weekly(...occurrence('20270302', 'STATUS:CANCELLED'), ...occurrence('20270304', 'STATUS:CANCELLED'));
    const { name, tag } = textOf('ines', 'Off');
    for (const seen of [{ match: `"${tag}"`, noneMatch: null }, NONE]) {
      expect(put('ines', name, twice, seen)).toMatchObject({ ok: true });
      expect(days()).toEqual(['01', '03']);
    }
  });

  test('whole, it takes no time where it is new, and is called off where it stood', () => {
    const plain = ['UID:whole@x', 'DTSTART:20270303T100000Z', 'DTEND:20270303T110000Z', 'SUMMARY:Whole'];
    const off = lines(...event(...plain, 'STATUS:CANCELLED'));
    expect(put('ines', 'new.ics', off.replace('whole@x', 'new@x'))).toMatchObject({ ok: true });
    expect(board()).toMatchObject([{ title: 'Whole', asSet: { cancelled: true } }]);
    expect(textOf('ines', 'Whole').text).toContain('STATUS:CANCELLED');

    const called = lines(
      ...event(...plain, 'ORGANIZER:mailto:ines@cloudmoor.example', 'ATTENDEE:mailto:bruno@cloudmoor.example'),
    );
    expect(put('ines', 'whole.ics', called)).toMatchObject({ ok: true });
    expect(board()).toHaveLength(2);
    expect(put('ines', 'whole.ics', called.replace('SUMMARY', 'STATUS:CANCELLED\r\nSUMMARY'))).toMatchObject({
      ok: true,
    });
    expect(board()).toHaveLength(1);
    expect(readObject(org.ctx('ines'), calendar, 'whole.ics')).toMatchObject({ code: 'notFound' });
  });
});

describe('what a program says beside what is modelled', () => {
  const plain = (...more: string[]) =>
    lines(
      ...event(
        'UID:beside@x',
        'DTSTART;TZID=Europe/Lisbon:20270304T100000',
        'DTEND;TZID=Europe/Lisbon:20270304T110000',
        'SUMMARY:Beside',
        ...more,
      ),
    );
  const alarm = ['BEGIN:VALARM', 'ACTION:DISPLAY', 'DESCRIPTION:Soon', 'TRIGGER:-PT20M', 'END:VALARM'];

  // RFC 5545 3.8.8.2: what isn't known is kept; here for whoever may have the calendar as a file.
  test('is kept, changed and taken out by its owner’s programs, and by nobody else’s seen', () => {
    org.give('ines', 'tomas', delegate);
    const said = ['X-OWN-COLOUR:heather', 'COLOR:plum', 'GEO:41.1;-8.6', 'COMMENT:As said', ...alarm];
    expect(put('ines', 'beside.ics', plain(...said))).toMatchObject({ ok: true });
    const first = textOf('ines', 'Beside');
    for (const line of said) expect(first.text).toContain(line);
    expect(textOf('tomas', 'Beside').text).not.toContain('heather');
    // A program of somebody else's that sends what it was given takes nothing out.
    const theirs = textOf('tomas', 'Beside');
    const moved = edit(theirs.text, ['SUMMARY:Beside', 'SUMMARY:Beside moved']);
    expect(put('tomas', theirs.name, moved, { match: `"${theirs.tag}"`, noneMatch: null })).toMatchObject({ ok: true });
    const second = textOf('ines', 'Beside moved');
    expect(second.text).toContain('X-OWN-COLOUR:heather');
    const other = edit(second.text, ['X-OWN-COLOUR:heather', 'X-OWN-COLOUR:straw'], ['COMMENT:As said\r\n', '']);
    expect(put('ines', second.name, other, { match: `"${second.tag}"`, noneMatch: null })).toMatchObject({ ok: true });
    const third = textOf('ines', 'Beside moved');
    expect(third.text).toContain('X-OWN-COLOUR:straw');
    expect(third.text).not.toContain('COMMENT');
    expect(third.tag).not.toBe(second.tag);
  });

  test('who may come is asked so, and whom it asks itself is asked by nobody here (RFC 6638 7.1)', () => {
    const me = 'ORGANIZER:mailto:ines@cloudmoor.example';
    const may = 'ATTENDEE;ROLE=OPT-PARTICIPANT:mailto:bruno@cloudmoor.example';
    const itself = 'ATTENDEE;SCHEDULE-AGENT=NONE:mailto:amara@cloudmoor.example';
    expect(put('ines', 'may.ics', plain(me, may, itself))).toMatchObject({ ok: true });
    expect(releaseDue(org.db, START + 11_000)).toBeGreaterThan(0);
    const text = textOf('ines', 'Beside').text.replace(/\r\n /g, '');
    expect(text.match(/^ATTENDEE.*$/gm)).toEqual([expect.stringMatching(/ROLE=OPT-PARTICIPANT.*bruno@/)]);
  });

  test('an invitation that a program takes out is declined, unless it says that nobody is to be told (RFC 6638 8.1)', () => {
    for (const title of ['Told', 'Not told'])
      expect(
        put(
          'ines',
          `${title}.ics`,
          lines(
            ...event(
              `UID:${title}@x`,
              'DTSTART:20270304T100000Z',
              'DTEND:20270304T110000Z',
              `SUMMARY:${title}`,
              'ORGANIZER:mailto:ines@cloudmoor.example',
              'ATTENDEE:mailto:bruno@cloudmoor.example',
            ),
          ),
        ),
      ).toMatchObject({ ok: true });
    releaseDue(org.db, START + 11_000);
    const brunos = org.calendar('bruno');
    const answers = () => org.db.all("SELECT act FROM sending WHERE act = 'answer'").length;
    const inbox = inboxOf(org.ctx('bruno'));
    const nameOf = (title: string) => inbox.find(({ text }) => text?.includes(`SUMMARY:${title}`))?.name ?? '';
    expect(deleteObject(org.ctx('bruno'), brunos, nameOf('Not told'), NONE, true)).toMatchObject({ ok: true });
    expect(answers()).toBe(0);
    expect(deleteObject(org.ctx('bruno'), brunos, nameOf('Told'), NONE)).toMatchObject({ ok: true });
    expect(answers()).toBe(1);
    expect(readObject(org.ctx('bruno'), brunos, nameOf('Not told'))).toMatchObject({ code: 'notFound' });
  });

  test('nobody takes out an invitation unseen who couldn’t answer it', () => {
    expect(
      put(
        'ines',
        'asked.ics',
        lines(
          ...event(
            'UID:asked@x',
            'DTSTART:20270304T100000Z',
            'DTEND:20270304T110000Z',
            'SUMMARY:Asked',
            'ORGANIZER:mailto:ines@cloudmoor.example',
            'ATTENDEE:mailto:bruno@cloudmoor.example',
          ),
        ),
      ),
    ).toMatchObject({ ok: true });
    releaseDue(org.db, START + 11_000);
    org.give('bruno', 'wren', PRESETS.arranger);
    const brunos = org.calendar('bruno');
    const name = inboxOf(org.ctx('bruno'))[0]?.name ?? '';
    for (const quietly of [false, true])
      expect(deleteObject(org.ctx('wren'), brunos, name, NONE, quietly)).toMatchObject({ code: 'answerFirst' });
    expect(readObject(org.ctx('bruno'), brunos, name)).toMatchObject({ ok: true });
  });
});
