import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { answerAccessRequestBody, requestAccessBody } from '@/contract/sharing/access-requests.ts';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { putAccessRequest } from '../../repositories/access-requests.ts';
import { firstOf } from '../../repositories/shareables.ts';
import { decideOnShared } from '../deciding/index.ts';
import { readFrame } from '../frame/read-frame.ts';
import { listItems } from '../items/list-items.ts';
import { listNotices, readNotices } from '../messages/notices.ts';
import { at, houseRulesWith, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { accessRequestsToAnswer, listAccessRequests } from './access-requests.ts';
import { answerAccessRequest } from './answer-access-request.ts';
import { giveAccess, takeAccess } from './give-access.ts';
import { changeHouseRules } from './house-rules.ts';
import { accessRequestChoices, remindOfAccessRequest, requestAccess, withdrawAccessRequest } from './request-access.ts';
import { listSightlines } from './sightlines.ts';
import { suspendSharing } from './suspend-sharing.ts';

const DAY = 86_400_000;
let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.add('ines', 'ines', { title: 'Open talk', when: at('2027-03-03', 9) });
});
afterEach(() => org.close());

const request = (who: string, to: string | string[], more: object = {}, when = START) =>
  requestAccess(
    org.ctx(who, when),
    requestAccessBody.parse({ to: [to].flat(), rights: PRESETS.outline, why: 'to plan the weir', ...more }),
  );
const lists = (who: string, when = START) => {
  const listed = listAccessRequests(org.ctx(who, when));
  if (!listed.ok) throw new Error(listed.code);
  return listed.value;
};
const waiting = (who: string, when = START) => lists(who, when).waiting;
const answer = (who: string, key: string, body: object, when = START) =>
  answerAccessRequest(org.ctx(who, when), key, answerAccessRequestBody.parse({ turns: 0, ...body }));
const give = (rights: Rights = PRESETS.outline, more: object = {}) => ({ answer: 'give', rights, seen: null, ...more });
const sees = (who: string, when = START) => {
  const listed = listItems(org.ctx(who, when), org.calendar('ines'), WEEK);
  return listed.ok ? listed.value.items.map((i) => i.title ?? i.shows) : listed.code;
};
const giveDirectly = (to: string, rights: Rights, seen: string | null = null, when = START) =>
  giveAccess(org.ctx('ines', when), org.calendar('ines'), { audience: { kind: 'person', id: to }, rights, seen });

describe('an access request', () => {
  test('goes to the owner and to those who give access for them, and to nobody else', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    org.give('ines', 'bruno', PRESETS.delegate);
    expect(request('amara', 'ines')).toEqual({ ok: true, value: { asked: 1, already: 0 } });
    expect(waiting('ines')[0]).toMatchObject({
      from: { name: 'Amara' },
      why: 'to plan the weir',
      own: true,
      preset: 'outline',
    });
    expect(waiting('tomas')[0]).toMatchObject({ to: { handle: 'ines' }, own: false });
    for (const who of ['bruno', 'dario', 'amara']) expect(waiting(who)).toEqual([]);
    expect(lists('amara').own[0]).toMatchObject({ state: 'open', to: { name: 'Ines' }, answers: [] });
    expect(readFrame(org.ctx('tomas')).unread).toBe(1);
  });

  test('is answered alike for whoever was shut out, whoever has nothing and whoever has no calendar of use', () => {
    giveDirectly('dario', PRESETS.shutOut);
    const answers = ['dario', 'amara'].map((who) => request(who, 'ines'));
    expect(answers[0]).toEqual(answers[1]);
    const [shut, plain] = ['dario', 'amara'].map((who) => ({ ...lists(who).own[0], key: '', from: null, has: null }));
    expect(shut).toEqual(plain);
  });

  test.each([
    [{ rights: NO_RIGHTS }, { sight: 'askNothing' }],
    [{ rights: { ...PRESETS.outline, change: 'all' } }, { change: 'unclear' }],
    [{ span: { from: null, until: '2027-02-01', zone: 'Europe/Lisbon' } }, { until: 'datePassed' }],
    [{ calendar: 'another' }, { calendar: 'unclear' }],
  ])('%j is refused at its field, and nobody is asked', (more, fields) => {
    expect(request('amara', 'ines', more)).toMatchObject({ ok: false, fields });
    expect(waiting('ines')).toEqual([]);
  });

  test('to several is one ask each, those left out who show that already; one unknown among them stops all', () => {
    org.give('tomas', 'amara', PRESETS.full);
    expect(request('amara', ['ines', 'nobody'])).toMatchObject({ fields: { 'to.1': 'personMissing' } });
    expect(request('amara', ['ines', 'amara'])).toMatchObject({ fields: { 'to.1': 'askSelf' } });
    expect(waiting('ines')).toEqual([]);
    expect(request('amara', ['ines', 'tomas', 'bruno'])).toEqual({ ok: true, value: { asked: 2, already: 1 } });
    expect(waiting('tomas')).toEqual([]);
    expect(request('amara', 'tomas')).toMatchObject({ fields: { sight: 'askedHas' } });
  });

  test('asked again while it waits takes the new words, and stays one', () => {
    request('amara', 'ines');
    request('amara', 'ines', { why: 'for the audit', rights: PRESETS.full }, START + 1000);
    expect(waiting('ines')).toHaveLength(1);
    expect(waiting('ines')[0]).toMatchObject({ why: 'for the audit', preset: 'full' });
  });

  test('shows one’s own in return where that is said, at once and whatever the answer; otherwise never', () => {
    request('amara', 'ines');
    const mine = () => {
      const lines = listSightlines(org.ctx('amara'), org.calendar('amara'));
      return lines.ok
        ? lines.value.rows.filter((r) => r.audience.kind === 'person').map((r) => r.grants[0]?.preset)
        : [];
    };
    expect(mine()).toEqual([]);
    request('amara', 'ines', { offers: 'title' });
    expect(mine()).toEqual(['titles']);
    expect(waiting('ines')[0]?.gave?.sight).toBe('title');
    // What more she gave by hand meanwhile isn't lowered by asking again.
    request('amara', 'ines', { offers: 'busy' });
    expect(mine()).toEqual(['titles']);
    answer('ines', waiting('ines')[0]?.key ?? '', { answer: 'refuse', turns: 2 });
    expect(mine()).toEqual(['titles']);
  });

  test('is reminded of once a day, taken back while it waits, and then found by nobody', () => {
    request('amara', 'ines');
    const [own] = lists('amara').own;
    expect(remindOfAccessRequest(org.ctx('amara', START + DAY - 1), own?.key ?? '')).toMatchObject({
      code: 'nudgedToday',
    });
    expect(remindOfAccessRequest(org.ctx('amara', START + DAY), own?.key ?? '').ok).toBe(true);
    expect(remindOfAccessRequest(org.ctx('amara', START + DAY + 1), own?.key ?? '')).toMatchObject({
      code: 'nudgedToday',
    });
    expect(waiting('ines')[0]?.nudged).toBe('2027-03-03T09:00:00Z');
    for (const work of [remindOfAccessRequest, withdrawAccessRequest])
      expect(work(org.ctx('dario'), own?.key ?? '')).toMatchObject({ code: 'notFound' });
    expect(withdrawAccessRequest(org.ctx('amara'), own?.key ?? '').ok).toBe(true);
    expect(waiting('ines')).toEqual([]);
    expect(answer('ines', own?.key ?? '', give())).toMatchObject({ code: 'askGone' });
  });

  test('says what can be asked for, and what each choice comes to, without a word of anybody', () => {
    const choices = accessRequestChoices(org.ctx('dario'), { rights: PRESETS.outline });
    const of = (value: string) => choices.ok && choices.value.choices.find((c) => c.value === value)?.rights;
    expect(of('arrange')).toMatchObject({ sight: 'full', change: 'all' });
    expect(of('title')).toEqual(PRESETS.titles);
    expect(of('nothing')).toBeUndefined();
  });
});

describe('an access request for something else than a calendar', () => {
  const listKey = (who: string, what: 'tasks' | 'contacts' | 'arrived') =>
    firstOf(org.db, org.person(who).id, what)?.key ?? '';
  const works: Rights = { ...PRESETS.full, add: true, change: 'all', remove: 'all' };

  test.each(['tasks', 'contacts', 'arrived', 'sent', 'drafts', 'filed'] as const)(
    'of %s is its own ask beside one of the calendar, and a yes gives that alone',
    (what) => {
      request('amara', 'ines');
      expect(request('amara', 'ines', { what, rights: PRESETS.titles })).toEqual({
        ok: true,
        value: { asked: 1, already: 0 },
      });
      const [calendar, other] = waiting('ines').sort((a) => (a.further === null ? -1 : 1));
      expect(calendar?.further).toBe(null);
      expect(other?.further).toMatchObject({ what });
      expect(lists('amara').own.find((one) => one.further)).toMatchObject({ further: { key: '', what } });
      expect(answer('ines', other?.key ?? '', give(works)).ok).toBe(true);
      expect(sees('amara')).toEqual(['busy']);
      const shared = firstOf(org.db, org.person('ines').id, what);
      expect(shared && decideOnShared(org.ctx('amara'), shared).decision.rights.change).toBe('all');
      expect(lists('amara').own.find((one) => one.further)).toMatchObject({ further: { key: shared?.key } });
      expect(waiting('ines')).toHaveLength(1);
      expect(request('amara', 'ines', { what, rights: PRESETS.titles })).toMatchObject({
        fields: { sight: 'askedHas' },
      });
    },
  );

  test('shows one’s own of that in return, and nothing else of one’s', () => {
    expect(request('amara', 'ines', { what: 'contacts', offers: 'busy' })).toMatchObject({
      fields: { offers: 'unclear' },
    });
    expect(request('amara', 'ines', { what: 'contacts', offers: 'title' }).ok).toBe(true);
    const seenBy = (what: 'contacts' | 'tasks' | 'calendar') => {
      const shared = firstOf(org.db, org.person('amara').id, what);
      return shared && decideOnShared(org.ctx('ines'), shared).decision.rights.sight;
    };
    expect([seenBy('contacts'), seenBy('tasks'), seenBy('calendar')]).toEqual(['title', 'nothing', 'busy']);
  });

  test.each([
    [{ what: 'tasks', rights: PRESETS.freeBusy }, { sight: 'unclear' }],
    [{ what: 'contacts', rights: { ...works, speaks: true } }, { speaks: 'unclear' }],
    [{ what: 'everything' }, null],
  ])('%j is refused at its field', (more, fields) => {
    if (fields) expect(request('amara', 'ines', more)).toMatchObject({ ok: false, fields });
    else expect(() => request('amara', 'ines', more)).toThrow();
  });

  test('of a further one names one that the asker sees something of', () => {
    const key = listKey('ines', 'tasks');
    const named = { calendar: key, rights: PRESETS.titles };
    expect(request('amara', 'ines', named)).toMatchObject({ fields: { calendar: 'unclear' } });
    giveAccess(org.ctx('ines'), key, { audience: { kind: 'person', id: 'amara' }, rights: PRESETS.titles, seen: null });
    expect(request('amara', 'ines', { ...named, rights: PRESETS.full }).ok).toBe(true);
    expect(waiting('ines')[0]).toMatchObject({
      further: { key, kind: 'tasks', what: 'tasks' },
      has: { sight: 'title' },
    });
    expect(request('amara', 'tomas', { ...named, rights: PRESETS.full })).toMatchObject({
      fields: { calendar: 'unclear' },
    });
  });

  test('goes to whoever gives access to that, whatever they may do of the calendar', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    request('amara', 'ines', { what: 'arrived', rights: PRESETS.full });
    expect(waiting('tomas')).toEqual([]);
    const shares = { ...works, speaks: true, shares: true };
    const given = giveAccess(org.ctx('ines'), listKey('ines', 'arrived'), {
      audience: { kind: 'person', id: 'tomas' },
      rights: shares,
      seen: null,
    });
    expect(given.ok).toBe(true);
    expect(waiting('tomas')).toHaveLength(1);
    expect(answer('tomas', waiting('tomas')[0]?.key ?? '', give(PRESETS.full)).ok).toBe(true);
    const told = listNotices(org.ctx('amara'));
    expect(told.ok && told.value.notices[0]).toMatchObject({ kind: 'given', further: { kind: 'folder' } });
  });
});

describe('an answer', () => {
  let key = '';
  beforeEach(() => {
    request('amara', 'ines');
    key = waiting('ines')[0]?.key ?? '';
  });

  test('gives the level that is chosen, tells the asker with its words, and counts at once', () => {
    expect(answer('ines', key, give(PRESETS.titles, { note: 'Titles will do' })).ok).toBe(true);
    expect(sees('amara')).toEqual(['Open talk']);
    expect(lists('amara').own[0]).toMatchObject({
      state: 'given',
      news: true,
      answers: [{ answer: 'given', by: { actor: 'Ines' }, note: 'Titles will do', rights: { sight: 'title' } }],
    });
    const told = listNotices(org.ctx('amara'));
    expect(told.ok && told.value.notices[0]).toMatchObject({ kind: 'given', note: 'Titles will do' });
    expect(readFrame(org.ctx('amara')).unread).toBe(2);
    readNotices(org.ctx('amara'));
    expect(readFrame(org.ctx('amara')).unread).toBe(0);
    expect(waiting('ines')).toEqual([]);
    expect(lists('ines').answered).toHaveLength(1);
  });

  test('is one, where two answer: the second is told who was first, and nothing of theirs is done', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    expect(answer('tomas', key, give(PRESETS.titles)).ok).toBe(true);
    expect(answer('ines', key, give(PRESETS.full))).toMatchObject({ code: 'askAnswered', facts: { name: 'Tomas' } });
    expect(answer('ines', key, { answer: 'refuse' })).toMatchObject({ code: 'askAnswered' });
    expect(lists('amara').own[0]?.answers[0]?.by).toEqual({ actor: 'Tomas', principal: 'Ines' });
    expect(sees('amara')).toEqual(['Open talk']);
  });

  test('gives no more than whoever answers holds, nor anything to whom they may not', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    org.give('ines', 'bruno', PRESETS.delegate);
    const letIn = { ...PRESETS.full, private: true };
    expect(answer('tomas', key, give(letIn))).toMatchObject({ fields: { private: 'giverHoldsLess' } });
    expect(answer('bruno', key, give())).toMatchObject({ code: 'notFound' });
    expect(answer('amara', key, give())).toMatchObject({ code: 'notFound' });
    expect(answer('ines', key, give(NO_RIGHTS))).toMatchObject({ fields: { sight: 'giveNothing' } });
    expect(waiting('ines')).toHaveLength(1);
  });

  test('for a time ends by itself, and the access request says so', () => {
    const until = { from: null, until: '2027-03-05', zone: 'Europe/Lisbon' };
    expect(answer('ines', key, give(PRESETS.full, { span: until })).ok).toBe(true);
    const later = START + 5 * DAY;
    expect(lists('amara').own[0]?.has.sight).toBe('full');
    expect(lists('amara', later).own[0]).toMatchObject({ state: 'given', has: { sight: 'busy' } });
  });

  test('no is said with words, or without telling: then the asker sees that it is closed, and not by whom', () => {
    answer('ines', key, { answer: 'refuse', note: 'After the board' });
    expect(lists('amara').own[0]).toMatchObject({
      state: 'refused',
      news: true,
      answers: [{ note: 'After the board' }],
    });
    expect(request('amara', 'ines')).toMatchObject({ code: 'askedToday', facts: { name: 'Ines' } });
    request('dario', 'ines');
    const other = waiting('ines')[0]?.key ?? '';
    answer('ines', other, { answer: 'refuse', note: 'unsaid', quiet: true });
    expect(lists('dario').own[0]).toMatchObject({ state: 'refused', news: false, answers: [{ by: null, note: '' }] });
    expect(readFrame(org.ctx('dario')).unread).toBe(0);
    // Nor an old one just after it was closed: a day after the answer it may be asked again, and is the same ask.
    expect(request('amara', 'ines', {}, START + DAY).ok).toBe(true);
    expect(waiting('ines', START + DAY)[0]).toMatchObject({ key, answers: [{ answer: 'refused' }] });
  });

  test('no to an access request of weeks ago isn’t asked about again within a day of the no', () => {
    const later = START + 21 * DAY;
    answer('ines', key, { answer: 'refuse', quiet: true }, later);
    expect(request('amara', 'ines', {}, later + DAY - 1)).toMatchObject({ code: 'askedToday' });
    expect(request('amara', 'ines', {}, later + DAY).ok).toBe(true);
  });

  test('a no to what waits leaves what the asker has', () => {
    giveDirectly('amara', PRESETS.titles);
    answer('ines', key, { answer: 'refuse' });
    expect(sees('amara')).toEqual(['Open talk']);
  });

  test('is turned round weeks later: the no takes away what it names, and what was given by hand with it or not', () => {
    answer('ines', key, give(PRESETS.titles));
    const byAnswer = lists('ines').answered[0]?.standing[0];
    expect(byAnswer).toMatchObject({ preset: 'titles', byAsk: true });
    const later = START + 21 * DAY;
    giveDirectly('amara', PRESETS.full, byAnswer?.key ?? null, later);
    const [then] = lists('ines', later).answered;
    expect(then?.standing).toMatchObject([{ preset: 'full', byAsk: false, since: '2027-03-23T09:00:00Z' }]);
    expect(then?.without.sight).toBe('busy');
    const takes = then?.standing.map((g) => g.key);
    expect(answer('ines', key, { answer: 'refuse', turns: 1, takes: ['stale'] }, later)).toMatchObject({
      code: 'changedMeanwhile',
    });
    expect(answer('ines', key, { answer: 'refuse', turns: 1, takes }, later).ok).toBe(true);
    expect(sees('amara', later)).toEqual(['busy']);
    // And back again, from the same place.
    expect(answer('ines', key, give(PRESETS.outline, { turns: 2 }), later + DAY).ok).toBe(true);
    expect(sees('amara', later + DAY)).toEqual(['Open talk']);
    expect(lists('amara', later + DAY).own[0]?.answers.map((a) => a.answer)).toEqual(['given', 'refused', 'given']);
  });

  test('a no after all gives back what stood before the yes, through what was changed by hand since', () => {
    giveDirectly('amara', NO_RIGHTS);
    const [open] = waiting('ines');
    answer('ines', key, give(PRESETS.titles, { seen: open?.standing[0]?.key ?? null }));
    const given = lists('ines').answered[0]?.standing[0]?.key ?? null;
    giveDirectly('amara', PRESETS.full, given, START + DAY);
    const [then] = lists('ines', START + DAY).answered;
    expect(then?.without.sight).toBe('nothing');
    const takes = then?.standing.map((g) => g.key);
    expect(answer('ines', key, { answer: 'refuse', turns: 1, takes }, START + 2 * DAY).ok).toBe(true);
    expect(sees('amara', START + 2 * DAY)).toBe('notFound');
  });

  test('is there already where the access was given by hand meanwhile, and whoever answers late is told so', () => {
    giveDirectly('amara', PRESETS.full);
    expect(waiting('ines')).toEqual([]);
    expect(lists('amara').own[0]).toMatchObject({ state: 'given', news: true });
    expect(answer('ines', key, give(PRESETS.full))).toMatchObject({ code: 'askAnswered', facts: { name: 'Ines' } });
  });

  test('less by hand than was asked leaves the access request waiting', () => {
    giveDirectly('amara', PRESETS.titles);
    expect(waiting('ines')[0]).toMatchObject({ key, standing: [{ preset: 'titles', byAsk: false }] });
    const seen = waiting('ines')[0]?.standing[0]?.key ?? null;
    expect(answer('ines', key, give(PRESETS.outline))).toMatchObject({ code: 'changedMeanwhile' });
    expect(answer('ines', key, give(PRESETS.outline, { seen })).ok).toBe(true);
  });

  test('while sharing is suspended is the owner’s alone', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    suspendSharing(org.ctx('ines'), org.calendar('ines'), true);
    expect(waiting('tomas')).toEqual([]);
    expect(answer('tomas', key, give())).toMatchObject({ code: 'notFound' });
    expect(waiting('ines')).toHaveLength(1);
  });

  test('a steward who lost it in between answers nothing', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    const steward = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const seen = steward.ok ? (steward.value.rows.find((r) => r.who.name === 'Tomas')?.grants[0]?.key ?? '') : '';
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: { kind: 'person', id: 'tomas' }, seen });
    expect(answer('tomas', key, give())).toMatchObject({ code: 'notFound' });
  });
});

describe('from outside', () => {
  const xeno = { kind: 'address', address: 'xeno@river.example', name: 'Xeno' } as const;
  beforeEach(() => {
    changeHouseRules(org.ctx('ines'), houseRulesWith({ outsideSight: 'title' }));
    giveAccess(org.ctx('ines'), org.calendar('ines'), { audience: xeno, rights: PRESETS.freeBusy, seen: null });
  });

  test('one asks whom one was ever given anything by, and nobody else, known or not', () => {
    const [known, unknown] = [request('xeno', 'bruno'), request('xeno', 'nobody')];
    expect(known).toEqual(unknown);
    expect(request('xeno', 'ines').ok).toBe(true);
    expect(request('xeno', 'ines', { offers: 'busy' })).toMatchObject({ fields: { offers: 'noCalendarToOffer' } });
  });

  test('a yes is cut by the house rules, and a no goes as a letter', () => {
    request('xeno', 'ines', { rights: PRESETS.full });
    const [first] = waiting('ines');
    expect(first).toMatchObject({ from: { name: 'Xeno', outside: true }, has: { sight: 'busy' } });
    const letters = () => org.db.arrays<[string]>(`SELECT kind FROM outbox ORDER BY id`).map(([kind]) => kind);
    answer('ines', first?.key ?? '', { answer: 'refuse', note: 'Not now' });
    expect(letters()).toEqual(['refused']);
    const seen = first?.standing[0]?.key ?? null;
    answer('ines', first?.key ?? '', give(PRESETS.full, { turns: 1, seen }));
    expect(letters()).toEqual(['refused', 'changed']);
    expect(lists('xeno').own[0]?.has.sight).toBe('title');
  });
});

test('what waits for an answer is cut where more than a hundred wait, and not where more were answered', () => {
  const many = smallOrganisation(['ines', ...Array.from({ length: 101 }, (_, i) => `asker${i}`)]);
  const { db } = many;
  const ines = many.person('ines').id;
  for (let i = 0; i < 101; i++)
    putAccessRequest(db, {
      key: `ask${i}`,
      fromId: many.person(`asker${i}`).id,
      toId: ines,
      collectionId: null,
      at: START + i,
      rights: PRESETS.outline,
      starts: null,
      ends: null,
      why: '',
      gave: null,
    });
  const toAnswer = (owner = ines) => {
    const { requests, cut } = accessRequestsToAnswer(many.ctx('ines'), new Set([owner]));
    return { waiting: requests.length, cut };
  };
  expect(toAnswer()).toEqual({ waiting: 100, cut: true });
  db.run(`UPDATE ask SET state = 'refused' WHERE key <> 'ask7'`);
  expect(toAnswer()).toEqual({ waiting: 1, cut: false });
  expect(toAnswer(many.person('asker0').id)).toEqual({ waiting: 0, cut: false });
  many.close();
});
