import { describe, expect, test } from 'vitest';
import { itemByKey } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { listItems } from '../items/index.ts';
import { at } from '../small-organisation.ts';
import { changeMeeting, changeSeveral, copyItem, listApart, rejoinItem, removeMeeting, undoSeveral } from './index.ts';
import { arrived, call, ctx, eachMeetingDay, itemOf, org, pass, value, who } from './meeting-day.ts';

eachMeetingDay();

const add = (title: string, more: object = {}) =>
  org.add('ines', 'ines', { title, when: at('2027-03-03', 10), ...more });
const stored = (id: string) => itemByKey(org.db, id.split('~')[0] ?? '') as StoredItem;
const picked = (...ids: string[]) => ids.map((item) => ({ item, version: stored(item).version }));
/** What happens in some days of somebody’s calendar, by day, hour and title, as its owner has it. */
const happens = (from = '2027-03-01', to = '2027-03-31', of = 'ines') => {
  const list = value(listItems(ctx(of), org.calendar(of), { from, to, zone: 'Europe/Lisbon', after: 0 }));
  return list.items.map((i) => `${i.start.slice(5, 16)} ${i.title}`).sort();
};

describe('several at once', () => {
  test('are moved, hidden and removed in one act, and one token takes all of it back', () => {
    const [a, b] = [add('A'), add('B', { when: at('2027-03-04', 14) })];
    const moved = value(
      changeSeveral(ctx('tomas'), {
        items: picked(a.id, b.id),
        change: { kind: 'shift', days: 1, minutes: 15 },
      }),
    );
    expect([moved.written, happens()]).toEqual([2, ['03-04T10:15 A', '03-05T14:15 B']]);
    value(
      changeSeveral(ctx('tomas'), { items: picked(a.id, b.id), change: { kind: 'visibility', visibility: 'private' } }),
    );
    expect([stored(a.id).visibility, stored(b.id).visibility]).toEqual(['private', 'private']);
    const gone = value(changeSeveral(ctx('ines'), { items: picked(a.id, b.id), change: { kind: 'remove' } }));
    expect(happens()).toEqual([]);
    const back = value(undoSeveral(ctx('ines'), gone.undo));
    expect(happens()).toEqual(['03-04T10:15 A', '03-05T14:15 B']);
    value(undoSeveral(ctx('ines'), back.undo));
    expect(happens()).toEqual([]);
  });

  test('a move keeps the hour on the clock across a clock change, and whole days move by days', () => {
    const [a, b] = [
      add('A', { when: at('2027-03-27', 10) }),
      add('B', { when: { start: '2027-03-27', end: '2027-03-28', allDay: true, zone: 'Europe/Lisbon' } }),
    ];
    value(changeSeveral(ctx('ines'), { items: picked(a.id, b.id), change: { kind: 'shift', days: 2, minutes: 30 } }));
    expect(happens('2027-03-20', '2027-04-10')).toEqual(['03-29 B', '03-29T09:30 A']);
    const alone = { items: picked(b.id), change: { kind: 'shift' as const, days: 0, minutes: 30 } };
    expect(changeSeveral(ctx('ines'), alone)).toMatchObject({ code: 'badInput', fields: { change: 'nothingMoves' } });
  });

  test('go into another calendar together, and back by the same act the other way; what others were asked to goes alone', () => {
    const [a, b] = [add('A'), add('B', { when: at('2027-03-04', 14) })];
    const [mine, hers] = [org.calendar('tomas'), org.calendar('ines')];
    const into = { kind: 'into' as const, to: mine, days: 1, minutes: -30 };
    const moved = value(changeSeveral(ctx('tomas'), { items: picked(a.id, b.id), change: into }));
    expect([moved.written, happens(), happens(undefined, undefined, 'tomas')]).toEqual([
      2,
      [],
      ['03-04T09:30 A', '03-05T13:30 B'],
    ]);
    const home = picked(a.id, b.id).map((one) => ({ ...one, to: hers }));
    value(changeSeveral(ctx('tomas'), { items: home, change: { ...into, days: -1, minutes: 30 } }));
    expect(happens()).toEqual(['03-03T10:00 A', '03-04T14:00 B']);
    const invited =
      value(
        call('tomas', who('bruno')) &&
          listItems(ctx('ines'), hers, { from: '2027-03-03', to: '2027-03-04', zone: 'Europe/Lisbon', after: 0 }),
      ).items.find((i) => i.title === 'Weir consent')?.id ?? '';
    pass();
    const both = picked(a.id, invited);
    expect(changeSeveral(ctx('tomas'), { items: both, change: { ...into, days: 0, minutes: 0 } })).toMatchObject({
      code: 'movesAlone',
      data: { item: invited },
    });
    expect(happens(undefined, undefined, 'tomas')).toEqual([]);
    // Into a calendar in which one may add nothing, none goes.
    const closed = { ...into, to: org.calendar('amara') };
    expect(changeSeveral(ctx('tomas'), { items: picked(a.id), change: closed })).toMatchObject({ code: 'mayNotAdd' });
  });

  test('where one is refused none is written, and which one it was is said', () => {
    const [a, b] = [add('A'), add('B')];
    const other = org.add('bruno', 'bruno', { title: 'C', when: at('2027-03-03', 10) });
    const shift = { kind: 'shift' as const, days: 1, minutes: 0 };
    const stale = [...picked(a.id), { item: b.id, version: 99 }];
    expect(changeSeveral(ctx('ines'), { items: stale, change: shift })).toMatchObject({
      code: 'changedMeanwhile',
      data: { item: b.id },
    });
    expect(changeSeveral(ctx('amara'), { items: picked(a.id, other.id), change: shift })).toMatchObject({
      code: 'notFound',
    });
    expect(happens()).toEqual(['03-03T10:00 A', '03-03T10:00 B']);
  });

  test('one occurrence of a series moves by itself, and people asked hear of each', () => {
    const made = call('tomas', who('bruno'));
    pass();
    const series = add('Rounds', { repeat: { rule: 'FREQ=WEEKLY;COUNT=3' } });
    const list = value(
      listItems(ctx('tomas'), org.calendar('ines'), { from: '2027-03-10', to: '2027-03-11', zone: 'UTC', after: 0 }),
    );
    const second = list.items[0]?.id ?? '';
    const items = [
      { item: itemOf(made).key, version: itemOf(made).version },
      { item: second, version: stored(series.id).version },
    ];
    const moved = value(changeSeveral(ctx('tomas'), { items, change: { kind: 'shift', days: 1, minutes: 0 } }));
    expect(moved).toMatchObject({ written: 2, sendings: 1 });
    expect(happens()).toEqual([
      '03-03T10:00 Rounds',
      '03-04T10:00 Weir consent',
      '03-11T10:00 Rounds',
      '03-17T10:00 Rounds',
    ]);
    value(undoSeveral(ctx('tomas'), moved.undo));
    pass();
    expect(happens()).toEqual([
      '03-03T10:00 Rounds',
      '03-03T10:00 Weir consent',
      '03-10T10:00 Rounds',
      '03-17T10:00 Rounds',
    ]);
    expect(arrived('bruno')).toEqual(['invitation']);
  });

  test('several of one series are removed, and moved, in one act and taken back', () => {
    const { id } = add('Rounds', { repeat: { rule: 'FREQ=WEEKLY;COUNT=4' } });
    const ids = () =>
      value(
        listItems(ctx('ines'), org.calendar('ines'), { from: '2027-03-01', to: '2027-03-31', zone: 'UTC', after: 0 }),
      ).items.map((item) => item.id);
    const all = happens();
    const { version } = stored(id);
    const [, second = '', third = ''] = ids();
    const items = [second, third].map((item) => ({ item, version }));
    const gone = value(changeSeveral(ctx('tomas'), { items, change: { kind: 'remove' } }));
    expect(happens()).toEqual(['03-03T10:00 Rounds', '03-24T10:00 Rounds']);
    value(undoSeveral(ctx('tomas'), gone.undo));
    expect(happens()).toEqual(all);
    const again = items.map(({ item }) => ({ item, version: stored(id).version }));
    value(changeSeveral(ctx('tomas'), { items: again, change: { kind: 'shift', days: 1, minutes: 0 } }));
    expect(happens()).toEqual(['03-03T10:00 Rounds', '03-11T10:00 Rounds', '03-18T10:00 Rounds', '03-24T10:00 Rounds']);
    // What somebody else wrote meanwhile is refused all the same.
    expect(changeSeveral(ctx('tomas'), { items: again, change: { kind: 'remove' } })).toMatchObject({ ok: false });
  });
});

describe('an item on several dates', () => {
  test('is put on each with its hours and without its people, and taken back as one', () => {
    const made = call('tomas', who('bruno'), { place: 'Marsh Lab', briefing: 'B' });
    pass();
    const copies = value(copyItem(ctx('tomas'), itemOf(made).key, ['2027-03-29', '2027-03-09', '2027-03-09']));
    expect([copies.written, happens()]).toEqual([
      2,
      ['03-03T10:00 Weir consent', '03-09T10:00 Weir consent', '03-29T09:00 Weir consent'],
    ]);
    expect(arrived('bruno')).toEqual(['invitation']);
    value(undoSeveral(ctx('tomas'), copies.undo));
    expect(happens()).toEqual(['03-03T10:00 Weir consent']);
    expect(copyItem(ctx('wren'), itemOf(made).key, ['2027-03-29'])).toMatchObject({ code: 'notFound' });
  });

  test('a copy is seen by as many as what it is copied from', () => {
    const made = org.add('ines', 'ines', { title: 'At Marsh Lab', kind: 'whereabouts', when: at('2027-03-10', 9) });
    const open = itemByKey(org.db, made.id);
    expect(open?.visibility).toBe('open');
    const fields = { visibility: 'follow' as const };
    value(changeMeeting(ctx('ines'), made.id, { version: open?.version ?? 0, scope: 'all', fields }));
    value(copyItem(ctx('tomas'), made.id, ['2027-03-11']));
    const copies = org.db.all<{ visibility: string }>(`SELECT visibility FROM item WHERE title = 'At Marsh Lab'`);
    expect(copies.map((one) => one.visibility)).toEqual(['follow', 'follow']);
  });
});

describe('a series of picked days', () => {
  const dates = (...days: number[]) => days.map((d) => `2027-03-${String(d).padStart(2, '0')}`);
  const change = (id: string, body: object, by = 'ines') =>
    changeMeeting(ctx(by), id.split('~')[0] ?? '', { version: stored(id).version, scope: 'all', fields: {}, ...body });

  test('happens on each of them; days are added, also before the first, and taken out', () => {
    const { id } = add('Talks', { dates: dates(3, 9, 18) });
    expect(happens()).toEqual(['03-03T10:00 Talks', '03-09T10:00 Talks', '03-18T10:00 Talks']);
    value(change(id, { dates: dates(9, 18, 30) }));
    expect(happens()).toEqual(['03-09T10:00 Talks', '03-18T10:00 Talks', '03-30T09:00 Talks']);
    value(change(id, { dates: dates(1, 9) }));
    expect(happens()).toEqual(['03-01T10:00 Talks', '03-09T10:00 Talks']);
    value(change(id, { dates: dates(1) }));
    expect([happens(), stored(id).added]).toEqual([['03-01T10:00 Talks'], []]);
  });

  test('days beside a rule are added to it, and none before it begins', () => {
    const { id } = add('Rounds', { repeat: { rule: 'FREQ=WEEKLY;COUNT=2' }, dates: dates(12) });
    expect(happens()).toEqual(['03-03T10:00 Rounds', '03-10T10:00 Rounds', '03-12T10:00 Rounds']);
    expect(change(id, { dates: dates(1) })).toMatchObject({ fields: { dates: 'dayBeforeStart' } });
  });

  test('a day that stands by itself is not taken out unseen', () => {
    const { id } = add('Talks', { dates: dates(3, 9) });
    const [, second] = value(
      listItems(ctx('ines'), org.calendar('ines'), { from: '2027-03-01', to: '2027-03-31', zone: 'UTC', after: 0 }),
    ).items;
    value(changeMeeting(ctx('ines'), second?.id ?? '', { version: 1, scope: 'one', fields: { title: 'Last talk' } }));
    expect(change(id, { dates: dates(3) })).toMatchObject({ code: 'seriesSplit' });
  });

  test('what was left out comes back, what was changed by itself becomes as its series again', () => {
    const { id } = add('Rounds', { repeat: { rule: 'FREQ=WEEKLY;COUNT=4' } });
    const nth = (n: number) =>
      value(
        listItems(ctx('ines'), org.calendar('ines'), { from: '2027-03-01', to: '2027-03-31', zone: 'UTC', after: 0 }),
      ).items[n]?.id ?? '';
    const second = nth(1);
    removeMeeting(ctx('ines'), second, { version: stored(id).version, scope: 'one' });
    value(
      changeMeeting(ctx('tomas'), nth(1), {
        version: stored(id).version,
        scope: 'one',
        when: at('2027-03-18', 15),
        fields: { title: 'Long rounds' },
      }),
    );
    const exceptions = value(listApart(ctx('tomas'), id));
    expect(exceptions).toMatchObject({
      left: ['2027-03-10T10:00:00'],
      apart: [{ was: '2027-03-17T10:00:00', item: { title: 'Long rounds' } }],
    });
    value(change(id, { left: [] }));
    const apart = exceptions.apart[0]?.item;
    value(rejoinItem(ctx('tomas'), apart?.id ?? '', apart?.version ?? 0));
    expect(happens()).toEqual([3, 10, 17, 24].map((d) => `03-${String(d).padStart(2, '0')}T10:00 Rounds`));
    // Only whoever sees the series in full reads its exceptions.
    expect(listApart(ctx('wren'), id)).toMatchObject({ code: 'notFound' });
    expect(rejoinItem(ctx('wren'), apart?.id ?? '', 1)).toMatchObject({ code: 'notFound' });
    expect(rejoinItem(ctx('ines'), id, stored(id).version)).toMatchObject({ code: 'noSeries' });
  });
});
