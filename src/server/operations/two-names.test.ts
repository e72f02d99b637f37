import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { itemPatch } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { readItem } from './deciding/access/find-item.ts';
import { listItems } from './items/list-items.ts';
import { changeMeeting, removeMeeting, undoMeeting } from './meetings/index.ts';

import { takeAccess } from './sharing/give-access.ts';
import { listSightlines } from './sharing/sightlines.ts';
import { at, type SmallOrganisation, START, smallOrganisation, WEEK } from './small-organisation.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
});
afterEach(() => org.close());

const read = (handle: string, id: string) => {
  const result = readItem(org.ctx(handle), id);
  if (!result.ok) throw new Error(result.code);
  return result.value;
};
const patch = (id: string, by: string, body: unknown, when?: number) =>
  changeMeeting(org.ctx(by, when), id, itemPatch.parse(body));

describe('writing for someone', () => {
  test('keeps both names on the item and in the trail, and leaves the writer’s own calendar alone', () => {
    const { id } = org.add('ines', 'tomas', { title: 'Board' });
    expect(read('ines', id).asSet?.created).toMatchObject({ actor: 'Tomas', principal: 'Ines' });
    const later = START + 60_000;
    expect(patch(id, 'tomas', { version: 1, fields: { place: 'Ridge House' } }, later).ok).toBe(true);
    expect(read('ines', id).asSet?.changed).toMatchObject({ actor: 'Tomas', principal: 'Ines' });
    const own = listItems(org.ctx('tomas'), org.calendar('tomas'), WEEK);
    expect(own.ok && own.value.items).toEqual([]);
    const trail = org.db.all<{ verb: string; actor_id: number; principal_id: number }>(
      "SELECT verb, actor_id, principal_id FROM trail WHERE verb LIKE 'item.%' ORDER BY id",
    );
    const [tomas, ines] = [org.person('tomas').id, org.person('ines').id];
    expect(trail).toEqual([
      { verb: 'item.added', actor_id: tomas, principal_id: ines },
      { verb: 'item.changed', actor_id: tomas, principal_id: ines },
    ]);
  });

  test('ends with the delegation: nothing is changed, and the refusal confirms only what is still seen', () => {
    const { id } = org.add('ines', 'tomas', { title: 'Board' });
    const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const row = lines.ok ? lines.value.rows.find((r) => r.audience.kind === 'person') : undefined;
    const audience = { kind: 'person', id: 'tomas' } as const;
    expect(takeAccess(org.ctx('ines'), org.calendar('ines'), { audience, seen: row?.grants[0]?.key ?? '' }).ok).toBe(
      true,
    );
    expect(patch(id, 'tomas', { version: 1, fields: { title: 'Mine' } })).toEqual({ ok: false, code: 'notFound' });
    expect(read('ines', id).title).toBe('Board');
  });

  test('marking private what one can’t read then is taken back by the one who did it', () => {
    const { id } = org.add('ines', 'ines', { title: 'Clinic' });
    const marked = patch(id, 'tomas', { version: 1, fields: { visibility: 'private' } });
    expect(marked.ok && marked.value.item).toMatchObject({ withheld: true });
    expect(marked.ok && marked.value.item).not.toHaveProperty('title');
    expect(readItem(org.ctx('tomas'), id).ok).toBe(false);
    expect(undoMeeting(org.ctx('tomas'), marked.ok ? marked.value.undo : '').ok).toBe(true);
    expect(read('tomas', id).title).toBe('Clinic');
  });
});

describe('two at once', () => {
  test('the second to save is shown how it stands, and nothing is overwritten', () => {
    const { id } = org.add('ines', 'ines', { title: 'Board' });
    expect(patch(id, 'ines', { version: 1, fields: { title: 'Board, early' } }).ok).toBe(true);
    const second = patch(id, 'tomas', { version: 1, fields: { place: 'Hall' } });
    expect(second).toMatchObject({ ok: false, code: 'changedMeanwhile', data: { title: 'Board, early', version: 2 } });
    expect(read('ines', id)).toMatchObject({ title: 'Board, early', place: null });
  });

  test('a patch touches its fields alone, so that what the writer can’t see stays', () => {
    const { id } = org.add('ines', 'ines', { title: 'Board', notes: 'n', briefing: 'b', link: 'https://l.example/' });
    expect(patch(id, 'tomas', { version: 1, fields: { place: 'Hall' } }).ok).toBe(true);
    expect(read('ines', id)).toMatchObject({ notes: 'n', briefing: 'b', link: 'https://l.example/', place: 'Hall' });
  });
});

describe('undo', () => {
  test('restores the fields, once, for a quarter of an hour, and not over what others built; of others’ the owner alone', () => {
    const { id, undo: token } = org.add('ines', 'tomas', { title: 'Board' });
    expect(undoMeeting(org.ctx('amara'), token)).toEqual({ ok: false, code: 'notFound' });
    expect(undoMeeting(org.ctx('tomas', START + 16 * 60_000), token)).toEqual({ ok: false, code: 'notFound' });
    expect(patch(id, 'ines', { version: 1, fields: { title: 'Later' } }).ok).toBe(true);
    expect(undoMeeting(org.ctx('tomas'), token)).toMatchObject({ ok: false, code: 'changedMeanwhile' });
    const removed = removeMeeting(org.ctx('tomas'), id, { version: 2, scope: 'one' });
    expect(readItem(org.ctx('ines'), id).ok).toBe(false);
    expect(undoMeeting(org.ctx('tomas'), removed.ok ? removed.value.undo : '').ok).toBe(true);
    expect(read('ines', id).title).toBe('Later');
  });
});

describe('a series', () => {
  const weekOfSeries = () => {
    const listed = listItems(org.ctx('ines'), org.calendar('ines'), { ...WEEK, to: '2027-03-22' });
    if (!listed.ok) throw new Error(listed.code);
    return listed.value.items;
  };
  test('one moved by itself stays moved when all are renamed; one removed stays removed', () => {
    org.add('ines', 'ines', { title: 'Weekly', when: at('2027-03-02', 9), repeat: { rule: 'FREQ=WEEKLY' } });
    const [, second, third] = weekOfSeries();
    const moved = patch(second?.id ?? '', 'tomas', { version: 1, scope: 'one', when: at('2027-03-11', 15) });
    expect(moved.ok).toBe(true);
    expect(removeMeeting(org.ctx('ines'), third?.id ?? '', { version: 1, scope: 'one' }).ok).toBe(true);
    const first = weekOfSeries()[0];
    expect(patch(first?.id ?? '', 'ines', { version: first?.version, scope: 'all', fields: { title: 'W' } }).ok).toBe(
      true,
    );
    expect(weekOfSeries().map((i) => [i.start, i.title])).toEqual([
      ['2027-03-02T09:00:00Z', 'W'],
      ['2027-03-11T15:00:00Z', 'Weekly'],
    ]);
    expect(undoMeeting(org.ctx('tomas'), moved.ok ? moved.value.undo : '').ok).toBe(true);
    expect(weekOfSeries().map((i) => i.start)).toEqual(['2027-03-02T09:00:00Z', '2027-03-09T09:00:00Z']);
  });

  test('keeps its hour on the wall across a clock change', () => {
    org.add('ines', 'ines', { title: 'Weekly', when: at('2027-03-22', 9), repeat: { rule: 'FREQ=WEEKLY' } });
    const listed = listItems(org.ctx('ines'), org.calendar('ines'), { ...WEEK, from: '2027-03-22', to: '2027-04-06' });
    expect(listed.ok && listed.value.items.map((i) => i.start)).toEqual([
      '2027-03-22T09:00:00Z',
      '2027-03-29T08:00:00Z',
      '2027-04-05T08:00:00Z',
    ]);
  });

  test('without an end is there as far as one looks, and as far back as it was begun, whatever the index holds', () => {
    org.add('ines', 'ines', { title: 'Weekly', when: at('2027-03-02', 9), repeat: { rule: 'FREQ=WEEKLY' } });
    const far = listItems(org.ctx('ines'), org.calendar('ines'), { ...WEEK, from: '2041-03-04', to: '2041-03-11' });
    expect(far.ok && far.value.items).toHaveLength(1);
    expect(far.ok && far.value.cutShort).toBe(false);
    const beyond = listItems(org.ctx('ines'), org.calendar('ines'), { ...WEEK, from: '2160-03-03', to: '2160-03-10' });
    expect(beyond.ok && beyond.value.items).toHaveLength(1);
    org.add('ines', 'ines', { title: 'Of old', when: at('1940-05-01', 9), repeat: { rule: 'FREQ=DAILY' } });
    for (const [from, to] of [
      ['1940-05-01', '1940-05-08'],
      ['1987-05-01', '1987-05-08'],
      ['2027-03-01', '2027-03-08'],
    ] as const) {
      const week = listItems(org.ctx('ines'), org.calendar('ines'), { ...WEEK, from, to });
      expect(week.ok && week.value.items.filter((i) => i.title === 'Of old')).toHaveLength(7);
    }
    expect(org.db.get<{ n: number }>('SELECT count(*) AS n FROM occurrence')?.n).toBeLessThan(2000);
  });
});

describe('bad input', () => {
  test.each([
    [{ ...at('2027-03-03', 10), end: '2027-03-03T09:00' }, { end: 'endBeforeStart' }],
    [{ ...at('2027-03-03', 10), end: '2027-03-03T10:00' }, { end: 'endBeforeStart' }],
    [{ ...at('2027-03-03', 10), zone: 'Mars/Olympus' }, { zone: 'zone' }],
    [{ ...at('2027-03-03', 10), start: '2027-02-30T10:00' }, { start: 'start' }],
    [{ ...at('2027-03-28', 1), start: '2027-03-28T01:30' }, { start: 'clockGap' }],
    [{ ...at('2027-03-03', 10), end: '2037-03-03T10:00' }, { end: 'tooManyDays' }],
  ])('%j is refused at the field', (when, fields) => {
    const { id } = org.add('ines', 'ines', { title: 'Board' });
    expect(patch(id, 'ines', { version: 1, when })).toMatchObject({ ok: false, code: 'badInput', fields });
    expect(read('ines', id).asSet?.version).toBe(1);
  });
});
