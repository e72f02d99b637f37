import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { readItem } from '../deciding/access/find-item.ts';
import { changeMeeting, createMeeting, removeMeeting, undoMeeting } from '../meetings/index.ts';
import { giveAccess } from '../sharing/give-access.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { at, type SmallOrganisation, smallOrganisation, WEEK } from '../small-organisation.ts';

import { listItems } from './list-items.ts';

/* What somebody doesn't see they don't write, remove or bring back; what they may remove they may, at whatever sight they see it. */

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const key = () => org.calendar('ines');
const items = (who: string, range = WEEK) => {
  const listed = listItems(org.ctx(who), key(), range);
  if (!listed.ok) throw new Error(listed.code);
  return listed.value.items;
};
const MONTH = { ...WEEK, to: '2027-04-05' };
const regive = (who: string, rights: Rights) => {
  const lines = listSightlines(org.ctx('ines'), key());
  const rows = lines.ok ? lines.value.rows : [];
  const row = rows.find((r) => r.audience.kind === 'person' && r.audience.id === who);
  const seen = row?.grants[0]?.key ?? null;
  expect(giveAccess(org.ctx('ines'), key(), { audience: { kind: 'person', id: who }, rights, seen }).ok).toBe(true);
};

test('removing a whole series leaves the occurrence that is withheld from whoever removes it', () => {
  org.give('ines', 'tomas', PRESETS.delegate);
  org.add('ines', 'ines', { title: 'Weekly', when: at('2027-03-02', 9), repeat: { rule: 'FREQ=WEEKLY;COUNT=4' } });
  const second = items('ines', MONTH)[1];
  changeMeeting(org.ctx('ines'), second?.id ?? '', {
    version: second?.version ?? 0,
    scope: 'one',
    fields: { visibility: 'private', title: 'Doctor' },
  });
  const seen = items('tomas', MONTH).find((i) => i.title === 'Weekly');
  expect(removeMeeting(org.ctx('tomas'), seen?.id ?? '', { version: seen?.version, scope: 'all' }).ok).toBe(true);
  expect(items('ines', MONTH).map((i) => i.title)).toEqual(['Doctor']);
});

test('undo asks for the rights of this instant: an item that is withheld by now isn’t written', () => {
  org.give('ines', 'tomas', { ...PRESETS.delegate, private: true });
  const { id } = org.add('ines', 'ines', { title: 'Scan', visibility: 'private' });
  const version = items('tomas')[0]?.version ?? 0;
  const moved = changeMeeting(org.ctx('tomas'), id, { version, scope: 'one', fields: { place: 'Marsh Lab' } });
  regive('tomas', PRESETS.delegate);
  expect(undoMeeting(org.ctx('tomas'), moved.ok ? moved.value.undo : '')).toMatchObject({
    ok: false,
    code: 'mayNotChange',
  });
  expect(items('ines')[0]?.place).toBe('Marsh Lab');
});

test('marking private what one then can’t read is undone by the one who did it', () => {
  org.give('ines', 'tomas', PRESETS.delegate);
  const { id } = org.add('ines', 'ines', { title: 'Roof' });
  const hid = changeMeeting(org.ctx('tomas'), id, { version: 1, scope: 'one', fields: { visibility: 'private' } });
  expect(hid).toMatchObject({ ok: true, value: { item: { withheld: true } } });
  expect(undoMeeting(org.ctx('tomas'), hid.ok ? hid.value.undo : '').ok).toBe(true);
  expect(items('ines')[0]?.visibility).toBe('follow');
});

describe('the briefing', () => {
  test('isn’t wiped, nor written, by somebody who doesn’t read it', () => {
    org.give('ines', 'tomas', PRESETS.arranger);
    const { id } = org.add('ines', 'ines', { title: 'Board', briefing: 'Their lawyer comes too.' });
    for (const briefing of [null, '', 'Mine'])
      expect(changeMeeting(org.ctx('tomas'), id, { version: 1, scope: 'one', fields: { briefing } })).toMatchObject({
        ok: false,
        fields: { briefing: 'notSeen' },
      });
    expect(items('ines')[0]?.briefing).toBe('Their lawyer comes too.');
    const fresh = newItem.parse({ when: at('2027-03-04', 9), title: 'New', briefing: 'Mine' });
    expect(createMeeting(org.ctx('tomas'), key(), fresh)).toMatchObject({ ok: false, fields: { briefing: 'notSeen' } });
  });
  test('is written by whoever acts in the owner’s name', () => {
    org.give('ines', 'tomas', PRESETS.delegate);
    const { id } = org.add('ines', 'tomas', { title: 'Board', briefing: 'Tea, no coffee.' });
    const read = readItem(org.ctx('tomas'), id);
    expect(read.ok && read.value.briefing).toBe('Tea, no coffee.');
  });
});

describe('what may be removed is removed at whatever sight it is seen', () => {
  const rights: Rights = { ...NO_RIGHTS, sight: 'busy', add: true, remove: 'own' };
  test('by its opaque id, without a version, and only what one added', () => {
    org.give('ines', 'amara', rights);
    org.add('ines', 'amara', { title: 'Mine to take back', when: at('2027-03-03', 9) });
    org.add('ines', 'ines', { title: 'Hers', when: at('2027-03-03', 11) });
    const [mine, hers] = items('amara');
    expect([mine?.mayRemove, hers?.mayRemove]).toEqual([true, undefined]);
    expect(Object.keys(mine ?? {}).sort()).toEqual(['allDay', 'end', 'id', 'mayRemove', 'shows', 'start']);
    expect(removeMeeting(org.ctx('amara'), hers?.id ?? '', { scope: 'one' })).toMatchObject({ code: 'mayNotRemove' });
    expect(removeMeeting(org.ctx('bruno'), mine?.id ?? '', { scope: 'one' })).toEqual({ ok: false, code: 'notFound' });
    expect(removeMeeting(org.ctx('amara'), mine?.id ?? '', { scope: 'one' }).ok).toBe(true);
    expect(items('ines').map((i) => i.title)).toEqual(['Hers']);
  });
  test('in full it still has to be the version seen', () => {
    const { id } = org.add('ines', 'ines', { title: 'Roof' });
    expect(removeMeeting(org.ctx('ines'), id, { scope: 'one' })).toMatchObject({ ok: false, code: 'badInput' });
    expect(removeMeeting(org.ctx('ines'), id, { version: 7, scope: 'one' })).toMatchObject({
      code: 'changedMeanwhile',
    });
  });
});

test('who calls a meeting, who is asked and what they answered come out of no request', () => {
  for (const more of [
    { organiser: { name: null, address: 'a@x.example' } },
    { attendees: [{ name: null, address: 'a@x.example', answer: 'accepted' }] },
    { ownerAnswer: 'declined' },
  ])
    expect(newItem.safeParse({ when: at('2027-03-03', 9), title: 'T', ...more }).success).toBe(false);
});

test('a whereabouts is free and open, whatever else was written of it, and stays narrow where it was made so', () => {
  const made = (more: object) => {
    const { id } = org.add('ines', 'ines', { title: 'Marsh Lab', kind: 'whereabouts', shows: 'busy', ...more });
    const read = readItem(org.ctx('ines'), id);
    return read.ok ? [read.value.shows, read.value.visibility] : [];
  };
  expect(made({})).toEqual(['free', 'open']);
  expect(made({ visibility: 'private' })).toEqual(['free', 'private']);
  const { id } = org.add('ines', 'ines', { title: 'Later one' });
  changeMeeting(org.ctx('ines'), id, { version: 1, scope: 'one', fields: { kind: 'whereabouts' } });
  expect(readItem(org.ctx('ines'), id)).toMatchObject({ value: { shows: 'free', visibility: 'open' } });
});

test('dates have bounds, named at the field', () => {
  for (const [when, field] of [
    [{ start: '9999-12-31T10:00', end: '9999-12-31T11:00', allDay: false, zone: 'UTC' }, 'start'],
    [{ start: '1899-12-31', end: '1900-01-02', allDay: true, zone: 'UTC' }, 'start'],
    [{ start: '2200-12-31T10:00', end: '2201-01-01T11:00', allDay: false, zone: 'UTC' }, 'end'],
  ] as const)
    expect(createMeeting(org.ctx('ines'), key(), newItem.parse({ when, title: 'T' }))).toMatchObject({
      ok: false,
      fields: { [field]: 'dateBounds' },
    });
});

describe('an answer has a size', () => {
  test('long texts come with the item, short ones with the list', () => {
    const long = 'x'.repeat(5000);
    org.add('ines', 'ines', { title: 'Long', notes: long, briefing: long, when: at('2027-03-03', 9) });
    org.add('ines', 'ines', { title: 'Short', notes: 'n', briefing: 'b', when: at('2027-03-03', 11) });
    const [first, second] = items('ines');
    expect(first).toMatchObject({ notes: null, briefing: null, atItem: ['notes', 'briefing'] });
    expect(second).toMatchObject({ notes: 'n', briefing: 'b' });
    expect(second).not.toHaveProperty('atItem');
    const whole = readItem(org.ctx('ines'), first?.id ?? '');
    expect(whole.ok && [whole.value.notes, whole.value.briefing]).toEqual([long, long]);
  });
  test('an answer says where it was cut, by what its viewer is shown, and is asked on behind', () => {
    org.give('ines', 'amara', { ...NO_RIGHTS, sight: 'busy' });
    for (const [i, shows] of (['busy', 'free'] as const).entries())
      for (let n = 0; n < 8; n++)
        org.add('ines', 'ines', {
          title: `${shows} ${n}`,
          when: at('2027-03-02', 8 + n),
          shows,
          repeat: { rule: `FREQ=DAILY;COUNT=${400 + i}` },
        });
    const range = { from: '2027-03-01', to: '2027-06-08', zone: 'Europe/Lisbon' };
    const all: string[] = [];
    let after: number | null = 0;
    let answers = 0;
    while (after !== null && answers++ < 5) {
      const listed = listItems(org.ctx('ines'), key(), { ...range, after });
      if (!listed.ok) throw new Error(listed.code);
      all.push(...listed.value.items.map((i) => i.id));
      after = listed.value.more;
    }
    expect(new Set(all).size).toBe(all.length);
    expect(all.length).toBe(2 * 8 * 98);
    // Who sees none of what is free gets the rest, and hears of no more.
    const theirs = listItems(org.ctx('amara'), key(), range);
    expect(theirs.ok && [theirs.value.items.length, theirs.value.more]).toEqual([8 * 98, null]);
  });
});
