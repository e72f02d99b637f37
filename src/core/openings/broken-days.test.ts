import { describe, expect, it } from 'vitest';
import { brokenDays } from './index.ts';
import type { OpeningsItem, OpeningsPerson, OpeningsRequest, TimePreference } from './request.ts';

const at = (text: string): number => Date.parse(text) / 60_000;
const item = (start: string, end: string, more: Partial<OpeningsItem> = {}): OpeningsItem => ({
  start,
  end,
  allDay: false,
  shows: 'busy',
  ...more,
});
const request: OpeningsRequest = {
  now: at('2027-03-01T00:00Z'),
  from: at('2027-03-01T00:00Z'),
  until: at('2027-03-08T00:00Z'),
  length: 30,
  grid: 15,
  zone: 'Europe/Lisbon',
  notice: 0,
  tentative: 'blocks',
  within: 'hours',
  padBefore: 0,
  padAfter: 0,
  place: null,
  at: [],
};
/** The dates on which a wish is broken, as texts. */
function broken(preference: TimePreference, items: readonly OpeningsItem[], zone = 'Europe/Lisbon'): string[] {
  const person: OpeningsPerson = { id: 'x', need: 'must', known: true, zone, hours: null, keeps: [preference], items };
  return (brokenDays(person, request)[0] ?? []).map((date) => new Date(date).toISOString().slice(0, 10));
}
const LUNCH = { kind: 'rest', hard: true, days: [1, 2, 3, 4, 5], from: '12:00', to: '14:00', minutes: 45 } as const;

describe('days on which wishes are broken', () => {
  it('a stretch kept free is broken by whatever takes time in it, on its weekdays alone', () => {
    const preference = { kind: 'span', hard: true, days: [2], from: '09:00', to: '10:00' } as const;
    const items = ['2027-03-01', '2027-03-02', '2027-03-03'].map((d) => item(`${d}T09:30:00Z`, `${d}T11:00:00Z`));
    expect(broken(preference, items)).toEqual(['2027-03-02']);
    expect(broken(preference, [item('2027-03-02T10:00:00Z', '2027-03-02T11:00:00Z')])).toEqual([]);
    expect(broken(preference, [item('2027-03-02T09:00:00Z', '2027-03-02T10:00:00Z', { shows: 'free' })])).toEqual([]);
  });

  it('a rest is broken where nothing long enough is left', () => {
    const day = '2027-03-03';
    expect(broken(LUNCH, [item(`${day}T12:00:00Z`, `${day}T13:15:00Z`)])).toEqual([]);
    expect(broken(LUNCH, [item(`${day}T12:00:00Z`, `${day}T13:16:00Z`)])).toEqual([day]);
    expect(broken(LUNCH, [item(`${day}`, '2027-03-04', { allDay: true })])).toEqual([day]);
  });

  it('a day holds no more than it may', () => {
    const most = { kind: 'most', hard: true, minutes: 120 } as const;
    const day = '2027-03-04';
    const two = [item(`${day}T09:00:00Z`, `${day}T10:00:00Z`), item(`${day}T11:00:00Z`, `${day}T12:00:00Z`)];
    expect(broken(most, two)).toEqual([]);
    expect(broken(most, [...two, item(`${day}T15:00:00Z`, `${day}T15:01:00Z`)])).toEqual([day]);
  });

  it('a pause is broken by what stands in a row too long, on the day the row begins', () => {
    const pause = { kind: 'pause', hard: true, after: 120, minutes: 15 } as const;
    const day = '2027-03-05';
    const row = [item(`${day}T09:00:00Z`, `${day}T10:30:00Z`), item(`${day}T10:40:00Z`, `${day}T11:10:00Z`)];
    expect(broken(pause, row)).toEqual([day]);
    expect(broken(pause, [row[0] as OpeningsItem, item(`${day}T10:45:00Z`, `${day}T11:15:00Z`)])).toEqual([]);
  });

  it('days are those of the person’s own zone', () => {
    const preference = { kind: 'span', hard: true, days: [1], from: '08:00', to: '09:00' } as const;
    // Half past eight on Monday in Bogotá.
    expect(broken(preference, [item('2027-03-01T13:30:00Z', '2027-03-01T14:00:00Z')], 'America/Bogota')).toEqual([
      '2027-03-01',
    ]);
  });
});
