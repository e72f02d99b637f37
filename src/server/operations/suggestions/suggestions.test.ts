import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import type { SuggestionBody, SuggestionWire } from '@/contract/suggestions.ts';
import { PRESETS, type Rights } from '@/core/access/index.ts';
import { readFrame } from '../frame/read-frame.ts';
import { listItems } from '../items/list-items.ts';
import { changeMeeting, removeMeeting, undoMeeting } from '../meetings/index.ts';

import { at, type SmallOrganisation, smallOrganisation, WEEK } from '../small-organisation.ts';
import { answerSuggestion, listSuggestions, putForward } from './suggestions.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
});
afterEach(() => org.close());

const suggesting = (rights: Rights): Rights => ({ ...rights, suggest: true });
const items = (who: string) => {
  const listed = listItems(org.ctx(who), org.calendar('ines'), WEEK);
  return listed.ok ? listed.value.items : [];
};
const seenBy = (who: string, title: string) => items(who).find((i) => i.title === title);
const put = (who: string, body: SuggestionBody) => putForward(org.ctx(who), org.calendar('ines'), body);
const lists = (who: string) => {
  const listed = listSuggestions(org.ctx(who));
  if (!listed.ok) throw new Error('no list');
  return listed.value;
};
const waiting = (who: string): SuggestionWire => {
  const [first] = lists(who).waiting;
  if (!first) throw new Error(`nothing waits for ${who}`);
  return first;
};
const answer = (who: string, key: string, how: 'yes' | 'no' | 'withdrawn', version: number | null = null) =>
  answerSuggestion(org.ctx(who), key, { answer: how, note: 'So it is.', version });
const roof = { title: 'Roof', place: 'Seed Store', notes: 'Bring the plan', when: at('2027-03-04', 10) };
const addition = { kind: 'add' as const, item: newItem.parse(roof), why: 'It leaks.' };

describe('an addition put forward', () => {
  beforeEach(() => org.give('ines', 'amara', suggesting(PRESETS.freeBusy)));

  test('is nowhere until somebody who may make it says yes; then it is its author’s work, for the owner', () => {
    expect(put('amara', addition)).toEqual({ ok: true, value: { done: true } });
    expect(items('ines')).toEqual([]);
    for (const who of ['bruno', 'wren', 'dario']) expect(lists(who)).toEqual({ waiting: [], own: [] });
    const frame = readFrame(org.ctx('tomas'));
    expect(frame.unread).toBeGreaterThanOrEqual(1);
    const s = waiting('tomas');
    expect(s).toMatchObject({
      kind: 'add',
      who: 'Amara',
      why: 'It leaks.',
      wanted: { title: 'Roof', notes: 'Bring the plan' },
    });
    const done = answer('tomas', s.key, 'yes');
    expect(done.ok).toBe(true);
    expect(seenBy('ines', 'Roof')).toMatchObject({
      asSet: { created: { actor: 'Amara', principal: 'Ines' } },
    });
    expect(lists('tomas').waiting).toEqual([]);
    expect(lists('amara').own).toMatchObject([{ state: 'yes', answeredBy: 'Tomas', answerNote: 'So it is.' }]);
    // Its author sees no more of the calendar by having put it forward.
    expect(items('amara')[0]).not.toHaveProperty('title');
  });

  test('waits again once the yes is undone', () => {
    put('amara', addition);
    const done = answer('tomas', waiting('tomas').key, 'yes');
    expect(undoMeeting(org.ctx('tomas'), (done.ok && done.value.undo) || '').ok).toBe(true);
    expect(items('ines')).toEqual([]);
    expect(waiting('ines').state).toBe('open');
  });

  test('a no leaves all as it is; its author reads the words with it', () => {
    put('amara', addition);
    answer('ines', waiting('ines').key, 'no');
    expect(items('ines')).toEqual([]);
    expect(lists('amara').own).toMatchObject([{ state: 'no', answeredBy: 'Ines', answerNote: 'So it is.' }]);
    expect(lists('tomas').waiting).toEqual([]);
  });

  test('is answered once, by those who may, and taken back by its author alone', () => {
    put('amara', addition);
    const { key } = waiting('ines');
    const missing = answer('ines', 'none', 'yes');
    for (const who of ['amara', 'bruno', 'dario']) expect(answer(who, key, 'yes')).toEqual(missing);
    for (const who of ['ines', 'bruno']) expect(answer(who, key, 'withdrawn')).toEqual(missing);
    expect(answer('amara', key, 'withdrawn').ok).toBe(true);
    expect(answer('ines', key, 'yes')).toMatchObject({ ok: false, code: 'changedMeanwhile' });
    expect(items('ines')).toEqual([]);
  });

  test('one that would be private goes to those who read what is private', () => {
    put('amara', { ...addition, item: newItem.parse({ ...roof, visibility: 'private' }) });
    expect(lists('tomas').waiting).toEqual([]);
    expect(readFrame(org.ctx('tomas')).unread).toBe(0);
    expect(waiting('ines').wanted.visibility).toBe('private');
  });

  test('whoever adds at free/busy reads nothing of it', () => {
    org.give('ines', 'bruno', PRESETS.booker);
    put('amara', addition);
    expect(lists('bruno').waiting).toEqual([]);
  });

  test('a wrong field is named, and nothing is kept', () => {
    const when = { ...at('2027-03-04', 10), end: '2027-03-04T09:00' };
    const wrong = put('amara', { ...addition, item: newItem.parse({ ...roof, when }) });
    expect(wrong).toMatchObject({ ok: false, code: 'badInput', fields: { end: 'endBeforeStart' } });
    expect(lists('ines').waiting).toEqual([]);
  });

  test('overlaps are said as far as the one who answers sees them', () => {
    org.add('ines', 'ines', { title: 'Doctor', when: at('2027-03-04', 10), visibility: 'private' });
    org.add('ines', 'ines', { title: 'Lab', when: at('2027-03-04', 10) });
    put('amara', addition);
    expect(waiting('ines').overlaps).toEqual(['Doctor', 'Lab']);
    expect(waiting('tomas').overlaps).toEqual([null, 'Lab']);
    expect(lists('amara').own[0]?.overlaps).toEqual([]);
  });
});

describe('who may put what forward', () => {
  test('nobody without the right; whoever may do it does it', () => {
    expect(put('amara', addition)).toMatchObject({ ok: false, code: 'mayNotSuggest' });
    expect(put('tomas', addition)).toMatchObject({ ok: false, code: 'mayNotSuggest' });
    expect(put('ines', addition)).toMatchObject({ ok: false, code: 'mayNotSuggest' });
    org.give('ines', 'dario', PRESETS.shutOut);
    expect(put('dario', addition)).toEqual(putForward(org.ctx('dario'), 'none', addition));
  });

  test('an item is named by the sealed id one was given; another’s, and one seen at busy, lead nowhere', () => {
    org.give('ines', 'amara', suggesting(PRESETS.titles));
    org.give('ines', 'wren', suggesting(PRESETS.titles));
    org.give('ines', 'bruno', suggesting(PRESETS.freeBusy));
    org.add('ines', 'ines', roof);
    const own = seenBy('amara', 'Roof');
    expect(own?.maySuggest).toBe(true);
    const change = (item: string): SuggestionBody => ({
      kind: 'change',
      item,
      fields: { title: 'Roof, again' },
      why: '',
    });
    expect(put('wren', change(own?.id ?? ''))).toMatchObject({ ok: false, code: 'notFound' });
    const busy = items('bruno')[0];
    expect(busy).not.toHaveProperty('maySuggest');
    expect(put('bruno', change(busy?.id ?? ''))).toMatchObject({ ok: false, code: 'mayNotSuggest' });
    expect(put('amara', change(own?.id ?? '')).ok).toBe(true);
    expect(put('amara', { ...change(own?.id ?? ''), fields: { notes: 'x' } } as SuggestionBody)).toMatchObject({
      ok: false,
      fields: { notes: 'notSeen' },
    });
    expect(put('amara', { ...change(own?.id ?? ''), fields: {} } as SuggestionBody)).toMatchObject({
      ok: false,
      fields: { title: 'nothingChanged' },
    });
  });

  test('once access is taken away, what one put forward says nothing more of the calendar', () => {
    org.give('ines', 'amara', suggesting(PRESETS.titles));
    org.add('ines', 'ines', roof);
    put('amara', { kind: 'change', item: seenBy('amara', 'Roof')?.id ?? '', fields: { title: 'Roof 2' }, why: '' });
    expect(lists('amara').own[0]?.now).toMatchObject({ title: 'Roof' });
    expect(lists('amara').own[0]?.now).not.toHaveProperty('place');
    const rights = org.ctx('ines');
    const item = seenBy('ines', 'Roof');
    changeMeeting(rights, item?.id ?? '', {
      version: item?.version ?? 0,
      scope: 'one',
      fields: { visibility: 'private' },
    });
    expect(lists('amara').own[0]?.now).not.toHaveProperty('title');
  });
});

describe('a change put forward', () => {
  beforeEach(() => {
    org.give('ines', 'amara', suggesting(PRESETS.outline));
    org.add('ines', 'ines', roof);
  });
  const later = { ...at('2027-03-04', 15), zone: 'America/Bogota' };
  const move = (): SuggestionBody => ({
    kind: 'change',
    item: seenBy('amara', 'Roof')?.id ?? '',
    when: later,
    fields: { place: 'Marsh Lab' },
    why: '',
  });

  test('writes only what was touched, and keeps the item on its own clock', () => {
    put('amara', move());
    const s = waiting('tomas');
    expect(s.now).toMatchObject({ start: '2027-03-04T10:00:00Z', place: 'Seed Store' });
    expect(s.wanted).toEqual({
      when: { start: '2027-03-04T20:00:00Z', end: '2027-03-04T21:00:00Z', allDay: false },
      place: 'Marsh Lab',
    });
    expect(answer('tomas', s.key, 'yes', s.version).ok).toBe(true);
    expect(seenBy('ines', 'Roof')).toMatchObject({
      start: '2027-03-04T20:00:00Z',
      place: 'Marsh Lab',
      notes: 'Bring the plan',
      asSet: { zone: 'Europe/Lisbon', changed: { actor: 'Amara', principal: 'Ines' } },
    });
  });

  test('an item that moved on is said to have, and a yes to the older version writes nothing', () => {
    put('amara', move());
    const { key, version } = waiting('tomas');
    const item = seenBy('ines', 'Roof');
    changeMeeting(org.ctx('ines'), item?.id ?? '', { version: 1, scope: 'one', fields: { title: 'Roof, south side' } });
    expect(answer('tomas', key, 'yes', version)).toMatchObject({ ok: false, code: 'changedMeanwhile' });
    const now = waiting('tomas');
    expect(now).toMatchObject({ movedOn: true, now: { title: 'Roof, south side' }, state: 'open' });
    expect(answer('tomas', key, 'yes', now.version).ok).toBe(true);
    expect(seenBy('ines', 'Roof, south side')?.place).toBe('Marsh Lab');
  });

  test('of an item that is gone, or became private, it waits for nobody who can’t read it', () => {
    put('amara', move());
    const item = seenBy('ines', 'Roof');
    changeMeeting(org.ctx('ines'), item?.id ?? '', { version: 1, scope: 'one', fields: { visibility: 'private' } });
    expect(lists('tomas').waiting).toEqual([]);
    expect(waiting('ines').movedOn).toBe(true);
    removeMeeting(org.ctx('ines'), item?.id ?? '', { version: 2, scope: 'one' });
    expect(lists('ines').waiting).toEqual([]);
  });

  test('of one occurrence of a series it makes that one an item of its own', () => {
    org.add('ines', 'ines', { title: 'Standing', when: at('2027-03-01', 8), repeat: { rule: 'FREQ=DAILY;COUNT=4' } });
    const second = items('amara').filter((i) => i.title === 'Standing')[1];
    const when = { ...at('2027-03-02', 12) };
    expect(put('amara', { kind: 'change', item: second?.id ?? '', when, fields: {}, why: '' }).ok).toBe(true);
    const s = waiting('ines');
    expect(s.now?.start).toBe('2027-03-02T08:00:00Z');
    expect(answer('ines', s.key, 'yes', s.version).ok).toBe(true);
    expect(
      items('ines')
        .filter((i) => i.title === 'Standing')
        .map((i) => i.start),
    ).toEqual(['2027-03-01T08:00:00Z', '2027-03-02T12:00:00Z', '2027-03-03T08:00:00Z', '2027-03-04T08:00:00Z']);
  });

  test('a removal removes, by whoever may remove', () => {
    put('amara', { kind: 'remove', item: seenBy('amara', 'Roof')?.id ?? '', why: 'Mended.' });
    const s = waiting('tomas');
    expect(s).toMatchObject({ kind: 'remove', now: { title: 'Roof' } });
    expect(answer('tomas', s.key, 'yes', s.version).ok).toBe(true);
    expect(items('ines')).toEqual([]);
    // What is removed is gone for its author too.
    expect(lists('amara').own[0]?.now).toBeNull();
  });
});
