import { expect, test } from 'vitest';
import type { ChoiceWire } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import { NOTHING } from '../../common/requests/plain-rights.ts';
import { seesLess, startOf } from './grant-start.ts';

const choices = (barred: readonly string[] = []): ChoiceWire[] =>
  SIGHTS.map((sight) => ({
    group: 'sight',
    value: sight,
    rights: { ...NOTHING, sight },
    needs: null,
    barred: barred.includes(sight) ? 'outsideSight' : null,
    wants: [],
  }));
const has = (more: Partial<RightsWire>): RightsWire => ({ ...NOTHING, ...more });

test('a new row starts with the lowest sight that adds something, and keeps what a group gives', () => {
  expect(startOf(has({ sight: 'nothing' }), choices()).sight).toBe('busy');
  expect(startOf(has({ sight: 'outline', add: true }), choices())).toEqual(has({ sight: 'full', add: true }));
  expect(startOf(has({ sight: 'full', suggest: true }), choices())).toEqual(has({ sight: 'full', suggest: true }));
});

test('what a house rule bars is left out, down to what they have', () => {
  expect(startOf(has({ sight: 'busy' }), choices(['title'])).sight).toBe('outline');
  expect(startOf(has({ sight: 'busy' }), choices(['title', 'outline', 'full'])).sight).toBe('busy');
});

test('less is seen where the sight is lower than now', () => {
  expect(seesLess({ before: has({ sight: 'outline' }), effective: has({ sight: 'busy' }) })).toBe(true);
  expect(seesLess({ before: has({ sight: 'outline' }), effective: has({ sight: 'outline' }) })).toBe(false);
});
