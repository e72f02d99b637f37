import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { checkBody } from '@/contract/openings/openings.ts';
import { PRESETS } from '@/core/access/index.ts';
import { saveJourneys } from '../../repositories/journeys.ts';
import { listItems } from '../items/index.ts';
import { changePreferences } from '../people/people.ts';
import { at, type SmallOrganisation, smallOrganisation, WEEK } from '../small-organisation.ts';
import { bringInJourneys, checkTime, listJourneys, takeOutJourneys } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('dario', 'tomas', PRESETS.shutOut);
});
afterEach(() => org.close());

const check = (who: string, hour: number, more: object = {}) => {
  const found = checkTime(
    org.ctx(who),
    org.calendar('ines'),
    checkBody.parse({ when: at('2027-03-03', hour), ...more }),
  );
  if (!found.ok) throw new Error(found.code);
  return found.value;
};
/** The id of what Inés has of a title in the week. */
const occurrenceOf = (title: string): string => {
  const listed = listItems(org.ctx('ines'), org.calendar('ines'), WEEK);
  return (listed.ok && listed.value.items.find((item) => item.title === title)?.id) || '';
};
const must = (...handles: string[]) => handles.map((h) => ({ address: `${h}@cloudmoor.example`, must: true }));
const hoursOf = (who: string, ranges: [string, string][]) =>
  changePreferences(org.ctx(who), {
    zone: 'Europe/Lisbon',
    hours: '24',
    weekFirst: 1,
    dateOrder: 'dmy',
    workHours: [ranges, ranges, ranges, ranges, ranges, [], []],
  });

describe('what speaks against a time', () => {
  test('is what blocks it, as far as the asker sees it; free time and whereabouts never', () => {
    org.add('ines', 'ines', { title: 'Board', when: at('2027-03-03', 10) });
    org.add('ines', 'ines', { title: 'Doctor', when: at('2027-03-03', 11), visibility: 'private' });
    org.add('ines', 'ines', { title: 'At Marsh Lab', when: at('2027-03-03', 10), kind: 'whereabouts', shows: 'free' });
    expect(check('tomas', 10).clashes).toEqual([
      {
        kind: 'overlap',
        title: 'Board',
        withheld: false,
        allDay: false,
        start: '2027-03-03T10:00:00Z',
        end: '2027-03-03T11:00:00Z',
      },
    ]);
    expect(check('tomas', 11).clashes).toMatchObject([{ title: null, withheld: true }]);
    expect(check('tomas', 10, { shows: 'free' })).toMatchObject({ fits: false, clashes: [] });
    // Whoever sees when she is taken, and nothing else, is told that and nothing else.
    expect(JSON.stringify(check('wren', 11))).not.toContain('Doctor');
    expect(
      checkTime(org.ctx('tomas'), org.calendar('dario'), checkBody.parse({ when: at('2027-03-03', 10) })),
    ).toMatchObject({
      code: 'notFound',
    });
  });

  test('is not the item itself that is being moved', () => {
    const { id } = org.add('ines', 'ines', { title: 'Board', when: at('2027-03-03', 10) });
    expect(check('tomas', 10, { item: id }).clashes).toEqual([]);
    expect(check('tomas', 10).clashes).toHaveLength(1);
  });

  test('is not the occurrence itself of a series, nor the copies of it that those who come have', () => {
    const weekly = { title: 'Board', when: at('2027-02-24', 10), repeat: { rule: 'FREQ=WEEKLY' } };
    org.add('ines', 'ines', weekly);
    const id = occurrenceOf('Board');
    expect(check('tomas', 10, { item: id })).toMatchObject({ fits: true, clashes: [] });
    expect(check('tomas', 10).clashes).toHaveLength(1);
    // Another item at its hour is one, as before.
    org.add('ines', 'ines', { title: 'Press', when: at('2027-03-03', 10) });
    expect(check('tomas', 10, { item: id }).clashes).toMatchObject([{ title: 'Press' }]);
  });

  test('is a journey longer than the gap, and what lies outside the owner’s hours', () => {
    saveJourneys(org.db, [['Marsh Lab', 'Ridge House', 40]]);
    org.add('ines', 'ines', { title: 'Board', when: at('2027-03-03', 10), place: ' marsh lab' });
    expect(check('tomas', 11, { place: 'Ridge House' }).clashes).toEqual([
      { kind: 'journey', place: 'marsh lab', before: true, minutes: 40, gap: 0 },
    ]);
    expect(check('tomas', 12, { place: 'Ridge House' }).clashes).toEqual([]);
    hoursOf('ines', [['09:00', '18:00']]);
    expect(check('tomas', 18).clashes).toEqual([{ kind: 'hours' }]);
    expect(check('tomas', 17).clashes).toEqual([]);
  });

  test('beside it stand the nearest times that work for all who must be there; who isn’t known is named and counts nowhere', () => {
    hoursOf('ines', [['09:00', '12:00']]);
    org.add('ines', 'ines', { title: 'Board', when: at('2027-03-03', 10) });
    org.add('bruno', 'bruno', { title: 'Bank', when: at('2027-03-03', 9) });
    org.add('dario', 'dario', { title: 'Secret', when: at('2027-03-03', 11) });
    const found = check('tomas', 10, { people: must('bruno', 'dario') });
    expect(found.unknown).toEqual(['Dario']);
    expect(found.openings.map((o) => o.start)).toEqual([
      '2027-03-02T11:00:00Z',
      '2027-03-03T11:00:00Z',
      '2027-03-04T09:00:00Z',
    ]);
    // A time that works for all needs no other, and is said to.
    expect(check('tomas', 11, { people: must('bruno', 'dario') })).toMatchObject({ fits: true, openings: [] });
    // Where somebody else can't, it isn't, though nothing of hers speaks against it.
    expect(check('tomas', 9, { people: must('bruno') })).toMatchObject({ fits: false, clashes: [] });
    expect([check('tomas', 11).fits, check('tomas', 10).fits]).toEqual([true, false]);
  });
});

describe('the journeys between places', () => {
  test('are kept by an administrator, as a table that is read whole or not at all', () => {
    const text = 'from,to,minutes\nRidge House,Marsh Lab,35\nMarsh Lab;Seed Store;20';
    expect(bringInJourneys(org.ctx('tomas'), { text, apply: true })).toMatchObject({ code: 'administratorOnly' });
    expect(bringInJourneys(org.ctx('ines'), { text, apply: true })).toMatchObject({
      value: { applied: false, wrong: [{ line: 3, why: 'columns' }] },
    });
    const right = 'from,to,minutes\nRidge House,Marsh Lab,35\n=Store,Marsh Lab,20';
    expect(bringInJourneys(org.ctx('ines'), { text: right, apply: true })).toMatchObject({ value: { applied: true } });
    expect(listJourneys(org.ctx('tomas'))).toEqual({
      ok: true,
      value: {
        journeys: [
          ['=Store', 'Marsh Lab', 20],
          ['Marsh Lab', 'Ridge House', 35],
        ],
        mayChange: false,
      },
    });
    const out = takeOutJourneys(org.ctx('ines'));
    expect(out.ok && out.value).toContain(`"'=Store",Marsh Lab,20`);
    // What was written is read as what it was.
    expect(bringInJourneys(org.ctx('ines'), { text: out.ok ? out.value : '', apply: true })).toMatchObject({
      value: { applied: true, journeys: [['=Store', 'Marsh Lab', 20], {}] },
    });
  });
});
