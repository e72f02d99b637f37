import { afterEach, beforeEach, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import type { Context } from '../deciding/index.ts';
import { listNotices, readNotices } from '../messages/notices.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { countFindings, findingsCounted } from './count-findings.ts';
import { readFindings } from './findings.ts';
import { giveAccess } from './give-access.ts';
import { listSightlines } from './sightlines.ts';

const DAY = 86_400_000;
let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const read = async (ctx: Context, key: string) => readFindings(ctx, key);
const look = (now: number) => countFindings(org.db, now, read, async () => {});
const told = (who: string, now: number) => {
  const read = listNotices(org.ctx(who, now));
  return read.ok ? read.value.findings : [];
};
const openUp = (who = 'ines') => {
  const lines = listSightlines(org.ctx(who), org.calendar(who));
  const seen = (lines.ok && lines.value.rows[0]?.grants[0]?.key) || null;
  const given = giveAccess(org.ctx(who), org.calendar(who), {
    audience: { kind: 'everyone' },
    rights: PRESETS.titles,
    seen,
  });
  expect(given).toMatchObject({ ok: true });
};

test('what is found is counted for its owner alone, once a day, and said to them once a month as long as it stands', async () => {
  openUp();
  org.add('ines', 'ines', { title: 'Clinic', when: at('2027-03-09', 10) });
  await look(START);
  const counted = findingsCounted(org.ctx('ines'));
  expect(counted).toBeGreaterThan(0);
  expect(findingsCounted(org.ctx('bruno'))).toBe(0);
  // The first time it is there where she gives access; nothing is said.
  expect(told('ines', START)).toEqual([]);
  expect(await look(START + DAY / 2)).toBe(0);
  expect(await look(START + 20 * DAY)).toBe(0);
  expect(told('ines', START + 20 * DAY)).toEqual([]);
  expect(await look(START + 31 * DAY)).toBe(1);
  const later = START + 31 * DAY;
  expect(told('ines', later)).toMatchObject([{ further: null, unread: true }]);
  expect(told('tomas', later)).toEqual([]);
  readNotices(org.ctx('ines', later + 1));
  expect(told('ines', later + DAY)).toMatchObject([{ unread: false }]);
  expect(await look(START + 40 * DAY)).toBe(0);
  expect(await look(START + 62 * DAY)).toBe(1);
});

test('what is put right is counted no more, and nobody is told of nothing', async () => {
  await look(START);
  expect(findingsCounted(org.ctx('ines'))).toBe(0);
  expect(await look(START + 31 * DAY)).toBe(0);
  expect(told('ines', START + 31 * DAY)).toEqual([]);
});
