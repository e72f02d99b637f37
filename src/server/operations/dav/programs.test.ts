import ical from 'node-ical';
import { beforeEach, describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import { changeItem } from '../items/index.ts';
import { saveLanes } from '../lanes/index.ts';
import { at, START } from '../small-organisation.ts';
import { listProgramCalendars, readProgramCalendar, readProgramPerson } from './calendars.ts';
import { queryFreeBusy } from './free-busy.ts';
import { listObjects, readObject } from './objects.ts';
import {
  board,
  calendar,
  DAY,
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
import { requestFreeBusy } from './scheduling.ts';
import { changesSince } from './sync.ts';
import { deleteObject, putObject } from './write-object.ts';

eachProgramDay();

const { outline, full, delegate } = PRESETS;

describe('what changed since a program last asked', () => {
  const tagOf = (who: string) => {
    const read = readProgramCalendar(org.ctx(who), calendar);
    return read.ok ? read.value.tag : null;
  };
  const since = (who: string, token: string | null, most = 100) => {
    const objects = list(who, { texts: false });
    const said = changesSince(org.ctx(who), calendar, { since: token, now: tagOf(who), objects, partial: false, most });
    if (!said.ok) throw new Error(said.code);
    const { changed, gone, token: next, cut } = said.value;
    return { changed: changed.map(({ name }) => name), gone, token: next, cut };
  };
  const write = (name: string, title: string) =>
    put(
      'ines',
      name,
      lines(...event(`UID:${name}`, 'DTSTART:20270303T090000Z', 'DTEND:20270303T100000Z', `SUMMARY:${title}`)),
    );

  test('is what was added, written and removed, and nothing where nothing was', () => {
    const first = since('ines', null);
    expect(first).toMatchObject({ changed: [], gone: [] });
    write('a.ics', 'Weir');
    write('b.ics', 'Sluice');
    const second = since('ines', first.token);
    expect(second.changed.sort()).toEqual(['a.ics', 'b.ics']);
    expect(since('ines', second.token)).toMatchObject({ changed: [], gone: [], token: second.token });
    expect(tagOf('ines')).toBe(second.token);
    const held = list('ines').find((one) => one.name === 'a.ics');
    expect(
      put('ines', 'a.ics', edit(held?.text ?? '', ['Weir', 'Weir, again']), {
        match: `"${held?.tag}"`,
        noneMatch: null,
      }).ok,
    ).toBe(true);
    expect(deleteObject(org.ctx('ines'), calendar, 'b.ics', NONE).ok).toBe(true);
    expect(tagOf('ines')).not.toBe(second.token);
    expect(since('ines', second.token)).toMatchObject({ changed: ['a.ics'], gone: ['b.ics'] });
    // From the beginning it is what is there now.
    expect(since('ines', null)).toMatchObject({ changed: ['a.ics'], gone: [] });
  });

  test('comes in parts where it is more than was asked for, until all of it came', () => {
    for (const n of [1, 2, 3, 4, 5]) write(`${n}.ics`, `Item ${n}`);
    const had: string[] = [];
    let token: string | null = null;
    for (const last of [false, false, true]) {
      const part = since('ines', token, 2);
      expect(part.cut).toBe(!last);
      had.push(...part.changed);
      token = part.token;
    }
    expect(had.sort()).toEqual(['1.ics', '2.ics', '3.ics', '4.ics', '5.ics']);
    expect(since('ines', token, 2)).toMatchObject({ changed: [], gone: [], cut: false });
  });

  test('moves for nobody by what they don’t see, and a token that isn’t kept is refused', () => {
    org.give('ines', 'amara', outline);
    write('a.ics', 'Weir');
    const seen = since('amara', null);
    org.add('ines', 'ines', { title: 'Free hour', shows: 'free', visibility: 'private', when: at('2027-03-04', 9) });
    expect(since('amara', seen.token)).toMatchObject({ changed: [], gone: [], token: seen.token });
    expect(tagOf('amara')).toBeNull();
    expect(() => since('amara', 'never')).toThrow('changedMeanwhile');
    expect(() => since('ines', seen.token)).toThrow('changedMeanwhile');
  });
});

describe('a calendar, to a program', () => {
  beforeEach(() => {
    org.add('ines', 'ines', {
      title: 'Weir talk',
      place: 'Ridge House',
      notes: 'The third sluice',
      when: at('2027-03-03', 10),
    });
    org.add('ines', 'ines', { title: 'Clinic', place: 'Elsewhere', visibility: 'private', when: at('2027-03-03', 14) });
    org.add('ines', 'ines', { title: 'Standup', when: at('2027-03-01', 9), repeat: { rule: 'FREQ=DAILY;COUNT=5' } });
    org.give('ines', 'amara', outline);
    org.give('ines', 'bruno', full);
    org.give('ines', 'tomas', delegate);
  });

  test('is to its owner what it is: a series as one object, with all that stands in it', () => {
    const objects = list('ines');
    expect(objects).toHaveLength(3);
    const { text } = textOf('ines', 'Standup');
    expect(text).toContain('RRULE:FREQ=DAILY;COUNT=5');
    expect(text).toContain('TZID=Europe/Lisbon');
    expect(text).not.toContain('METHOD');
    const { text: talk } = textOf('ines', 'Weir talk');
    expect(talk).toContain('LOCATION:Ridge House');
    expect(talk).toContain('DESCRIPTION:The third sluice');
  });

  test('occurrence by occurrence says all that the whole text says, and which occurrence each is', () => {
    const rule = { rule: 'FREQ=DAILY;COUNT=3' };
    const when = at('2027-03-30', 9);
    org.add('ines', 'ines', {
      title: 'Clinic round',
      visibility: 'private',
      shows: 'tentative',
      when,
      repeat: rule,
    });
    const whole = textOf('ines', 'Clinic round');
    const more = edit(whole.text, ['END:VEVENT', 'X-OTHER:kept\r\nEND:VEVENT']);
    expect(put('ines', whole.name, more, { match: `"${whole.tag}"`, noneMatch: null })).toMatchObject({ ok: true });
    const second = board('ines', { from: '2027-03-31', to: '2027-04-01', zone: 'UTC' })[0];
    expect(
      changeItem(org.ctx('ines'), second?.id ?? '', {
        version: second?.version ?? 0,
        scope: 'one',
        when: at('2027-03-31', 15),
        fields: {},
      }).ok,
    ).toBe(true);
    const expand = { from: Date.UTC(2027, 2, 28), to: Date.UTC(2027, 3, 4) };
    const text = list('ines', { expand, range: expand }).find((one) => one.text?.includes('Clinic round'))?.text ?? '';
    const each = (name: string) => [...text.matchAll(new RegExp(`^${name}[:;](.*?)\\r$`, 'gm'))].map((m) => m[1]);
    // The clocks went forward two days before: nine o'clock is eight in UTC.
    expect(each('DTSTART').sort()).toEqual(['20270330T080000Z', '20270331T140000Z', '20270401T080000Z']);
    expect(each('RECURRENCE-ID').sort()).toEqual(['20270330T080000Z', '20270331T080000Z', '20270401T080000Z']);
    expect([each('CLASS'), each('STATUS')]).toEqual([Array(3).fill('PRIVATE'), Array(3).fill('TENTATIVE')]);
    expect(each('X-OTHER')).toContain('kept');
    expect(text).not.toContain('RRULE');
  });

  test('is to everybody else what the board shows them, occurrence by occurrence, and no byte more', () => {
    const shown: Record<string, { has: string[]; hasNot: string[] }> = {
      amara: { has: ['Weir talk', 'Ridge House', 'Standup'], hasNot: ['sluice', 'Clinic', 'RRULE', 'Elsewhere'] },
      bruno: { has: ['Weir talk', 'sluice'], hasNot: ['Clinic', 'RRULE', 'Elsewhere'] },
      dario: { has: ['SUMMARY:Busy'], hasNot: ['Weir', 'Ridge', 'sluice', 'Clinic', 'RRULE', 'Standup', 'ORGANIZER'] },
      tomas: { has: ['Weir talk', 'RRULE'], hasNot: ['Clinic', 'Elsewhere'] },
    };
    for (const [who, { has, hasNot }] of Object.entries(shown)) {
      const all = list(who)
        .map((one) => one.text)
        .join('\n');
      for (const one of has) expect([who, one, all.includes(one)]).toEqual([who, one, true]);
      for (const one of hasNot) expect([who, one, all.includes(one)]).toEqual([who, one, false]);
      // An independent reader finds as many occurrences, at the same hours, as the board has.
      const read = list(who, { expand: { from: Date.UTC(2027, 2, 1), to: Date.UTC(2027, 2, 8) } }).flatMap((one) =>
        (one.text?.match(/BEGIN:VEVENT[\s\S]*?END:VEVENT/g) ?? []).flatMap((e) =>
          Object.values(ical.sync.parseICS(lines(...e.split('\r\n').filter((l) => !l.startsWith('RECURRENCE-ID'))))),
        ),
      );
      const starts = read.flatMap((one) =>
        one?.type === 'VEVENT' ? [instantText((one.start as Date).getTime())] : [],
      );
      expect([who, starts.sort()]).toEqual([
        who,
        board(who)
          .map((item) => item.start)
          .sort(),
      ]);
    }
  });

  test('is nothing to whoever sees nothing, as one that isn’t there is', () => {
    org.give('ines', 'dario', PRESETS.shutOut);
    const hidden = listObjects(org.ctx('dario'), calendar, { texts: true });
    expect(hidden).toEqual(listObjects(org.ctx('dario'), 'no-such-calendar', { texts: true }));
    expect(hidden.ok).toBe(false);
    expect(readObject(org.ctx('dario'), calendar, 'x.ics')).toMatchObject({ code: 'notFound' });
    expect(queryFreeBusy(org.ctx('dario'), calendar, { from: START, to: START + DAY })).toMatchObject({
      code: 'notFound',
    });
    expect(
      putObject(org.ctx('dario'), calendar, 'x.ics', lines(...event('UID:x', 'DTSTART:20270305T090000Z')), NONE),
    ).toMatchObject({ code: 'notFound' });
    expect(listProgramCalendars(org.ctx('dario')).calendars.map((c) => c.key)).not.toContain(calendar);
    expect(readProgramPerson(org.ctx('dario'), 'ines')).toMatchObject({ code: 'notFound' });
  });

  test('has each object under its own name, which nobody else’s name finds', () => {
    for (const who of ['ines', 'tomas', 'amara', 'bruno', 'wren'])
      for (const { name, text } of list(who)) {
        const read = readObject(org.ctx(who), calendar, name);
        expect([who, read.ok && read.value.text]).toEqual([who, text]);
      }
    const amaras = list('amara').map((one) => one.name);
    for (const name of amaras) expect(readObject(org.ctx('wren'), calendar, name).ok).toBe(false);
    const ownersOf = list('ines').map((one) => one.name);
    for (const name of ownersOf) expect(readObject(org.ctx('amara'), calendar, name).ok).toBe(false);
  });

  test('is found by its time, by what stands in the text one gets, and by nothing in the text one doesn’t', () => {
    const range = { from: Date.UTC(2027, 2, 3, 10, 15), to: Date.UTC(2027, 2, 3, 12) };
    expect(list('ines', { range })).toHaveLength(1);
    const about = (value: string) => ({
      filter: {
        name: 'VCALENDAR',
        absent: false,
        props: [],
        comps: [
          {
            name: 'VEVENT',
            absent: false,
            comps: [],
            props: [{ name: 'DESCRIPTION', absent: false, params: [], text: { value, negate: false, exact: false } }],
          },
        ],
      },
    });
    expect(list('ines', about('THIRD'))).toHaveLength(1);
    expect(list('bruno', about('third'))).toHaveLength(1);
    expect(list('amara', about('third'))).toHaveLength(0);
  });

  test('says when its owner is taken, the same to all who see at least that', () => {
    const instants = { from: Date.UTC(2027, 2, 3), to: Date.UTC(2027, 2, 4) };
    const said = ['ines', 'amara', 'wren'].map((who) => {
      const read = queryFreeBusy(org.ctx(who), calendar, instants);
      return read.ok ? read.value.match(/^FREEBUSY[^\r]*/gm) : [];
    });
    expect(said[0]).toEqual([
      'FREEBUSY;FBTYPE=BUSY:20270303T090000Z/20270303T110000Z',
      'FREEBUSY;FBTYPE=BUSY:20270303T140000Z/20270303T150000Z',
    ]);
    expect(said[1]).toEqual(said[0]);
    expect(said[2]).toEqual(said[0]);
  });

  test('a token for one calendar finds that one alone, and no inbox', () => {
    const id = org.db.get<{ id: number }>('SELECT id FROM collection WHERE key = ?', org.calendar('bruno'))?.id ?? 0;
    const ctx = { ...org.ctx('ines'), token: { key: 'k', only: id } };
    expect(list(ctx)).toEqual([]);
    expect(listProgramCalendars(ctx).calendars.map((c) => c.key)).toEqual([org.calendar('bruno')].slice(1));
    expect(inboxOf(ctx)).toEqual([]);
  });

  test('the list of calendars has one’s own, those given by name and those kept, and not the whole house', () => {
    const of = (who: string) =>
      listProgramCalendars(org.ctx(who))
        .calendars.filter(({ holds }) => holds === 'VEVENT')
        .map((c) => c.owner.handle);
    expect(of('amara')).toEqual(['amara', 'ines']);
    expect(of('wren')).toEqual(['wren']);
    expect(saveLanes(org.ctx('wren'), { people: ['bruno'], calendars: [], group: null }).ok).toBe(true);
    expect(of('wren')).toEqual(['wren', 'bruno']);
  });
});

test('the question when others are free is answered by one’s sight; whom one sees nothing of is answered like nobody', () => {
  org.give('ines', 'dario', PRESETS.shutOut);
  org.add('ines', 'ines', { title: 'Weir talk', when: at('2027-03-03', 10) });
  const request = (who: string) => {
    const answers = ['INES@cloudmoor.example', 'nobody@cloudmoor.example', 'x\r\nATTENDEE:y@z.example'];
    const answered = requestFreeBusy(
      org.ctx(who),
      answers,
      { from: Date.UTC(2027, 2, 3), to: Date.UTC(2027, 2, 4) },
      'q-1',
    );
    return answered.ok ? answered.value.map((one) => one.text) : [];
  };
  const [seen, nobody, broken] = request('wren');
  expect(seen).toContain('FREEBUSY;FBTYPE=BUSY:20270303T100000Z/20270303T110000Z');
  expect(seen).toContain('METHOD:REPLY');
  expect([nobody, broken]).toEqual([null, null]);
  expect(request('dario')).toEqual([null, null, null]);
});

describe('what lies far from now', () => {
  const years = (from: string, to: string) => ({ from: Date.parse(from), to: Date.parse(to) });
  const titles = (who: string, wanted: Parameters<typeof list>[1] = {}) =>
    list(who, wanted)
      .map(({ text }) => /SUMMARY:(.*)\r/.exec(text ?? '')?.[1] ?? '')
      .sort();

  test('is listed for whoever may change it, and found by a time that is open at either end (RFC 4791 9.9)', () => {
    const add = (title: string, day: string, more: object = {}) =>
      org.add('ines', 'ines', { title, when: at(day, 10), ...more });
    add('Long ago', '2019-05-06');
    add('Now', '2027-03-03');
    add('In four years', '2031-06-03');
    add('Weekly since', '2012-03-05', { repeat: { rule: 'FREQ=WEEKLY;COUNT=10' } });
    add('Yearly', '2015-09-09', { repeat: { rule: 'FREQ=YEARLY' } });
    org.give('ines', 'tomas', PRESETS.delegate);
    const all = ['In four years', 'Long ago', 'Now', 'Weekly since', 'Yearly'];
    expect(titles('ines')).toEqual(all);
    expect(titles('tomas')).toEqual(all);
    expect(titles('ines', { range: years('2027-03-01', '2199-01-01') })).toEqual(['In four years', 'Now', 'Yearly']);
    expect(titles('ines', { range: years('1900-01-01', '2020-01-01') })).toEqual([
      'Long ago',
      'Weekly since',
      'Yearly',
    ]);
    expect(titles('ines', { range: years('1990-01-01', '2013-01-01') })).toEqual(['Weekly since']);
    expect(titles('ines', { range: years('2031-06-01', '2031-07-01') })).toEqual(['In four years']);
  });
});
