import { afterEach, beforeEach, expect, test } from 'vitest';
import { PRESETS, type Rights } from '@/core/access/index.ts';
import { beginCalendar } from '../people/people.ts';
import { giveAccess, takeAccess } from '../sharing/give-access.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { listTargets } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const namesFor = (who: string) =>
  listTargets(org.ctx(who)).calendars.map(
    ({ owner, main, name }) => `${owner.own ? 'own' : owner.handle}${main ? '' : `: ${name}`}`,
  );
const give = (key: string, group: string, rights: Rights) => {
  const given = giveAccess(org.ctx('ines'), key, { audience: { kind: 'group', id: group }, rights, seen: null });
  if (!given.ok) throw new Error(given.code);
  return given.value;
};

test('whoever was given nothing adds to their own calendar alone', () => {
  expect(namesFor('wren')).toEqual(['own']);
});

test('those one may add to are there, by name or through a group, further ones too, and go with the right', () => {
  org.give('amara', 'tomas', PRESETS.delegate);
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('bruno', 'tomas', PRESETS.full);
  for (const name of ['Site visits', 'Board papers']) {
    const made = beginCalendar(org.ctx('ines'), { of: 'ines', name });
    const key = made.ok ? made.value.calendar : '';
    if (name === 'Site visits') give(key, org.group('Field', ['tomas', 'wren']), { ...PRESETS.full, add: true });
  }
  expect(namesFor('tomas')).toEqual(['amara', 'ines', 'own', 'ines: Site visits']);
  expect(namesFor('wren')).toEqual(['own', 'ines: Site visits']);
  expect(namesFor('ines')).toEqual(['own', 'own: Board papers', 'own: Site visits']);
  const grant = org.db.get<{ key: string }>(
    `SELECT g.key FROM access_grant g JOIN collection c ON c.id = g.collection_id
     WHERE c.key = ? AND g.person_id = ? AND g.recorded_until IS NULL`,
    org.calendar('amara'),
    org.person('tomas').id,
  );
  const audience = { kind: 'person', id: 'tomas' } as const;
  expect(takeAccess(org.ctx('amara'), org.calendar('amara'), { audience, seen: grant?.key ?? '' }).ok).toBe(true);
  expect(namesFor('tomas')).toEqual(['ines', 'own', 'ines: Site visits']);
});
