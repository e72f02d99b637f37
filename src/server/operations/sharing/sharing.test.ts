import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { itemPatch } from '@/contract/items/items.ts';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { readFrame } from '../frame/read-frame.ts';
import { listItems } from '../items/list-items.ts';
import { changeMeeting } from '../meetings/index.ts';
import { listNotices, readNotices } from '../messages/notices.ts';
import { listGroups, makeGroup, setMembership } from '../people/groups.ts';
import { at, houseRulesWith, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { explainAccess, readItemSight } from './explain-access.ts';
import { readFindings } from './findings.ts';
import { giveAccess, takeAccess } from './give-access.ts';
import { changeHouseRules, readHouseRules } from './house-rules.ts';
import { previewAccess } from './preview-access.ts';
import { listSightlines, readHistory } from './sightlines.ts';
import { suspendSharing } from './suspend-sharing.ts';
import { tellAfterwards } from './tell.ts';

const DAY = 86_400_000;
let org: SmallOrganisation;
let item: string;
beforeEach(() => {
  org = smallOrganisation();
  item = org.add('ines', 'ines', { title: 'Open talk', when: at('2027-03-03', 9) }).id;
});
afterEach(() => org.close());

const amara = { kind: 'person', id: 'amara' } as const;
const give = (more: object, when = START, by = 'ines') =>
  giveAccess(org.ctx(by, when), org.calendar('ines'), { audience: amara, rights: PRESETS.full, seen: null, ...more });
const span = (from: string | null, until: string | null) => ({ span: { from, until, zone: 'Europe/Lisbon' } });
const sees = (who: string, when = START) => {
  const listed = listItems(org.ctx(who, when), org.calendar('ines'), WEEK);
  return listed.ok ? listed.value.items.map((i) => i.title ?? i.shows) : listed.code;
};
const grants = (who: string, when = START) => {
  const lines = listSightlines(org.ctx('ines', when), org.calendar('ines'));
  const row = lines.ok
    ? lines.value.rows.find((r) => r.audience.kind === 'person' && r.audience.id === who)
    : undefined;
  return row?.grants ?? [];
};

describe('for a time', () => {
  test('counts from the first day to the end of the last, on the giver’s clock, with nothing running', () => {
    expect(give(span('2027-03-08', '2027-03-12')).ok).toBe(true);
    const [first, after] = [Date.UTC(2027, 2, 8), Date.UTC(2027, 2, 13)];
    expect(sees('amara', first - 1)).toEqual(['busy']);
    expect(sees('amara', first)).toEqual(['Open talk']);
    expect(sees('amara', after - 1)).toEqual(['Open talk']);
    expect(sees('amara', after)).toEqual(['busy']);
    expect(grants('amara', first - 1).map((g) => g.state)).toEqual(['toCome']);
    expect(grants('amara', after).map((g) => g.state)).toEqual(['ended']);
  });

  test('stands beside a standing grant, the higher right of each counting', () => {
    expect(give({ rights: PRESETS.titles }).ok).toBe(true);
    expect(give({ rights: PRESETS.delegate, ...span('2027-03-02', '2027-03-05') }).ok).toBe(true);
    expect(grants('amara')).toHaveLength(2);
    const head = listItems(org.ctx('amara', START + DAY), org.calendar('ines'), WEEK);
    expect(head.ok && head.value.head.may.add).toBe(true);
    expect(head.ok && head.value.head.accessChangesAt).toBe('2027-03-06T00:00:00Z');
    const later = listItems(org.ctx('amara', START + 5 * DAY), org.calendar('ines'), WEEK);
    expect(later.ok && later.value.head.rights).toEqual(PRESETS.titles);
  });

  test('a second standing grant is refused, as is one that changed meanwhile', () => {
    expect(give({}).ok).toBe(true);
    expect(give({})).toEqual({ ok: false, code: 'changedMeanwhile' });
    expect(give({ seen: 'another' })).toEqual({ ok: false, code: 'changedMeanwhile' });
  });

  test.each([
    [span('2027-03-10', '2027-03-09'), { until: 'endBeforeStart' }],
    [span(null, '2027-03-01'), { until: 'datePassed' }],
    [span('2027-02-20', null), { from: 'datePassed' }],
    [span('2027-02-30', null), { from: 'date' }],
    [{ span: { from: null, until: '2027-03-09', zone: 'Mars' } }, { zone: 'zone' }],
  ])('%j is refused at the field', (more, fields) => {
    expect(give(more)).toMatchObject({ ok: false, code: 'badInput', fields });
    expect(grants('amara')).toEqual([]);
  });
});

describe('suspending', () => {
  test('leaves nothing to anybody else, keeps every grant, and is the owner’s alone', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    expect(give({}).ok).toBe(true);
    expect(suspendSharing(org.ctx('tomas'), org.calendar('ines'), true)).toMatchObject({
      ok: false,
      code: 'ownerOnly',
    });
    expect(suspendSharing(org.ctx('ines'), org.calendar('ines'), true).ok).toBe(true);
    expect(sees('amara')).toBe('notFound');
    expect(sees('tomas')).toBe('notFound');
    expect(sees('ines')).toEqual(['Open talk']);
    expect(readFrame(org.ctx('tomas')).principals.map((p) => p.handle)).toEqual(['tomas']);
    expect(suspendSharing(org.ctx('ines', START + 1000), org.calendar('ines'), false).ok).toBe(true);
    expect(sees('amara')).toEqual(['Open talk']);
    const facts = org.db.all('SELECT recorded_from, recorded_until FROM suspension');
    expect(facts).toEqual([{ recorded_from: START, recorded_until: START + 1000 }]);
  });
});

describe('telling', () => {
  test('is a choice; quiet shows as not told, and can be made good', () => {
    expect(give({}).ok).toBe(true);
    expect(grants('amara')[0]?.told).toBeNull();
    expect(listNotices(org.ctx('amara'))).toMatchObject({ ok: true, value: { notices: [] } });
    const told = tellAfterwards(org.ctx('ines'), org.calendar('ines'), {
      seen: grants('amara')[0]?.key ?? '',
      note: 'Hello',
    });
    expect(told.ok).toBe(true);
    expect(grants('amara')[0]?.told).toBe('2027-03-02T09:00:00Z');
    expect(readFrame(org.ctx('amara')).unread).toBe(1);
    expect(listNotices(org.ctx('amara'))).toMatchObject({
      value: {
        notices: [{ kind: 'given', by: 'Ines', note: 'Hello', rights: PRESETS.full, unread: true, open: true }],
      },
    });
    readNotices(org.ctx('amara'));
    expect(readFrame(org.ctx('amara')).unread).toBe(0);
  });

  test('a notice says nothing of a grant that is no longer the one’s own', () => {
    give({ tell: { note: '' } });
    const seen = grants('amara')[0]?.key ?? '';
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: amara, seen, tell: { note: '' } });
    const notices = listNotices(org.ctx('amara'));
    expect(notices.ok && notices.value.notices.map((n) => [n.kind, n.rights])).toEqual([
      ['taken', null],
      ['given', null],
    ]);
  });

  test('an end that is near is said to both', () => {
    give({ rights: PRESETS.delegate, ...span(null, '2027-03-09') });
    const ending = (who: string) => {
      const notices = listNotices(org.ctx(who));
      return notices.ok ? notices.value.ending.map((e) => [e.who, e.held]) : [];
    };
    expect(ending('amara')).toEqual([['Amara', true]]);
    expect(ending('ines')).toEqual([['Amara', false]]);
    expect(ending('bruno')).toEqual([]);
  });
});

describe('asking', () => {
  const explainTo = (more: object, by = 'ines', when = START + 30 * DAY) =>
    explainAccess(org.ctx(by, when), org.calendar('ines'), { audience: amara, item, at: null, ...more });

  test('answers for now and for a past instant, from the facts as they stood', () => {
    give({ rights: PRESETS.outline });
    const later = START + 2 * DAY;
    give({ seen: grants('amara')[0]?.key, rights: PRESETS.freeBusy }, later);
    const patch = itemPatch.parse({ version: 1, fields: { visibility: 'private' } });
    expect(changeMeeting(org.ctx('ines', later + 1000), item, patch).ok).toBe(true);
    const at = (instant: number) => explainTo({ at: new Date(instant).toISOString().replace('.000', '') });
    expect(at(START - 500)).toMatchObject({ value: { seen: 'nothing', steps: [{ step: 'notYet' }] } });
    expect(at(START + DAY)).toMatchObject({ value: { seen: 'outline' } });
    expect(at(later)).toMatchObject({ value: { seen: 'busy', steps: [{ step: 'person' }, { step: 'item.follow' }] } });
    expect(explainTo({})).toMatchObject({
      value: { seen: 'withheld', steps: [{ step: 'person' }, { step: 'item.privateWithheld' }] },
    });
    expect(explainTo({ at: '2028-01-01T00:00:00Z' })).toMatchObject({ ok: false, fields: { at: 'dateToCome' } });
  });

  test('names the house rule that cuts', () => {
    const audience = { kind: 'everyone' } as const;
    changeHouseRules(org.ctx('ines'), houseRulesWith({ everyoneSight: 'nothing' }));
    expect(explainTo({ audience })).toMatchObject({
      value: { seen: 'nothing', steps: [{ step: 'everyone' }, { step: 'ceiling', facts: { rule: 'everyoneSight' } }] },
    });
  });

  test('is for those who may give access, about what they see themselves', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    const hidden = org.add('ines', 'ines', { title: 'Clinic', visibility: 'private', when: at('2027-03-03', 11) }).id;
    expect(explainTo({}, 'tomas').ok).toBe(true);
    expect(explainTo({ item: hidden }, 'tomas')).toEqual({ ok: false, code: 'notFound' });
    expect(explainTo({}, 'bruno')).toMatchObject({ ok: false, code: 'mayNotShare' });
    expect(readItemSight(org.ctx('tomas'), hidden)).toEqual({ ok: false, code: 'notFound' });
  });

  test('of an item, counts who sees what', () => {
    give({ rights: PRESETS.outline });
    org.give('ines', 'dario', NO_RIGHTS);
    expect(readItemSight(org.ctx('ines'), item)).toMatchObject({
      value: {
        levels: [
          { seen: 'outline', people: 1, named: [{ name: 'Amara', handle: 'amara' }] },
          { seen: 'busy', people: 3, named: [] },
          { seen: 'nothing', people: 1, named: [{ name: 'Dario', handle: 'dario' }] },
        ],
      },
    });
  });
});

describe('seen through another’s eyes', () => {
  const through = (by: string, as: string) => listItems(org.ctx(by), org.calendar('ines'), { ...WEEK, as });

  test('is what they get, with nothing to act on', () => {
    give({ rights: PRESETS.titles });
    const seen = through('ines', 'person:amara');
    expect(seen).toMatchObject({
      ok: true,
      value: { head: { as: 'Amara', may: { add: false } }, items: [{ title: 'Open talk' }] },
    });
    expect(seen.ok && seen.value.items[0]).not.toHaveProperty('place');
    expect(seen.ok && seen.value.items[0]).not.toHaveProperty('may');
  });

  test('is cut to what the looker sees, item by item', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    give({ rights: { ...PRESETS.full, private: true } });
    // Two at one time: the private one must not borrow from the other.
    org.add('ines', 'ines', { title: 'Clinic', visibility: 'private', when: at('2027-03-03', 9), notes: 'secret' });
    const seen = through('tomas', 'person:amara');
    expect(JSON.stringify(seen)).not.toMatch(/Clinic|secret/);
    expect(seen.ok && seen.value.items.map((i) => i.title)).toEqual(['Open talk', undefined]);
    expect(through('bruno', 'person:amara')).toMatchObject({ ok: false, code: 'mayNotShare' });
    expect(through('ines', 'person:nobody')).toMatchObject({ ok: false, fields: { as: 'audience' } });
  });
});

describe('what is withheld from either of two', () => {
  test('is marked as withheld when one looks through the other’s eyes', () => {
    org.add('ines', 'ines', { title: 'Clinic', visibility: 'private', when: at('2027-03-04', 9) });
    org.give('ines', 'tomas', { ...PRESETS.steward, private: true });
    org.give('ines', 'bruno', PRESETS.steward);
    give({ rights: { ...PRESETS.full, private: true } });
    const seenAs = (by: string, who: string) => {
      const listed = listItems(org.ctx(by), org.calendar('ines'), { ...WEEK, as: `person:${who}` });
      const found = listed.ok ? listed.value.items.find((i) => i.start.startsWith('2027-03-04')) : undefined;
      return found && [found.title, found.withheld];
    };
    expect(seenAs('tomas', 'amara')).toEqual(['Clinic', undefined]);
    expect(seenAs('tomas', 'bruno')).toEqual([undefined, true]);
    expect(seenAs('bruno', 'amara')).toEqual([undefined, true]);
    expect(seenAs('tomas', 'wren')).toEqual([undefined, undefined]);
  });
});

describe('house rules', () => {
  test('are an administrator’s; they cut at once what was given before, which stays as it was given', () => {
    const everyone = { kind: 'everyone' } as const;
    const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const seen = lines.ok ? (lines.value.rows[0]?.grants[0]?.key ?? '') : '';
    giveAccess(org.ctx('ines'), org.calendar('ines'), { audience: everyone, rights: PRESETS.outline, seen });
    expect(changeHouseRules(org.ctx('bruno'), houseRulesWith({ everyoneSight: 'title' }))).toMatchObject({
      code: 'administratorOnly',
    });
    expect(changeHouseRules(org.ctx('ines'), houseRulesWith({ everyoneSight: 'busy' })).ok).toBe(true);
    expect(sees('wren')).toEqual(['busy']);
    const cut = listSightlines(org.ctx('ines'), org.calendar('ines'));
    expect(cut).toMatchObject({
      value: {
        rows: [{ effective: { sight: 'busy' }, cutBy: ['everyoneSight'], grants: [{ rights: { sight: 'outline' } }] }],
      },
    });
    expect(readHouseRules(org.ctx('ines'))).toMatchObject({ value: { cut: 1, mayChange: true } });
    expect(changeHouseRules(org.ctx('ines', START + 1), houseRulesWith({})).ok).toBe(true);
    expect(sees('wren')).toEqual(['Open talk']);
  });
});

describe('what is widely read', () => {
  test('is said to the owner and those who change all, and to nobody else', () => {
    org.give('ines', 'tomas', PRESETS.arranger);
    org.give('ines', 'amara', PRESETS.full);
    const widely = (who: string) => {
      const listed = listItems(org.ctx(who), org.calendar('ines'), WEEK);
      return listed.ok && listed.value.head.widelyRead;
    };
    expect(['ines', 'tomas', 'amara'].map(widely)).toEqual([false, false, false]);
    const team = org.group('Team', ['tomas', 'amara', 'bruno', 'dario']);
    const audience = { kind: 'group', id: team } as const;
    giveAccess(org.ctx('ines'), org.calendar('ines'), { audience, rights: PRESETS.titles, seen: null });
    expect(widely('ines')).toBe(false);
    setMembership(org.ctx('ines'), team, { handle: 'wren', member: true });
    expect(['ines', 'tomas', 'amara'].map(widely)).toEqual([true, true, false]);
  });
});

describe('groups', () => {
  test('reach whoever is put in at once, leave whoever is taken out, and remember who was in when', () => {
    expect(makeGroup(org.ctx('bruno'), 'Leads')).toMatchObject({ code: 'administratorOnly' });
    expect(makeGroup(org.ctx('ines'), 'Leads').ok).toBe(true);
    expect(makeGroup(org.ctx('ines'), 'leads')).toMatchObject({ fields: { name: 'groupTaken' } });
    const groups = listGroups(org.ctx('amara'));
    const key = groups.ok ? (groups.value.groups[0]?.key ?? '') : '';
    const audience = { kind: 'group', id: key } as const;
    expect(give({ audience, rights: PRESETS.titles }).ok).toBe(true);
    const set = (member: boolean, when: number, by = 'ines') =>
      setMembership(org.ctx(by, when), key, { handle: 'amara', member });
    expect(set(true, START, 'amara')).toMatchObject({ code: 'administratorOnly' });
    expect(set(true, START + 1000).ok).toBe(true);
    expect(sees('amara', START + 1000)).toEqual(['Open talk']);
    expect(set(false, START + 2000).ok).toBe(true);
    expect(sees('amara', START + 2000)).toEqual(['busy']);
    const explained = explainAccess(org.ctx('ines', START + DAY), org.calendar('ines'), {
      audience: amara,
      item,
      at: '2027-03-02T09:00:01Z',
    });
    expect(explained).toMatchObject({ value: { seen: 'title', steps: [{ step: 'group' }, { step: 'item.follow' }] } });
  });
});

describe('findings', () => {
  const find = (by = 'ines', when = START) => {
    const answer = readFindings(org.ctx(by, when), org.calendar('ines'));
    return answer.ok ? answer.value.findings : answer.code;
  };
  const everyone = { kind: 'everyone' } as const;
  const raise = (more: object = {}) => {
    const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const seen = lines.ok ? (lines.value.rows.find((r) => r.audience.kind === 'everyone')?.grants[0]?.key ?? '') : '';
    return giveAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: everyone,
      rights: PRESETS.titles,
      seen,
      ...more,
    });
  };

  test('name what is sensitive and read by many, and go as soon as it is private', () => {
    const clinic = org.add('ines', 'ines', { title: 'Clinic', when: at('2027-03-04', 9) }).id;
    expect(find()).toEqual([]);
    expect(raise().ok).toBe(true);
    expect(find()).toMatchObject([
      { kind: 'everyone', sight: 'title' },
      { kind: 'sensitive', item: { title: 'Clinic', topic: 'health' }, people: 5 },
    ]);
    const patch = itemPatch.parse({ version: 1, fields: { visibility: 'private' } });
    expect(changeMeeting(org.ctx('ines'), clinic, patch).ok).toBe(true);
    expect(find()).toMatchObject([{ kind: 'everyone' }]);
    expect(find('bruno')).toBe('mayNotShare');
  });

  test('raising what everyone gets shows what becomes readable, and marks private in the same act, or does neither', () => {
    const clinic = org.add('ines', 'ines', { title: 'Clinic', when: at('2027-03-04', 9) }).id;
    org.add('ines', 'ines', { title: 'Hidden', visibility: 'private', when: at('2027-03-04', 11) });
    const thought = previewAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: everyone,
      rights: PRESETS.titles,
      seen: null,
      range: WEEK,
    });
    expect(thought.ok && thought.value.opened.map((i) => [i.title, i.topic])).toEqual([
      ['Open talk', null],
      ['Clinic', 'health'],
    ]);
    expect(raise({ alsoPrivate: ['Zm9vYmFyYmF6cXV4eHl6'] })).toEqual({ ok: false, code: 'notFound' });
    expect(sees('wren')).toEqual(['busy', 'busy', 'busy']);
    expect(raise({ alsoPrivate: [clinic] }).ok).toBe(true);
    expect(sees('wren')).toEqual(['Open talk', 'busy', 'busy']);
  });

  test('a grant unused for 90 days is named until it is used', () => {
    give({});
    expect(find('ines', START + 89 * DAY)).toEqual([]);
    expect(find('ines', START + 91 * DAY)).toMatchObject([{ kind: 'unused', name: 'Amara', lastUsed: null }]);
    sees('amara', START + 91 * DAY);
    expect(find('ines', START + 91 * DAY)).toEqual([]);
    expect(grants('amara', START + 91 * DAY)[0]?.used).toBe('2027-06-01T09:00:00Z');
  });
});

test('the history keeps every grant: who gave what, from when to when', () => {
  give({ rights: PRESETS.outline });
  const later = START + DAY;
  takeAccess(org.ctx('ines', later), org.calendar('ines'), { audience: amara, seen: grants('amara')[0]?.key ?? '' });
  const history = readHistory(org.ctx('ines', later), org.calendar('ines'));
  expect(history.ok && history.value.entries[0]).toMatchObject({
    name: 'Amara',
    preset: 'outline',
    recorded: '2027-03-02T09:00:00Z',
    replaced: '2027-03-03T09:00:00Z',
    given: { actor: 'Ines', principal: 'Ines' },
    ended: { actor: 'Ines', hands: null },
  });
});
