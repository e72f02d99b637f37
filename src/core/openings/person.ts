import { dayNumber, parseDate, parseInstant } from '../time/index.ts';
import { DAY, dateOf, merged, minuteAt, rangeOn, weekdayOf } from './clock.ts';
import { samePlace } from './journeys.ts';
import type { OpeningsItem, OpeningsPerson, OpeningsRequest, Span } from './request.ts';

const MINUTE = 60_000;
const DAY_MS = 86_400_000;

/** What a search needs of somebody, worked out once. */
export interface Ready {
  readonly person: OpeningsPerson;
  /** Time that rules a start out, merged; nothing of somebody who isn't known. */
  readonly hard: readonly Span[];
  /** Time that only counts against a start. */
  readonly soft: readonly Span[];
  /** Hard items with a place, all-day ones left out. */
  readonly placed: readonly { readonly span: Span; readonly place: string }[];
  /** When they are at the place that is asked for, merged. */
  readonly there: readonly Span[];
  /** When they work, merged; `null` where they keep no hours. */
  readonly open: readonly Span[] | null;
}

/** A person's time as a search reads it, between two minutes with a day to spare on both sides. */
export function ready(person: OpeningsPerson, request: OpeningsRequest): Ready {
  const place = samePlace(request.place);
  const hard: Span[] = [];
  const soft: Span[] = [];
  const placed: { span: Span; place: string }[] = [];
  const there: Span[] = [];
  for (const item of person.known ? person.items : []) {
    const span = spanOf(item, person.zone);
    if (span === null) continue;
    if (item.kind === 'whereabouts') {
      if (place !== '' && samePlace(item.place) === place) there.push(span);
      continue;
    }
    if (span[0] >= span[1] || item.shows === 'free' || item.shows === 'reachable') continue;
    if (item.shows === 'tentative' && request.tentative === 'counts') {
      soft.push(span);
      continue;
    }
    hard.push(span);
    if (!item.allDay && samePlace(item.place) !== '') placed.push({ span, place: samePlace(item.place) });
  }
  return {
    person,
    hard: merged(hard),
    soft: merged(soft),
    placed,
    there: merged(there),
    open: person.hours === null ? null : openOf(person.hours, person.zone, request.from - DAY, request.until + DAY),
  };
}

function spanOf(item: OpeningsItem, zone: string): Span | null {
  if (item.allDay) {
    const [start, end] = [parseDate(item.start), parseDate(item.end)];
    return start === null || end === null ? null : [minuteAt(zone, start), minuteAt(zone, end)];
  }
  const [start, end] = [instantOf(item.start), instantOf(item.end)];
  return start === null || end === null ? null : [start / MINUTE, end / MINUTE];
}

/** Two digits of a text as a number; beyond 99 or below 0 where they are none. */
const two = (text: string, i: number): number => (text.charCodeAt(i) - 48) * 10 + text.charCodeAt(i + 1) - 48;

/** An instant of a view. They are many and of one form, which is read without looking at it twice; any other as it is everywhere. */
function instantOf(text: string): number | null {
  if (text.length !== 20 || text.charCodeAt(19) !== 90) return parseInstant(text);
  const month = two(text, 5);
  const day = two(text, 8);
  const hour = two(text, 11);
  const minute = two(text, 14);
  const second = two(text, 17);
  // Whatever isn't a plain date of any month is looked at properly.
  const clock = hour >= 0 && hour < 24 && minute >= 0 && minute < 60 && second >= 0 && second < 60;
  if (!(clock && month >= 1 && month <= 12 && day >= 1 && day <= 28)) return parseInstant(text);
  return (
    ((dayNumber(two(text, 0) * 100 + two(text, 2), month, day) * 24 + hour) * 60 + minute) * MINUTE + second * 1000
  );
}

/** Hours are the same for many: what was worked out last for some of them is kept for one search. */
const known = new Map<string, Span[]>();
const MOST_KNOWN = 64;

/** When somebody works between two minutes: each date's ranges through their zone, joined over midnight too. */
export function openOf(
  hours: NonNullable<OpeningsPerson['hours']>,
  zone: string,
  from: number,
  until: number,
): readonly Span[] {
  const key = `${zone} ${from} ${until} ${JSON.stringify(hours)}`;
  const before = known.get(key);
  if (before) return before;
  const list: Span[] = [];
  for (let date = dateOf(zone, from) - DAY_MS; date <= dateOf(zone, until) + DAY_MS; date += DAY_MS)
    for (const [a, b] of hours[weekdayOf(date) - 1] ?? []) list.push(rangeOn(zone, date, a, b));
  const open = merged(list);
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(key, open);
  return open;
}
