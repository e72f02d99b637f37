import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { SIGHTS } from '../calendar/index.ts';
import { type Known, kinOf, type Least, leastFor } from './least.ts';

const plain: Known = {
  outside: false,
  desk: false,
  role: '',
  tied: false,
  namesake: false,
  runsTheirs: false,
  meets: 0,
};
const LADDER: Least[] = ['freeBusy', 'titles', 'outline', 'full', 'arranger'];

describe('the least that serves', () => {
  test.each([
    ['a colleague', {}, 'colleague', 'freeBusy'],
    ['a colleague met often', { meets: 6 }, 'close', 'outline'],
    ['an assistant', { role: 'Assistant to the director' }, 'assistant', 'arranger'],
    ['an assistant, in Portuguese', { role: 'Secretária da direção' }, 'assistant', 'arranger'],
    ['whoever the owner arranges for', { runsTheirs: true, role: 'Director' }, 'boss', 'full'],
    ['a front desk', { desk: true, meets: 9 }, 'frontDesk', 'outline'],
    ['somebody outside one works with', { outside: true, meets: 2 }, 'client', 'freeBusy'],
    ['somebody outside one never met', { outside: true, role: 'Assistant' }, 'stranger', 'freeBusy'],
    ['one’s own second account, proved', { outside: true, tied: true }, 'tiedAccount', 'full'],
    ['one’s own second account', { outside: true, namesake: true }, 'ownAccount', 'full'],
  ] as const)('for %s', (_, more, kin, level) => {
    expect(leastFor({ ...plain, ...more }, 'busy', null)).toEqual({ kin, level });
  });

  test('is what the giver gives such people elsewhere where that is less, and never more', () => {
    expect(leastFor({ ...plain, meets: 8 }, 'busy', 'titles').level).toBe('titles');
    expect(leastFor({ ...plain, meets: 8 }, 'busy', 'full').level).toBe('outline');
  });

  test('never takes from somebody inside what everyone gets, never lets act or give on, and is never above what serves', () => {
    const known = fc.record({
      outside: fc.boolean(),
      desk: fc.boolean(),
      role: fc.constantFrom('', 'Assistant', 'Ranger', 'Sekretär'),
      tied: fc.boolean(),
      namesake: fc.boolean(),
      runsTheirs: fc.boolean(),
      meets: fc.nat(12),
    });
    fc.assert(
      fc.property(
        known,
        fc.constantFrom(...SIGHTS),
        fc.option(fc.constantFrom(...LADDER)),
        (k, everyone, elsewhere) => {
          const { level, kin } = leastFor(k, everyone, elsewhere);
          const alone = leastFor(k, 'nothing', null).level;
          const floor = { nothing: 0, busy: 0, title: 1, outline: 2, full: 3 }[everyone];
          expect(kin).toBe(kinOf(k));
          if (!k.outside) expect(LADDER.indexOf(level)).toBeGreaterThanOrEqual(floor);
          expect(LADDER.indexOf(level)).toBeLessThanOrEqual(Math.max(LADDER.indexOf(alone), k.outside ? 0 : floor));
        },
      ),
    );
  });
});
