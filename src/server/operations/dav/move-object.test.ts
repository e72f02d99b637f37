import { describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { releaseDue } from '../meetings/index.ts';
import { beginCalendar } from '../people/people.ts';
import { START } from '../small-organisation.ts';
import { moveObject } from './move-object.ts';
import { readObject } from './objects.ts';
import { board, calendar, eachProgramDay, event, lines, NONE, org, put, textOf } from './program-day.ts';

eachProgramDay();

const talk = (...more: string[]) =>
  lines(
    ...event(
      'UID:talk',
      'DTSTART:20270304T100000Z',
      'DTEND:20270304T110000Z',
      'SUMMARY:Weir talk',
      'GEO:38.7;-9.1',
      ...more,
    ),
  );
const further = () => {
  const made = beginCalendar(org.ctx('ines'), { of: 'ines', name: 'Walks' });
  return made.ok ? made.value.calendar : '';
};
const go = (who: string, name: string, to: { key: string; name: string }, more: object = {}) =>
  moveObject(org.ctx(who), {
    from: { key: calendar, name },
    to,
    copy: false,
    overwrite: false,
    seen: NONE,
    ...more,
  });

describe('an object that a program moves', () => {
  test('goes with all that is held of it, is called otherwise and no longer as it was, and back', () => {
    put('ines', 'talk.ics', talk());
    expect(go('ines', 'talk.ics', { key: calendar, name: 'other.ics' })).toMatchObject({ value: { added: true } });
    expect(go('ines', 'talk.ics', { key: calendar, name: 'third.ics' })).toMatchObject({ code: 'notFound' });
    const there = further();
    expect(go('ines', 'other.ics', { key: there, name: 'talk.ics' })).toMatchObject({ value: { added: true } });
    expect(board()).toEqual([]);
    const back = { from: { key: there, name: 'talk.ics' }, to: { key: calendar, name: 'home.ics' } };
    expect(go('ines', '', { key: '', name: '' }, back)).toMatchObject({ ok: true });
    expect(textOf('ines', 'Weir talk')).toMatchObject({ name: 'home.ics', text: expect.stringContaining('GEO:38.7') });
  });

  test('stays where its name or the other calendar is none, or it is others’ to move', () => {
    put('ines', 'talk.ics', talk());
    org.give('ines', 'amara', PRESETS.full);
    for (const name of ['a\u0000b', 'x'.repeat(201)])
      expect(go('ines', 'talk.ics', { key: calendar, name })).toMatchObject({ fields: { name: 'unclear' } });
    expect(go('ines', 'talk.ics', { key: 'never', name: 'a.ics' })).toMatchObject({ code: 'notFound' });
    const { name } = textOf('amara', 'Weir talk');
    const own = { key: org.calendar('amara'), name: 'a.ics' };
    expect(go('amara', name, own)).toMatchObject({ code: 'mayNotRemove' });
    expect(go('amara', name, own, { copy: true })).toMatchObject({ code: 'mayNotChange' });
    expect(go('dario', name, { key: org.calendar('dario'), name: 'a.ics' })).toMatchObject({ code: 'notFound' });
    expect(board()).toHaveLength(1);
  });

  test('isn’t copied where it asks people: they would be asked again', () => {
    put('ines', 'talk.ics', talk('ORGANIZER:mailto:ines@cloudmoor.example', 'ATTENDEE:mailto:bruno@cloudmoor.example'));
    releaseDue(org.db, START + 60_000);
    const copy = { key: further(), name: 'copy.ics' };
    expect(go('ines', 'talk.ics', copy, { copy: true })).toMatchObject({ code: 'alreadyThere' });
    // Moved it is the same meeting, with whom it asks.
    expect(go('ines', 'talk.ics', copy)).toMatchObject({ ok: true });
    const read = readObject(org.ctx('ines'), copy.key, copy.name);
    expect(read.ok && read.value.text?.replace(/\r\n /g, '')).toContain('bruno@cloudmoor.example');
  });
});
