import type { ItemWire } from '@/contract/items/items.ts';
import type { TimePeriod, TimeShareWire, TimeUseAnswer, TimeUseQuery } from '@/contract/time-use.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { type TimeUseItem, timeUse } from '@/core/reports/index.ts';
import { dateText, fromWallLenient, parseDate, parseInstant, weekdayOf } from '@/core/time/index.ts';
import { personByAddress } from '../../repositories/people.ts';
import { putTimeShares, timeSharesOf } from '../../repositories/time-shares.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  type ActedFor,
  actsBy,
  type Context,
  Directory,
  isRefusal,
  principalsOf,
  readItem,
  trailOn,
} from '../deciding/index.ts';
import { listItems } from '../items/index.ts';

const DAY = 86_400_000;
/** Days of one period, occurrences of one, people that are named, and days that are listed at once. */
const LONGEST = 371;
const MOST_ITEMS = 20_000;
const MOST_PEOPLE = 30;
const AT_ONCE = 98;

/** Whose time it is, for them and for whoever acts for them. */
const find = (ctx: Context, handle: string): ActedFor | undefined =>
  principalsOf(ctx).find(
    ({ person, decided: { decision } }) => person.handle === handle && (decision.owner || actsBy(decision)),
  );

/**
 * What somebody's time went to between two days of the reader's clock, and between two others beside them, from what the reader sees at
 * this instant; with the shares that are wished for.
 */
export function readTimeUse(ctx: Context, handle: string, query: TimeUseQuery): Result<TimeUseAnswer> {
  const one = find(ctx, handle);
  if (!one) return refuse('notFound');
  const days = readDays(query.from, query.until, ['from', 'until']);
  if (isRefusal(days)) return days;
  const others =
    query.otherFrom === undefined || query.otherUntil === undefined
      ? null
      : readDays(query.otherFrom, query.otherUntil, ['otherFrom', 'otherUntil']);
  if (others && isRefusal(others)) return others;
  const reading = new Reading(ctx, one);
  const { person, own } = one;
  return ok({
    owner: { handle: person.handle, name: person.name, own },
    period: reading.period(days),
    other: others && reading.period(others),
    ...timeSharesOf(ctx.db, person.id),
  });
}

type Days = readonly [first: number, last: number];

function readDays(from: string, until: string, [first, last]: readonly [string, string]): Days | Refusal {
  const [a, b] = [parseDate(from), parseDate(until)];
  if (a === null) return refuse('badInput', { fields: { [first]: 'date' } });
  if (b === null) return refuse('badInput', { fields: { [last]: 'date' } });
  if (b < a) return refuse('badInput', { fields: { [last]: 'endBeforeStart' } });
  if (b - a >= LONGEST * DAY) return refuse('badInput', { fields: { [last]: `daysMost:${LONGEST}` } });
  return [a, b];
}

/** Reads periods of one person's calendar. */
class Reading {
  private readonly inside = new Map<string, 'inside' | 'outside' | 'thing'>();
  constructor(
    private readonly ctx: Context,
    private readonly one: ActedFor,
  ) {}

  period([first, last]: Days): TimePeriod {
    const { zone, weekFirst } = this.ctx.viewer;
    const at = (day: number) => fromWallLenient(zone, day);
    const { items, cut } = this.items(first, last + DAY);
    const starts: number[] = [];
    for (let day = first; day <= last; day += DAY)
      if (day === first || weekdayOf(day) === weekFirst - 1) starts.push(day);
    const weeks = starts.map((day, i) => [at(day), at(starts[i + 1] ?? last + DAY)] as const);
    const used = timeUse(
      items.map((item) => this.item(item)),
      weeks,
    );
    const directory = new Directory(this.ctx.db);
    return {
      ...used,
      kinds: [...used.kinds],
      categories: [...used.categories],
      from: dateText(first),
      until: dateText(last),
      people: used.people
        .slice(0, MOST_PEOPLE)
        .map(({ name, ...rest }) => ({ name: directory.byAddress(name), address: name, ...rest })),
      weeks: used.weeks.map((week, i) => ({ ...week, kinds: [...week.kinds], from: dateText(starts[i] ?? first) })),
      cut: cut || used.people.length > MOST_PEOPLE,
    };
  }

  /** All that takes time between two days, as the reader sees it. */
  private items(from: number, to: number): { items: ItemWire[]; cut: boolean } {
    const found = new Map<string, ItemWire>();
    for (let day = from; day < to; day += AT_ONCE * DAY) {
      const range = {
        from: dateText(day),
        to: dateText(Math.min(to, day + AT_ONCE * DAY)),
        zone: this.ctx.viewer.zone,
      };
      for (let after: number | undefined = 0; after !== undefined; ) {
        const listed = listItems(this.ctx, this.one.decided.calendar.key, after > 0 ? { ...range, after } : range);
        if (!listed.ok) return { items: [...found.values()], cut: true };
        for (const item of listed.value.items)
          if (!item.allDay && takesTime(item)) found.set(`${item.id} ${item.start}`, item);
        if (listed.value.cutShort || found.size > MOST_ITEMS)
          return { items: [...found.values()].slice(0, MOST_ITEMS), cut: true };
        after = listed.value.more ?? undefined;
      }
    }
    return { items: [...found.values()], cut: false };
  }

  private item(view: ItemWire): TimeUseItem {
    const listed = view.atItem?.includes('attendees') ? readItem(this.ctx, view.id) : null;
    const attendees = (listed?.ok ? listed.value.attendees : view.attendees) ?? null;
    const people = (attendees ?? [])
      .map(({ address }) => address.toLowerCase())
      .filter((address) => address !== this.one.person.address.toLowerCase() && this.sideOf(address) !== 'thing');
    return {
      start: parseInstant(view.start) ?? 0,
      end: parseInstant(view.end) ?? 0,
      kind: 'kind' in view ? (view.kind ?? null) : null,
      categories: view.categories ?? [],
      people,
      outside:
        attendees === null && !('notes' in view) ? null : people.some((address) => this.sideOf(address) === 'outside'),
    };
  }

  private sideOf(address: string): 'inside' | 'outside' | 'thing' {
    const known = this.inside.get(address);
    if (known) return known;
    const person = personByAddress(this.ctx.db, address);
    const side = person?.resource ? 'thing' : person?.inside ? 'inside' : 'outside';
    this.inside.set(address, side);
    return side;
  }
}

/** Says what shares are wished for, where they are as they were read. */
export function saveTimeShares(
  ctx: Context,
  handle: string,
  { shares, version }: { readonly shares: readonly TimeShareWire[]; readonly version: number },
): Result<{ done: true }> {
  return ctx.db.write(() => {
    const one = find(ctx, handle);
    if (!one) return refuse('notFound');
    const was = timeSharesOf(ctx.db, one.person.id);
    if (was.version !== version) return refuse('changedMeanwhile', { data: was });
    const twice = shares.findIndex((a, i) => shares.some((b, j) => j < i && a.by === b.by && a.name === b.name));
    if (twice >= 0) return refuse('badInput', { fields: { [`shares.${twice}.name`]: 'shareTwice' } });
    putTimeShares(ctx.db, one.person.id, shares, version + 1, ctx.viewer.id, ctx.now);
    trailOn(ctx, one.decided.calendar, one.person.key, 'desk.shares', was.shares, shares);
    return ok({ done: true as const });
  });
}
