import { afterEach, beforeEach, expect, test } from 'vitest';
import { itemByKey } from '../../repositories/items.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { changeItem, undo } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const title = (key: string) => itemByKey(org.db, key)?.title;
const rename = (key: string, name: string) => {
  const version = itemByKey(org.db, key)?.version ?? 0;
  const changed = changeItem(org.ctx('ines'), key, { version, scope: 'all', fields: { title: name } });
  return changed.ok ? changed.value.undo : '';
};
const back = (key: string) => {
  const done = undo(org.ctx('ines'), key);
  return done.ok ? done.value.undo : done.code;
};

test('several steps are taken back one after the other, and done again; not where somebody built on them', () => {
  const { id } = org.add('ines', 'ines', { title: 'One', when: at('2027-03-03', 10) });
  const [second, third] = [rename(id, 'Two'), rename(id, 'Three')];
  expect(back(second)).toBe('changedMeanwhile');
  const again = back(third);
  expect(title(id)).toBe('Two');
  const first = back(second);
  expect(title(id)).toBe('One');
  back(first);
  expect(title(id)).toBe('Two');
  back(again);
  expect(title(id)).toBe('Three');
  rename(id, 'Four');
  expect(back(third)).toBe('changedMeanwhile');
});
