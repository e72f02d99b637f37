import { expect, test } from 'vitest';
import type { TimeStyle } from '../../common/times.ts';
import { meantBy } from './from-sentence.ts';

const style: TimeStyle = { zone: 'UTC', hours: '24', weekFirst: 1, dateOrder: 'dmy', language: 'en' };
const at = (now: string, text: string) => {
  const meant = meantBy(text, { now: Date.parse(now), style, people: [], places: [], calendars: new Map() });
  return meant && [new Date(meant.start).toISOString().slice(0, 16), (meant.end - meant.start) / 60_000];
};

test.each([
  ['2027-03-02T17:07:00Z', 'block 30m now', ['2027-03-02T17:10', 30]],
  // Nine has passed: it is tomorrow's.
  ['2027-03-02T17:07:00Z', 'block 30m', ['2027-03-03T09:00', 30]],
  ['2027-03-02T08:00:00Z', 'block 30m', ['2027-03-02T09:00', 30]],
  ['2027-03-02T17:07:00Z', 'call 16:00', ['2027-03-03T16:00', 60]],
  ['2027-03-02T17:07:00Z', 'call today 16:00', ['2027-03-02T16:00', 60]],
  ['2027-03-02T17:07:00Z', 'fair all day', ['2027-03-02T00:00', 1440]],
])('at %s, “%s”', (now, text, meant) => expect(at(now, text)).toEqual(meant));
