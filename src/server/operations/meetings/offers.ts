import type { z } from 'zod';
import type { HoldsAnswer, OfferAnswer, offerChoice } from '@/contract/meetings/holds.ts';
import { takesTime } from '@/core/calendar/index.ts';
import type { Cover } from '@/core/meetings/index.ts';
import { dateText, instantText, parseInstant } from '@/core/time/index.ts';
import { limiter } from '../../auth/limiter.ts';
import { now } from '../../clock.ts';
import { database } from '../../db/index.ts';
import { newKey, offerKeyOf } from '../../ids.ts';
import { calendarById } from '../../repositories/calendars.ts';
import {
  heldIn,
  holdSetById,
  type Offer,
  offerByKey,
  putOffer,
  withdrawOffer as withdrawn,
} from '../../repositories/holds.ts';
import { itemById } from '../../repositories/items.ts';
import { insertMeeting, meetingOfItem, updateMeeting } from '../../repositories/meetings.ts';
import { personById } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, Directory, findItem, isRefusal, viewsIn } from '../deciding/index.ts';
import { findHold, fixHold, readHolds } from './holds.ts';
import { saveChosen } from './save-messages.ts';
import { speaksOn } from './settle.ts';
import { tellReaders } from './tell.ts';

const DAY = 86_400_000;
/** Wrong addresses, and choices, that one place on the network may try in a quarter of an hour. */
const wrong = limiter(60, 15 * 60_000);
const choices = limiter(30, 15 * 60_000);

/** Offers a hold's set behind a secret address, worded as its sender chose. One that was offered before gets another address. */
export function makeOffer(ctx: Context, id: string, { words }: { readonly words: string }): Result<HoldsAnswer> {
  const held = findHold(ctx, id);
  if (isRefusal(held)) return held;
  const { found, set } = held;
  // Whoever chooses is invited at once, in the owner's name: nobody who may not speak for them offers that.
  if (!speaksOn(found.decided))
    return refuse('mayNotSpeak', { facts: { name: new Directory(ctx.db).name(found.decided.calendar.ownerId) } });
  ctx.db.write(() =>
    putOffer(ctx.db, { key: newKey(), holdSet: set.id, words, madeBy: ctx.viewer.id, madeAt: ctx.now }),
  );
  return readHolds(ctx, id);
}

/** Says to whose meeting it is, and to who reads their messages, that somebody chose its time. */
function tellChosen(ctx: Context, item: StoredItem, visitor: { address: string; name: string }, words: string): void {
  const calendar = calendarById(ctx.db, item.calendarId);
  const owner = calendar && personById(ctx.db, calendar.ownerId);
  const meeting = meetingOfItem(ctx.db, item.id);
  if (!calendar || !owner || !meeting) return;
  saveChosen(ctx, owner, meeting, visitor, words);
  tellReaders(ctx.db, calendar);
}

/**
 * Lets a held time be said to others in the words it was offered with: what it is called, where it is and what was noted of it stay with those
 * who hold it, each until it is changed.
 */
function coverWith(ctx: Context, item: StoredItem, words: string): void {
  const cover: Cover = {
    title: { own: item.title, said: words.trim() || new Directory(ctx.db).name(item.createdFor) },
    place: { own: item.place, said: null },
    notes: { own: item.notes, said: null },
  };
  const { calendarId, uid, recurrence } = item;
  const known = meetingOfItem(ctx.db, item.id);
  if (known?.part === 'organiser') updateMeeting(ctx.db, { ...known, cover }, ctx.now);
  else if (!known) {
    const held = { calendarId, itemId: item.id, uid, recurrence, part: 'organiser' as const };
    insertMeeting(ctx.db, { ...held, state: null, wanted: null, cover }, ctx.now);
  }
}

/** Withdraws the address: whoever has it reads from then on that there is nothing. */
export function withdrawOffer(ctx: Context, id: string): Result<HoldsAnswer> {
  const held = findHold(ctx, id);
  if (isRefusal(held)) return held;
  ctx.db.write(() => withdrawn(ctx.db, held.set.id, ctx.now));
  return readHolds(ctx, id);
}

/** Where a stranger stands: what time it is, and from where they come. */
export interface Stranger {
  readonly db: Context['db'];
  readonly now: number;
  readonly place: string;
}
export const strangerOf = (headers: Headers): Stranger => ({
  db: database(),
  now: now(),
  place: headers.get('x-forwarded-for') ?? '',
});

/**
 * What is left of an offer, read as the one who made it sees the calendar now: so that it ends with their access to it. A made-up, a withdrawn
 * and an ended one are answered alike.
 */
function findOffer(at: Stranger, secret: string): { ctx: Context; offer: Offer; left: StoredItem[] } | Refusal {
  const key = offerKeyOf(secret);
  const offer = key === null ? null : offerByKey(at.db, key);
  const viewer = offer && personById(at.db, offer.madeBy);
  const set = offer && holdSetById(at.db, offer.holdSet);
  if (offer && viewer?.inside && viewer.leftAt === null && set) {
    const ctx: Context = { db: at.db, now: at.now, viewer };
    const left = heldIn(at.db, set.id).flatMap((one) => stillOpen(ctx, itemById(at.db, one)));
    if (left.length > 0) return { ctx, offer, left };
  }
  return refuse(wrong.take(at.place, at.now) ? 'offerGone' : 'tooManyTries');
}

/** A held time that can still be had: its maker may change it and speaks for its owner, it is to come, and nothing has taken it since. */
function stillOpen(ctx: Context, item: StoredItem | null): StoredItem[] {
  const found = item && findItem(ctx, item.key);
  if (!found || isRefusal(found) || !found.may.change || !speaksOn(found.decided)) return [];
  if (found.item.start <= ctx.now) return [];
  const { start, end } = found.item;
  const range = { from: start, to: end, fromDate: dateText(start), toDate: dateText(end + DAY) };
  const { calendar, decision } = found.decided;
  const views = viewsIn(ctx.db, new Directory(ctx.db), calendar, range, { person: ctx.viewer, decision });
  const taken = views.some(
    (view) =>
      !view.allDay &&
      (view.shows === 'busy' || view.shows === 'away') &&
      takesTime(view) &&
      (parseInstant(view.start) ?? 0) < end &&
      (parseInstant(view.end) ?? 0) > start,
  );
  return taken ? [] : [found.item];
}

/** The times an offer has left, and nothing else of the calendar. */
export function readOffer(at: Stranger, secret: string): Result<OfferAnswer> {
  const found = findOffer(at, secret);
  if (isRefusal(found)) return found;
  const { offer, left } = found;
  const [first] = left;
  return ok({
    words: offer.words,
    minutes: first ? Math.round((first.end - first.start) / 60_000) : 0,
    times: left.map(({ start, end }) => ({ start: instantText(start), end: instantText(end) })),
  });
}

/**
 * Chooses one of the times: it is fixed, the others are freed, and whoever chose is invited to it, all in one act. Of two who choose at once
 * one gets it; the other is told, and reads what is left.
 */
export function chooseOffer(
  at: Stranger,
  secret: string,
  choice: z.infer<typeof offerChoice>,
): Result<{ start: string; end: string; words: string }> {
  if (!choices.take(at.place, at.now)) return refuse('tooManyTries');
  return at.db.write(() => {
    const found = findOffer(at, secret);
    if (isRefusal(found)) return found;
    const { ctx, offer, left } = found;
    const item = left.find((one) => one.start === parseInstant(choice.start));
    if (!item) return refuse('offerTaken');
    const visitor = { address: choice.address, name: choice.name, role: 'must' as const, group: null };
    coverWith(ctx, item, offer.words);
    const fixed = fixHold(ctx, item.key, { version: item.version }, [visitor]);
    if (!fixed.ok) return refuse('offerTaken');
    withdrawn(at.db, offer.holdSet, at.now);
    tellChosen(ctx, item, choice, offer.words);
    return ok({ start: instantText(item.start), end: instantText(item.end), words: offer.words });
  });
}
