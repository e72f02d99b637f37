import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { giveBody } from '@/contract/sharing/sharing.ts';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { linkSecret } from '../../ids.ts';
import type { ReadyLetter } from '../../mail/post.ts';
import { personByAddress } from '../../repositories/people.ts';
import { firstOf } from '../../repositories/shareables.ts';
import { Directory } from '../deciding/context/directory.ts';
import { viewsIn } from '../deciding/reading/views.ts';
import { readFrame } from '../frame/read-frame.ts';
import { listItems } from '../items/list-items.ts';
import { listNotices } from '../messages/notices.ts';
import { remindOfEnds } from '../messages/remind-of-ends.ts';
import { sendLetters, settleLetters } from '../messages/send-letters.ts';
import { changeDomains } from '../people/domains.ts';
import { listGroups, setMembership } from '../people/groups.ts';
import { listPeople } from '../people/list-people.ts';
import { at, houseRulesWith, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { explainAccess, readItemSight } from './explain-access.ts';
import { giveAccess, giveSeveral, takeAccess } from './give-access.ts';
import { changeHouseRules, readHouseRules } from './house-rules.ts';
import { findLink } from './links.ts';
import { previewAccess } from './preview-access.ts';
import { listSightlines } from './sightlines.ts';
import { suspendSharing } from './suspend-sharing.ts';

vi.mock('../../auth/accounts.ts', () => ({
  makeBareAccount: async (address: string) => `account of ${address}`,
  makeGuestToken: async (address: string) => `token-for-${address}`,
}));

let org: SmallOrganisation;
let item: string;
beforeEach(() => {
  org = smallOrganisation();
  changeDomains(org.ctx('ines'), { domains: ['cloudmoor.example'] });
  item = org.add('ines', 'ines', {
    title: 'Open talk',
    place: 'Marsh Lab',
    notes: 'secret',
    when: at('2027-03-03', 9),
  }).id;
});
afterEach(() => org.close());

const MARTA = 'marta@quill-audit.example';
const marta = { kind: 'address', address: MARTA, name: 'Marta Quill' } as const;
const busy: Rights = PRESETS.freeBusy;
const give = (more: object, by = 'ines', when = START) =>
  giveAccess(
    org.ctx(by, when),
    org.calendar('ines'),
    giveBody.parse({ audience: marta, rights: busy, seen: null, ...more }),
  );
const rowsNow = (by = 'ines', when = START) => {
  const lines = listSightlines(org.ctx(by, when), org.calendar('ines'));
  return lines.ok ? lines.value.rows : [];
};
const martaCtx = (when = START) => {
  const viewer = personByAddress(org.db, MARTA);
  if (!viewer) throw new Error('nobody');
  return { db: org.db, now: when, viewer };
};
const martaSees = (when = START) => {
  const listed = listItems(martaCtx(when), org.calendar('ines'), WEEK);
  return listed.ok ? listed.value.items.map((i) => i.title ?? i.shows) : listed.code;
};
const letters = async (post: ((letter: ReadyLetter) => Promise<void>) | null, when = START) => {
  const sent: ReadyLetter[] = [];
  await sendLetters(org.db, when, post && (async (letter) => void sent.push(letter)));
  return sent;
};

describe('before the end', () => {
  const DAY = 86_400_000;
  const remind = (days: number) => remindOfEnds(org.db, START + days * DAY);
  const until = (date: string, tell: { note: string } | null = { note: '' }) =>
    give({ span: { from: null, until: date, zone: 'Europe/Lisbon' }, tell });

  test('who is outside gets one letter that says so, and no second one', async () => {
    expect(until('2027-03-20').ok).toBe(true);
    await letters(async () => {});
    expect(remind(14)).toBe(0);
    expect(remind(17)).toBe(1);
    expect(remind(17)).toBe(0);
    const [letter, ...more] = await letters(async () => {}, START + 17 * DAY);
    expect(more).toEqual([]);
    expect(letter?.to.address).toBe(MARTA);
    expect(letter?.text).toContain('Your access to Ines’s calendar ends after 20 March 2027.');
  });

  test('none where the giving itself was days ago, was quiet, was extended, or is over', async () => {
    until('2027-03-04');
    expect(remind(0.5)).toBe(0);
    const row = () => rowsNow().find((r) => r.outside)?.grants[0]?.key ?? null;
    const later = (date: string, tell: { note: string } | null) =>
      give({ seen: row(), span: { from: null, until: date, zone: 'Europe/Lisbon' }, tell });
    expect(later('2027-03-20', null).ok).toBe(true);
    await letters(async () => {});
    expect(remind(17)).toBe(1);
    expect(later('2027-04-20', null).ok).toBe(true);
    expect(await letters(async () => {}, START + 17 * DAY)).toEqual([]);
    expect(remind(60)).toBe(0);
  });

  test('none where nothing is seen anyway', () => {
    const nothing = { rights: NO_RIGHTS, span: { from: null, until: '2027-03-20', zone: 'UTC' }, tell: { note: '' } };
    expect(give(nothing).ok).toBe(true);
    expect(remind(17)).toBe(0);
  });

  test('none for whoever was never told, or is inside', () => {
    expect(until('2027-03-20', null).ok).toBe(true);
    const inside = { audience: { kind: 'person', id: 'wren' }, span: { from: null, until: '2027-03-20', zone: 'UTC' } };
    expect(give({ ...inside, tell: { note: '' } }).ok).toBe(true);
    expect(remind(17)).toBe(0);
  });
});

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

  test('is told by a letter with a way in that says what she gets; a letter about what no longer stands isn’t sent', async () => {
    give({ tell: { note: 'See you on Monday.' } });
    expect(rowsNow().find((r) => r.outside)?.grants[0]?.letter).toBe('waiting');
    const [letter, ...more] = await letters(async () => {});
    expect(more).toEqual([]);
    expect(letter?.to).toEqual({ name: 'Marta Quill', address: MARTA });
    expect(letter?.text).toContain('sees when Ines is free or busy, and nothing else.');
    expect(letter?.text).toContain('“See you on Monday.”');
    expect(letter?.text).toContain(`/guest/token-for-${MARTA}`);
    expect(letter?.text).not.toContain('Open talk');
    expect(rowsNow().find((r) => r.outside)?.grants[0]?.letter).toBe('sent');
    expect(await letters(async () => {})).toEqual([]);
    const seen = rowsNow().find((r) => r.outside)?.grants[0]?.key ?? '';
    give({ audience: { kind: 'person', id: 'marta' }, rights: PRESETS.titles, seen, tell: { note: '' } });
    takeAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'person', id: 'marta' },
      seen: rowsNow().find((r) => r.outside)?.grants[0]?.key ?? '',
      tell: null,
    });
    expect(await letters(async () => {})).toEqual([]);
  });

  test('who was told of it is told of what becomes of it, by whoever it is done; quietly, they aren’t', async () => {
    give({ tell: { note: '' } });
    await letters(async () => {});
    const current = () => rowsNow().find((r) => r.outside)?.grants[0]?.key ?? '';
    const marta = { kind: 'person', id: 'marta' } as const;
    give({ audience: marta, rights: PRESETS.titles, seen: current(), tell: null });
    expect(await letters(async () => {})).toEqual([]);
    // Nobody told her of that one: what becomes of it isn't said by itself either.
    give({ audience: marta, rights: PRESETS.freeBusy, seen: current() });
    expect(await letters(async () => {})).toEqual([]);
    give({ audience: marta, rights: PRESETS.titles, seen: current(), tell: { note: '' } });
    await letters(async () => {});
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: marta, seen: current() });
    expect(await letters(async () => {})).toHaveLength(1);
  });

  test('hears of an act that named her in nothing: that all sharing rests, and that she is out of a group', async () => {
    expect(give({ tell: { note: '' } }).ok).toBe(true);
    await letters(async () => {});
    expect(suspendSharing(org.ctx('ines'), org.calendar('ines'), true).ok).toBe(true);
    const [rests] = await letters(async () => {});
    expect(rests?.text).toContain('You no longer have access of your own to Ines’s calendar.');
    expect(rests?.text).not.toContain('/guest/');
    expect(suspendSharing(org.ctx('ines'), org.calendar('ines'), false).ok).toBe(true);
    const [resumed] = await letters(async () => {});
    expect(resumed?.text).toContain('Ines has changed what you get of their calendar.');
    expect(resumed?.text).toContain('sees when Ines is free or busy, and nothing else.');
    expect(resumed?.text).toContain(`/guest/token-for-${MARTA}`);

    const auditors = org.group('Auditors', []);
    const audience = { kind: 'group', id: auditors } as const;
    changeHouseRules(org.ctx('ines'), houseRulesWith({ outsideSight: 'outline' }));
    expect(setMembership(org.ctx('ines'), auditors, { handle: 'marta', member: true }).ok).toBe(true);
    expect(give({ audience, rights: PRESETS.titles, tell: null }).ok).toBe(true);
    expect(setMembership(org.ctx('ines'), auditors, { handle: 'marta', member: false }).ok).toBe(true);
    // Her own grant stood first and still does: nothing is less by it.
    expect(await letters(async () => {})).toEqual([]);
    expect(setMembership(org.ctx('ines'), auditors, { handle: 'marta', member: true }).ok).toBe(true);
    const own = rowsNow().find((r) => r.outside)?.grants[0]?.key ?? '';
    const named = { audience: { kind: 'person', id: 'marta' }, seen: own, tell: null } as const;
    expect(takeAccess(org.ctx('ines'), org.calendar('ines'), named).ok).toBe(true);
    expect(setMembership(org.ctx('ines'), auditors, { handle: 'marta', member: false }).ok).toBe(true);
    const [out, ...more] = await letters(async () => {});
    expect(more).toEqual([]);
    expect(out?.text).toContain('You no longer have access of your own to Ines’s calendar.');
  });

  test('who never came in and was never told hears nothing of such an act either', async () => {
    expect(give({ tell: null }).ok).toBe(true);
    suspendSharing(org.ctx('ines'), org.calendar('ines'), true);
    expect(await letters(async () => {})).toEqual([]);
  });

  test.each([
    ['tasks', 'Ines lets you see their tasks.', 'Ines’s tasks', 'tasks?list='],
    ['contacts', 'Ines lets you see their contacts.', 'Ines’s contacts', 'contacts?list='],
    [
      'arrived',
      'Ines lets you see their folder of messages “Arrived”.',
      'Ines’s folder of messages “Arrived”',
      'messages?folder=',
    ],
  ] as const)(
    'a letter about her %s, given to a group, says what it is about and how far it goes, and leads there',
    async (what, says, subject, page) => {
      expect(give({ tell: null }).ok).toBe(true);
      const key = firstOf(org.db, org.person('ines').id, what)?.key ?? '';
      const auditors = org.group('Auditors', ['tomas']);
      expect(setMembership(org.ctx('ines'), auditors, { handle: 'marta', member: true }).ok).toBe(true);
      const audience = { kind: 'group', id: auditors } as const;
      const giveGroup = (rights: Rights, outsideSight: 'busy' | 'title') => {
        changeHouseRules(org.ctx('ines'), houseRulesWith({ outsideSight }));
        return giveAccess(org.ctx('ines'), key, giveBody.parse({ audience, rights, seen: null, tell: { note: '' } }));
      };
      // By the house rules nothing of it reaches somebody outside: there is nothing to tell her.
      expect(giveGroup(PRESETS.outline, 'busy').ok).toBe(true);
      const row = () => {
        const lines = listSightlines(org.ctx('ines'), key);
        return lines.ok ? lines.value.rows.find((r) => r.audience.kind === 'group')?.grants[0] : undefined;
      };
      expect(row()?.letter).toBeNull();
      expect(await letters(async () => {})).toEqual([]);
      const told = listNotices(martaCtx());
      expect(told.ok && told.value.notices).toEqual([]);
      takeAccess(org.ctx('ines'), key, { audience, seen: row()?.key ?? '', tell: null });
      expect(giveGroup(PRESETS.full, 'title').ok).toBe(true);
      // How far the letters to those outside are stands with what was given.
      expect(row()?.letter).toBe('waiting');
      const [letter, ...more] = await letters(async () => {});
      expect(more).toEqual([]);
      expect(letter?.text).toContain(says);
      expect(letter?.text).not.toMatch(/calendar|every/i);
      expect(letter?.subject).toBe(subject);
      expect(letter?.text).toContain(encodeURIComponent(`/for/marta/${page}${key}`));
      const notices = listNotices(martaCtx());
      expect(notices.ok && notices.value.notices[0]?.rights?.sight).toBe('title');
    },
  );

  test('what a group is given from a later day on is told with that day, and how far it goes then', async () => {
    expect(give({ tell: null }).ok).toBe(true);
    const auditors = org.group('Auditors', []);
    expect(setMembership(org.ctx('ines'), auditors, { handle: 'marta', member: true }).ok).toBe(true);
    takeAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'person', id: 'marta' },
      seen: rowsNow().find((r) => r.outside)?.grants[0]?.key ?? '',
      tell: null,
    });
    const span = { from: '2027-03-10', until: '2027-03-20', zone: 'Europe/Lisbon' };
    const audience = { kind: 'group', id: auditors } as const;
    expect(give({ audience, rights: PRESETS.full, span, tell: { note: '' } }).ok).toBe(true);
    const [letter, ...more] = await letters(async () => {});
    expect(more).toEqual([]);
    expect(letter?.text).toContain('sees when Ines is free or busy, and nothing else.');
    expect(letter?.text).toContain('It begins on 10 March 2027.');
    expect(letter?.text).toContain('It ends after 20 March 2027.');
  });

  test('a letter that fails is tried again, and given up where no mail service is set or the process ended with it in hand', async () => {
    give({ tell: { note: '' } });
    const state = () => rowsNow().find((r) => r.outside)?.grants[0]?.letter;
    await sendLetters(org.db, START, async () => {
      throw new Error('busy');
    });
    expect(state()).toBe('waiting');
    expect(await letters(async () => {}, START + 59_000)).toEqual([]);
    await sendLetters(org.db, START + 60_000, async () => {
      // The process ends while the letter is on its way.
      settleLetters(org.db);
      throw new Error('gone');
    });
    expect(state()).toBe('waiting');
    await letters(null, START + 11 * 60_000);
    expect(state()).toBe('failed');
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
    const asked = explainAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'link', id: key },
      item,
      at: null,
    });
    expect(asked).toMatchObject({ value: { seen: 'busy', steps: [{ step: 'link' }, { step: 'item.follow' }] } });
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
