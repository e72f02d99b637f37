import { afterEach, beforeEach, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import { bringBack, changeItem, listItems, listRemoved, removeItem } from '../items/index.ts';
import { at, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { readTrail } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', PRESETS.full);
});
afterEach(() => org.close());

const version = (key: string) => itemByKey(org.db, key)?.version ?? 0;
const change = (who: string, key: string, fields: object) =>
  changeItem(org.ctx(who, START + 1000), key, { version: version(key), scope: 'all', fields });

test('what happened to an item is told to whoever acts there: who, for whom, what, before and after', () => {
  const { id } = org.add('ines', 'ines', { title: 'Weir', when: at('2027-03-03', 10) });
  change('tomas', id, { title: 'Weir consent', place: 'Marsh Lab' });
  const trail = readTrail(org.ctx('tomas', START + 2000), id);
  expect(trail).toMatchObject({
    value: {
      entries: [
        {
          actor: 'Tomas',
          principal: 'Ines',
          verb: 'changed',
          undo: true,
          changed: [
            { field: 'title', before: 'Weir', after: 'Weir consent' },
            { field: 'place', before: null, after: 'Marsh Lab' },
          ],
        },
        { actor: 'Ines', verb: 'added', undo: false },
      ],
      cut: false,
    },
  });
  // Who only looks isn't told, however much they see.
  expect(readTrail(org.ctx('amara'), id)).toMatchObject({ code: 'notFound' });
});

test('of a time when it was private nothing is told to whom it was', () => {
  const { id } = org.add('ines', 'ines', {
    title: 'Severance of Pim',
    when: at('2027-03-03', 10),
    visibility: 'private',
  });
  change('ines', id, { title: 'Talk', visibility: 'follow' });
  expect(JSON.stringify(readTrail(org.ctx('tomas'), id))).not.toContain('Severance');
  expect(JSON.stringify(readTrail(org.ctx('ines'), id))).toContain('Severance');
});

test('what was removed in the last thirty days is brought back, with the changed occurrences of a series; later it is gone', () => {
  const { id } = org.add('ines', 'ines', {
    title: 'Rounds',
    when: at('2027-03-03', 10),
    repeat: { rule: 'FREQ=DAILY;COUNT=3' },
  });
  const key = id.split('~')[0] ?? '';
  const second = `${key}~${(Date.UTC(2027, 2, 4, 10) / 1000).toString(36)}`;
  changeItem(org.ctx('ines'), second, { version: version(key), scope: 'one', fields: { title: 'Rounds, long' } });
  const hidden = org.add('ines', 'ines', { title: 'Doctor', when: at('2027-03-05', 10), visibility: 'private' });
  removeItem(org.ctx('ines'), key, { scope: 'all', version: version(key) });
  removeItem(org.ctx('ines'), hidden.id, { scope: 'all', version: 1 });
  const titles = (who: string) => {
    const listed = listItems(org.ctx(who), org.calendar('ines'), WEEK);
    return listed.ok ? listed.value.items.map((i) => i.title) : [];
  };
  expect(titles('tomas')).toEqual([]);
  const removed = listRemoved(org.ctx('tomas'), org.calendar('ines'));
  expect(removed.ok && removed.value.removed.map((r) => r.item.title).sort()).toEqual(['Rounds', 'Rounds, long']);
  expect(bringBack(org.ctx('tomas'), hidden.id)).toMatchObject({ code: 'notFound' });
  expect(bringBack(org.ctx('amara'), key)).toMatchObject({ code: 'notFound' });
  expect(bringBack(org.ctx('tomas', START + 31 * 86_400_000), key)).toMatchObject({ code: 'notFound' });
  expect(bringBack(org.ctx('tomas'), key)).toMatchObject({ ok: true });
  expect(titles('tomas').sort()).toEqual(['Rounds', 'Rounds', 'Rounds, long']);
  expect(bringBack(org.ctx('tomas'), key)).toMatchObject({ code: 'notFound' });
});
