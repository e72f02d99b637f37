import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';

import { removeMeeting } from '../meetings/index.ts';
import { sendLetters } from '../messages/send-letters.ts';
import { takeAccess } from '../sharing/give-access.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import {
  listReminders,
  listReminderWishes,
  readItemReminder,
  remindDue,
  setItemReminder,
  setReminderWish,
  settleReminder,
} from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', PRESETS.full);
});
afterEach(() => org.close());

const TEN = Date.UTC(2027, 2, 3, 10);
const MINUTE = 60_000;
const soon = async () => {};
const remind = (now: number) => remindDue(org.db, now, soon);
const wish = (who: string, minutes: number | null, byMail = false) =>
  setReminderWish(org.ctx(who), org.calendar('ines'), { minutes, byMail });
const due = (who: string, now: number) => listReminders(org.ctx(who, now)).due.map((one) => one.title);

describe('being reminded', () => {
  test('each is, at the time they wish before what takes time, once, and until they say it is done', async () => {
    org.add('ines', 'ines', { title: 'Weir consent', when: at('2027-03-03', 10), place: 'Marsh Lab' });
    org.add('ines', 'ines', { title: 'At Ridge House', when: at('2027-03-03', 10), shows: 'free' });
    wish('ines', 15);
    wish('tomas', 5);
    expect(await remind(TEN - 16 * MINUTE)).toBe(0);
    expect(await remind(TEN - 15 * MINUTE)).toBe(1);
    expect(await remind(TEN - 14 * MINUTE)).toBe(0);
    const [one] = listReminders(org.ctx('ines', TEN - 14 * MINUTE)).due;
    expect(one).toMatchObject({ title: 'Weir consent', place: 'Marsh Lab', owner: { handle: 'ines', own: true } });
    expect(due('tomas', TEN - 14 * MINUTE)).toEqual([]);
    expect(await remind(TEN - 5 * MINUTE)).toBe(1);
    expect(listReminders(org.ctx('tomas', TEN)).due[0]).toMatchObject({ owner: { name: 'Ines', own: false } });
    // Put off, it comes again; done, it doesn't; somebody else's is nobody's.
    const key = one?.key ?? '';
    expect(settleReminder(org.ctx('tomas', TEN), key, 'done')).toMatchObject({ code: 'notFound' });
    settleReminder(org.ctx('ines', TEN - 14 * MINUTE), key, 'later');
    expect(due('ines', TEN - 10 * MINUTE)).toEqual([]);
    expect(due('ines', TEN - 9 * MINUTE)).toEqual(['Weir consent']);
    settleReminder(org.ctx('ines', TEN), key, 'done');
    expect(due('ines', TEN)).toEqual([]);
  });

  test('an item has its own time, or none; of a series each occurrence is reminded of', async () => {
    const { id } = org.add('ines', 'ines', {
      title: 'Rounds',
      when: at('2027-03-03', 10),
      repeat: { rule: 'FREQ=DAILY;COUNT=3' },
    });
    const other = org.add('ines', 'ines', { title: 'Quiet', when: at('2027-03-03', 10) });
    wish('ines', 15);
    setItemReminder(org.ctx('ines'), id, { minutes: 60, byMail: false });
    setItemReminder(org.ctx('ines'), other.id, { minutes: null, byMail: false });
    expect(readItemReminder(org.ctx('ines'), id)).toMatchObject({
      value: { usual: false, minutes: 60, usually: 15 },
    });
    expect(readItemReminder(org.ctx('tomas'), id)).toMatchObject({ value: { usual: true, minutes: null } });
    for (const day of [0, 1, 2]) {
      expect(await remind(TEN + day * 86_400_000 - 60 * MINUTE)).toBe(1);
      expect(await remind(TEN + day * 86_400_000 - 15 * MINUTE)).toBe(0);
    }
    setItemReminder(org.ctx('ines'), other.id, { usual: true });
    expect(await remind(TEN - 15 * MINUTE)).toBe(1);
  });

  test('what is by date begins with its calendar’s day', async () => {
    const when = { start: '2027-07-07', end: '2027-07-08', allDay: true, zone: 'Europe/Lisbon' };
    const { id } = org.add('ines', 'ines', { title: 'Board day', when });
    wish('ines', 15);
    setItemReminder(org.ctx('ines'), id, { minutes: 60, byMail: false });
    // Midnight in Lisbon's summer is eleven in the evening of the day before.
    expect(await remind(Date.UTC(2027, 6, 6, 21, 59))).toBe(0);
    expect(await remind(Date.UTC(2027, 6, 6, 22))).toBe(1);
  });

  test('only who acts is, and only of what they see at that instant', async () => {
    const { id } = org.add('ines', 'ines', { title: 'Severance', when: at('2027-03-03', 10), visibility: 'private' });
    expect(wish('amara', 5)).toMatchObject({ code: 'notFound' });
    expect(setItemReminder(org.ctx('tomas'), id, { minutes: 5, byMail: false })).toMatchObject({ code: 'notFound' });
    expect(listReminderWishes(org.ctx('amara')).calendars.map((c) => c.owner)).toEqual(['Amara']);
    wish('tomas', 5);
    expect(await remind(TEN - 5 * MINUTE)).toBe(0);
    org.add('ines', 'ines', { title: 'Talk', when: at('2027-03-03', 11) });
    expect(await remind(TEN + 55 * MINUTE)).toBe(1);
    expect(due('tomas', TEN + 56 * MINUTE)).toEqual(['Talk']);
    // Access that ended since says nothing any more, and reminds of nothing.
    org.add('ines', 'ines', { title: 'Later', when: at('2027-03-03', 12) });
    const audience = { kind: 'person', id: 'tomas' } as const;
    const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const row = lines.ok
      ? lines.value.rows.find((r) => r.audience.kind === 'person' && r.audience.id === 'tomas')
      : null;
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience, seen: row?.grants[0]?.key ?? '' });
    expect(due('tomas', TEN + 56 * MINUTE)).toEqual([]);
    expect(await remind(TEN + 115 * MINUTE)).toBe(0);
  });

  test('by mail as well, written as they see it when it is written, and not of what is gone by then', async () => {
    const letters: { subject: string; text: string }[] = [];
    const post = async (letter: { subject: string; text: string }) => {
      letters.push(letter);
    };
    org.add('ines', 'ines', { title: 'Weir consent', when: at('2027-03-03', 10), place: 'Marsh Lab' });
    const gone = org.add('ines', 'ines', { title: 'Gone', when: at('2027-03-03', 10) });
    wish('tomas', 15, true);
    expect(await remind(TEN - 15 * MINUTE)).toBe(2);
    removeMeeting(org.ctx('ines'), gone.id, { scope: 'all', version: 1 });
    await sendLetters(org.db, TEN - 14 * MINUTE, post);
    expect(letters).toHaveLength(1);
    expect(letters[0]).toMatchObject({ subject: 'Weir consent, for Ines' });
    expect(letters[0]?.text).toContain('Marsh Lab');
  });
});
