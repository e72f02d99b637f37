import { toWall } from '../time/index.ts';
import { DAY, meets } from './clock.ts';
import { type Ready, ready } from './person.ts';
import { breaksPreference } from './preferences.ts';
import type { OpeningsPerson, OpeningsRequest } from './request.ts';

const MINUTE = 60_000;
const DAY_MS = 86_400_000;

/** What is held against a start, as a number with its reason: whom it concerns, and how much of it there is. */
export type Reason =
  | { readonly why: 'cannot'; readonly who: string }
  | { readonly why: 'tentative'; readonly who: string }
  | { readonly why: 'keep'; readonly who: string }
  | { readonly why: 'outside'; readonly who: string; readonly local: string }
  | { readonly why: 'gap'; readonly who: string; readonly minutes: number };

/** Neighbouring starts that are as good: from the first to the last, what one of them costs, and why. */
export interface Run {
  readonly from: number;
  readonly to: number;
  readonly cost: number;
  readonly reasons: readonly Reason[];
}

/** What each costs, from which three can be turned up or down. */
export interface Weights {
  readonly cannot: number;
  readonly tentative: number;
  readonly preference: number;
  /** For each minute outside 8 to 18 for somebody. */
  readonly outside: number;
  readonly gap: number;
  /** For each day later. */
  readonly late: number;
}
export const WEIGHTS: Weights = { cannot: 40, tentative: 25, preference: 20, outside: 0.3, gap: 8, late: 2 };

const FROM = 8 * 60;
const TO = 18 * 60;
const SHORT = 30;

/**
 * Puts openings into runs of neighbouring starts with the same reasons, best first; equal costs, the earlier first. `forWhom` is
 * whose day gaps are counted in; starts of which `apart` differs stand in runs of their own.
 */
export function rankRuns(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
  starts: readonly number[],
  forWhom: string,
  weights: Weights = WEIGHTS,
  apart: (start: number) => string | undefined = () => undefined,
): Run[] {
  const all = people.map((person) => ready(person, request));
  const runs: { from: number; to: number; cost: number; reasons: Reason[]; key: string }[] = [];
  for (const start of starts) {
    const { cost, reasons } = weigh(request, all, start, forWhom, weights);
    const key = JSON.stringify([apart(start), reasons.map((r) => [r.why, r.who])]);
    const last = runs.at(-1);
    if (last && last.key === key && start - last.to === request.grid) {
      last.to = start;
      // A run is as good as the best of its starts.
      if (cost < last.cost) last.cost = cost;
    } else runs.push({ from: start, to: start, cost, reasons, key });
  }
  return runs
    .sort((a, b) => a.cost - b.cost || a.from - b.from)
    .map(({ from, to, cost, reasons }) => ({ from, to, cost, reasons }));
}

/** What each of some openings costs, and why: in their order. */
export function costsOf(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
  starts: readonly number[],
  forWhom: string,
  weights: Weights = WEIGHTS,
): { readonly start: number; readonly cost: number; readonly reasons: readonly Reason[] }[] {
  const all = people.map((person) => ready(person, request));
  return starts.map((start) => ({ start, ...weigh(request, all, start, forWhom, weights) }));
}

function weigh(
  request: OpeningsRequest,
  people: readonly Ready[],
  start: number,
  forWhom: string,
  weights: Weights,
): { cost: number; reasons: Reason[] } {
  const end = start + request.length;
  const reasons: Reason[] = [];
  let cost = ((start - request.from) / DAY) * weights.late;
  for (const one of people) {
    const { id, need, known, zone, keeps } = one.person;
    const outsideHours = one.open !== null && !one.open.some(([a, b]) => a <= start && end <= b);
    if (need === 'may' && ((known && meets(one.hard, start, end)) || outsideHours)) {
      reasons.push({ why: 'cannot', who: id });
      cost += weights.cannot;
      continue;
    }
    if (known && meets(one.soft, start, end)) {
      reasons.push({ why: 'tentative', who: id });
      cost += weights.tentative;
    }
    if (
      known &&
      keeps.some((preference) => !preference.hard && breaksPreference(preference, zone, one.hard, start, end))
    ) {
      reasons.push({ why: 'keep', who: id });
      cost += weights.preference;
    }
    const wall = toWall(zone, start * MINUTE);
    const minute = Math.floor((wall % DAY_MS) / MINUTE);
    const beyond = Math.max(0, FROM - minute) + Math.max(0, minute + request.length - TO);
    if (beyond > 0) {
      const local = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
      reasons.push({ why: 'outside', who: id, local });
      cost += Math.min(beyond, 600) * weights.outside;
    }
    if (id === forWhom && known) {
      const left = shortGap(one, start, end);
      if (left !== null) {
        reasons.push({ why: 'gap', who: id, minutes: left });
        cost += weights.gap;
      }
    }
  }
  return { cost, reasons };
}

/** The minutes of a gap that would be too short to be of use, before or after; `null` where there is none. */
function shortGap({ hard }: Ready, start: number, end: number): number | null {
  let before: number | null = null;
  let after: number | null = null;
  for (const [a, b] of hard) {
    if (b <= start) before = start - b;
    if (a >= end && after === null) after = a - end;
  }
  const short = [before, after].filter((gap): gap is number => gap !== null && gap > 0 && gap < SHORT);
  return short.length > 0 ? Math.min(...short) : null;
}
