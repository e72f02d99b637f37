import { expect, test } from 'vitest';
import { callingOf } from '@/contract/sharing/reach.ts';
import { PRESETS, presetOf } from '@/core/access/index.ts';

test('what is called by a preset here is that preset by the rule', () => {
  for (const [name, rights] of Object.entries(PRESETS)) {
    const called = callingOf(rights);
    if (called !== null) expect([name, presetOf(rights)]).toEqual([called, called]);
    else expect(['shutOut', 'freeBusy', 'titles', 'outline', 'full']).toContain(name);
    expect(callingOf({ ...rights, private: true })).toBe(called);
  }
});
