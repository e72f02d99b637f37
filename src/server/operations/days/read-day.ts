import type { DayAnswer, DayPart, PersonDay } from '@/contract/days.ts';
import type { DeskRowWire } from '@/contract/desk.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import { mayRun } from '@/core/access/index.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { journeyMinutes, samePlace } from '@/core/openings/index.ts';
import { dateText, fromWallLenient, parseInstant, toWall, weekdayOf } from '@/core/time/index.ts';
import { allJourneys } from '../../repositories/journeys.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { itemStates } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type ActedFor, type Context, Directory, loadOf, readItem } from '../deciding/index.ts';
import { deskPrincipals, readDesk } from '../desk/index.ts';
import { listItems } from '../items/index.ts';
import { tasksDue } from '../tasks/index.ts';
import { doneByOthers, readTrailDigest } from '../trail/index.ts';

const DAY = 86_400_000;
/** People of one answer, what happens on one of their days, and rows and entries of each. */
const MOST_PEOPLE = 12;
const MOST_ITEMS = 60;
const MOST_ROWS = 20;
/** Weeks that say how full such a day is as a rule; below how much of that (and how many minutes) it isn't asked. */
const WEEKS = 8;
const EMPTY_BELOW = 0.25;
const USUAL_FROM = 120;

/**
 * The morning or the evening of everybody the viewer acts for, their own last, or of one of them: what they see of it at this instant.
 * Refused for whoever isn't one of those.
 */
export function readDay(ctx: Context, of: DayPart, whom: string): Result<DayAnswer> {
  const all = deskPrincipals(ctx);
  const wanted = whom === 'all' ? all : all.filter(({ person }) => person.handle === whom);
  if (wanted.length === 0 && whom !== 'all') return refuse('notFound');
  const day = new Day(ctx, of);
  const digest = of === 'evening' ? readTrailDigest(ctx) : null;
  return ok({
    of,
    date: dateText(of === 'morning' ? day.today : day.today + DAY),
    people: wanted.slice(0, MOST_PEOPLE).map((one) => day.person(one)),
    digest: digest?.ok ? digest.value : null,
  });
}

/** A day of whoever reads it, on their own clock. */
class Day {
  readonly today: number;
  private readonly zone: string;
  private readonly minutes: (a: string, b: string) => number;
  private readonly directory: Directory;
  private rows: readonly DeskRowWire[] | null = null;
  constructor(
    private readonly ctx: Context,
    private readonly of: DayPart,
  ) {
    this.zone = ctx.viewer.zone;
    this.today = Math.floor(toWall(this.zone, ctx.now) / DAY) * DAY;
    this.directory = new Directory(ctx.db);
    this.minutes = journeyMinutes(allJourneys(ctx.db));
  }

  person(one: ActedFor): PersonDay {
    const { person, own } = one;
    const shown = this.of === 'morning' ? this.today : this.today + DAY;
    const { items, more } = this.items(one, shown, shown + DAY);
    const changes = this.of === 'morning' ? this.changes(one, items) : [];
    const done = this.of === 'evening' && own ? this.done() : [];
    const open = this.of === 'evening' ? this.open(one) : [];
    const due = tasksDue(this.ctx, person.id, fromWallLenient(this.zone, shown + DAY), MOST_ROWS, this.directory);
    return {
      handle: person.handle,
      name: person.name,
      colour: person.colour,
      own,
      items: items.slice(0, MOST_ITEMS).map((item) => this.whole(item)),
      tasks: due.tasks.map(({ view }) => view),
      ways: this.ways(items),
      changes: changes.slice(0, MOST_ROWS),
      done: done.slice(0, MOST_ROWS),
      open: open.slice(0, MOST_ROWS),
      empty: this.of === 'evening' ? this.empty(one) : null,
      cut:
        due.cut || more || items.length > MOST_ITEMS || [changes, done, open].some((list) => list.length > MOST_ROWS),
    };
  }

  /** What happens between two days, what is called off or declined left out: what is by date first, then in order. */
  private items({ decided }: ActedFor, from: number, to: number): { items: ItemWire[]; more: boolean } {
    const listed = listItems(this.ctx, decided.calendar.key, {
      from: dateText(from),
      to: dateText(to),
      zone: this.zone,
    });
    if (!listed.ok) return { items: [], more: false };
    const items = listed.value.items.filter(
      ({ asSet }) => asSet?.cancelled !== true && asSet?.ownerAnswer !== 'declined',
    );
    const order = (item: ItemWire) => (item.allDay ? 0 : (parseInstant(item.start) ?? 0));
    return {
      items: [...items].sort((a, b) => order(a) - order(b)),
      more: listed.value.more !== null || listed.value.cutShort,
    };
  }

  /** An item with the texts that lists leave out. */
  private whole(item: ItemWire): ItemWire {
    if (!item.atItem?.some((field) => field === 'notes' || field === 'briefing')) return item;
    const read = readItem(this.ctx, item.id);
    return read.ok ? read.value : item;
  }

  private ways(items: readonly ItemWire[]): PersonDay['ways'] {
    const placed = items.filter((item) => !item.allDay && takesTime(item) && item.place);
    return placed.flatMap((item, i) => {
      const before = placed[i - 1];
      const minutes = before ? this.minutes(samePlace(before.place), samePlace(item.place)) : 0;
      return minutes > 0 ? [{ to: item.id, minutes }] : [];
    });
  }

  /** What others did since yesterday began with what happens today, or did until they moved it. */
  private changes({ decided }: ActedFor, items: readonly ItemWire[]): PersonDay['changes'] {
    if (!mayRun(decided.decision).run) return [];
    const at = (day: number) => fromWallLenient(this.zone, day);
    const [from, to] = [at(this.today), at(this.today + DAY)];
    const keys = new Set(items.map(({ id }) => id.split('~')[0]));
    const isToday = (state: StoredItem): boolean =>
      keys.has(state.key) ||
      (state.rule === null &&
        (state.allDay ? state.start <= this.today && this.today < state.end : state.start < to && state.end > from));
    return doneByOthers(this.ctx, decided.calendar.id, at(this.today - DAY), (entry) => {
      const { before, after } = itemStates(entry);
      return [...before, ...after].some((state) => state !== null && isToday(state));
    });
  }

  private done(): PersonDay['done'] {
    return doneByOthers(this.ctx, null, fromWallLenient(this.zone, this.today), () => true);
  }

  /** What of the Desk is due before tomorrow ends. */
  private open({ person }: ActedFor): PersonDay['open'] {
    if (this.rows === null) {
      const desk = readDesk(this.ctx, 'all');
      this.rows = desk.ok ? desk.value.rows : [];
    }
    const ends = fromWallLenient(person.zone, Math.floor(toWall(person.zone, this.ctx.now) / DAY) * DAY + 2 * DAY);
    return this.rows.filter(
      (row) => row.for === person.handle && row.due !== null && (parseInstant(row.due) ?? 0) < ends,
    );
  }

  /** Whether tomorrow, a working day, holds far less than that day of the week as a rule. */
  private empty({ person, decided }: ActedFor): PersonDay['empty'] {
    const tomorrow = this.today + DAY;
    const weekday = weekdayOf(tomorrow);
    const hours = readWorkHours(person.workHours);
    if (hours ? (hours[weekday] ?? []).length === 0 : weekday > 4) return null;
    const booked = (from: number, to: number) => {
      const range = { from: dateText(from), to: dateText(to), zone: this.zone };
      const listed = listItems(this.ctx, decided.calendar.key, range);
      return listed.ok ? loadOf(listed.value.items, range).map((one) => one.booked) : [];
    };
    const before = booked(tomorrow - WEEKS * 7 * DAY, tomorrow);
    const alike = before.filter((_, i) => i % 7 === 0).sort((a, b) => a - b);
    const usual = alike[Math.floor(alike.length / 2)] ?? 0;
    const [now = 0] = booked(tomorrow, tomorrow + DAY);
    return usual >= USUAL_FROM && now < usual * EMPTY_BELOW ? { booked: now, usual } : null;
  }
}
