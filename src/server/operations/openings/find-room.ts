import type { z } from 'zod';
import type { ItemWire } from '@/contract/items/items.ts';
import type { RoomAnswer, timesBody } from '@/contract/openings/openings.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { type Movable, makeRoom } from '@/core/openings/index.ts';
import { fromWallLenient, parseInstant, toWall, weekStart } from '@/core/time/index.ts';
import { personByAddress } from '../../repositories/people.ts';
import { ok, type Result } from '../../result.ts';
import { type Context, findItem, isRefusal } from '../deciding/index.ts';
import { roomsFor, timesSearch } from './find-times.ts';
import type { ViewedPerson } from './viewed-people.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** Items that are thought of as moved, and moves of one plan. */
const MOST_MOVABLE = 40;
const MOST_MOVES = 3;
/** Rooms that are tried where any would do. */
const MOST_ROOMS_TRIED = 4;

/** An item that may be moved, as the viewer sees it, and whose it is. */
interface Candidate {
  readonly movable: Movable;
  readonly view: ItemWire;
  readonly person: ViewedPerson;
}

type Plan = ReturnType<typeof makeRoom>['room'];
/** Fewer costs, then fewer moves, then the earlier start. */
const isLess = (a: NonNullable<Plan>, b: NonNullable<Plan>): boolean =>
  a.cost - b.cost < 0 || (a.cost === b.cost && (a.moves.length - b.moves.length || a.start - b.start) < 0);

/**
 * The least that would have to move so that a meeting fits: of what the viewer may change in the calendars of whoever comes, called by
 * whose calendar it is in. Each moves within its own week, never before now. From what the asker sees and nothing else.
 */
export function findRoom(ctx: Context, key: string, body: z.infer<typeof timesBody>): Result<RoomAnswer> {
  const search = timesSearch(ctx, key, body, 7);
  if (isRefusal(search)) return search;
  const { people, unknown, journeys, request, nameOf, text } = search;
  const candidates = people.flatMap((person) => movableOf(ctx, person, people, request.zone));
  // The nearest to the days that are asked for: those that may stand in the way.
  const near = ({ movable: m }: Candidate) => Math.max(request.from - (m.start + m.length), m.start - request.until, 0);
  candidates.sort((a, b) => near(a) - near(b) || a.movable.start - b.movable.start);
  const taken = candidates.slice(0, MOST_MOVABLE);
  const staying = people.map((person) => ({ ...person, items: stayingOf(person, taken) }));
  const movable = taken.map((one) => one.movable);
  // With any room asked for, each of the first that would do is one who has to be there, and the cheapest of their plans is taken.
  const { rooms: fitting } = roomsFor(ctx, search, body);
  const rooms = fitting?.slice(0, MOST_ROOMS_TRIED) ?? [null];
  let found: { room: Plan; cut: boolean; had: ViewedPerson | null } = { room: null, cut: false, had: null };
  for (const had of rooms) {
    const people = had ? [...staying, had] : staying;
    const { room, cut } = makeRoom(request, people, journeys, movable, MOST_MOVES);
    if (room && (!found.room || isLess(room, found.room))) found = { room, cut: found.cut, had };
    found.cut ||= cut;
  }
  const byId = new Map(taken.map((one) => [one.movable.id, one]));
  const { room } = found;
  return ok({
    plan: room && {
      start: text(room.start),
      end: text(room.start + request.length),
      cost: room.cost,
      room: found.had && { name: found.had.name, address: found.had.id },
      moves: room.moves.flatMap(({ id, start }) => {
        const one = byId.get(id);
        return one ? [moveOf(one, text(start), nameOf)] : [];
      }),
    },
    movable: taken.length,
    unknown: [...unknown],
    cut: found.cut || search.cut || candidates.length > taken.length || (fitting?.length ?? 0) > MOST_ROOMS_TRIED,
  });
}

function moveOf({ view, person, movable }: Candidate, to: string, nameOf: (id: string) => string) {
  const told = (view.attendees ?? []).filter((a) => a.address !== person.id).map((a) => a.name ?? nameOf(a.address));
  return {
    item: view.id,
    version: view.version ?? 0,
    title: view.title ?? '',
    owner: nameOf(person.id),
    from: view.start,
    to,
    minutes: movable.length,
    told,
  };
}

/** What of somebody's calendar may be moved by the viewer, at what cost, and within which week. */
function movableOf(ctx: Context, person: ViewedPerson, people: readonly ViewedPerson[], zone: string): Candidate[] {
  return person.views.flatMap((view) => {
    if (view.may?.change !== true || view.allDay || !takesTime(view)) return [];
    if (view.organiser && view.organiser.address !== person.id) return [];
    const [start, end] = [parseInstant(view.start), parseInstant(view.end)];
    if (start === null || end === null || end <= start || start < ctx.now) return [];
    const week = weekStart(toWall(zone, start), 1);
    const from = Math.max(ctx.now, fromWallLenient(zone, week));
    const others = (view.attendees ?? []).flatMap((a) => (a.address === person.id ? [] : a.address));
    const known = others.filter((address) => people.some((p) => p.id === address));
    const cost = costOf(ctx, view, others);
    if (cost === null) return [];
    const movable = {
      id: view.id,
      people: [person.id, ...known],
      start: start / MINUTE,
      length: (end - start) / MINUTE,
      cost,
      from: Math.ceil(from / MINUTE),
      until: Math.floor(fromWallLenient(zone, week + 7 * DAY) / MINUTE),
    };
    return [{ movable, view, person }];
  });
}

/** A hold 1, tentative 2, with nobody else 2, people inside alone 4 and one more for each over two, outside people 10; moved before, doubled. */
function costOf(ctx: Context, view: ItemWire, others: readonly string[]): number | null {
  const found = findItem(ctx, view.id);
  // What was marked as fixed stays.
  if (!isRefusal(found) && found.item.fixed) return null;
  const again = !isRefusal(found) && found.item.sequence > 0 ? 2 : 1;
  const inside = (address: string) => personByAddress(ctx.db, address)?.inside === true;
  if (view.kind === 'hold') return again;
  if (others.length > 0 && !others.every(inside)) return 10 * again;
  if (view.shows === 'tentative' || others.length === 0) return 2 * again;
  return (4 + Math.max(0, others.length + 1 - 2)) * again;
}

/** What of somebody's time stays: neither what may be moved, nor, of each such, their copy of it. */
function stayingOf(person: ViewedPerson, taken: readonly Candidate[]): ItemWire[] {
  const goes = new Set<ItemWire>();
  for (const { movable, view } of taken) {
    const own = person.views.find((one) => one.id === view.id);
    const copy = (one: ItemWire) => !goes.has(one) && one.start === view.start && one.end === view.end;
    const theirs = own ?? (movable.people.includes(person.id) ? person.views.find(copy) : undefined);
    if (theirs) goes.add(theirs);
  }
  return person.views.filter((view) => !goes.has(view));
}
