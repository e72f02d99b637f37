import fc from 'fast-check';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { changesBody, type GrantChange } from '@/contract/sharing/changes.ts';
import { PRESETS } from '@/core/access/index.ts';
import { calendarByKey } from '../../repositories/calendars.ts';
import { decideOn } from '../deciding/access/deciding.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { changeGrants } from './change-grants.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const NAMES = ['tomas', 'amara', 'bruno', 'dario'] as const;
const changes = (list: readonly GrantChange[], dryRun: boolean) => {
  const done = changeGrants(org.ctx('ines'), changesBody.parse({ changes: list, dryRun }));
  if (!done.ok) throw new Error(`${done.code} ${JSON.stringify(done.fields)}`);
  return done.value.answer.results;
};
const rightsOf = (who: string) => {
  const calendar = calendarByKey(org.db, org.calendar('ines'));
  return calendar && decideOn(org.ctx(who), calendar).decision.rights;
};

test('what several changes would come to is what each person gets once they are made, groups and everyone among it', () => {
  const groups = [org.group('Weirs', ['tomas', 'amara']), org.group('Gates', ['amara', 'bruno'])];
  const calendar = org.calendar('ines');
  const whom = fc.constantFrom(
    ...NAMES.map((id) => ({ kind: 'person' as const, id })),
    ...groups.map((id) => ({ kind: 'group' as const, id })),
  );
  const level = fc.constantFrom('shutOut', 'freeBusy', 'titles', 'outline', 'full', 'arranger', 'delegate', 'none');
  const list = fc.uniqueArray(fc.tuple(whom, level), { minLength: 1, maxLength: 6, selector: ([{ id }]) => id });
  const given = new Set<string>();
  fc.assert(
    fc.property(list, (wanted) => {
      const requested = wanted
        // Only what stands can be taken away.
        .filter(([{ id }, name]) => name !== 'none' || given.has(id))
        .map(
          ([audience, name]): GrantChange => ({
            calendar,
            audience,
            rights: name === 'none' ? null : PRESETS[name as keyof typeof PRESETS],
            note: null,
          }),
        );
      if (requested.length === 0) return;
      const before = new Map(NAMES.map((who) => [who, rightsOf(who)]));
      const said = changes(requested, true);
      expect(NAMES.map((who) => rightsOf(who))).toEqual([...before.values()]);
      changes(requested, false);
      for (const [i, { audience, rights }] of requested.entries()) {
        const id = 'id' in audience ? (audience.id ?? '') : '';
        if (rights === null) given.delete(id);
        else given.add(id);
        const who = NAMES.find((name) => name === id);
        expect([id, said[i]?.had, said[i]?.has]).toEqual([
          id,
          who ? before.get(who) : null,
          who ? rightsOf(who) : null,
        ]);
      }
    }),
    { numRuns: 60 },
  );
});
