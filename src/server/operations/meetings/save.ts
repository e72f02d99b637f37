import type { z } from 'zod';
import type { ItemPatch, NewItem, removeQuery, WrittenAnswer } from '@/contract/items/items.ts';
import { SAID_FIELDS, type Visibility } from '@/core/calendar/index.ts';
import { type Invited, sameAddress } from '@/core/meetings/index.ts';
import { newKey } from '../../ids.ts';
import { type Calendar, calendarById, calendarByKey } from '../../repositories/calendars.ts';
import { itemById, replacementsOf } from '../../repositories/items.ts';
import { type AttendeeMeeting, insertMeeting, meetingById, meetingOfItem } from '../../repositories/meetings.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { endSending, renewSending, sendingsByUndo } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { itemStates, trailByKey } from '../../repositories/trail.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { settings } from '../../settings.ts';
import { roomAt } from '../../stand-ins.ts';
import {
  type Context,
  decideOn,
  type FoundItem,
  findByAnyId,
  findItem,
  type ItemsWritten,
  isRefusal,
  mayOn,
  storedRules,
  written,
} from '../deciding/index.ts';
import { bringBack, changeItem, createItem, NOBODY, type People, removeItem, undo } from '../items/index.ts';
import { answerBack, answerInvitation, undoAnswer } from './answer.ts';
import { apart } from './apart.ts';
import { readInvited } from './invited.ts';
import { calledOf } from './plan.ts';
import { sendingWire, settle } from './settle.ts';

/*
 * The writes on items, with what they mean for others: each writes as the items' own operation does, and leaves waiting what has to be
 * said for it, in one transaction.
 */

/**
 * Adds an item; with people on it, a meeting that the calendar's owner calls. `outside` is what a program's text says of it that no request's
 * body does: what it is called, and who calls it.
 */
export function createMeeting(
  ctx: Context,
  key: string,
  input: NewItem,
  by = ctx.viewer.id,
  outside: Partial<People> = {},
): Result<WrittenAnswer> {
  const { people, ...plain } = input;
  const link = plain.link ?? (people && people.length > 0 ? linkByItself(ctx) : null);
  const item = { ...plain, link };
  if (!people || people.length === 0) return answered(ctx, createItem(ctx, key, item, by, { ...NOBODY, ...outside }));
  const calendar = calendarByKey(ctx.db, key);
  const owner = calendar && personById(ctx.db, calendar.ownerId);
  return ctx.db.write(() => {
    const wanted = owner ? readInvited(ctx, owner, people) : [];
    if (isRefusal(wanted)) return wanted;
    const made = createItem(ctx, key, item, by, { ...NOBODY, ...outside });
    return made.ok ? ok(settled(ctx, made.value, { wanted })) : made;
  });
}

/** An address to join a meeting at, where the house gives each one by itself. */
const linkByItself = (ctx: Context): string | null =>
  storedRules(ctx.db).meetingLinks ? roomAt(settings().meetingRooms, newKey()) : null;

/** Changes an item, and whom it asks. What others call is theirs: of it only what is one's own is changed here. `unmodelled` as in `changeItem`. */
export function changeMeeting(
  ctx: Context,
  id: string,
  patch: ItemPatch,
  by = ctx.viewer.id,
  unmodelled?: StoredItem['kept'],
): Result<WrittenAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found) || !found.may.change) return answered(ctx, changeItem(ctx, id, patch, by));
  const { calendar } = found.decided;
  const owner = personById(ctx.db, calendar.ownerId);
  if (!owner) return answered(ctx, changeItem(ctx, id, patch, by));
  const meeting = meetingOfItem(ctx.db, found.item.id);
  const theirs = meeting?.part === 'attendee';
  if (theirs) {
    const refused = onlyOwn(found.item, patch) ?? opensForOwner(ctx, owner, found.item, meeting, patch.fields);
    if (refused) return refused;
  }
  return ctx.db.write(() => {
    const wanted = patch.people && readInvited(ctx, owner, patch.people);
    if (wanted && isRefusal(wanted)) return wanted;
    calledOf(ctx.db, owner, found.item, ctx.now);
    const first = patch.people && patch.people.length > 0 && found.item.link === null && !patch.fields.link;
    const link = first && meetingOfItem(ctx.db, found.item.id) === null ? linkByItself(ctx) : null;
    const changed = changeItem(ctx, id, link ? { ...patch, fields: { ...patch.fields, link } } : patch, by, unmodelled);
    if (!changed.ok || theirs) return answered(ctx, changed);
    if (wanted && patch.scope === 'all') alsoApart(ctx, calendar, owner, found.item, changed.value, wanted);
    if (patch.scope === 'later') beginLater(ctx, owner, found.item, changed.value, patch.when !== undefined);
    return ok(settled(ctx, changed.value, { ...(wanted ? { wanted } : {}), tellAll: patch.tellAll === true }));
  });
}

/** Who calls a meeting, as a sentence names them. */
const callerOf = ({ organiser }: StoredItem): string => organiser?.name ?? organiser?.address ?? '';

function onlyOwn(item: StoredItem, patch: ItemPatch): Refusal | null {
  const touches =
    patch.when || patch.repeat || patch.people || SAID_FIELDS.some((name) => patch.fields[name] !== undefined);
  if (!touches) return null;
  return refuse('calledByOthers', { facts: { name: callerOf(item) } });
}

/** What its organiser called private, or for few, only the copy's owner themselves opens to more: nobody does it for them. */
function opensForOwner(
  ctx: Context,
  owner: Person,
  item: StoredItem,
  { state }: AttendeeMeeting,
  { visibility }: ItemPatch['fields'],
): Refusal | null {
  const by = state.on?.classification;
  if (!by || visibility === undefined || ctx.viewer.id === owner.id) return null;
  const opens = WIDTH[visibility] > WIDTH[item.visibility];
  const organiser = item.organiser?.name ?? item.organiser?.address ?? '';
  return opens ? refuse('calledPrivate', { facts: { organiser, name: owner.name } }) : null;
}

/** The same for taking back a write that had made such a copy narrower. */
function undoingOpens(ctx: Context, key: string): Refusal | null {
  const entry = trailByKey(ctx.db, key);
  for (const was of entry ? itemStates(entry).before : []) {
    const now = was && itemById(ctx.db, was.id);
    const meeting = now && meetingOfItem(ctx.db, now.id);
    const owner = now && personById(ctx.db, calendarById(ctx.db, now.calendarId)?.ownerId ?? -1);
    if (!was || !now || !owner || meeting?.part !== 'attendee') continue;
    const refused = opensForOwner(ctx, owner, now, meeting, { visibility: was.visibility });
    if (refused) return refused;
  }
  return null;
}

const WIDTH: Record<Visibility, number> = { private: 0, outline: 1, follow: 2, open: 3 };

/**
 * Removes an item. A meeting the owner calls is called off, and everybody asked is told; one they were asked to and haven't declined
 * is declined, for whoever may answer it. `quietly`: it is taken out without an answer, by whoever could have given one.
 */
export function removeMeeting(
  ctx: Context,
  id: string,
  query: z.infer<typeof removeQuery>,
  by = ctx.viewer.id,
  quietly = false,
): Result<WrittenAnswer> {
  const found = findByAnyId(ctx, id);
  if (isRefusal(found) || !found.may.remove) return answered(ctx, removeItem(ctx, id, query, by));
  const owner = personById(ctx.db, found.decided.calendar.ownerId);
  return ctx.db.write(() => {
    if (owner) calledOf(ctx.db, owner, found.item, ctx.now);
    const invitation = meetingOfItem(ctx.db, found.item.id)?.part === 'attendee' ? found : null;
    const open = invitation && !invitation.item.cancelled && invitation.item.ownerAnswer !== 'declined';
    if (invitation && open && !invitation.may.answer)
      return refuse('answerFirst', { facts: { name: callerOf(invitation.item) } });
    if (invitation && open && !quietly) return declineAway(ctx, invitation, id, query, by);
    const removed = removeItem(ctx, id, query, by);
    return removed.ok ? ok(settled(ctx, removed.value)) : removed;
  });
}

/** Declines what its owner was asked to and takes it out of their calendar: all of it, or one occurrence by itself. */
function declineAway(
  ctx: Context,
  invitation: FoundItem,
  id: string,
  query: z.infer<typeof removeQuery>,
  by: number,
): Result<WrittenAnswer> {
  const { item, occurrence, decided } = invitation;
  // A single item has only "all". For "this and later" of a series there is no answer that a message could carry.
  if (occurrence && query.scope === 'later') return refuse('answerOneOrAll', { facts: { name: callerOf(item) } });
  // A removal that is refused is refused before anything is answered.
  if (item.version !== query.version) return answered(ctx, removeItem(ctx, id, query, by));
  const alone = occurrence !== null && query.scope === 'one';
  const target = alone ? apart(ctx, decided.calendar, item, occurrence) : item;
  const declined = answerInvitation(ctx, invitation, target, { answer: 'declined', comment: null });
  if (isRefusal(declined)) return declined;
  const removed = removeItem(ctx, target.key, { scope: 'all', version: target.version }, by);
  if (!removed.ok) return removed;
  // Taken back while it waits, the item comes back with the answer.
  renewSending(ctx.db, { ...declined, undoKey: removed.value.undo });
  return ok({ ...written(ctx, removed.value), sending: sendingWire(ctx, declined, [item.organiser?.address ?? '']) });
}

/** Brings back what was removed; a meeting its owner called off by that is asked anew. */
export function bringBackMeeting(ctx: Context, key: string): Result<WrittenAnswer> {
  return ctx.db.write(() => {
    const back = bringBack(ctx, key);
    return back.ok ? ok(settled(ctx, back.value)) : back;
  });
}

/** Takes back one write of one's own; what it said, or would have said, is set right. */
export function undoMeeting(ctx: Context, key: string): Result<WrittenAnswer> {
  return ctx.db.write(() => {
    // Read first: what still waits is said of the undoing from then on, and isn't found by what is undone any more.
    const told = sendingsByUndo(ctx.db, key);
    const withdrawn = undoAnswer(ctx, key);
    if (withdrawn) return withdrawn;
    const opens = undoingOpens(ctx, key);
    if (opens) return opens;
    const back = undo(ctx, key);
    if (!back.ok) return back;
    const answer = settled(ctx, back.value);
    let { sending } = answer;
    // Whom it asked is as before too, of the meeting itself and of what went along with it.
    for (const s of told) {
      const meeting = meetingById(ctx.db, s.meetingId);
      // An answer that was still waiting is as if it had never been given; one that left stands until it is given otherwise.
      if (s.act === 'answer' && meeting?.part === 'attendee' && endSending(ctx.db, s.id, 'back'))
        answerBack(ctx, meeting);
      if (s.act !== 'tell' && s.act !== 'off') continue;
      const item = meeting?.itemId == null ? null : itemById(ctx.db, meeting.itemId);
      const calendar = item && calendarById(ctx.db, item.calendarId);
      const wanted = s.body.wantedBefore;
      const waits = item && calendar ? settle(ctx, calendar, item, { wanted, undo: back.value.undo }) : null;
      if (waits) sending = sendingWire(ctx, waits.sending, waits.to);
      else if (sending?.key === s.key) sending = null;
    }
    return ok({ ...answer, sending: sending ?? null });
  });
}

/** Who is added to a whole series, or taken out of it, is so of its occurrences that were changed by themselves too, as far as one may change those. */
function alsoApart(
  ctx: Context,
  calendar: Calendar,
  owner: Person,
  series: StoredItem,
  done: ItemsWritten,
  wanted: readonly Invited[],
): void {
  const called = calledOf(ctx.db, owner, series, ctx.now);
  const before = called?.wanted ?? called?.state?.invited ?? [];
  const has = (list: readonly Invited[], one: Invited) => list.some((other) => sameAddress(other.address, one.address));
  const added = wanted.filter((one) => !has(before, one));
  const gone = before.filter((one) => !has(wanted, one));
  if (added.length === 0 && gone.length === 0) return;
  const { decision } = decideOn(ctx, calendar);
  for (const apart of replacementsOf(ctx.db, series.id)) {
    if (!mayOn(ctx, decision, apart).change) continue;
    const own = calledOf(ctx.db, owner, apart, ctx.now);
    const people = own?.wanted ?? own?.state?.invited ?? [];
    const next = [...people.filter((one) => !has(gone, one)), ...added.filter((one) => !has(people, one))];
    settle(ctx, calendar, apart, { wanted: next, undo: done.undo });
  }
}

/**
 * Of a called series that goes on as another from some occurrence on, the other begins with whom the first one asks, and, where its hours
 * stayed, with what they answered.
 */
function beginLater(ctx: Context, owner: Person, series: StoredItem, done: ItemsWritten, moved: boolean): void {
  const called = calledOf(ctx.db, owner, series, ctx.now);
  const item = done.changes[0]?.after;
  if (!item || item.id === series.id || !called || (!called.state && !called.wanted)) return;
  const { uid } = item;
  const draft = called.state && {
    ...called.state,
    uid,
    state: 'draft' as const,
    sequence: 0,
    timeSince: 0,
    given: moved
      ? {}
      : Object.fromEntries(Object.entries(called.state.given).map(([k, g]) => [k, { ...g, sequence: 0 }])),
    counters: [],
    questions: [],
  };
  const wanted = called.wanted ?? called.state?.invited ?? [];
  const held = { calendarId: item.calendarId, itemId: item.id, uid, recurrence: null };
  insertMeeting(ctx.db, { ...held, part: 'organiser', state: draft, wanted }, ctx.now);
}

/** What a write answers where nothing has to be said for it. */
const answered = (ctx: Context, done: Result<ItemsWritten>): Result<WrittenAnswer> =>
  done.ok ? ok(written(ctx, done.value)) : done;

/** What a write answers, with what has to be said to others for each item it touched: that waits from now on. */
function settled(
  ctx: Context,
  done: ItemsWritten,
  more: Omit<Parameters<typeof settle>[3], 'undo'> = {},
): WrittenAnswer {
  const { decided, changes, undo } = done;
  let sending: WrittenAnswer['sending'] = null;
  for (const [i, { after }] of changes.entries()) {
    const item = itemById(ctx.db, after.id);
    const waits = item && settle(ctx, decided.calendar, item, { ...(i === 0 ? more : {}), undo });
    if (waits) sending ??= sendingWire(ctx, waits.sending, waits.to);
  }
  return { ...written(ctx, done), ...(sending ? { sending } : {}) };
}
