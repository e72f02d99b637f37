import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { readFrame } from '../frame/read-frame.ts';
import { listItems } from '../items/list-items.ts';
import { listNotices } from '../messages/notices.ts';
import { changeDomains } from '../people/domains.ts';
import { beginCalendar } from '../people/people.ts';
import { at, houseRulesWith, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { giveAccess } from './give-access.ts';
import { changeHouseRules, readHouseRules } from './house-rules.ts';
import { previewAccess } from './preview-access.ts';
import { answerWish, wishForRule } from './rule-wishes.ts';
import { listSightlines } from './sightlines.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  changeDomains(org.ctx('ines'), { domains: ['cloudmoor.example'] });
  org.add('ines', 'ines', {
    title: 'Open talk',
    place: 'Marsh Lab',
    notes: 'secret',
    when: at('2027-03-03', 9),
  });
});
afterEach(() => org.close());

const _MARTA = 'marta@quill-audit.example';
const busy: Rights = PRESETS.freeBusy;
const rowsNow = (by = 'ines', when = START) => {
  const lines = listSightlines(org.ctx(by, when), org.calendar('ines'));
  return lines.ok ? lines.value.rows : [];
};

describe('an administrator', () => {
  test('gives and takes on any calendar, sees no item by it, and the owner is told and sees it marked', () => {
    changeHouseRules(org.ctx('ines'), houseRulesWith({ everyoneSight: 'nothing' }));
    const calendar = org.calendar('bruno');
    org.add('bruno', 'bruno', { title: 'Pay round' });
    expect(listItems(org.ctx('ines'), calendar, WEEK)).toMatchObject({ code: 'notFound' });
    expect(listSightlines(org.ctx('ines'), calendar)).toMatchObject({ value: { asAdministrator: true, own: false } });
    expect(listSightlines(org.ctx('tomas'), calendar)).toMatchObject({ code: 'notFound' });
    giveAccess(org.ctx('bruno'), calendar, {
      audience: { kind: 'newLink', name: 'Board' },
      rights: busy,
      seen: null,
    });
    const linkAs = (who: string) => {
      const lines = listSightlines(org.ctx(who), calendar);
      return lines.ok && lines.value.rows.find((r) => r.audience.kind === 'link')?.link;
    };
    expect(linkAs('bruno')).toMatch(/^\/see\//);
    expect(linkAs('ines')).toBeNull();
    const audience = { kind: 'person', id: 'tomas' } as const;
    const preview = previewAccess(org.ctx('ines'), calendar, {
      audience,
      rights: PRESETS.full,
      seen: null,
      range: WEEK,
    });
    expect(preview).toMatchObject({ value: { effective: { sight: 'full' }, items: [], itemsBefore: [] } });
    expect(listItems(org.ctx('ines'), calendar, { ...WEEK, as: 'person:tomas' })).toMatchObject({
      value: { items: [] },
    });
    expect(giveAccess(org.ctx('ines'), calendar, { audience, rights: PRESETS.steward, seen: null }).ok).toBe(true);
    expect(listSightlines(org.ctx('bruno'), calendar)).toMatchObject({
      value: {
        rows: [
          {},
          {},
          { grants: [{ byAdministrator: true, told: null, given: { actor: 'Ines', principal: 'Bruno' } }] },
        ],
      },
    });
    expect(listNotices(org.ctx('bruno'))).toMatchObject({
      value: { notices: [{ kind: 'given', by: 'Ines', about: 'Tomas', unread: true }] },
    });
    expect(listItems(org.ctx('ines'), calendar, WEEK)).toMatchObject({ code: 'notFound' });
  });
});

describe('a wish for a house rule', () => {
  test('reaches the administrators, is carried out to the letter, and answers the one who wished', () => {
    const wish = {
      changes: [{ rule: 'outsideSight', wanted: 'outline' }],
      further: false,
      note: 'for the audit',
    } as const;
    expect(wishForRule(org.ctx('tomas'), { ...wish, changes: [...wish.changes] }).ok).toBe(true);
    expect(
      wishForRule(org.ctx('tomas'), { ...wish, changes: [{ rule: 'outsideSight', wanted: 'all' }] }),
    ).toMatchObject({
      fields: { wanted: 'unclear' },
    });
    const waiting = listNotices(org.ctx('ines'));
    expect(waiting).toMatchObject({
      value: { wishes: [{ who: 'Tomas', wanted: 'outline', now: 'busy', note: 'for the audit' }] },
    });
    expect(readFrame(org.ctx('ines')).unread).toBe(1);
    const key = waiting.ok ? (waiting.value.wishes[0]?.key ?? '') : '';
    expect(answerWish(org.ctx('tomas'), key, { answer: 'changed', note: '' })).toMatchObject({
      code: 'administratorOnly',
    });
    expect(answerWish(org.ctx('ines'), key, { answer: 'changed', note: 'until June' }).ok).toBe(true);
    expect(readHouseRules(org.ctx('tomas'))).toMatchObject({ value: { rules: { main: { outsideSight: 'outline' } } } });
    expect(listNotices(org.ctx('tomas'))).toMatchObject({
      value: { wishes: [{ answer: 'changed', answeredBy: 'Ines', answerNote: 'until June' }] },
    });
    expect(answerWish(org.ctx('ines'), key, { answer: 'left', note: '' })).toMatchObject({ code: 'changedMeanwhile' });
  });
});

describe('further calendars', () => {
  test('have an access of their own, ceilings of their own, and the start the rules give', () => {
    changeHouseRules(
      org.ctx('ines'),
      houseRulesWith(
        { linkSight: 'nothing' },
        {
          startSight: 'nothing',
          further: {
            everyoneSight: 'full',
            outsideSight: 'full',
            outsideReach: 'none',
            outsideExtras: false,
            linkSight: 'full',
          },
        },
      ),
    );
    const made = beginCalendar(org.ctx('ines'), { of: 'ines', name: 'Field days' });
    const calendar = made.ok ? made.value.calendar : '';
    expect(listSightlines(org.ctx('ines'), calendar)).toMatchObject({ value: { rows: [], calendar: { main: false } } });
    expect(listItems(org.ctx('tomas'), calendar, WEEK)).toMatchObject({ code: 'notFound' });
    const rights = { ...NO_RIGHTS, sight: 'full' } as const;
    const link = (key: string) =>
      giveAccess(org.ctx('ines'), key, { audience: { kind: 'newLink', name: 'Web' }, rights, seen: null });
    expect(link(calendar).ok).toBe(true);
    expect(listSightlines(org.ctx('ines'), calendar)).toMatchObject({
      value: { rows: [{ effective: { sight: 'full' } }] },
    });
    expect(link(org.calendar('ines')).ok).toBe(true);
    expect(rowsNow().at(-1)).toMatchObject({ effective: { sight: 'nothing' }, cutBy: ['linkSight'] });
    expect(beginCalendar(org.ctx('ines'), { of: 'ines', name: 'field DAYS' })).toMatchObject({
      fields: { name: 'calendarTaken' },
    });
    expect(beginCalendar(org.ctx('tomas'), { of: 'ines', name: 'Mine' })).toMatchObject({ code: 'mayNotShare' });
    org.give('ines', 'tomas', PRESETS.steward);
    const theirs = beginCalendar(org.ctx('tomas'), { of: 'ines', name: 'Board papers' });
    expect(theirs.ok && listItems(org.ctx('tomas'), theirs.value.calendar, WEEK)).toMatchObject({
      value: { head: { own: false, may: { add: true, share: true }, owner: { handle: 'ines' } } },
    });
  });
});
