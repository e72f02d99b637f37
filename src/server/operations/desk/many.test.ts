import { expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { createMeeting } from '../meetings/index.ts';
import { giveAccess } from '../sharing/index.ts';
import { at, smallOrganisation } from '../small-organisation.ts';
import { readDesk } from './index.ts';

const PEOPLE = 40;
const EACH = 26;
const HOSTILE = [
  '<script>alert(1)</script>',
  '\u202etxt.exe',
  '{"key":"x"}',
  '%00%0d%0a',
  '🏔'.repeat(140),
  "'; DROP TABLE item; --",
];

test('a thousand rows of hostile texts over forty people: an answer has a most and says so, and each person’s alone has all', () => {
  const handles = Array.from({ length: PEOPLE }, (_, n) => `p${n}`);
  const org = smallOrganisation(['tomas', ...handles]);
  try {
    org.db.write(() => {
      for (const [n, handle] of handles.entries()) {
        const audience = { kind: 'person', id: 'tomas' } as const;
        const given = giveAccess(org.ctx(handle), org.calendar(handle), {
          audience,
          rights: PRESETS.delegate,
          seen: null,
        });
        expect(given.ok).toBe(true);
        // Two at a time, each pair by itself: as many clashes as pairs.
        for (let i = 0; i < 2 * EACH; i++) {
          const day = `2027-03-${String(3 + Math.floor(i / 8)).padStart(2, '0')}`;
          const title = HOSTILE[(n + i) % HOSTILE.length] ?? '';
          const when = at(day, 8 + 2 * Math.floor((i % 8) / 2));
          expect(
            createMeeting(org.ctx(handle), org.calendar(handle), newItem.parse({ title, when, place: title })).ok,
          ).toBe(true);
        }
      }
    });
    const all = readDesk(org.ctx('tomas'), 'all');
    if (!all.ok) throw new Error(all.code);
    expect([all.value.rows.length, all.value.cut]).toEqual([500, true]);
    // What is left out is counted all the same.
    const counted = all.value.principals.reduce((sum, { rows }) => sum + rows, 0);
    expect(counted).toBe(PEOPLE * EACH);
    const one = readDesk(org.ctx('tomas'), 'p7');
    expect(one.ok && [one.value.rows.length, one.value.cut]).toEqual([EACH, false]);
    const titles = new Set(all.value.rows.flatMap(({ items }) => items.map(({ title }) => title)));
    expect([...titles].sort()).toEqual([...HOSTILE].sort());
  } finally {
    org.close();
  }
});
