import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { DayPart } from '@/contract/days.ts';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import { saveJourneys } from '../../repositories/journeys.ts';
import { trailHead } from '../../repositories/trail.ts';
import { changeItem } from '../items/index.ts';
import { sendLetters } from '../messages/send-letters.ts';
import { changePreferences } from '../people/people.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { dayLetter, dayLettersDue, readDay, readDayLetters, saveDayLetters } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', PRESETS.outline);
});
afterEach(() => org.close());

const HOUR = 3_600_000;
const EVENING = START + 9 * HOUR;
const day = (who: string, of: DayPart, whom = 'all', now = of === 'morning' ? START : EVENING) => {
  const read = readDay(org.ctx(who, now), of, whom);
  if (!read.ok) throw new Error(read.code);
  return read.value;
};
const of = (who: string, part: DayPart) => day(who, part).people.find(({ handle }) => handle === 'ines');
const change = (who: string, key: string, patch: object, now = START - HOUR) =>
  changeItem(org.ctx(who, now), key, {
    version: itemByKey(org.db, key)?.version ?? 0,
    scope: 'all',
    fields: {},
    ...patch,
  });

describe('the morning', () => {
  test('today with briefings and ways, for whoever acts there as they see it, and nobody else', () => {
    saveJourneys(org.db, [['Ridge House', 'Marsh Lab', 25]]);
    const when = (hour: number) => ({ when: at('2027-03-02', hour) });
    org.add('ines', 'ines', { title: 'Board', place: 'Ridge House', briefing: 'Ask for the vote', ...when(10) });
    org.add('ines', 'ines', { title: 'Lab', place: 'Marsh Lab', ...when(12) });
    org.add('ines', 'ines', { title: 'zqdoctor', visibility: 'private', ...when(15) });
    org.add('ines', 'ines', { title: 'Tomorrow', when: at('2027-03-03', 10) });
    const mine = of('tomas', 'morning');
    expect(mine?.items.map((item) => ('title' in item ? item.title : null))).toEqual(['Board', 'Lab', null]);
    expect(mine?.items[0]).toMatchObject({ briefing: 'Ask for the vote' });
    expect(mine?.ways).toEqual([{ to: mine?.items[1]?.id, minutes: 25 }]);
    expect(JSON.stringify(day('tomas', 'morning'))).not.toContain('zqdoctor');
    expect(of('ines', 'morning')?.items).toHaveLength(3);
    expect(of('amara', 'morning')).toBeUndefined();
    expect(readDay(org.ctx('amara'), 'morning', 'ines')).toMatchObject({ code: 'notFound' });
    expect(readDay(org.ctx('tomas'), 'morning', 'ines')).toMatchObject({ value: { people: [{ handle: 'ines' }] } });
  });

  test('what others did since yesterday with what happens today, or was moved away from it', () => {
    const today = org.add('ines', 'ines', { title: 'Board', when: at('2027-03-02', 10) }).id;
    const moved = org.add('ines', 'ines', { title: 'Moved away', when: at('2027-03-02', 14) }).id;
    const other = org.add('ines', 'ines', { title: 'Other day', when: at('2027-03-09', 14) }).id;
    change('tomas', today, { fields: { place: 'Marsh Lab' } });
    change('tomas', moved, { when: at('2027-03-08', 14) });
    change('tomas', other, { fields: { place: 'Marsh Lab' } });
    const changes = of('ines', 'morning')?.changes ?? [];
    expect(changes.map(({ actor, items }) => [actor, ...items])).toEqual([
      ['Tomas', 'Moved away'],
      ['Tomas', 'Board'],
    ]);
    // One’s own doing is no news.
    expect(of('tomas', 'morning')?.changes.map(({ actor }) => actor)).toEqual(['Ines', 'Ines']);
  });
});

describe('the evening', () => {
  test('what was done in one’s name, with the way back; what is open for tomorrow', () => {
    const id = org.add('ines', 'ines', { title: 'Board', when: at('2027-03-08', 10) }).id;
    change('tomas', id, { fields: { place: 'Marsh Lab' } }, START + HOUR);
    org.add('ines', 'ines', { title: 'One', when: at('2027-03-03', 10) });
    org.add('ines', 'ines', { title: 'Two', when: at('2027-03-03', 10) });
    const mine = of('ines', 'evening');
    expect(mine?.done).toMatchObject([{ actor: 'Tomas', verb: 'item.changed', undo: true }]);
    expect(mine?.items).toHaveLength(2);
    expect(mine?.open).toMatchObject([{ kind: 'clash' }]);
    // What was done in her name is hers to read as such; what is open is for whoever acts, too.
    expect(of('tomas', 'evening')).toMatchObject({ done: [], open: [{ kind: 'clash' }] });
    expect(day('ines', 'evening').digest?.digest).toBe(trailHead(org.db).digest);
  });

  test('a day that holds far less than such days as a rule is asked about; a free day isn’t', () => {
    for (const date of [
      '2027-01-13',
      '2027-01-20',
      '2027-01-27',
      '2027-02-03',
      '2027-02-10',
      '2027-02-17',
      '2027-02-24',
    ])
      org.add('ines', 'ines', { title: 'Full', when: at(date, 9, 7) });
    expect(of('tomas', 'evening')?.empty).toEqual({ booked: 0, usual: 420 });
    org.add('ines', 'ines', { title: 'Enough', when: at('2027-03-03', 9, 2) });
    expect(of('tomas', 'evening')?.empty).toBeNull();
    const rest = { zone: 'Europe/Lisbon', hours: '24', weekFirst: 1, dateOrder: 'dmy' } as const;
    const work: [string, string][] = [['09:00', '17:00']];
    changePreferences(org.ctx('ines'), { ...rest, workHours: [work, work, [], work, work, [], []] });
    expect(of('tomas', 'evening')?.empty).toBeNull();
  });
});

describe('as letters', () => {
  const sent: { to: string; subject: string; text: string }[] = [];
  const post = async ({ to, subject, text }: { to: { address: string }; subject: string; text: string }) => {
    sent.push({ to: to.address, subject, text });
  };
  const pass = async (now: number) => {
    const due = await dayLettersDue(org.db, now, async () => undefined);
    await sendLetters(org.db, now, post, async (person, part) => dayLetter({ ...org.ctx(person.handle, now) }, part));
    return due;
  };
  beforeEach(() => {
    sent.length = 0;
  });

  test('once a day, at the hour of one’s own clock, and only on days that have something to tell', async () => {
    expect(readDayLetters(org.ctx('ines'))).toMatchObject({ value: { morning: null, evening: null } });
    expect(saveDayLetters(org.ctx('ines'), { morning: '09:30', evening: '08:00' })).toMatchObject({ ok: true });
    expect(readDayLetters(org.ctx('ines'))).toMatchObject({ value: { morning: '09:30', evening: '08:00' } });
    org.add('ines', 'ines', { title: 'Board', when: at('2027-03-02', 10), place: 'Ridge House' });
    // The evening's hour had passed when it was chosen.
    expect(await pass(START + 10 * 60_000)).toBe(0);
    expect(await pass(START + 31 * 60_000)).toBe(1);
    expect(await pass(START + 40 * 60_000)).toBe(0);
    expect(sent).toMatchObject([{ to: 'ines@cloudmoor.example', subject: 'Your morning: Tuesday, 2 March 2027' }]);
    expect(sent[0]?.text).toContain('10:00–11:00  Board, Ridge House');
    // Tomorrow has nothing: a letter is due, and none is sent.
    expect(await pass(START + 24 * HOUR + 31 * 60_000)).toBe(2);
    expect(sent).toHaveLength(1);
    // Hours late it doesn't come any more.
    expect(await pass(START + 48 * HOUR + 5 * HOUR)).toBe(0);
  });

  test('it says what its reader may see when it leaves, not when it was due', async () => {
    saveDayLetters(org.ctx('tomas', START - 2 * HOUR), { morning: '08:00', evening: null });
    const { id } = org.add('ines', 'ines', { title: 'zqsecret', when: at('2027-03-02', 10) });
    org.add('ines', 'ines', { title: 'Board', when: at('2027-03-02', 12) });
    expect(await dayLettersDue(org.db, START - HOUR, async () => undefined)).toBe(1);
    change('ines', id, { fields: { visibility: 'private' } });
    await pass(START - HOUR);
    expect(sent).toHaveLength(1);
    expect(sent[0]?.text).toContain('Board');
    expect(sent[0]?.text).not.toContain('zqsecret');
    expect(sent[0]?.text).toContain('Private');
  });

  test('in the language of its reader, the digest of the trail in the evening’s', async () => {
    const rest = { zone: 'America/Bogota', hours: '24', weekFirst: 1, dateOrder: 'dmy', language: 'pt' } as const;
    changePreferences(org.ctx('ines'), rest);
    const id = org.add('ines', 'ines', { title: 'Conselho', when: at('2027-03-08', 10) }).id;
    change('tomas', id, { fields: { place: 'Ridge House' } }, START);
    saveDayLetters(org.ctx('ines'), { morning: null, evening: '17:30' });
    const bogota = Date.UTC(2027, 2, 2, 22, 31);
    expect(await pass(bogota - HOUR)).toBe(0);
    expect(await pass(bogota)).toBe(1);
    expect(sent[0]?.text).toContain('Feito hoje em seu nome');
    expect(sent[0]?.text).toContain('Tomas alterou-o · Conselho · Lugar: nada → Ridge House');
    expect(sent[0]?.text).toContain(trailHead(org.db).digest);
  });
});
