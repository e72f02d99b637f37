import { describe, expect, test } from 'vitest';
import { holdsBody } from '@/contract/meetings/holds.ts';
import { PRESETS } from '@/core/access/index.ts';
import { freeLapsed } from '../deciding/index.ts';
import { listItems } from '../items/index.ts';
import { bringBackMeeting, changeMeeting, fixHold, holdTimes, moveMeeting, readHolds, undoSeveral } from './index.ts';
import { ctx, eachMeetingDay, org, pass, value, who } from './meeting-day.ts';

eachMeetingDay();

const STARTS = ['2027-03-04T10:00:00Z', '2027-03-05T14:00:00Z', '2027-03-03T16:00:00Z'];
const body = (more: object = {}) =>
  holdsBody.parse({
    title: 'Auditors',
    length: 60,
    starts: STARTS,
    zone: 'Europe/Lisbon',
    lapses: '2027-03-10T09:00:00Z',
    people: who('bruno'),
    ...more,
  });
const hold = (more: object = {}, by = 'tomas') => value(holdTimes(ctx(by), org.calendar('ines'), body(more)));
const listed = (as: string) =>
  value(
    listItems(ctx(as), org.calendar('ines'), { from: '2027-03-01', to: '2027-03-15', zone: 'Europe/Lisbon', after: 0 }),
  ).items;

describe('times held for one meeting', () => {
  test('are a set made in one act, each saying which of it it is; to others they are tentative time like any', () => {
    const made = hold();
    expect(made.written).toBe(3);
    expect(listed('tomas').map((i) => [i.start, i.kind, i.shows, i.asSet?.hold])).toEqual([
      ['2027-03-03T16:00:00Z', 'hold', 'tentative', { letter: 'A', number: 1, of: 3, lapses: '2027-03-10T09:00:00Z' }],
      ['2027-03-04T10:00:00Z', 'hold', 'tentative', { letter: 'A', number: 2, of: 3, lapses: '2027-03-10T09:00:00Z' }],
      ['2027-03-05T14:00:00Z', 'hold', 'tentative', { letter: 'A', number: 3, of: 3, lapses: '2027-03-10T09:00:00Z' }],
    ]);
    org.give('ines', 'wren', PRESETS.freeBusy);
    const seen = JSON.stringify(listed('wren'));
    expect(seen).toContain('tentative');
    for (const word of ['hold', 'Auditors', 'lapses', '"A"']) expect(seen).not.toContain(word);
    // Another set has the next letter; taken back, all of one is gone.
    expect(hold({ starts: STARTS.slice(0, 1) }).items[0]?.asSet?.hold).toMatchObject({ letter: 'B', number: 1, of: 1 });
    value(undoSeveral(ctx('tomas'), made.undo));
    expect(listed('tomas')).toHaveLength(1);
  });

  test('one that is fixed becomes the meeting, asks whom it was held for, and frees the others; one token takes all of it back', () => {
    const [first, second] = hold().items;
    const before = value(readHolds(ctx('tomas'), second?.id ?? ''));
    expect(before).toMatchObject({ letter: 'A', people: [{ address: 'bruno@cloudmoor.example' }] });
    expect(before.times.map((t) => t.self)).toEqual([false, true, false]);
    const fixed = value(fixHold(ctx('tomas'), second?.id ?? '', { version: second?.version ?? 0 }));
    expect(fixed).toMatchObject({
      written: 3,
      fixed: { sending: { to: 1 }, item: { kind: 'meeting', shows: 'busy' } },
    });
    expect(listed('tomas').map((i) => i.start)).toEqual(['2027-03-04T10:00:00Z']);
    expect(readHolds(ctx('tomas'), second?.id ?? '')).toMatchObject({ code: 'noHold' });
    expect(readHolds(ctx('tomas'), first?.id ?? '')).toMatchObject({ code: 'notFound' });
    value(undoSeveral(ctx('tomas'), fixed.undo));
    expect(listed('tomas').map((i) => [i.kind, i.asSet?.hold?.of])).toEqual([
      ['hold', 3],
      ['hold', 3],
      ['hold', 3],
    ]);
    pass();
    // Nobody was asked: it was taken back before it left.
    expect(listed('tomas').map((i) => i.attendees)).toEqual([[], [], []]);
  });

  test('frees itself when its time has come, the viewer first; to who held it that is said when they fix it then', () => {
    const [one] = hold({ lapses: '2027-03-02T12:00:00Z' }).items;
    const id = one?.id ?? '';
    freeLapsed({ db: org.db, now: Date.parse('2027-03-02T11:59:59Z') });
    expect(listed('tomas')).toHaveLength(3);
    freeLapsed({ db: org.db, now: Date.parse('2027-03-02T12:00:00Z') });
    expect(listed('tomas')).toEqual([]);
    const late = { ...ctx('tomas'), now: Date.parse('2027-03-02T12:00:01Z') };
    expect(fixHold(late, id, { version: 1 })).toMatchObject({ code: 'holdLapsed' });
    expect(fixHold({ ...ctx('wren'), now: late.now }, id, { version: 1 })).toMatchObject({ code: 'notFound' });
    expect(hold().items[0]?.asSet?.hold?.letter).toBe('A');
  });

  test('is refused to whoever may not add or change, in the past, and without a time', () => {
    org.give('ines', 'wren', PRESETS.full);
    expect(holdTimes(ctx('wren'), org.calendar('ines'), body())).toMatchObject({ code: 'mayNotAdd' });
    expect(holdTimes(ctx('tomas'), org.calendar('ines'), body({ lapses: '2027-03-01T00:00:00Z' }))).toMatchObject({
      fields: { lapses: 'lapsesPast' },
    });
    const [one] = hold().items;
    expect(fixHold(ctx('wren'), one?.id ?? '', { version: 1 })).toMatchObject({ code: 'mayNotChange' });
    expect(() => body({ starts: [] })).toThrow();
  });

  test('of two who fix at once, the second is told that it changed', () => {
    const [one, two] = hold().items;
    value(fixHold(ctx('tomas'), one?.id ?? '', { version: one?.version ?? 0 }));
    expect(fixHold(ctx('amara'), two?.id ?? '', { version: two?.version ?? 0 })).toMatchObject({ code: 'notFound' });
    expect(listed('tomas')).toHaveLength(1);
  });

  test('one that goes into another calendar leaves its set, so that whoever works there reads nothing of the others', () => {
    const [one] = hold().items;
    const id = one?.id ?? '';
    value(moveMeeting(ctx('tomas'), id, { to: org.calendar('tomas'), version: one?.version ?? 0 }));
    expect(readHolds(ctx('tomas'), id)).toMatchObject({ code: 'noHold' });
    expect(listed('tomas').map((i) => i.asSet?.hold?.of)).toEqual([2, 2]);
  });

  test('what is private of a set counts for those alone who see what is private', () => {
    const [one] = hold().items;
    const hide = { version: one?.version ?? 0, scope: 'one' as const, fields: { visibility: 'private' as const } };
    value(changeMeeting(ctx('ines'), one?.id ?? '', hide));
    expect(listed('amara').flatMap((i) => i.asSet?.hold?.of ?? [])).toEqual([2, 2]);
    expect(listed('ines').map((i) => i.asSet?.hold?.of)).toEqual([3, 3, 3]);
  });

  test('one that freed itself and is brought back stays until somebody frees it', () => {
    const [one] = hold({ lapses: '2027-03-02T12:00:00Z' }).items;
    const late = { ...ctx('tomas'), now: Date.parse('2027-03-02T12:00:00Z') };
    freeLapsed(late);
    value(bringBackMeeting(late, one?.id ?? ''));
    freeLapsed(late);
    expect(listed('tomas').map((i) => i.id)).toEqual([one?.id]);
  });
});
