import { describe, expect, test, vi } from 'vitest';
import { giveBody } from '@/contract/sharing/sharing.ts';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { firstOf } from '../../repositories/shareables.ts';
import { listNotices } from '../messages/notices.ts';
import { remindOfEnds } from '../messages/remind-of-ends.ts';
import { sendLetters, settleLetters } from '../messages/send-letters.ts';
import { setMembership } from '../people/groups.ts';
import { houseRulesWith, START } from '../small-organisation.ts';
import { giveAccess, takeAccess } from './give-access.ts';
import { changeHouseRules } from './house-rules.ts';
import { eachOutsideDay, give, letters, MARTA, martaCtx, org, rowsNow } from './outside-day.ts';
import { listSightlines } from './sightlines.ts';
import { suspendSharing } from './suspend-sharing.ts';

vi.mock('../../auth/accounts.ts', () => ({
  makeBareAccount: async (address: string) => `account of ${address}`,
  makeGuestToken: async (address: string) => `token-for-${address}`,
}));

eachOutsideDay();

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

describe('letters to somebody outside', () => {
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
