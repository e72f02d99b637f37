import { type ItemPatch, itemPatch, type NewItem, newItem } from '@/contract/items/items.ts';
import { FILED_FIELDS, pick } from '@/core/calendar/index.ts';
import { type ReadItem, recurrenceIn } from '@/core/formats/index.ts';
import { sameAddress } from '@/core/meetings/index.ts';
import { dateText, fromWallLenient, parseDate, parseWall, toWall, wallText } from '@/core/time/index.ts';
import { occurrenceId } from '../../ids.ts';
import { itemById, itemByKey, itemsByUid } from '../../repositories/items.ts';
import { personById } from '../../repositories/people.ts';
import { nameForPrograms } from '../../repositories/program-names.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { must, ok, type Refusal, Refused, type Result, refuse } from '../../result.ts';
import {
  type Context,
  Directory,
  findByAnyId,
  indexingOnce,
  isRefusal,
  occurrencesBetween,
  repeats,
} from '../deciding/index.ts';
import { mayImport } from '../items/index.ts';
import { answerItem, changeMeeting, createMeeting, removeMeeting } from '../meetings/index.ts';
import { checked, checkName } from './checked.ts';
import { listProgramsOn } from './lists.ts';
import {
  bothOf,
  fieldsChanged,
  isMoved,
  momentary,
  movedBy,
  pickedDaysOf,
  shifted,
  shiftOf,
  type Text,
  textOf,
  whenOf,
} from './object-text.ts';
import { type Programs, programsOn } from './objects.ts';
import { type Seen, stillSo } from './seen.ts';

/*
 * What a program writes is what a window would: what it changed is found by holding its text against the text it was given, and each change
 * is made by the operation that makes it for everybody, with the same rights, refusals, messages and trail. All of it or nothing.
 */

/** Occurrences that are changed by themselves, or left out, in one write. */
const MOST_CHANGES = 60;
/** Within so long after a series begins its first occurrence is looked for. */
const FIRST_WITHIN = 800 * 86_400_000;

/** Whom a text invites: its attendees without the owner, and without those whom the program said it invites itself. */
function invitedIn(item: ReadItem, owner: string, standing: StoredItem | null): NonNullable<NewItem['people']> {
  return item.attendees
    .filter(({ address }) => !sameAddress(address, owner))
    .map((one) => ({ ...one, known: standing?.attendees.find(({ address }) => sameAddress(one.address, address)) }))
    .filter(({ address, known }) => known !== undefined || !item.unasked.includes(address))
    .map(({ address, name, role }) => ({ address: address.toLowerCase(), name, role: role ?? 'must', group: null }));
}

/** Whom a text asks, and as what, to hold two of them against each other. */
const listed = (people: ReturnType<typeof invitedIn>): string =>
  people
    .map(({ address, role }) => `${address} ${role}`)
    .sort()
    .join();

/**
 * Writes one object of a calendar as a program sends it: adds it, or changes what differs from what the program was given. Refused wherever a
 * window would be, and where what it says it saw isn't there any more. `added` says that it is new.
 */
export function putObject(
  ctx: Context,
  key: string,
  name: string,
  text: string,
  seen: Seen,
): Result<{ added: boolean }> {
  return ctx.db.write(() => {
    const list = listProgramsOn(ctx, key);
    if (list) return list.put(name, text, seen);
    const programs = programsOn(ctx, key);
    if (isRefusal(programs)) return programs;
    const { calendar, decision } = programs.decided;
    const found = programs.find(name);
    const now = found && programs.object(name, true);
    if (!stillSo(seen, now?.tag ?? null)) return refuse('seenOtherwise');
    if (seen.scheduleTag != null && now?.scheduleTag !== seen.scheduleTag) return refuse('seenOtherwise');
    if (now && !now.mayChange && !found?.view.mayAnswer) return mayNot(ctx, programs, 'mayNotChange');
    if (!now && !decision.rights.add) return mayNot(ctx, programs, 'mayNotAdd');
    if (!found || !now?.text) {
      const read = textOf(text, calendar.zone);
      if (isRefusal(read)) return read;
      indexingOnce(ctx.db, () => {
        add(ctx, programs, name, read);
        for (const tail of read.tails) add(ctx, programs, null, tail);
      });
      return ok({ added: true });
    }
    const { before, after } = bothOf(now.text, text, calendar.zone);
    if (isRefusal(after)) return after;
    if (before.main.uid !== after.main.uid) return refuse('badInput', { fields: { uid: 'oneThing' } });
    if (before.main.recurrence !== after.main.recurrence)
      return refuse('badInput', { fields: { recurrence: 'noSuchDay' } });
    if (after.tails.length > 0 && !decision.rights.add) return mayNot(ctx, programs, 'mayNotAdd');
    indexingOnce(ctx.db, () => {
      change(ctx, programs, found.item, found.view.id, before, after);
      for (const tail of after.tails) add(ctx, programs, null, tail);
    });
    return ok({ added: false });
  });
}

function mayNot(ctx: Context, { decided }: Programs, code: 'mayNotChange' | 'mayNotAdd' | 'mayNotRemove'): Refusal {
  return refuse(code, { facts: { name: new Directory(ctx.db).name(decided.calendar.ownerId) } });
}

/** Adds an object; `null` where it has no name of the program's. */
function add(ctx: Context, programs: Programs, name: string | null, { main, apart }: Omit<Text, 'tails'>): void {
  const { calendar, decision } = programs.decided;
  if (name !== null) checkName(name);
  const owner = personById(ctx.db, calendar.ownerId)?.address ?? '';
  // What it is called outside is kept for whoever sees everything here: to nobody else does it say whether it was there.
  const seesAll = mayImport(decision);
  const [there] = seesAll ? itemsByUid(ctx.db, calendar.id, main.uid) : [];
  if (there) throw new Refused(refuse('alreadyThere', { data: programs.nameOf(there) }));
  const others = main.organiser !== null && !sameAddress(main.organiser.address, owner);
  if (others && !seesAll) throw new Refused(refuse('calledByOthers', { facts: { name: main.organiser?.name ?? '' } }));
  const days = pickedDaysOf(main);
  const people = others || main.cancelled ? [] : invitedIn(main, owner, null);
  const read = checked(newItem, {
    ...pick(main, FILED_FIELDS),
    when: whenOf(main),
    ...(main.rule === null ? {} : { repeat: { rule: main.rule } }),
    ...(days.length > 0 ? { dates: days } : {}),
    ...(people.length > 0 ? { people } : {}),
  });
  const body = momentary(read);
  const ownerAnswer = main.attendees.find((one) => sameAddress(one.address, owner))?.answer ?? null;
  if (apart.length > MOST_CHANGES) throw new Refused(refuse('tooManyApart', { facts: { most: MOST_CHANGES } }));
  // Attendees whom nobody is to be sent a message stand on the item all the same.
  const named = others || (people.length === 0 && main.attendees.length > 0 && !main.cancelled);
  const called = named ? { organiser: main.organiser, attendees: main.attendees, ownerAnswer } : {};
  const outside = {
    // An occurrence without its series is named on its own clock, as in a file.
    ...(seesAll ? { uid: main.uid, kept: main.kept, recurrence: recurrenceIn(main, main) } : {}),
    ...(main.saysWho ? { chosen: true as const } : {}),
    ...(main.cancelled ? { cancelled: true as const } : {}),
  };
  const made = must(
    createMeeting(ctx, calendar.key, body, ctx.viewer.id, { ...called, ...outside, left: main.left }),
  ).item;
  const item = made && itemByKey(ctx.db, made.id.split('~')[0] ?? '');
  // Whoever adds and doesn't see what they added has no name for it either.
  if (!item) return;
  for (const one of apart) changeApart(ctx, programs, item.id, main, null, one);
  if (name !== null) nameForPrograms(ctx.db, ctx.viewer.id, calendar.id, name, item.id);
}

/** The instant of an occurrence by its text on the clock of its series. */
function instantOf(series: StoredItem, recurrence: string): number {
  if (series.allDay) return parseDate(recurrence.slice(0, 10)) ?? Number.NaN;
  const wall = parseWall(recurrence) ?? Number.NaN;
  return wall === series.wall ? series.start : fromWallLenient(series.zone, wall);
}

const stored = (ctx: Context, id: number): StoredItem => {
  const item = itemById(ctx.db, id);
  if (!item) throw new Refused(refuse('notFound'));
  return item;
};

/** Takes one occurrence out of a series, as the window does: a meeting is called off for that day, an invitation to it declined. */
function leaveOut(ctx: Context, id: number, recurrence: string): void {
  const series = stored(ctx, id);
  const at = instantOf(series, recurrence);
  const found = findByAnyId(ctx, occurrenceId(series.key, at));
  // A date that the series doesn't have can't be left out of it.
  if (isRefusal(found)) return;
  const { item } = found;
  must(removeMeeting(ctx, found.view.id, { scope: 'one', version: item.version }));
}

function change(ctx: Context, programs: Programs, item: StoredItem | null, id: string, given: Text, read: Text): void {
  const { calendar, decision } = programs.decided;
  const seesAll = mayImport(decision);
  const owner = personById(ctx.db, calendar.ownerId)?.address ?? '';
  if (read.main.cancelled && !given.main.cancelled) {
    const found = findByAnyId(ctx, item?.key ?? id);
    if (isRefusal(found)) throw new Refused(found);
    const { organiser, version } = found.item;
    // What its own calendar calls off is called off for all whom it asks; what others call is theirs to call off.
    if (organiser !== null && !sameAddress(organiser.address, owner))
      throw new Refused(refuse('calledByOthers', { facts: { name: organiser.name ?? organiser.address } }));
    must(removeMeeting(ctx, item?.key ?? id, { scope: item ? 'all' : 'one', version }));
    return;
  }
  answerFor(ctx, item?.key ?? id, owner, given.main, read.main);
  if (item === null) {
    const found = findByAnyId(ctx, id);
    if (isRefusal(found)) throw new Refused(found);
    patch(ctx, id, { version: found.item.version, scope: 'one' }, given.main, read.main, owner, found.item, seesAll);
    return;
  }
  const moves = repeats(item) && isMoved(given.main, read.main);
  // A series moves by its first occurrence: what was left out of it, and its rule, move along.
  const first = moves ? occurrencesBetween(ctx.db, item, item.start, item.start + FIRST_WITHIN)[0] : undefined;
  if (moves && !first) throw new Refused(refuse('seriesDayMove'));
  const repeat = read.main.rule === given.main.rule ? {} : { repeat: { rule: read.main.rule } };
  const days =
    JSON.stringify(given.main.added) === JSON.stringify(read.main.added) ? {} : { dates: pickedDaysOf(read.main) };
  const version = stored(ctx, item.id).version;
  const [before, after] = first
    ? [given.main, read.main].map((one) => movedBy(one, wallsBetween(item, first.start)))
    : [];
  patch(
    ctx,
    first ? occurrenceId(item.key, first.start) : item.key,
    { version, scope: 'all', ...repeat, ...days },
    before ?? given.main,
    after ?? read.main,
    owner,
    item,
    seesAll,
  );
  if (item.seriesId !== null) return;
  const moved = isMoved(given.main, read.main) ? shiftOf(given.main, read.main) : 0;
  const at = (text: string) => shifted(text, moved);
  const leftBefore = new Set(given.main.left.map(at));
  const leftAfter = new Set(read.main.left);
  const back = [...leftBefore].filter((one) => !leftAfter.has(one));
  const apartBefore = new Map(given.apart.map((one) => [one.recurrence ?? '', one]));
  const apartAfter = new Set(read.apart.map((one) => one.recurrence ?? ''));
  const same = (one: ReadItem): boolean =>
    JSON.stringify({ ...apartBefore.get(one.recurrence ?? ''), line: 0 }) === JSON.stringify({ ...one, line: 0 });
  const changes =
    read.apart.filter((one) => !same(one)).length +
    [...leftAfter].filter((one) => !leftBefore.has(one)).length +
    [...apartBefore.keys()].filter((one) => !apartAfter.has(one)).length;
  if (changes > MOST_CHANGES) throw new Refused(refuse('tooManyApart', { facts: { most: MOST_CHANGES } }));
  // What was changed by itself and isn't any more goes its series' way again.
  for (const recurrence of apartBefore.keys())
    if (!apartAfter.has(recurrence)) {
      leaveOut(ctx, item.id, recurrence);
      if (!leftAfter.has(recurrence)) back.push(recurrence);
    }
  for (const recurrence of leftAfter) if (!leftBefore.has(recurrence)) leaveOut(ctx, item.id, recurrence);
  const series = stored(ctx, item.id);
  const stays = series.left.filter((one) => !back.includes(one));
  if (stays.length < series.left.length)
    must(changeMeeting(ctx, item.key, { version: series.version, scope: 'all', left: stays, fields: {} }));
  for (const one of read.apart)
    changeApart(ctx, programs, item.id, read.main, apartBefore.get(one.recurrence ?? '') ?? null, one);
}

/** How far on the clock of a series an occurrence of it is from its start. */
const wallsBetween = (item: StoredItem, start: number): number =>
  item.allDay ? start - item.start : toWall(item.zone, start) - (item.wall ?? toWall(item.zone, item.start));

/** Changes one occurrence by itself; `before` is it as it was given, where it was one already. */
function changeApart(
  ctx: Context,
  programs: Programs,
  seriesId: number,
  main: ReadItem,
  before: ReadItem | null,
  after: ReadItem,
): void {
  const series = stored(ctx, seriesId);
  const owner = personById(ctx.db, programs.decided.calendar.ownerId)?.address ?? '';
  const at = instantOf(series, after.recurrence ?? '');
  const id = occurrenceId(series.key, at);
  const found = Number.isFinite(at) ? findByAnyId(ctx, id) : refuse('notFound');
  if (isRefusal(found)) throw new Refused(refuse('badInput', { fields: { recurrence: 'noSuchDay' } }));
  const item = found.item;
  // An occurrence that goes its series' way is where that puts it, and as long.
  const length = main.endAt - main.startAt;
  const wall = (ms: number) => (main.allDay ? dateText(ms) : wallText(toWall(main.zone, ms)));
  const base = before ?? { ...main, kept: [], recurrence: null, start: wall(at), end: wall(at + length), rule: null };
  answerFor(ctx, found.view.id, owner, base, after, 'one');
  patch(
    ctx,
    found.view.id,
    { version: item.version, scope: 'one' },
    base,
    after,
    owner,
    item,
    mayImport(programs.decided.decision),
  );
}

/** Makes the changes between two texts of one item, if there are any. */
function patch(
  ctx: Context,
  id: string,
  how: Pick<ItemPatch, 'version' | 'scope' | 'repeat' | 'dates'>,
  before: ReadItem,
  after: ReadItem,
  owner: string,
  standing: StoredItem,
  seesAll: boolean,
): void {
  const fields = fieldsChanged(before, after);
  const when = isMoved(before, after) ? { when: whenOf(after) } : {};
  const mine = standing.organiser === null || sameAddress(standing.organiser.address, owner);
  const [had, wants] = [invitedIn(before, owner, standing), invitedIn(after, owner, standing)];
  const people = mine && listed(had) !== listed(wants) ? { people: wants } : {};
  // Lines that aren't modelled are shown to nobody but whoever may have the calendar as a file, and are theirs to write.
  const unmodelled = seesAll && JSON.stringify(before.kept) !== JSON.stringify(after.kept) ? after.kept : undefined;
  const touches = Object.keys({ ...fields, ...when, ...people }).length > 0 || how.repeat || how.dates || unmodelled;
  if (!touches) return;
  // What was answered meanwhile is newer than what was read before.
  const version = stored(ctx, standing.id).version;
  const body = { ...how, version: Math.max(version, how.version), fields, ...when, ...people };
  must(changeMeeting(ctx, id, momentary(checked(itemPatch, body)), ctx.viewer.id, unmodelled));
}

/** Answers an invitation in the owner's name, where the text answers it otherwise than before. */
function answerFor(
  ctx: Context,
  id: string,
  owner: string,
  before: ReadItem,
  after: ReadItem,
  scope: 'one' | 'all' = 'all',
): void {
  const mine = (one: ReadItem) => one.attendees.find(({ address }) => sameAddress(address, owner))?.answer ?? null;
  const [was, is] = [mine(before), mine(after)];
  const called = after.organiser !== null && !sameAddress(after.organiser.address, owner);
  if (!called || was === is || (is !== 'accepted' && is !== 'tentative' && is !== 'declined')) return;
  const seen = was === 'accepted' || was === 'tentative' || was === 'declined' ? was : 'needs-action';
  must(answerItem(ctx, id, { answer: is, comment: '', seen, scope }));
}

/**
 * Removes one object of a calendar, where the viewer may: what they see of it as a whole, or the occurrence it is. `quietly`: who called
 * it isn't told (RFC 6638 8.1).
 */
export function deleteObject(
  ctx: Context,
  key: string,
  name: string,
  seen: Seen,
  quietly = false,
): Result<{ done: true }> {
  return ctx.db.write(() => {
    const list = listProgramsOn(ctx, key);
    if (list) return list.remove(name, seen);
    const programs = programsOn(ctx, key);
    if (isRefusal(programs)) return programs;
    const found = programs.find(name);
    const now = found && programs.object(name, false);
    if (!found || !now) return refuse('notFound');
    if (!stillSo(seen, now.tag)) return refuse('seenOtherwise');
    const { item, view } = found;
    const by = ctx.viewer.id;
    if (item) must(removeMeeting(ctx, item.key, { scope: 'all', version: item.version }, by, quietly));
    else {
      const it = findByAnyId(ctx, view.id);
      if (isRefusal(it)) return it;
      const version = 'notes' in it.view ? { version: it.item.version } : {};
      must(removeMeeting(ctx, view.id, { scope: 'one', ...version }, by, quietly));
    }
    return ok({ done: true as const });
  });
}
