import { afterEach, beforeEach, expect, test } from 'vitest';
import { itemByKey } from '../../repositories/items.ts';
import { changeMeeting } from '../meetings/index.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { listItems } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

test('a series that is moved as a whole, by one of its occurrences, answers that occurrence where it is now', () => {
  org.add('ines', 'ines', { title: 'Round', when: at('2027-03-03', 10), repeat: { rule: 'FREQ=WEEKLY;COUNT=6' } });
  const range = { from: '2027-03-01', to: '2027-05-01', zone: 'UTC', after: 0 };
  const items = () => {
    const list = listItems(org.ctx('ines'), org.calendar('ines'), range);
    return list.ok ? list.value.items : [];
  };
  // The clocks go forward between the first and the one that is moved.
  const moved = items()[4];
  expect(moved?.start).toBe('2027-03-31T09:00:00Z');
  const changed = changeMeeting(org.ctx('ines'), moved?.id ?? '', {
    version: itemByKey(org.db, moved?.id.split('~')[0] ?? '')?.version ?? 0,
    scope: 'all',
    fields: {},
    when: at('2027-04-01', 14),
  });
  const answer = changed.ok ? changed.value.item : null;
  expect(answer?.start).toBe('2027-04-01T13:00:00Z');
  expect(items().find((item) => item.id === answer?.id)).toMatchObject({ start: answer?.start, end: answer?.end });
});
