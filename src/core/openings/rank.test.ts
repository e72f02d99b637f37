import { expect, test } from 'vitest';
import { findOpenings, type OpeningsPerson, type OpeningsRequest, rankRuns, WEIGHTS } from './index.ts';

const at = (text: string) => Date.parse(`2027-03-02T${text}:00Z`) / 60_000;
const request: OpeningsRequest = {
  now: at('07:00'),
  from: at('07:00'),
  until: at('19:00'),
  length: 60,
  grid: 30,
  zone: 'Europe/Lisbon',
  notice: 0,
  tentative: 'counts',
  within: 'any',
  padBefore: 0,
  padAfter: 0,
  place: null,
  at: [],
};
const item = (from: string, to: string, shows: 'busy' | 'tentative' = 'busy') => ({
  start: `2027-03-02T${from}:00Z`,
  end: `2027-03-02T${to}:00Z`,
  allDay: false,
  shows,
});
const person = (id: string, more: Partial<OpeningsPerson>): OpeningsPerson => ({
  id,
  need: 'must',
  known: true,
  zone: 'Europe/Lisbon',
  hours: null,
  keeps: [],
  items: [],
  ...more,
});
const rank = (people: OpeningsPerson[], weights = WEIGHTS) =>
  rankRuns(request, people, findOpenings(request, people).starts, 'ines', weights);

test('neighbouring starts that are as good are one run; the best first, each with its reasons', () => {
  const people = [
    person('ines', { items: [item('10:00', '12:00'), item('14:00', '15:00', 'tentative')] }),
    person('bruno', { need: 'may', items: [item('16:00', '18:00')] }),
  ];
  const [best, ...rest] = rank(people);
  expect(best).toMatchObject({ from: at('08:00'), to: at('09:00'), reasons: [] });
  expect(rest.find((r) => r.from === at('13:30'))?.reasons).toEqual([{ why: 'tentative', who: 'ines' }]);
  expect(rest.find((r) => r.from === at('15:30'))?.reasons).toEqual([{ why: 'cannot', who: 'bruno' }]);
  expect(rest.find((r) => r.from === at('07:00'))?.reasons).toEqual([
    { why: 'outside', who: 'ines', local: '07:00' },
    { why: 'outside', who: 'bruno', local: '07:00' },
  ]);
  expect(rest.map((r) => r.cost)).toEqual([...rest.map((r) => r.cost)].sort((a, b) => a - b));
});

test('a gap too short to be of use counts in the day of whom it is for; a weight turned down counts less', () => {
  const people = [person('ines', { items: [item('09:15', '10:00')] })];
  const run = rank(people).find((r) => r.from === at('08:00'));
  expect(run?.reasons).toEqual([{ why: 'gap', who: 'ines', minutes: 15 }]);
  const kinder = rank(people, { ...WEIGHTS, gap: 0 }).find((r) => r.from === at('08:00'));
  expect((run?.cost ?? 0) - (kinder?.cost ?? 0)).toBe(WEIGHTS.gap);
});
