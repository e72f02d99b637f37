import type { z } from 'zod';
import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { HoldsAnswer, holdsBody } from '@/contract/meetings/holds.ts';
import { freshFields } from '@/core/calendar/index.ts';
import { instantText, isZone, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { newKey, offerSecret } from '../../ids.ts';
import {
  type HeldFor,
  type HoldSet,
  heldIn,
  holdSetById,
  insertHoldSet,
  lettersIn,
  offerOfSet,
} from '../../repositories/holds.ts';
import { itemById, itemByKey } from '../../repositories/items.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  type Decided,
  Directory,
  type FoundItem,
  findCalendar,
  findItem,
  isRefusal,
  viewFor,
  writeItems,
} from '../deciding/index.ts';
import { writeEach } from './change-several.ts';
import { changeMeeting, createMeeting, removeMeeting } from './save.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** So far ahead a hold may lapse at the latest. */
const MOST_AHEAD = 366 * DAY;

/**
 * Holds several times for one meeting, in one act: tentative items of kind hold that are one set, under a letter of their calendar. They free
 * themselves at an instant. Nobody is asked before one is fixed.
 */
export function holdTimes(ctx: Context, key: string, body: z.infer<typeof holdsBody>): Result<SeveralAnswer> {
  const decided = mayAddTo(ctx, key, body.zone);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const lapsesAt = lapseAt(ctx, body.lapses);
  if (typeof lapsesAt !== 'number') return lapsesAt;
  const starts = [...new Set(body.starts.map((start) => parseInstant(start) ?? 0))].sort((a, b) => a - b);
  const text = (at: number) => wallText(toWall(body.zone, at));
  return ctx.db.write(() => {
    const holdSet = beginSet(ctx, calendar.id, body.people);
    return writeEach(ctx, starts, (start) => {
      const end = start + body.length * MINUTE;
      const when = { start: text(start), end: text(end), allDay: false, zone: body.zone };
      return holdOne(ctx, key, { title: body.title, place: body.place, when }, holdSet, lapsesAt);
    });
  });
}

/** A calendar that may be added to, for times on the clock of a zone; refused where it may not, or where there is no such zone. */
export function mayAddTo(ctx: Context, key: string, zone: string): Decided | Refusal {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar, decision } = decided;
  if (!decision.rights.add)
    return refuse('mayNotAdd', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  return isZone(zone) ? decided : refuse('badInput', { fields: { zone: 'zone' } });
}

/** When held times free themselves, as it was asked for; refused where that is past, or further than a year. */
export function lapseAt(ctx: Context, lapses: string): number | Refusal {
  const at = parseInstant(lapses) ?? 0;
  if (at <= ctx.now) return refuse('badInput', { fields: { lapses: 'lapsesPast' } });
  return at > ctx.now + MOST_AHEAD ? refuse('badInput', { fields: { lapses: 'dateBounds' } }) : at;
}

/** Begins a set of held times in a calendar, with those who are asked once one is fixed; answers its row number. */
export function beginSet(ctx: Context, calendarId: number, invited: z.infer<typeof holdsBody>['people']): number {
  const set = { key: newKey(), calendarId, letter: nextLetter(lettersIn(ctx.db, calendarId)) };
  const people = invited.map(({ address, name, role, group }) => ({ address, name, role, group }));
  return insertHoldSet(ctx.db, { ...set, people, madeBy: ctx.viewer.id, madeAt: ctx.now });
}

const HOLD = { kind: 'hold', shows: 'tentative' } as const;

/** Holds one time, as one of a set. */
export const holdOne = (
  ctx: Context,
  key: string,
  item: Pick<Parameters<typeof createMeeting>[2], 'title' | 'place' | 'when'>,
  holdSet: number,
  lapsesAt: number,
): Result<WrittenAnswer> =>
  createMeeting(ctx, key, { ...freshFields(item.title), ...HOLD, ...item }, ctx.viewer.id, { holdSet, lapsesAt });

/** The first letter that no set of the calendar has: A to Z, then AA and on. */
function nextLetter(taken: readonly string[]): string {
  for (let n = 0; ; n++) {
    const letter = (n >= 26 ? String.fromCharCode(64 + Math.floor(n / 26)) : '') + String.fromCharCode(65 + (n % 26));
    if (!taken.includes(letter)) return letter;
  }
}

/** A hold and its set, for whoever may change it. */
export function findHold(ctx: Context, id: string): { found: FoundItem; set: HoldSet } | Refusal {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return lapsed(ctx, id) ?? found;
  const { item, decided, may } = found;
  if (!may.change)
    return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(decided.calendar.ownerId) } });
  const set = item.kind === 'hold' && item.holdSet !== null ? holdSetById(ctx.db, item.holdSet) : null;
  return set?.calendarId === decided.calendar.id ? { found, set } : refuse('noHold');
}

/** Whoever held it is told that it lapsed; for everybody else it simply isn't there. */
function lapsed(ctx: Context, id: string): Refusal | null {
  const item = itemByKey(ctx.db, id);
  // A lapsed hold was removed at the very instant of its lapse; one that somebody removed earlier did not lapse.
  if (!item || item.removedAt === null || item.removedAt !== item.lapsesAt) return null;
  return item.createdBy === ctx.viewer.id ? refuse('holdLapsed') : null;
}

/** The times of a hold's set, as whoever may change it sees them, and who is asked once one is fixed. */
export function readHolds(ctx: Context, id: string): Result<HoldsAnswer> {
  const held = findHold(ctx, id);
  if (isRefusal(held)) return held;
  const { found, set } = held;
  const times = heldIn(ctx.db, set.id).flatMap((one) => {
    const item = itemById(ctx.db, one);
    const view = item && viewFor(ctx, found.decided, item);
    if (!item || !view || !('notes' in view)) return [];
    const self = item.id === found.item.id;
    return [{ item: view.id, version: item.version, start: view.start, end: view.end, self }];
  });
  const { lapsesAt } = found.item;
  const offer = offerOfSet(ctx.db, set.id);
  return ok({
    letter: set.letter,
    lapses: lapsesAt === null ? null : instantText(lapsesAt),
    times,
    people: set.people.map(({ address, name }) => ({ address, name })),
    // A secret address goes to no token.
    offer: offer && { address: ctx.token ? null : `/offer/${offerSecret(offer.key)}`, words: offer.words },
  });
}

/** Holds the times of a set until a later instant: all of it in one act. Answers by which key it is undone. */
export function holdLonger(ctx: Context, id: string, until: string): Result<{ undo: string }> {
  const held = findHold(ctx, id);
  if (isRefusal(held)) return held;
  const lapsesAt = lapseAt(ctx, until);
  if (typeof lapsesAt !== 'number') return lapsesAt;
  const { calendar } = held.found.decided;
  const items = heldIn(ctx.db, held.set.id).flatMap((one) => itemById(ctx.db, one) ?? []);
  const after = (before: (typeof items)[number]) => ({
    ...before,
    ...authorship(ctx, calendar),
    lapsesAt,
    version: before.version + 1,
  });
  const { undo } = writeItems(
    ctx,
    calendar,
    'item.changed',
    items.map((before) => ({ before, after: after(before) })),
  );
  return ok({ undo });
}

/**
 * Fixes one of the times: the hold becomes the meeting, whom it was held for is asked, and the other times of its set are freed, in one act
 * that one token takes back. `also` are asked besides.
 */
export function fixHold(
  ctx: Context,
  id: string,
  { version }: { readonly version: number },
  also: readonly HeldFor[] = [],
): Result<SeveralAnswer & { fixed: WrittenAnswer }> {
  const held = findHold(ctx, id);
  if (isRefusal(held)) return held;
  const { found, set } = held;
  const others = heldIn(ctx.db, set.id).flatMap((one) => itemById(ctx.db, one) ?? []);
  let fixed: WrittenAnswer | null = null;
  const all = writeEach(ctx, [found.item, ...others.filter((one) => one.id !== found.item.id)], (one) => {
    if (one.id !== found.item.id) return removeMeeting(ctx, one.key, { version: one.version, scope: 'all' });
    const fields = { kind: 'meeting', shows: 'busy' } as const;
    const invited = [...set.people.filter((p) => also.every((a) => a.address !== p.address)), ...also];
    const people = invited.length > 0 ? { people: invited } : {};
    const answer = changeMeeting(ctx, id, { version, scope: 'one', fields, ...people });
    if (answer.ok) fixed = answer.value;
    return answer;
  });
  return all.ok && fixed ? ok({ ...all.value, fixed }) : (all as Refusal);
}
