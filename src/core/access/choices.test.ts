import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { choicesFor, fitRights, offeredOn, PRESETS, type Rights } from './index.ts';

const CALENDAR = offeredOn({ kind: 'calendar', main: true });

const rights = fc
  .record({
    sight: fc.constantFrom('nothing' as const, 'busy' as const, 'title' as const, 'outline' as const, 'full' as const),
    add: fc.boolean(),
    change: fc.constantFrom('none' as const, 'own' as const, 'all' as const),
    remove: fc.constantFrom('none' as const, 'own' as const, 'all' as const),
    suggest: fc.boolean(),
    private: fc.boolean(),
    speaks: fc.boolean(),
    copies: fc.boolean(),
    shares: fc.boolean(),
    absence: fc.boolean(),
  })
  .map((r) => fitRights(r, CALENDAR).rights);
const find = (now: Rights, group: string, value: string) =>
  choicesFor(now, CALENDAR).find((c) => c.group === group && c.value === value);

describe('choices', () => {
  test('whatever is chosen comes to rights that fit', () => {
    fc.assert(
      fc.property(rights, (now) => {
        for (const choice of choicesFor(now, CALENDAR)) expect(fitRights(choice.rights, CALENDAR).lowered).toEqual([]);
      }),
    );
  });
  test('an extra that doesn’t fit names what to raise, and one that does is in the rights it comes to', () => {
    fc.assert(
      fc.property(rights, (now) => {
        for (const extra of ['suggest', 'private', 'speaks', 'copies', 'shares', 'absence'] as const) {
          const on = find(now, extra, 'true');
          expect(on?.needs === null).toBe(on?.rights[extra]);
        }
      }),
    );
    expect(find(PRESETS.outline, 'private', 'true')?.needs).toBe('fullSight');
    expect(find(PRESETS.full, 'speaks', 'true')?.needs).toBe('add');
    expect(find(PRESETS.full, 'shares', 'true')?.needs).toBe('arrangeAll');
  });
  test('lower sight takes along what it can’t carry; arranging raises sight', () => {
    expect(find(PRESETS.steward, 'sight', 'outline')?.rights).toEqual({
      ...PRESETS.outline,
      add: true,
      change: 'own',
      remove: 'own',
      absence: true,
    });
    expect(find(PRESETS.steward, 'sight', 'nothing')?.rights).toEqual(PRESETS.shutOut);
    expect(find(PRESETS.freeBusy, 'reach', 'arrange')?.rights).toEqual(PRESETS.arranger);
    expect(find(PRESETS.shutOut, 'reach', 'add')?.rights).toEqual(PRESETS.booker);
  });
});
