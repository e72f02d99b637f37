import { describe, expect, test } from 'vitest';
import { holdsBody } from '@/contract/meetings/holds.ts';
import { PRESETS } from '@/core/access/index.ts';
import { listMessages } from '../messages/list-messages.ts';
import { at } from '../small-organisation.ts';
import { changeMeeting, chooseOffer, holdTimes, makeOffer, readOffer, withdrawOffer } from './index.ts';
import { ctx, eachMeetingDay, mail, org, pass, value } from './meeting-day.ts';

eachMeetingDay();

const STARTS = ['2027-03-03T16:00:00Z', '2027-03-04T10:00:00Z', '2027-03-05T14:00:00Z'];
const hold = () => {
  const body = {
    title: 'Auditors, secret name',
    place: 'Ridge House',
    length: 60,
    starts: STARTS,
    zone: 'Europe/Lisbon',
  };
  const parsed = holdsBody.parse({ ...body, lapses: '2027-03-10T09:00:00Z' });
  return value(holdTimes(ctx('tomas'), org.calendar('ines'), parsed)).items;
};
const offered = (item: string) => {
  const made = value(makeOffer(ctx('tomas'), item, { words: 'A talk about the weir' }));
  return made.offer?.address?.slice('/offer/'.length) ?? '';
};
const stranger = (now = ctx('tomas').now) => ({ db: org.db, now, place: `place ${Math.random()}` });
const choice = (start: string) => ({ start, name: 'Marta Quill', address: 'marta@quill-audit.example' });

describe('times offered behind an address', () => {
  test('show how they were worded and when they are, and nothing else of the calendar', () => {
    const [one] = hold();
    const secret = offered(one?.id ?? '');
    const read = value(readOffer(stranger(), secret));
    expect(read).toEqual({
      words: 'A talk about the weir',
      minutes: 60,
      times: STARTS.map((start) => ({ start, end: start.replace(/T(\d\d)/, (_, hour) => `T${Number(hour) + 1}`) })),
    });
    expect(JSON.stringify(read)).not.toMatch(/secret|Ines|Tomas/);
  });

  test('one that is chosen is fixed, its chooser invited, the others freed, and the address ends', () => {
    const [one] = hold();
    const secret = offered(one?.id ?? '');
    expect(value(chooseOffer(stranger(), secret, choice(STARTS[1] ?? '')))).toMatchObject({ start: STARTS[1] });
    expect(readOffer(stranger(), secret)).toMatchObject({ code: 'offerGone' });
    // The second of two who choose at once.
    expect(chooseOffer(stranger(), secret, choice(STARTS[0] ?? ''))).toMatchObject({ code: 'offerGone' });
    pass();
    expect(mail()).toEqual(['REQUEST marta@quill-audit.example']);
    // What goes out says what the page said, and nothing of how it is called or where it is here.
    const sent = () => org.db.all<{ mail: string }>('SELECT mail FROM outgoing_mail').map((m) => m.mail);
    expect(sent()[0]).toContain('A talk about the weir');
    expect(sent().join()).not.toMatch(/secret|Ridge House/);
    const item = org.db.get<{ key: string; title: string; version: number }>(
      `SELECT * FROM item WHERE kind = 'meeting'`,
    );
    expect(item?.title).toBe('Auditors, secret name');
    // A place that is set for it afterwards goes to whom it asks; its name here stays here.
    const change = { version: item?.version ?? 0, scope: 'all' as const, fields: { place: 'Marsh Lab' } };
    value(changeMeeting(ctx('tomas'), item?.key ?? '', change));
    pass();
    expect(sent()).toHaveLength(2);
    expect(sent()[1]).toMatch(/A talk about the weir.*Marsh Lab|Marsh Lab.*A talk about the weir/);
    expect(sent().join()).not.toMatch(/secret|Ridge House/);
    // It stands in Messages too, for her and for who speaks for her, and for nobody else.
    const said = (who: string) => {
      const listed = value(listMessages(ctx(who), 'ines', {}));
      return listed.threads.flatMap((t) =>
        t.messages.filter((m) => !m.sent).map((m) => `${m.kind} ${m.from.name} ${m.says} ${m.unread}`),
      );
    };
    expect(said('ines')).toEqual(['chosen Marta Quill A talk about the weir true']);
    expect(said('tomas')).toEqual(said('ines'));
  });

  test('a time that is taken meanwhile, by the clock or by something else, is gone from it', () => {
    const [one] = hold();
    const secret = offered(one?.id ?? '');
    org.add('ines', 'ines', { title: 'Board', when: at('2027-03-04', 9, 2) });
    expect(value(readOffer(stranger(), secret)).times.map((t) => t.start)).toEqual([STARTS[0], STARTS[2]]);
    expect(chooseOffer(stranger(), secret, choice(STARTS[1] ?? ''))).toMatchObject({ code: 'offerTaken' });
    const later = stranger(Date.parse('2027-03-03T16:00:00Z'));
    expect(value(readOffer(later, secret)).times.map((t) => t.start)).toEqual([STARTS[2]]);
  });

  test('withdrawn, made up, or by somebody who may no longer change it: all answered alike', () => {
    const [one] = hold();
    const id = one?.id ?? '';
    const first = offered(id);
    const second = offered(id);
    const gone = readOffer(stranger(), 'none.none');
    expect(gone).toMatchObject({ code: 'offerGone' });
    expect(readOffer(stranger(), first)).toEqual(gone);
    expect(readOffer(stranger(), second)).toMatchObject({ ok: true });
    value(withdrawOffer(ctx('tomas'), id));
    expect(readOffer(stranger(), second)).toEqual(gone);
    const third = offered(id);
    org.give('ines', 'wren', PRESETS.full);
    expect(makeOffer(ctx('wren'), id, { words: 'x' })).toMatchObject({ code: 'mayNotChange' });
    // Who arranges and doesn't speak for her offers nothing that invites at once.
    expect(makeOffer(ctx('amara'), id, { words: 'x' })).toMatchObject({ code: 'mayNotSpeak' });
    // Whoever made it may change nothing there any more.
    org.db.run('UPDATE access_grant SET recorded_until = recorded_from WHERE person_id = ?', org.person('tomas').id);
    expect(readOffer(stranger(), third)).toEqual(gone);
  });
});
