import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { listNotices } from '../messages/notices.ts';
import { setMembership, setWithin } from '../people/groups.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { giveAccess } from './give-access.ts';
import { suspendSharing } from './suspend-sharing.ts';

let org: SmallOrganisation;
let leads = '';
beforeEach(() => {
  org = smallOrganisation();
  leads = org.group('Leads', ['bruno', 'wren']);
  const audience = { kind: 'group', id: leads } as const;
  giveAccess(org.ctx('ines'), org.calendar('ines'), { audience, rights: PRESETS.outline, seen: null });
});
afterEach(() => org.close());

const toldTo = (who: string) => {
  const told = listNotices(org.ctx(who));
  return told.ok ? told.value.notices.map(({ kind, owner, rights }) => [kind, owner.handle, rights]) : [];
};
const set = (handle: string, member: boolean) =>
  expect(setMembership(org.ctx('ines'), leads, { handle, member }).ok).toBe(true);

describe('who loses something by an act that doesn’t name them is told', () => {
  test('taken out of a group: that they have nothing of their own there any more, or something else', () => {
    const audience = { kind: 'group', id: org.group('Field', ['wren']) } as const;
    giveAccess(org.ctx('ines'), org.calendar('ines'), { audience, rights: PRESETS.titles, seen: null });
    for (const who of ['bruno', 'wren']) set(who, false);
    expect(toldTo('bruno')).toEqual([['taken', 'ines', null]]);
    expect(toldTo('wren')).toEqual([['changed', 'ines', null]]);
    expect([toldTo('dario'), toldTo('ines')]).toEqual([[], []]);
  });

  test('not where all they had they still have by another way', () => {
    org.give('ines', 'wren', PRESETS.full);
    set('wren', false);
    expect(toldTo('wren')).toEqual([]);
  });

  test('with the group they are in, taken out of the one that had it', () => {
    const inner = org.group('Field', ['dario']);
    expect(setWithin(org.ctx('ines'), leads, { group: inner, within: true }).ok).toBe(true);
    expect(setWithin(org.ctx('ines'), leads, { group: inner, within: false }).ok).toBe(true);
    expect(toldTo('dario')).toEqual([['taken', 'ines', null]]);
    expect(toldTo('bruno')).toEqual([]);
  });

  test('all sharing rests, and goes on: each who was given something, once', () => {
    org.give('ines', 'wren', PRESETS.full);
    org.give('ines', 'dario', PRESETS.outline);
    org.give('ines', 'amara', PRESETS.shutOut);
    suspendSharing(org.ctx('ines'), org.calendar('ines'), true);
    const given = ['bruno', 'wren', 'dario'].map((who) => toldTo(who).length);
    expect(given).toEqual([1, 1, 1]);
    // Shut out before, shut out now: there is nothing to say.
    expect(toldTo('amara')).toEqual([]);
    suspendSharing(org.ctx('ines'), org.calendar('ines'), false);
    expect(toldTo('dario')).toHaveLength(2);
  });
});
