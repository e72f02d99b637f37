import { describe, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import { listItems } from '../items/list-items.ts';
import { listMessages, readMessages } from '../messages/list-messages.ts';
import { writeMailFor } from '../messages/write-mail.ts';
import { at, WEEK } from '../small-organisation.ts';
import { answerSuggestion, listSuggestions, putForward } from '../suggestions/suggestions.ts';
import { changeMeeting, readMeeting } from './index.ts';
import {
  address,
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

describe('what is put forward', () => {
  test('a helper’s invitation, added person, answer and calling off are sent by a yes, as the helper’s work and in the yes-sayer’s hand', () => {
    org.give('ines', 'dario', PRESETS.helper);
    const say = (how: 'yes' | 'no' = 'yes') => {
      const [first] = value(listSuggestions(ctx('tomas'))).waiting;
      value(
        answerSuggestion(ctx('tomas'), first?.key ?? '', { answer: how, note: '', version: first?.version ?? null }),
      );
      pass();
    };
    const calendar = org.calendar('ines');
    const item = newItem.parse({ when: at('2027-03-03', 10), title: 'Weir consent', people: who('bruno') });
    value(putForward(ctx('dario'), calendar, { kind: 'add', item, why: 'He asked' }));
    expect(value(listSuggestions(ctx('tomas'))).waiting[0]?.wanted.people).toEqual([
      { name: null, address: address('bruno') },
    ]);
    pass();
    expect(arrived('bruno')).toEqual([]);
    say();
    expect(arrived('bruno')).toEqual(['invitation']);
    const [made] = value(listItems(ctx('tomas'), calendar, WEEK)).items;
    const uid = itemByKey(org.db, made?.id ?? '')?.uid ?? '';
    expect(inCalendar('ines', uid)).toMatchObject({ createdBy: org.person('dario').id });
    const id = made?.id ?? '';
    value(
      putForward(ctx('dario'), calendar, {
        kind: 'change',
        item: id,
        fields: {},
        people: who('bruno', 'wren'),
        why: '',
      }),
    );
    say();
    expect([arrived('bruno'), arrived('wren')]).toEqual([['invitation'], ['invitation']]);
    value(putForward(ctx('dario'), calendar, { kind: 'remove', item: id, why: '' }));
    say('no');
    expect(arrived('wren')).toEqual(['invitation']);
    value(putForward(ctx('dario'), calendar, { kind: 'remove', item: id, why: '' }));
    say();
    expect(arrived('wren')).toEqual(['invitation', 'calledOff']);

    const invited = call('wren', who('ines'), {}, 'wren');
    pass();
    const other = itemOf(invited).uid;
    value(
      putForward(ctx('dario'), calendar, {
        kind: 'answer',
        item: idIn('ines', other),
        answer: 'tentative',
        comment: 'If the board ends',
        why: '',
      }),
    );
    expect(inCalendar('ines', other)?.ownerAnswer).toBe('needs-action');
    say();
    expect(value(readMeeting(ctx('wren'), idIn('wren', other))).people[0]).toMatchObject({
      answer: 'tentative',
      comment: 'If the board ends',
      by: 'Tomas',
    });
  });
});

describe('the messages of somebody', () => {
  const threads = (by: string) => value(listMessages(ctx(by), 'ines', {})).threads;

  test('needs come first, a private invitation is a taken time, and each has their own read state', () => {
    call('wren', who('ines'), { title: 'Open talk' }, 'wren');
    pass();
    const hidden = call('wren', who('ines'), { title: 'Salary', when: at('2027-03-04', 9) }, 'wren');
    pass();
    const { uid } = itemOf(hidden);
    value(
      changeMeeting(ctx('ines'), idIn('ines', uid), { version: 1, scope: 'one', fields: { visibility: 'private' } }),
    );
    expect(threads('ines').map((t) => [t.title, t.needs, t.withheld])).toEqual([
      ['Open talk', 'answer', false],
      ['Salary', 'answer', false],
    ]);
    const seen = threads('tomas');
    expect(seen.map((t) => [t.title, t.needs, t.withheld])).toEqual([
      ['Open talk', 'answer', false],
      [null, null, true],
    ]);
    expect(JSON.stringify(seen)).not.toContain('Salary');
    expect(seen[1]).toMatchObject({ messages: [], organiser: null, item: null });
    const [open] = threads('tomas');
    const keys = open?.messages.map((m) => m.key) ?? [];
    value(readMessages(ctx('tomas'), 'ines', { messages: keys, unread: false }));
    expect([threads('tomas')[0]?.unread, threads('ines')[0]?.unread]).toEqual([0, 1]);
    expect(listMessages(ctx('bruno'), 'ines', {})).toMatchObject({ ok: false, code: 'notFound' });
    expect(listMessages(ctx('amara'), 'ines', {})).toMatchObject({ ok: false, code: 'notFound' });
  });

  test('mail in somebody’s name carries both; what comes back is read by its owner, and by whoever was given the folder', () => {
    const body = {
      to: [{ address: address('bruno'), name: null }],
      subject: 'The map',
      text: 'Have you got it?',
      answers: null,
    };
    expect(writeMailFor(ctx('amara'), 'ines', body)).toMatchObject({ code: 'notFound' });
    value(writeMailFor(ctx('tomas'), 'ines', body));
    const [his] = value(listMessages(ctx('bruno'), 'bruno', {})).threads;
    expect(his?.messages[0]).toMatchObject({
      from: { name: 'Ines' },
      by: { name: 'Tomas' },
      subject: 'The map',
      says: 'Have you got it?',
    });
    // His assistant speaks for him, and reads none of his mail by that.
    expect(value(listMessages(ctx('tomas'), 'bruno', {})).threads).toEqual([]);
    const answers = his?.messages[0]?.key ?? '';
    value(
      writeMailFor(ctx('bruno'), 'bruno', {
        ...body,
        to: [{ address: address('ines'), name: null }],
        text: 'Here',
        answers,
      }),
    );
    expect(threads('tomas')[0]?.messages.map((m) => m.says)).toEqual(['Have you got it?']);
    // Another of her assistants didn’t write in it.
    expect(threads('oona')).toEqual([]);
  });
});
