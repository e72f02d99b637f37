import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { listItems } from '../items/list-items.ts';
import { at, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { giveAccess, takeAccess } from './give-access.ts';
import { previewAccess } from './preview-access.ts';
import { listSightlines } from './sightlines.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.add('ines', 'ines', { title: 'Open talk', when: at('2027-03-03', 9) });
  org.add('ines', 'ines', { title: 'Clinic', visibility: 'private', when: at('2027-03-03', 11) });
});
afterEach(() => org.close());

const amara = { kind: 'person', id: 'amara' } as const;
const row = (handle: string) => {
  const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
  const found = lines.ok
    ? lines.value.rows.find((r) => r.audience.kind === 'person' && r.audience.id === handle)
    : undefined;
  return found?.grants[0];
};

describe('grants', () => {
  test('are dated facts: giving again ends the old record and begins the new one, one row an audience', () => {
    org.give('ines', 'amara', PRESETS.outline);
    const seen = row('amara')?.key ?? '';
    const later = START + 5000;
    const given = giveAccess(org.ctx('ines', later), org.calendar('ines'), {
      audience: amara,
      rights: PRESETS.full,
      seen,
    });
    expect(given.ok).toBe(true);
    const records = org.db.all<{ sight: string; recorded_from: number; recorded_until: number | null }>(
      'SELECT sight, recorded_from, recorded_until FROM access_grant WHERE person_id = ? ORDER BY id',
      org.person('amara').id,
    );
    expect(records).toEqual([
      { sight: 'outline', recorded_from: START, recorded_until: later },
      { sight: 'full', recorded_from: later, recorded_until: null },
    ]);
    expect(row('amara')?.rights.sight).toBe('full');
  });

  test('a page that has gone stale changes nothing', () => {
    org.give('ines', 'amara', PRESETS.outline);
    const body = { audience: amara, rights: PRESETS.full, seen: null };
    expect(giveAccess(org.ctx('ines'), org.calendar('ines'), body)).toEqual({ ok: false, code: 'changedMeanwhile' });
    expect(takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: amara, seen: 'another' }).ok).toBe(false);
    expect(row('amara')?.rights.sight).toBe('outline');
  });

  test('that don’t fit are refused at the right that doesn’t', () => {
    const give = (rights: object) =>
      giveAccess(org.ctx('ines'), org.calendar('ines'), {
        audience: amara,
        rights: { ...NO_RIGHTS, ...rights },
        seen: null,
      });
    expect(give({ sight: 'busy', private: true })).toMatchObject({ fields: { private: 'misfitFullSight' } });
    expect(give({ sight: 'full', speaks: true })).toMatchObject({ fields: { speaks: 'misfitAdd' } });
    expect(give({ add: true })).toMatchObject({ fields: { add: 'misfitSight' } });
    expect(give({ sight: 'full', add: true, shares: true })).toMatchObject({ fields: { shares: 'misfitArrangeAll' } });
  });

  test('can’t go above what the giver holds, nor touch what stands above it', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    const give = (rights: object, seen: string | null = null, who: object = amara) =>
      giveAccess(org.ctx('tomas'), org.calendar('ines'), {
        audience: who as typeof amara,
        rights: { ...NO_RIGHTS, ...rights },
        seen,
      });
    expect(give({ sight: 'full', private: true })).toMatchObject({ fields: { private: 'giverHoldsLess' } });
    expect(give({ sight: 'outline' }).ok).toBe(true);
    org.give('ines', 'bruno', { ...PRESETS.full, private: true });
    expect(give({ sight: 'busy' }, row('bruno')?.key, { kind: 'person', id: 'bruno' })).toMatchObject({
      fields: { private: 'giverHoldsLess' },
    });
    expect(give({ sight: 'busy' }, null, { kind: 'person', id: 'ines' })).toMatchObject({
      fields: { audience: 'audienceOwner' },
    });
  });

  test('a shut-out by name beats everyone’s free/busy; taking it away lets that count again', () => {
    org.give('ines', 'dario', NO_RIGHTS);
    expect(listItems(org.ctx('dario'), org.calendar('ines'), WEEK)).toEqual({ ok: false, code: 'notFound' });
    const seen = row('dario')?.key ?? '';
    expect(
      takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: { kind: 'person', id: 'dario' }, seen }).ok,
    ).toBe(true);
    const listed = listItems(org.ctx('dario'), org.calendar('ines'), WEEK);
    expect(listed.ok && listed.value.items).toHaveLength(2);
  });

  test('of a group reach its members and end with the group’s', () => {
    const key = org.group('Leads', ['bruno', 'wren']);
    const audience = { kind: 'group', id: key } as const;
    expect(giveAccess(org.ctx('ines'), org.calendar('ines'), { audience, rights: PRESETS.titles, seen: null }).ok).toBe(
      true,
    );
    const listed = listItems(org.ctx('wren'), org.calendar('ines'), WEEK);
    expect(listed.ok && listed.value.items.map((i) => i.title)).toEqual(['Open talk', undefined]);
  });
});

describe('the preview', () => {
  const preview = (by: string, rights: object | null) =>
    previewAccess(org.ctx(by), org.calendar('ines'), {
      audience: amara,
      rights: rights && { ...NO_RIGHTS, ...rights },
      seen: row('amara')?.key ?? null,
      range: WEEK,
    });

  test('shows exactly what will be served, ids aside', () => {
    const thought = preview('ines', PRESETS.outline);
    org.give('ines', 'amara', PRESETS.outline);
    const served = listItems(org.ctx('amara'), org.calendar('ines'), WEEK);
    const bare = (list: readonly object[]) => list.map((item) => ({ ...item, id: '' }));
    expect(thought.ok && bare(thought.value.items)).toEqual(served.ok && bare(served.value.items));
  });

  test('says what is left when it is taken away', () => {
    org.give('ines', 'amara', PRESETS.full);
    const thought = preview('ines', null);
    expect(thought).toMatchObject({ ok: true, value: { without: { sight: 'busy' }, withoutStep: 'everyone' } });
  });

  test('by someone who sees less than the target shows no more than they see themselves', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    org.give('ines', 'amara', { ...PRESETS.full, private: true });
    const thought = preview('tomas', { ...PRESETS.full });
    expect(JSON.stringify(thought)).toContain('Open talk');
    expect(JSON.stringify(thought)).not.toContain('Clinic');
  });

  test('is for those who may give access', () => {
    expect(preview('amara', PRESETS.full)).toMatchObject({ ok: false, code: 'mayNotShare' });
  });
});
