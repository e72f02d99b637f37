import type { ItemWire } from '@/contract/items/items.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import { type DeskAttendee, type DeskItem, daysOf } from '@/core/desk/index.ts';
import { sameAddress } from '@/core/meetings/index.ts';
import { occurrenceId } from '../../ids.ts';
import {
  type DeskItemRow,
  deskItemOf,
  deskItems,
  invitedAt,
  itemsInDoubt,
  withoutOf,
} from '../../repositories/desk.ts';
import { itemById, unansweredIn } from '../../repositories/items.ts';
import { meetingOfItem } from '../../repositories/meetings.ts';
import {
  type ActedFor,
  type Context,
  type Directory,
  occurrencesBetween,
  rangeOf,
  readViewsOf,
  repeats,
  type ViewedOccurrence,
  viewFor,
} from '../deciding/index.ts';
import { storedTime } from '../meetings/index.ts';

const DAY = 86_400_000;
/** Time ahead in which everything is read at least: what clashes within fourteen days, and what follows it. */
const AHEAD = 16 * DAY;
/** Answers of occurrences that are read, each as large as a board's. */
const MOST_ANSWERS = 4;
/** Invitations, and meetings in doubt, beyond those days; and how far the next occurrence of a series is looked for. */
const MOST_BEYOND = 100;
const FURTHEST = 800 * DAY;

/** An occurrence as the rule reads it, with what it is outside: its view, and what stands behind that. */
export interface SeenItem {
  readonly fact: DeskItem;
  readonly view: ItemWire;
  readonly row: DeskItemRow;
  /** Of a series the next that happens, by which the whole is decided; always so where nothing repeats. */
  readonly next: boolean;
}

/**
 * What happens in somebody's main calendar as the viewer sees it, by an id that never leaves the house and is the same for everybody. Of a series
 * that waits for an answer only its next occurrence is here: it stands for all. `cut`: not all of it could be read.
 */
export function seenItems(
  ctx: Context,
  { person, decided }: ActedFor,
  directory: Directory,
): { items: SeenItem[]; cut: boolean } {
  const { calendar } = decided;
  const until = ctx.now + aheadFor(person, ctx.now);
  const near = viewsAhead(ctx, decided, until, directory);
  const far = viewsBeyond(ctx, decided, until, new Set(near.views.map(({ of }) => of.item)), directory);
  const views = [...near.views, ...far.views];
  const ids = [...new Set(views.map(({ of }) => of.item))];
  const rows = rowsOf(ctx, calendar.id, views);
  const without = withoutOf(ctx.db, ids);
  const begun = new Set<number>();
  const around = { principal: person.address, until };
  const items = views.flatMap(({ view, of }): SeenItem[] => {
    const row = rows.get(of.item);
    if (!row) return [];
    const next = !begun.has(row.id);
    if (of.end > ctx.now) begun.add(row.id);
    const fact = factOf(ctx, around, { view, row, next }, of, without.get(row.id));
    return fact ? [{ fact, view, row, next }] : [];
  });
  return { items, cut: near.cut || far.cut };
}

/** A view, and what it is of. */
interface ViewOf {
  readonly view: ItemWire;
  readonly of: ViewedOccurrence;
}

/** How far ahead everything is read: where few days are worked, as far as the fifth of them, by which a meeting has to have a place. */
function aheadFor({ zone, workHours }: ActedFor['person'], now: number): number {
  const days = daysOf({ zone, hours: readWorkHours(workHours) }, now);
  return Math.max(AHEAD, days.endOfWorkingDay(5) - now + DAY);
}

/** The views of the days ahead. */
function viewsAhead(
  ctx: Context,
  { calendar, decision }: ActedFor['decided'],
  until: number,
  directory: Directory,
): { views: ViewOf[]; cut: boolean } {
  const range = rangeOf({ start: ctx.now, end: until, allDay: false }, calendar.zone);
  const views: ViewOf[] = [];
  let after: number | null = 0;
  let cut = false;
  for (let n = 0; after !== null && n < MOST_ANSWERS; n++) {
    const read = readViewsOf(ctx.db, directory, calendar, range, { person: ctx.viewer, decision }, { after });
    for (const [i, of] of read.of.entries()) views.push({ view: read.items[i] as ItemWire, of });
    cut ||= read.unread;
    after = read.more;
  }
  return { views, cut: cut || after !== null };
}

/** The views of what lies beyond those days and is to be decided all the same: of a series its next occurrence. `known`: what was read already. */
function viewsBeyond(
  ctx: Context,
  decided: ActedFor['decided'],
  until: number,
  known: ReadonlySet<number>,
  directory: Directory,
) {
  const { calendar } = decided;
  const unanswered = unansweredIn(ctx.db, calendar.id, ctx.now, MOST_BEYOND + 1);
  const inDoubt = itemsInDoubt(ctx.db, calendar.id, until - DAY, MOST_BEYOND + 1);
  const items = new Map(unanswered.slice(0, MOST_BEYOND).map((item) => [item.id, item]));
  for (const id of inDoubt.slice(0, MOST_BEYOND)) {
    const item = known.has(id) || items.has(id) ? null : itemById(ctx.db, id);
    if (item) items.set(id, item);
  }
  const views = [...items.values()].flatMap((item) => {
    if (known.has(item.id)) return [];
    const next = repeats(item) ? occurrencesBetween(ctx.db, item, ctx.now, ctx.now + FURTHEST)[0] : item;
    const view = next && viewFor(ctx, decided, item, next, directory);
    return view ? [{ view, of: { item: item.id, start: next.start, end: next.end, row: null } }] : [];
  });
  return { views, cut: unanswered.length > MOST_BEYOND || inDoubt.length > MOST_BEYOND };
}

/** The rows of the items some views are of, by their numbers: as they were read, where that was enough. */
function rowsOf(ctx: Context, calendarId: number, views: readonly ViewOf[]): ReadonlyMap<number, DeskItemRow> {
  const rows = new Map<number, DeskItemRow>();
  for (const { of } of views) if (of.row && !rows.has(of.item)) rows.set(of.item, deskItemOf(of.row));
  const unread = new Set(views.flatMap(({ of }) => (rows.has(of.item) ? [] : of.item)));
  if (unread.size > 0) for (const row of deskItems(ctx.db, calendarId, [...unread])) rows.set(row.id, row);
  return rows;
}

/** Whose calendar it is, by address, and how far ahead everything is read. */
interface Around {
  readonly principal: string;
  readonly until: number;
}

/** `null` for the later occurrences of a series that waits for an answer. */
function factOf(
  ctx: Context,
  around: Around,
  { view, row, next }: Omit<SeenItem, 'fact'>,
  { start, end }: { readonly start: number; readonly end: number },
  without: ReadonlySet<string> | undefined,
): DeskItem | null {
  const full = 'notes' in view;
  const unanswered = full && row.ownerAnswer === 'needs-action' && view.mayAnswer === true;
  if (unanswered && row.repeats && !next) return null;
  const calls = !full || !view.organiser ? null : view.calledHere ? around.principal : view.organiser.address;
  return {
    // A series that waits for an answer is answered whole, and stays one row as time goes on.
    id: unanswered ? row.key : occurrenceId(row.key, row.repeats ? start : null),
    uid: full ? row.uid : null,
    start,
    end,
    allDay: view.allDay,
    shows: view.shows,
    kind: view.kind ?? 'meeting',
    place: view.place ?? null,
    link: view.link ?? null,
    cancelled: full && row.cancelled,
    calls,
    answer: full && (row.ownerAnswer !== 'needs-action' || unanswered) ? row.ownerAnswer : null,
    answerBy: null,
    set: full && row.holdSet !== null && view.kind === 'hold' ? String(row.holdSet) : null,
    asked:
      calls === null
        ? []
        : attendeesOf(ctx, view, row, start < around.until, next && calls === around.principal, without),
    version: row.version,
  };
}

/** Whom a meeting asks; with `decided`, where its owner decides about it: since when, what they propose, and without whom it takes place. */
function attendeesOf(
  ctx: Context,
  view: ItemWire,
  row: DeskItemRow,
  near: boolean,
  decided: boolean,
  without: ReadonlySet<string> | undefined,
): DeskAttendee[] {
  // A list of many people stays with the item.
  const left = view.atItem?.includes('attendees') ? itemById(ctx.db, row.id)?.attendees : undefined;
  const attendees = left ?? view.attendees ?? [];
  const meeting = decided && attendees.length > 0 ? meetingOfItem(ctx.db, row.id) : null;
  const state = meeting?.part === 'organiser' ? meeting.state : null;
  // A draft asks nobody yet.
  if (meeting && state?.state !== 'sent') return [];
  const silent = attendees.some(({ answer }) => answer === 'needs-action');
  const sinceByAddress = meeting && silent && near ? invitedAt(ctx.db, meeting.id) : null;
  return attendees.map((one): DeskAttendee => {
    const counter = state?.counters.find(({ attendee }) => sameAddress(attendee, one.address));
    const address = one.address.toLowerCase();
    return {
      who: one.address,
      need: one.role === 'may' ? 'may' : 'must',
      thing: one.kind === 'room' || one.kind === 'thing',
      answer: one.answer,
      since: sinceByAddress?.get(address) ?? state?.stamp ?? row.createdAt,
      proposes: counter ? (storedTime(counter.time)?.start ?? null) : null,
      without: without?.has(address) ?? false,
    };
  });
}
