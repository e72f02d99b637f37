import { afterEach, beforeEach, expect, test } from 'vitest';
import { checkBody, timesBody } from '@/contract/openings/openings.ts';
import { timePreferencesBody } from '@/contract/openings/time-preferences.ts';
import { PRESETS } from '@/core/access/index.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { checkTime, findTimes, readTimePreferences, saveTimePreferences } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
});
afterEach(() => org.close());

const LUNCH = { kind: 'span', hard: true, days: [1, 2, 3, 4, 5], from: '12:00', to: '13:00' };
const save = (who: string, preferences: unknown[], version = 0) =>
  saveTimePreferences(org.ctx(who), org.calendar('ines'), timePreferencesBody.parse({ keeps: preferences, version }));
const starts = (who: string) => {
  const body = timesBody.parse({ length: 60, from: '2027-03-03', days: 1, zone: 'Europe/Lisbon', within: 'any' });
  const found = findTimes(org.ctx(who), org.calendar('ines'), body);
  if (!found.ok) throw new Error(found.code);
  return found.value.runs;
};
const check = (who: string) => {
  const found = checkTime(org.ctx(who), org.calendar('ines'), checkBody.parse({ when: at('2027-03-03', 12) }));
  if (!found.ok) throw new Error(found.code);
  return found.value.clashes;
};

test('wishes are set by whose they are and who arranges for them, where they are as they were read', () => {
  expect(save('tomas', [LUNCH])).toMatchObject({ ok: true, value: { keeps: [LUNCH], version: 1 } });
  expect(save('ines', [], 0)).toMatchObject({ code: 'changedMeanwhile', data: { version: 1 } });
  org.give('ines', 'amara', PRESETS.full);
  expect(save('amara', [], 1)).toMatchObject({ code: 'mayNotChange' });
  expect(readTimePreferences(org.ctx('amara'), org.calendar('ines'))).toMatchObject({ code: 'mayNotChange' });
  expect(readTimePreferences(org.ctx('wren'), org.calendar('ines')).ok).toBe(false);
  for (const wrong of [
    { ...LUNCH, days: [] },
    { ...LUNCH, to: '11:00' },
    { ...LUNCH, from: '25:00' },
  ])
    expect(timePreferencesBody.safeParse({ keeps: [wrong], version: 0 }).success).toBe(false);
});

test('what is held to rules a time out, the rest counts against it and says why', () => {
  const over = (run: { from: string; to: string }) =>
    run.from < '2027-03-03T13:00:00Z' && run.to > '2027-03-03T11:00:00Z';
  expect(starts('tomas').some(over)).toBe(true);
  save('ines', [LUNCH]);
  expect(starts('tomas').some(over)).toBe(false);
  save('ines', [{ ...LUNCH, hard: false }], 1);
  expect(starts('tomas').find(over)?.reasons).toMatchObject([{ why: 'keep', who: 'Ines' }]);
});

test('a time that breaks one is warned of while it is typed, to whoever arranges alone', () => {
  save('ines', [LUNCH]);
  expect(check('tomas')).toEqual([{ kind: 'keep', keep: 'span', hard: true }]);
  org.give('ines', 'amara', PRESETS.full);
  expect(check('amara')).toEqual([]);
});
