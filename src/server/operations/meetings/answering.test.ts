import { describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { listItems } from '../items/list-items.ts';
import { at, WEEK } from '../small-organisation.ts';
import { actOnMeeting, answerItem, changeMeeting, readMeeting, removeMeeting, takeBack, undoSeveral } from './index.ts';
import {
  address,
  answersOn,
  arrived,
  call,
  ctx,
  eachMeetingDay,
  idIn,
  inCalendar,
  itemOf,
  org,
  pass,
  value,
  who,
} from './meeting-day.ts';

eachMeetingDay();

describe('answering for the owner', () => {
  const invited = () => {
    const made = call('wren', who('ines', 'bruno'), {}, 'wren');
    pass();
    return itemOf(made).uid;
  };
  const answer = (
    by: string,
    uid: string,
    what: 'accepted' | 'declined' | 'tentative',
    seen: 'needs-action' | 'accepted' | 'declined' = 'needs-action',
  ) => answerItem(ctx(by), idIn('ines', uid), { answer: what, comment: 'Gladly', seen, scope: 'all' });

  test('the organiser gets one answer with both names; the calendar follows at once, the list when it left', () => {
    const uid = invited();
    const made = value(answer('tomas', uid, 'accepted'));
    expect(made.sending).toMatchObject({ to: 1, outside: 0 });
    expect(inCalendar('ines', uid)?.ownerAnswer).toBe('accepted');
    expect(answersOn('wren', uid)).toEqual({ ines: 'needs-action', bruno: 'needs-action' });
    pass();
    expect(inCalendar('wren', uid)?.attendees).toContainEqual({
      name: 'Ines',
      address: address('ines'),
      answer: 'accepted',
      by: address('tomas'),
    });
    expect(arrived('wren')).toEqual(['answer']);
    expect(value(readMeeting(ctx('wren'), idIn('wren', uid))).people[0]).toMatchObject({
      answer: 'accepted',
      comment: 'Gladly',
      by: 'Tomas',
    });
    // Nobody else asked hears of it.
    expect(arrived('bruno')).toEqual(['invitation']);
  });

  test('whoever answers first closes it, with who and when; a change of answer is one more press by who has read that', () => {
    const uid = invited();
    value(answer('tomas', uid, 'accepted'));
    expect(answer('oona', uid, 'declined')).toMatchObject({
      ok: false,
      code: 'answeredMeanwhile',
      facts: { name: 'Tomas', answer: 'accepted' },
    });
    pass();
    expect(answer('oona', uid, 'declined')).toMatchObject({ ok: false, code: 'answeredMeanwhile' });
    value(answer('oona', uid, 'declined', 'accepted'));
    pass();
    expect(answersOn('wren', uid).ines).toBe('declined');
    // Declined, it stands for the owner and who acts, and is gone for the rest.
    const seen = (handle: string) => value(listItems(ctx(handle), org.calendar('ines'), WEEK)).items.length;
    expect([seen('ines'), seen('tomas'), seen('dario')]).toEqual([1, 1, 0]);
  });

  test('who doesn’t speak may not answer; what one doesn’t see isn’t there', () => {
    const uid = invited();
    expect(answer('amara', uid, 'accepted')).toMatchObject({ ok: false, code: 'mayNotAnswer' });
    expect(answer('dario', uid, 'accepted')).toMatchObject({ ok: false, code: 'notFound' });
    const id = idIn('ines', uid);
    value(changeMeeting(ctx('ines'), id, { version: 1, scope: 'one', fields: { visibility: 'private' } }));
    expect(answer('tomas', uid, 'accepted')).toMatchObject({ ok: false, code: 'notFound' });
    value(answer('ines', uid, 'accepted'));
  });

  test('taken back, an answer was never given', () => {
    const uid = invited();
    const made = value(answer('tomas', uid, 'declined'));
    value(takeBack(ctx('tomas'), made.sending?.key ?? ''));
    expect(inCalendar('ines', uid)?.ownerAnswer).toBe('needs-action');
    pass();
    expect([answersOn('wren', uid).ines, arrived('wren')]).toEqual(['needs-action', []]);
    value(answer('oona', uid, 'accepted'));
  });

  test('a time is proposed instead, taken by one press, and everybody is asked anew', () => {
    const uid = invited();
    value(
      answerItem(ctx('tomas'), idIn('ines', uid), {
        answer: 'another',
        when: at('2027-03-04', 14),
        comment: 'The train',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    expect(arrived('wren')).toEqual(['counter']);
    expect(value(readMeeting(ctx('ines'), idIn('ines', uid))).answered).toMatchObject({
      answer: 'another',
      name: 'Tomas',
    });
    const read = value(readMeeting(ctx('wren'), idIn('wren', uid)));
    expect(read.people[0]?.counter).toEqual({
      when: { start: '2027-03-04T14:00:00Z', end: '2027-03-04T15:00:00Z', allDay: false },
      comment: 'The train',
    });
    const { key, version } = inCalendar('wren', uid) as StoredItem;
    value(actOnMeeting(ctx('wren'), key, { act: 'takeCounter', attendee: address('ines'), version }));
    pass();
    expect([inCalendar('ines', uid)?.start, inCalendar('bruno', uid)?.start]).toEqual([
      Date.UTC(2027, 2, 4, 14),
      Date.UTC(2027, 2, 4, 14),
    ]);
    expect(value(readMeeting(ctx('wren'), key)).people[0]?.counter).toBeNull();
  });

  test('a proposed time is declined with a word, and the meeting stands', () => {
    const uid = invited();
    const when = at('2027-03-04', 14);
    value(
      answerItem(ctx('ines'), idIn('ines', uid), {
        answer: 'another',
        when,
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    const id = idIn('wren', uid);
    value(actOnMeeting(ctx('wren'), id, { act: 'declineCounter', attendee: address('ines'), comment: 'Wren is away' }));
    pass();
    expect(arrived('ines')).toEqual(['invitation', 'counterDeclined']);
    expect(value(readMeeting(ctx('wren'), id)).people[0]?.counter).toBeNull();
    expect(value(readMeeting(ctx('ines'), idIn('ines', uid))).answered).toBeNull();
  });

  test('of what others call, one’s own copy keeps what is one’s own; the rest isn’t changed here', () => {
    const uid = invited();
    const { key, version } = inCalendar('ines', uid) as StoredItem;
    expect(changeMeeting(ctx('tomas'), key, { version, scope: 'one', fields: { title: 'Mine' } })).toMatchObject({
      code: 'calledByOthers',
    });
    value(
      changeMeeting(ctx('tomas'), key, {
        version,
        scope: 'one',
        fields: { visibility: 'outline', briefing: 'Bring maps' },
      }),
    );
    const theirs = inCalendar('wren', uid) as StoredItem;
    value(
      changeMeeting(ctx('wren'), theirs.key, {
        version: theirs.version,
        scope: 'one',
        when: at('2027-03-05', 9),
        fields: {},
      }),
    );
    pass();
    expect(inCalendar('ines', uid)).toMatchObject({
      start: Date.UTC(2027, 2, 5, 9),
      visibility: 'outline',
      briefing: 'Bring maps',
      ownerAnswer: 'needs-action',
    });
    expect(theirs.briefing).toBeNull();
  });

  test.each(['all', 'one'] as const)('taken out of the calendar, an invitation is declined, as %s', (scope) => {
    const uid = invited();
    const { key, version } = inCalendar('ines', uid) as StoredItem;
    value(removeMeeting(ctx('tomas'), key, { version, scope }));
    pass();
    expect([answersOn('wren', uid).ines, inCalendar('ines', uid)]).toEqual(['declined', undefined]);
  });
});

test('who arranges takes back no answer of whom they don’t speak for', () => {
  const made = call('bruno', who('ines'), {}, 'bruno');
  pass();
  const { uid } = itemOf(made);
  const answer = { answer: 'accepted' as const, comment: '', seen: 'needs-action' as const, scope: 'all' as const };
  const answered = value(answerItem(ctx('tomas'), idIn('ines', uid), answer));
  const key = answered.sending?.key ?? '';
  expect(takeBack(ctx('amara'), key)).toMatchObject({ code: 'notFound' });
  expect(takeBack(ctx('tomas'), key)).toMatchObject({ ok: true });
});

describe('an invitation that is taken out of the calendar is declined', () => {
  const rule = 'FREQ=WEEKLY;COUNT=4';
  const week = (n: number) => (Date.UTC(2027, 2, 3 + 7 * n, 10) / 1000).toString(36);
  const invited = (more: { repeat?: { rule: string } }) => {
    const made = call('wren', who('ines', 'bruno'), more, 'wren');
    pass();
    return itemOf(made).uid;
  };

  test('and taken back while it waits, the item is there again, unanswered', () => {
    const uid = invited({});
    const { key, version } = inCalendar('ines', uid) as StoredItem;
    const removed = value(removeMeeting(ctx('tomas'), key, { version, scope: 'all' }));
    expect(inCalendar('ines', uid)).toBeUndefined();
    value(takeBack(ctx('tomas'), removed.sending?.key ?? ''));
    pass();
    expect([inCalendar('ines', uid)?.ownerAnswer, arrived('wren')]).toEqual(['needs-action', []]);
    // Undone as the write it is, it is the same.
    const stands = inCalendar('ines', uid) as StoredItem;
    const again = value(removeMeeting(ctx('tomas'), key, { version: stands.version, scope: 'one' }));
    value(undoSeveral(ctx('tomas'), again.undo));
    pass();
    expect([inCalendar('ines', uid)?.ownerAnswer, arrived('wren')]).toEqual(['needs-action', []]);
  });

  test('undone after it left, the item stands as declined until it is answered otherwise', () => {
    const uid = invited({});
    const { key, version } = inCalendar('ines', uid) as StoredItem;
    const removed = value(removeMeeting(ctx('tomas'), key, { version, scope: 'all' }));
    pass();
    value(undoSeveral(ctx('tomas'), removed.undo));
    expect([inCalendar('ines', uid)?.ownerAnswer, answersOn('wren', uid).ines]).toEqual(['declined', 'declined']);
  });

  test('one occurrence by itself; from one on isn’t a thing that can be answered', () => {
    const uid = invited({ repeat: { rule } });
    const { key, version } = inCalendar('ines', uid) as StoredItem;
    const third = `${key}~${week(2)}`;
    expect(removeMeeting(ctx('tomas'), third, { version, scope: 'later' })).toMatchObject({ code: 'answerOneOrAll' });
    const stale = { version: version + 1, scope: 'one' as const };
    expect(removeMeeting(ctx('tomas'), third, stale)).toMatchObject({ code: 'changedMeanwhile' });
    value(removeMeeting(ctx('tomas'), third, { version, scope: 'one' }));
    const seen = () => value(listItems(ctx('ines'), org.calendar('ines'), { ...WEEK, to: '2027-04-01' })).items.length;
    expect(seen()).toBe(3);
    pass();
    expect(arrived('wren')).toEqual(['answer']);
    const read = value(readMeeting(ctx('wren'), `${idIn('wren', uid)}~${week(2)}`));
    expect(read.people[0]).toMatchObject({ address: address('ines'), answer: 'declined' });
    expect(answersOn('wren', uid).ines).toBe('needs-action');
    const fourth = inCalendar('ines', uid) as StoredItem;
    const back = value(removeMeeting(ctx('tomas'), `${key}~${week(3)}`, { version: fourth.version, scope: 'one' }));
    expect(seen()).toBe(2);
    value(takeBack(ctx('tomas'), back.sending?.key ?? ''));
    pass();
    expect([seen(), arrived('wren')]).toEqual([3, ['answer']]);
  });
});

describe('what is answered at less than full sight, by nobody called, and taken back', () => {
  const invited = () => {
    const made = call('wren', who('ines'), {}, 'wren');
    pass();
    return itemOf(made).uid;
  };
  const YES = { answer: 'accepted', comment: '', scope: 'all' } as const;

  test('undone by its own token, an answer is as if it had never been given, also by who may change nothing else', () => {
    org.give('ines', 'dario', { ...PRESETS.full, add: true, change: 'own', speaks: true });
    for (const by of ['tomas', 'dario']) {
      const uid = invited();
      const made = value(answerItem(ctx(by), idIn('ines', uid), { ...YES, seen: 'needs-action' }));
      expect(undoSeveral(ctx('oona'), made.undo)).toMatchObject({ code: 'notFound' });
      value(undoSeveral(ctx(by), made.undo));
      expect(inCalendar('ines', uid)?.ownerAnswer).toBe('needs-action');
      pass();
      expect([answersOn('wren', uid).ines, arrived('wren')]).toEqual(['needs-action', []]);
      // Once it has left there is nothing to take back.
      const again = value(answerItem(ctx(by), idIn('ines', uid), { ...YES, seen: 'needs-action' }));
      pass();
      expect(undoSeveral(ctx(by), again.undo)).toMatchObject({ code: 'leftAlready' });
      org.db.run('DELETE FROM message');
    }
  });

  test('an invitation that is outlined for whoever speaks is answered by the id they were given, and says no more for it', () => {
    org.give('ines', 'dario', { ...PRESETS.full, add: true, change: 'own', speaks: true });
    const uid = invited();
    org.db.run(`UPDATE item SET visibility = 'outline' WHERE key = ?`, idIn('ines', uid));
    const seen = value(listItems(ctx('dario'), org.calendar('ines'), WEEK)).items[0];
    expect([seen && 'notes' in seen, seen?.mayAnswer]).toEqual([false, true]);
    expect(answerItem(ctx('bruno'), seen?.id ?? '', { ...YES, seen: 'needs-action' })).toMatchObject({
      code: 'notFound',
    });
    const made = value(answerItem(ctx('dario'), seen?.id ?? '', { ...YES, seen: 'needs-action' }));
    expect(JSON.stringify(made)).not.toMatch(/wren|Wren/);
    pass();
    expect(answersOn('wren', uid).ines).toBe('accepted');
    // That somebody answered, and who, isn't among what they see.
    const late = answerItem(ctx('dario'), seen?.id ?? '', { ...YES, answer: 'declined', seen: 'needs-action' });
    expect(late).toMatchObject({ code: 'changedMeanwhile' });
    expect(JSON.stringify(late)).not.toMatch(/Dario|Wren/);
  });

  test('what nobody called and its owner is asked to is answered where it stands', () => {
    const attendees = [{ name: null, address: address('ines'), answer: 'needs-action' as const }];
    const { id } = org.add('ines', 'ines', { title: 'From a file' }, { attendees, ownerAnswer: 'needs-action' });
    const made = value(answerItem(ctx('tomas'), id, { ...YES, seen: 'needs-action' }));
    const now = () =>
      value(readMeeting(ctx('ines'), id)) && value(listItems(ctx('ines'), org.calendar('ines'), WEEK)).items[0];
    expect(now()).toMatchObject({ attendees: [{ address: address('ines'), answer: 'accepted' }] });
    value(undoSeveral(ctx('tomas'), made.undo));
    expect(now()).toMatchObject({ attendees: [{ address: address('ines'), answer: 'needs-action' }] });
  });
});
