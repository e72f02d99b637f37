import { describe, expect, test } from 'vitest';
import { giveBody } from '@/contract/sharing/sharing.ts';
import { PRESETS, type Rights } from '@/core/access/index.ts';
import { linkSecret } from '../../ids.ts';
import { personByAddress } from '../../repositories/people.ts';
import { Directory } from '../deciding/context/directory.ts';
import { viewsIn } from '../deciding/reading/views.ts';
import { readFrame } from '../frame/read-frame.ts';
import { listItems } from '../items/list-items.ts';
import { listGroups } from '../people/groups.ts';
import { listPeople } from '../people/list-people.ts';
import { houseRulesWith, START, WEEK } from '../small-organisation.ts';
import { explainAccess, readItemSight } from './explain-access.ts';
import { giveAccess, giveSeveral, takeAccess } from './give-access.ts';
import { changeHouseRules, readHouseRules } from './house-rules.ts';
import { findLink } from './links.ts';
import { busy, eachOutsideDay, give, item, MARTA, marta, martaCtx, org, rowsNow } from './outside-day.ts';
import { previewAccess } from './preview-access.ts';
import { suspendSharing } from './suspend-sharing.ts';

eachOutsideDay();
const martaSees = (when = START) => {
  const listed = listItems(martaCtx(when), org.calendar('ines'), WEEK);
  return listed.ok ? listed.value.items.map((i) => i.title ?? i.shows) : listed.code;
};

describe('somebody outside', () => {
  test('is made by being given something, once, and stands in no directory', () => {
    const given = give({});
    expect(given).toMatchObject({ ok: true, value: { audience: { kind: 'person', id: 'marta' } } });
    expect(rowsNow().find((r) => r.outside)).toMatchObject({
      who: { name: 'Marta Quill' },
      effective: { sight: 'busy' },
    });
    expect(martaSees()).toEqual(['busy']);
    // The same address again is the same person: beside a standing grant there is no second one.
    expect(give({})).toMatchObject({ code: 'changedMeanwhile' });
    const people = listPeople(org.ctx('tomas'));
    expect(JSON.stringify(people)).not.toContain('marta');
    // By handle she is found only on a calendar that once named her.
    const bruno = giveAccess(org.ctx('bruno'), org.calendar('bruno'), {
      audience: { kind: 'person', id: 'marta' },
      rights: busy,
      seen: null,
    });
    expect(bruno).toMatchObject({ ok: false, fields: { audience: 'audience' } });
  });

  test('gets no directory, no groups and no house rules, only those who let her see something', () => {
    give({});
    const listed = listPeople(martaCtx());
    expect(listed.ok && listed.value.people.map((p) => p.handle)).toEqual(['ines']);
    expect(listGroups(martaCtx())).toEqual({ ok: true, value: { groups: [], mayChange: false } });
    expect(readHouseRules(martaCtx())).toMatchObject({ code: 'insideOnly' });
    expect(readFrame(martaCtx())).toMatchObject({ me: { inside: false }, principals: [] });
  });

  test('is cut to the house rules, and each right that is barred names what the rules would have to be', () => {
    const preview = previewAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: marta,
      rights: busy,
      seen: null,
      range: WEEK,
    });
    const choice = (group: string, value: string) =>
      preview.ok ? preview.value.choices.find((c) => c.group === group && c.value === value) : null;
    expect(choice('sight', 'busy')).toMatchObject({ barred: null, wants: [] });
    expect(choice('sight', 'outline')).toMatchObject({
      barred: 'outsideSight',
      wants: [{ rule: 'outsideSight', wanted: 'outline' }],
    });
    expect(choice('preset', 'delegate')?.wants).toEqual([
      { rule: 'outsideSight', wanted: 'full' },
      { rule: 'outsideReach', wanted: 'all' },
      { rule: 'outsideExtras', wanted: 'true' },
    ]);
    expect(give({ rights: PRESETS.full }).ok).toBe(true);
    expect(martaSees()).toEqual(['busy']);
    expect(rowsNow().find((r) => r.outside)).toMatchObject({ cutBy: ['outsideSight'] });
    changeHouseRules(org.ctx('ines', START + 1), houseRulesWith({ outsideSight: 'outline' }));
    expect(martaSees()).toEqual(['Open talk']);
  });

  test.each([
    ['nobody@cloudmoor.example', 'addressInside'],
    ['ines@cloudmoor.example', 'audienceOwner'],
  ])('%s is refused at the field: %s', (address, code) => {
    expect(give({ audience: { kind: 'address', address } })).toMatchObject({ ok: false, fields: { audience: code } });
  });

  test('a typed address of somebody inside is that person', () => {
    give({ audience: { kind: 'address', address: 'Amara@Cloudmoor.example' } });
    expect(rowsNow().map((r) => r.audience)).toContainEqual({ kind: 'person', id: 'amara' });
  });
});

describe('a link', () => {
  const make = (rights: Rights = busy, name = 'Notice board') => give({ audience: { kind: 'newLink', name }, rights });
  const keyOf = (given: ReturnType<typeof make>) =>
    given.ok && given.value.audience.kind === 'link' ? given.value.audience.id : '';
  const shows = (secret: string, when = START) => {
    const found = findLink(secret, new Headers(), org.db, when);
    if (!('link' in found)) return found.code;
    const range = {
      from: Date.UTC(2027, 2, 1),
      to: Date.UTC(2027, 2, 8),
      fromDate: '2027-03-01',
      toDate: '2027-03-08',
    };
    return viewsIn(org.db, new Directory(org.db), found.calendar, range, { person: null, decision: found.decision });
  };

  test('shows what it was given to whoever has its address, and nothing once it is withdrawn, suspended, over or made up', () => {
    const key = keyOf(make());
    const secret = linkSecret(key);
    expect(rowsNow().find((r) => r.audience.kind === 'link')?.link).toBe(`/see/${secret}`);
    expect(shows(secret)).toMatchObject([{ shows: 'busy', start: '2027-03-03T09:00:00Z' }]);
    expect(JSON.stringify(shows(secret))).not.toMatch(/Open talk|Marsh|secret/);
    expect(shows(key)).toBe('linkGone');
    expect(shows(`${key}.AAAAAAAAAAAAAAAAAAAAAA`)).toBe('linkGone');
    suspendSharing(org.ctx('ines'), org.calendar('ines'), true);
    expect(shows(secret)).toBe('linkGone');
    suspendSharing(org.ctx('ines'), org.calendar('ines'), false);
    const seen = rowsNow().find((r) => r.audience.kind === 'link')?.grants[0]?.key ?? '';
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: { kind: 'link', id: key }, seen });
    expect(shows(secret)).toBe('linkGone');
  });

  test('never does anything, and wants a name', () => {
    expect(make(PRESETS.booker)).toMatchObject({ fields: { sight: 'linkLooksOnly' } });
    expect(make(busy, ' ')).toMatchObject({ fields: { audience: 'linkName' } });
  });

  test('is made only by those the house rules let', () => {
    changeHouseRules(org.ctx('ines'), houseRulesWith({}, { linksBy: 'administrators' }));
    org.give('bruno', 'tomas', { ...PRESETS.steward });
    const byBruno = giveAccess(org.ctx('bruno'), org.calendar('bruno'), {
      audience: { kind: 'newLink', name: 'x' },
      rights: busy,
      seen: null,
    });
    expect(byBruno).toMatchObject({ fields: { sight: 'linksBy' } });
    expect(make().ok).toBe(true);
    changeHouseRules(org.ctx('ines', START + 1), houseRulesWith({}, { linksBy: 'nobody' }));
    expect(make()).toMatchObject({ fields: { sight: 'linksBy' } });
  });

  test('can be seen through, asked about, and counts among who sees what of an item', () => {
    const key = keyOf(make());
    const as = listItems(org.ctx('ines'), org.calendar('ines'), { ...WEEK, as: `link:${key}` });
    expect(as).toMatchObject({ value: { head: { as: 'Notice board' }, items: [{ shows: 'busy' }] } });
    const explained = explainAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'link', id: key },
      item,
      at: null,
    });
    expect(explained).toMatchObject({ value: { seen: 'busy', steps: [{ step: 'link' }, { step: 'item.follow' }] } });
    expect(readItemSight(org.ctx('ines'), item)).toMatchObject({
      value: { links: [{ seen: 'busy', name: 'Notice board' }] },
    });
    // Of another's calendar it is nobody.
    expect(listItems(org.ctx('bruno'), org.calendar('bruno'), { ...WEEK, as: `link:${key}` })).toMatchObject({
      ok: false,
    });
  });
});

describe('what comes by itself', () => {
  const mine = () => {
    const listed = listPeople(org.ctx('amara'));
    const ines = listed.ok ? listed.value.people.find((p) => p.handle === 'ines') : undefined;
    return ines && { sight: ines.rights.sight, until: ines.until, next: ines.next?.sight ?? null };
  };
  const forATime = (rights: Rights, from: string | null, until: string | null) =>
    give({ audience: { kind: 'person', id: 'amara' }, rights, span: { from, until, zone: 'UTC' } });

  test('is said with what it comes to: better as well as less, and what changes nothing isn’t', () => {
    expect(mine()).toEqual({ sight: 'busy', until: null, next: null });
    forATime(PRESETS.delegate, '2027-03-08', '2027-03-12');
    expect(mine()).toEqual({ sight: 'busy', until: '2027-03-08T00:00:00Z', next: 'full' });
    give({ audience: { kind: 'person', id: 'amara' }, rights: PRESETS.delegate });
    expect(mine()).toEqual({ sight: 'full', until: null, next: null });
  });
});

describe('several at once', () => {
  const entry = (audience: object, rights: Rights = busy) => giveBody.parse({ audience, rights, seen: null });
  const amara = { kind: 'person', id: 'amara' };
  const dario = { kind: 'person', id: 'dario' };
  test('are all given or none, and a refusal names which', () => {
    const wrong = giveSeveral(org.ctx('ines'), org.calendar('ines'), {
      gives: [entry(amara), entry(marta), entry({ kind: 'person', id: 'nobody' })],
    });
    expect(wrong).toMatchObject({ fields: { 'gives.2.audience': 'audience' } });
    expect(rowsNow()).toHaveLength(1);
    expect(personByAddress(org.db, MARTA)).toBeNull();
    const twice = giveSeveral(org.ctx('ines'), org.calendar('ines'), { gives: [entry(amara), entry(amara)] });
    expect(twice).toMatchObject({ fields: { 'gives.1.audience': 'audienceTwice' } });
    const all = giveSeveral(org.ctx('ines'), org.calendar('ines'), {
      gives: [entry(amara), entry(marta), entry(dario, PRESETS.shutOut)],
    });
    expect(all.ok).toBe(true);
    expect(rowsNow()).toHaveLength(4);
  });
});
