import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { calendarByKey } from '../../repositories/calendars.ts';
import { groupByKey } from '../../repositories/groups.ts';
import { decideOn } from '../deciding/access/deciding.ts';
import { listNotices } from '../messages/notices.ts';
import { setMembership } from '../people/groups.ts';
import { beginCalendar } from '../people/people.ts';
import { type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { giveAccess, giveSeveral, takeAccess } from './give-access.ts';
import { listSightlines } from './sightlines.ts';

/* Nobody who gives access for somebody gives more, or longer, than they hold; a row that speaks to themselves they only lessen. */

const DAY = 86_400_000;
let org: SmallOrganisation;
beforeEach(() => {
  // The first of them is an administrator, who may give anything: the calendar is another's.
  org = smallOrganisation(['admin', 'ines', 'tomas', 'amara', 'bruno']);
});
afterEach(() => org.close());

const ines = () => org.calendar('ines');
const give = (by: string, to: string, rights: Rights, until: string | null = null, seen: string | null = null) =>
  giveAccess(org.ctx(by), ines(), {
    audience: to === 'everyone' ? { kind: 'everyone' } : { kind: 'person', id: to },
    rights,
    seen,
    span: until ? { from: null, until, zone: 'Europe/Lisbon' } : null,
  });
const grantOf = (who: string): string => {
  const lines = listSightlines(org.ctx('ines'), ines());
  const row = lines.ok ? lines.value.rows.find((r) => 'id' in r.audience && r.audience.id === who) : undefined;
  return row?.grants[0]?.key ?? '';
};
const rightsOf = (who: string, key = ines(), at = START): Rights => {
  const calendar = calendarByKey(org.db, key);
  return calendar ? decideOn(org.ctx(who, at), calendar).decision.rights : NO_RIGHTS;
};

test('whoever gives access for somebody is told of what ends soon, with whose it is; a delegate without that of their own alone', () => {
  give('ines', 'tomas', PRESETS.steward);
  give('ines', 'bruno', PRESETS.delegate);
  give('ines', 'amara', PRESETS.outline, '2027-03-08');
  const told = (who: string) => {
    const read = listNotices(org.ctx(who));
    return read.ok ? read.value.ending.map((e) => [e.owner.name, e.who, e.held, e.audience !== null]) : [];
  };
  expect(told('ines')).toEqual([['Ines', 'Amara', false, true]]);
  expect(told('tomas')).toEqual([['Ines', 'Amara', false, true]]);
  expect(told('amara')).toEqual([['Ines', 'Amara', true, false]]);
  expect([told('bruno'), told('admin')]).toEqual([[], []]);
});

describe('a steward for a time', () => {
  beforeEach(() => {
    expect(give('ines', 'tomas', PRESETS.steward, '2027-03-05').ok).toBe(true);
  });
  const later = START + 10 * DAY;
  test.each([
    ['makes themself permanent', () => give('tomas', 'tomas', PRESETS.steward)],
    ['extends their own', () => give('tomas', 'tomas', PRESETS.steward, '2027-06-01', grantOf('tomas'))],
    ['gives themself a second one for longer', () => give('tomas', 'tomas', PRESETS.full, '2027-06-01')],
    ['gives somebody else longer', () => give('tomas', 'amara', PRESETS.full, '2027-06-01')],
    ['gives somebody else for ever', () => give('tomas', 'amara', PRESETS.full)],
    ['gives everyone for ever', () => give('tomas', 'everyone', PRESETS.full)],
    [
      'gives for ever in a list',
      () =>
        giveSeveral(org.ctx('tomas'), ines(), {
          gives: [{ audience: { kind: 'person', id: 'amara' }, rights: PRESETS.full, seen: null }],
        } as never),
    ],
    [
      'makes a link for ever',
      () =>
        giveAccess(org.ctx('tomas'), ines(), {
          audience: { kind: 'newLink', name: 'For later' },
          rights: { ...NO_RIGHTS, sight: 'busy' },
          seen: null,
          span: null,
        }),
    ],
  ])('is refused where they: %s', (_, act) => {
    expect(act()).toMatchObject({ ok: false, code: 'badInput' });
    expect(rightsOf('tomas', ines(), later).shares).toBe(false);
    expect(rightsOf('amara', ines(), later).sight).toBe('busy');
  });
  test('gives for as long as they hold it themselves, and it says until when', () => {
    expect(give('tomas', 'amara', PRESETS.full, '2027-06-01')).toMatchObject({
      fields: { until: expect.stringMatching(/^giverHoldsUntil:\d+$/) },
    });
    expect(give('tomas', 'amara', PRESETS.full, '2027-03-05').ok).toBe(true);
    expect([rightsOf('amara').sight, rightsOf('amara', ines(), later).sight]).toEqual(['full', 'busy']);
  });
  test('may lessen their own', () => {
    expect(give('tomas', 'tomas', PRESETS.full, '2027-03-04', grantOf('tomas')).ok).toBe(true);
    expect(rightsOf('tomas').change).toBe('none');
  });
  test('keeps on a further calendar of the owner what they hold, as long as they hold it', () => {
    const made = beginCalendar(org.ctx('tomas'), { of: 'ines', name: 'Field days' });
    const key = made.ok ? made.value.calendar : '';
    expect(rightsOf('tomas', key).shares).toBe(true);
    expect(rightsOf('tomas', key, later).shares).toBe(false);
    // Taken away early, it ends there too.
    takeAccess(org.ctx('ines'), ines(), { audience: { kind: 'person', id: 'tomas' }, seen: grantOf('tomas') });
    expect(rightsOf('tomas', key).shares).toBe(false);
  });
  test('what they gave ends when theirs is taken away, and whoever had it is told', () => {
    give('tomas', 'amara', PRESETS.full, '2027-03-05');
    takeAccess(org.ctx('ines'), ines(), { audience: { kind: 'person', id: 'tomas' }, seen: grantOf('tomas') });
    expect(rightsOf('amara').sight).toBe('busy');
    const told = listNotices(org.ctx('amara'));
    expect(told.ok && told.value.notices[0]).toMatchObject({ kind: 'taken' });
  });
});

describe('a steward through a group', () => {
  let group: string;
  beforeEach(() => {
    group = org.group('Office', ['tomas']);
    const audience = { kind: 'group', id: group } as const;
    expect(giveAccess(org.ctx('ines'), ines(), { audience, rights: PRESETS.steward, seen: null }).ok).toBe(true);
  });
  const leaveGroup = () => setMembership(org.ctx('admin'), group, { handle: 'tomas', member: false });
  test('can’t name themself and keep it', () => {
    expect(give('tomas', 'tomas', PRESETS.steward)).toMatchObject({ fields: { audience: 'audienceSelf' } });
    leaveGroup();
    expect(rightsOf('tomas').sight).toBe('busy');
  });
  test('can’t raise what the group, or everyone, gets', () => {
    const audience = { kind: 'group', id: group } as const;
    const seen = grantOf(group);
    const raised = { ...PRESETS.steward, private: true };
    expect(giveAccess(org.ctx('tomas'), ines(), { audience, rights: raised, seen }).ok).toBe(false);
    expect(give('tomas', 'everyone', { ...NO_RIGHTS, sight: 'title' }).ok).toBe(false);
  });
  test('what they gave ends when they leave the group', () => {
    expect(give('tomas', 'amara', PRESETS.full).ok).toBe(true);
    expect(rightsOf('amara').sight).toBe('full');
    leaveGroup();
    expect(rightsOf('amara').sight).toBe('busy');
  });
  test('may take the group’s access away, and so their own', () => {
    const audience = { kind: 'group', id: group } as const;
    expect(takeAccess(org.ctx('tomas'), ines(), { audience, seen: grantOf(group) }).ok).toBe(true);
    expect(rightsOf('tomas').sight).toBe('busy');
  });
});

test('a steward by name gives for as long as anybody, and an administrator to themself, with the owner told', () => {
  give('ines', 'tomas', PRESETS.steward);
  expect(give('tomas', 'amara', PRESETS.full).ok).toBe(true);
  expect(give('tomas', 'tomas', { ...PRESETS.steward, private: true }, null, grantOf('tomas')).ok).toBe(false);
  expect(give('admin', 'admin', PRESETS.full).ok).toBe(true);
  const told = listNotices(org.ctx('ines'));
  expect(told.ok && told.value.notices.some((n) => n.by === 'Admin' && n.kind === 'given')).toBe(true);
});

test('a row that holds one down can’t be taken away by oneself', () => {
  const group = org.group('Office', ['tomas', 'amara']);
  const wider = { ...PRESETS.steward, private: true };
  giveAccess(org.ctx('ines'), ines(), { audience: { kind: 'group', id: group }, rights: wider, seen: null });
  give('ines', 'tomas', PRESETS.steward);
  // By name they are let into less than their group is; without that row the group's would count.
  expect(
    takeAccess(org.ctx('tomas'), ines(), { audience: { kind: 'person', id: 'tomas' }, seen: grantOf('tomas') }).ok,
  ).toBe(false);
});

test('owners hear that somebody came into a group that opens their calendar: that, not what', () => {
  const group = org.group('Office', []);
  giveAccess(org.ctx('ines'), ines(), { audience: { kind: 'group', id: group }, rights: PRESETS.full, seen: null });
  setMembership(org.ctx('admin'), group, { handle: 'admin', member: true });
  const told = listNotices(org.ctx('ines'));
  expect(told.ok && told.value.notices[0]).toMatchObject({
    kind: 'joined',
    by: 'Admin',
    note: 'Admin → Office',
    rights: null,
  });
  expect(groupByKey(org.db, group)?.name).toBe('Office');
});

test('what was given while it was held by name ends where only a group’s, for less long, is left', () => {
  const leads = org.group('Leads', ['tomas']);
  const spanned = (to: object, rights: Rights, until: string, by = 'ines') =>
    giveAccess(org.ctx(by), ines(), {
      audience: to as never,
      rights,
      seen: null,
      span: { from: null, until, zone: 'Europe/Lisbon' },
    });
  const named = spanned({ kind: 'person', id: 'tomas' }, PRESETS.steward, '2027-03-08');
  expect(spanned({ kind: 'group', id: leads }, PRESETS.steward, '2027-03-06')).toMatchObject({ ok: true });
  expect(spanned({ kind: 'person', id: 'amara' }, PRESETS.full, '2027-03-08', 'tomas')).toMatchObject({ ok: true });
  const seen = named.ok ? named.value.grant : '';
  expect(takeAccess(org.ctx('ines'), ines(), { audience: { kind: 'person', id: 'tomas' }, seen })).toMatchObject({
    ok: true,
  });
  const on = (day: number) => rightsOf('amara', ines(), Date.UTC(2027, 2, day, 12)).sight;
  expect([on(6), on(7), on(8)]).toEqual(['full', 'busy', 'busy']);
});

test('a calendar made for somebody is told them, and what its maker keeps of it goes with their stewardship, named before', () => {
  const given = give('ines', 'tomas', PRESETS.steward);
  expect(given).toMatchObject({ ok: true });
  const made = beginCalendar(org.ctx('tomas'), { of: 'ines', name: 'Board papers' });
  const key = made.ok ? made.value.calendar : '';
  const told = listNotices(org.ctx('ines'));
  expect(told.ok && told.value.notices[0]).toMatchObject({
    kind: 'begun',
    by: 'Tomas',
    further: { name: 'Board papers' },
  });
  expect(rightsOf('tomas', key).sight).toBe('full');
  const lines = listSightlines(org.ctx('ines'), ines());
  const row = lines.ok ? lines.value.rows.find((r) => 'id' in r.audience && r.audience.id === 'tomas') : undefined;
  expect(row?.grants[0]?.hanging).toEqual(['Tomas: Board papers']);
  takeAccess(org.ctx('ines'), ines(), { audience: { kind: 'person', id: 'tomas' }, seen: grantOf('tomas') });
  expect(rightsOf('tomas', key).sight).toBe('busy');
});
