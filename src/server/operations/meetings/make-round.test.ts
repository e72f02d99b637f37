import { describe, expect, test } from 'vitest';
import { makeRoundBody } from '@/contract/meetings/holds.ts';
import { roundBody } from '@/contract/openings/round.ts';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import { listItems } from '../items/list-items.ts';
import { findRound } from '../openings/index.ts';
import { at } from '../small-organisation.ts';
import { makeRound, undoSeveral } from './index.ts';
import { ctx, eachMeetingDay, mail, org, pass, value } from './meeting-day.ts';

eachMeetingDay();

const MARTA = { address: 'marta@quill-audit.example', name: 'Marta Quill', role: 'must' as const };
const LATER = '2027-03-20T09:00:00Z';
const round = (more: object = {}) =>
  roundBody.parse({
    people: [{ address: MARTA.address, must: true }],
    ...{ from: '2027-03-03', days: 1, zone: 'Europe/Lisbon' },
    meetings: [
      { length: 60, people: [{ address: 'bruno@cloudmoor.example', must: true }] },
      { length: 60, people: [{ address: 'wren@cloudmoor.example', must: true }] },
      { length: 30 },
    ],
    ...more,
  });
const find = (who: string, more?: object) => value(findRound(ctx(who), org.calendar('ines'), round(more)));
const make = (who: string, as: 'holds' | 'sent') =>
  makeRound(
    ctx(who),
    org.calendar('ines'),
    makeRoundBody.parse({
      ...{ as, zone: 'Europe/Lisbon', lapses: LATER, place: 'Ridge House' },
      meetings: ['First talk', 'Second talk'].map((title, i) => ({
        ...{ title, length: 60, people: [MARTA], start: `2027-03-03T1${i}:00:00Z` },
      })),
    }),
  );
const titles = (who: string) => {
  const listed = value(
    listItems(ctx(who), org.calendar('ines'), {
      from: '2027-03-03',
      to: '2027-03-04',
      zone: 'Europe/Lisbon',
      after: 0,
    }),
  );
  return listed.items.map((item) => `${item.title} ${item.shows} ${item.start.slice(11, 16)}`);
};

describe('a round', () => {
  test('is placed around what the asker sees of each who comes, none in two at once; who isn’t known is named', () => {
    org.works('ines', '09:00', '12:00');
    org.add('bruno', 'bruno', { title: 'Bank', when: at('2027-03-03', 9) });
    const { placed, unknown } = find('tomas');
    expect(unknown).toEqual([MARTA.address]);
    expect(placed?.[0]?.start).not.toBe('2027-03-03T09:00:00Z');
    const spans = (placed ?? []).map((one) => [one.start, one.end] as const).sort();
    expect(spans).toHaveLength(3);
    for (const [i, [start]] of spans.entries()) if (i > 0) expect(start >= (spans[i - 1]?.[1] ?? '')).toBe(true);
    expect(JSON.stringify(find('tomas'))).not.toContain('Bank');
  });

  test('is refused with a sentence where more people come to it than are looked at', () => {
    const many = (from: number) =>
      Array.from({ length: 40 }, (_, i) => ({ address: `p${from + i}@x.example`, must: true }));
    const meetings = [0, 40].map((from) => ({ length: 60, people: many(from) }));
    expect(findRound(ctx('tomas'), org.calendar('ines'), round({ meetings }))).toMatchObject({
      fields: { people: 'tooManyPeople:60' },
    });
  });

  test('that doesn’t fit says which of its meetings has no time, or that there is no way for all', () => {
    org.works('ines', '09:00', '11:00');
    org.add('bruno', 'bruno', { title: 'Bank', when: { ...at('2027-03-03', 8), end: '2027-03-03T18:00' } });
    expect(find('tomas')).toMatchObject({ placed: null, without: [0] });
    expect(find('tomas', { meetings: [{ length: 60 }, { length: 60 }, { length: 15 }] })).toMatchObject({
      placed: null,
      without: [],
    });
  });

  test('is held in one act, each to be fixed by itself, and taken back in one', () => {
    const made = value(make('tomas', 'holds'));
    expect(titles('ines')).toEqual(['First talk tentative 10:00', 'Second talk tentative 11:00']);
    pass();
    expect(mail()).toEqual([]);
    const [one, other] = made.items.map((item) => itemByKey(org.db, item.id)?.holdSet);
    expect(one).not.toBe(other);
    value(undoSeveral(ctx('tomas'), made.undo));
    expect(titles('ines')).toEqual([]);
  });

  test('is called in one act, and whoever comes is asked to each; all or none of it', () => {
    expect(value(make('tomas', 'sent'))).toMatchObject({ written: 2, sendings: 2 });
    expect(titles('ines')).toEqual(['First talk busy 10:00', 'Second talk busy 11:00']);
    pass();
    expect(mail()).toEqual([`REQUEST ${MARTA.address}`, `REQUEST ${MARTA.address}`]);
    org.give('ines', 'wren', PRESETS.full);
    expect(make('wren', 'sent')).toMatchObject({ code: 'mayNotAdd' });
  });
});
