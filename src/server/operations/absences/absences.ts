import { createTranslator } from 'use-intl/core';
import type { AbsencesAnswer, AbsenceWire, CoverBody, NewAbsence } from '@/contract/absences.ts';
import { newItem } from '@/contract/items/items.ts';
import { type Decision, decide, mayRun, NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { dateText, fromWallLenient, parseDate, toWall } from '@/core/time/index.ts';
import { LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import { newKey } from '../../ids.ts';
import {
  absenceByKey,
  absencesOf,
  countReplies,
  removeAbsence as removeStored,
  type StoredAbsence,
  saveAbsence,
} from '../../repositories/absences.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { itemById } from '../../repositories/items.ts';
import { type Person, personByHandle, personById } from '../../repositories/people.ts';
import { firstOf, type Shareable } from '../../repositories/shareables.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  actsBy,
  authorship,
  type Context,
  collectionOf,
  type Decided,
  decideOn,
  findShared,
  findSharedCalendar,
  isRefusal,
  rulesOf,
  tellPeople,
  trailOn,
  viewerOf,
  writeItems,
} from '../deciding/index.ts';
import { draftItem, noRoom } from '../items/index.ts';
import { giveAccess } from '../sharing/index.ts';

const DAY = 86_400_000;
const LONGEST_DAYS = 400;
/** Absences of one person that haven't ended. */
const MOST = 50;

/** What somebody who covers is given of each: they read what is written and who is known, and do what is to be done. */
const READS: Rights = { ...NO_RIGHTS, sight: 'full' };
const COVER: Readonly<Record<CoverBody['further'][number], Rights>> = {
  tasks: { ...READS, add: true, change: 'all', remove: 'all' },
  contacts: READS,
  arrived: READS,
  sent: READS,
  drafts: READS,
  filed: READS,
};
const COVERED = Object.keys(COVER) as (keyof typeof COVER)[];

interface Found {
  readonly owner: Person;
  readonly decided: Decided;
  readonly may: AbsencesAnswer['may'];
}

/** Somebody whose absences the viewer may read: whoever sees when they are taken. */
function find(ctx: Context, owner: Person | null): Found | Refusal {
  const calendar = owner && mainCalendarOf(ctx.db, owner.id);
  if (!owner || !calendar || !owner.inside) return refuse('notFound');
  const decided = decideOn(ctx, calendar);
  const { decision } = decided;
  if (decision.rights.sight === 'nothing') return refuse('notFound');
  const set = mayRun(decision).absence;
  return { owner, decided, may: { set, cover: set && !isRefusal(findSharedCalendar(ctx, calendar.key)) } };
}

/** The same of whoever may set them. */
function findToSet(ctx: Context, owner: Person | null): Found | Refusal {
  const found = find(ctx, owner);
  if (isRefusal(found) || found.may.set) return found;
  return refuse('mayNotSetAbsence', { facts: { name: found.owner.name } });
}

/** When somebody is away from today on: the days and what is said inside for whoever sees when they are taken, the rest for who sets it. */
export function listAbsences(ctx: Context, handle: string): Result<AbsencesAnswer> {
  const found = find(ctx, personByHandle(ctx.db, handle));
  return isRefusal(found) ? found : ok(answerOf(ctx, found));
}

function answerOf(ctx: Context, { owner, decided, may }: Found): AbsencesAnswer {
  return {
    owner: { handle: owner.handle, name: owner.name, zone: owner.zone },
    absences: absencesOf(ctx.db, owner.id, ctx.now).map((one): AbsenceWire => {
      const cover = one.coverId === null ? null : personById(ctx.db, one.coverId);
      return {
        key: one.key,
        from: dayOf(owner, one.starts),
        until: dayOf(owner, one.ends - 1),
        now: one.starts <= ctx.now,
        // Whoever is outside and sees when the owner is taken learns that they are away, and no more.
        inside: ctx.viewer.inside ? one.inside : '',
        outside: may.set ? one.outside : null,
        cover: ctx.viewer.inside && cover ? { handle: cover.handle, name: cover.name } : null,
        covered: ctx.viewer.inside && isCovered(ctx, decided, one),
        further: may.set && cover ? furtherCovered(ctx, owner, cover, one) : [],
        declines: may.set ? one.declines : null,
        setBy: may.set ? (personById(ctx.db, one.setBy)?.name ?? '') : '',
        replies: may.set ? countReplies(ctx.db, one.id) : null,
        version: one.version,
      };
    }),
    may,
  };
}

const dayOf = (owner: Person, at: number): string => dateText(toWall(owner.zone, at));

/** Whether who covers an absence acts for its owner from its beginning (or now) to its end, by what they have been given. */
export function isCovered(ctx: Context, { calendar }: Pick<Decided, 'calendar'>, absence: StoredAbsence): boolean {
  const cover = absence.coverId === null ? null : personById(ctx.db, absence.coverId);
  return cover !== null && holdsThroughout(ctx, calendar, cover, absence, actsBy);
}

/** What else of the owner's the viewer may give who covers, and whether they have it for all of the absence. */
function furtherCovered(ctx: Context, owner: Person, cover: Person, absence: StoredAbsence): AbsenceWire['further'] {
  return COVERED.flatMap((what) => {
    const shared = firstOf(ctx.db, owner.id, what);
    if (!shared || isRefusal(findShared(ctx, shared.key))) return [];
    const enough = ({ rights }: Decision) => coversRights(rights, COVER[what]);
    return [{ what, covered: holdsThroughout(ctx, shared, cover, absence, enough) }];
  });
}

const coversRights = (held: Rights, wanted: Rights): boolean =>
  held.sight === 'full' && (!wanted.add || (held.add && held.change === 'all' && held.remove === 'all'));

/** Whether what somebody holds is enough from an absence's beginning (or now) to its end. */
function holdsThroughout(
  ctx: Context,
  shared: Shareable,
  cover: Person,
  absence: StoredAbsence,
  enough: (decision: Decision) => boolean,
): boolean {
  if (cover.leftAt !== null) return false;
  const collection = collectionOf(shared, grantsOn(ctx.db, shared.id));
  const [viewer, house] = [viewerOf(ctx.db, cover), rulesOf(ctx.db, shared)];
  // Between its ends rights change where a grant begins or ends alone.
  const from = Math.max(ctx.now, absence.starts);
  const edges = collection.grants.flatMap((g) => [g.from, g.until]).filter((at): at is number => at !== null);
  const inside = edges.filter((at) => at > from && at < absence.ends);
  return [from, ...inside].every((at) => enough(decide(collection, viewer, at, house)));
}

type Fields = Pick<StoredAbsence, 'starts' | 'ends' | 'inside' | 'outside' | 'coverId' | 'declines'>;

/** What was typed, checked against the other absences there are; a refusal names the field. */
function readFields(ctx: Context, { owner }: Found, body: NewAbsence, was: StoredAbsence | null): Fields | Refusal {
  const wrong = (fields: Record<string, string>) => refuse('badInput', { fields });
  const [from, until] = [parseDate(body.from), parseDate(body.until)];
  if (from === null) return wrong({ from: 'date' });
  if (until === null) return wrong({ until: 'date' });
  if (until < from) return wrong({ until: 'endBeforeStart' });
  if (until - from > LONGEST_DAYS * DAY) return wrong({ until: `daysMost:${LONGEST_DAYS}` });
  const starts = fromWallLenient(owner.zone, from);
  const ends = fromWallLenient(owner.zone, until + DAY);
  if (ends <= ctx.now) return wrong({ until: 'datePassed' });
  // What had begun stays as it began; a new one begins today at the earliest.
  if (from < today(ctx, owner) && starts !== was?.starts) return wrong({ from: 'datePassed' });
  const others = absencesOf(ctx.db, owner.id, ctx.now).filter((one) => one.id !== was?.id);
  if (others.some((one) => one.starts < ends && starts < one.ends)) return wrong({ from: 'absenceOverlaps' });
  if (!was && others.length >= MOST) return wrong({ from: `absencesMost:${MOST}` });
  const cover = body.cover === null ? null : personByHandle(ctx.db, body.cover);
  const fits = cover?.inside && cover.leftAt === null && !cover.resource && cover.id !== owner.id;
  if (body.cover !== null && !fits) return wrong({ cover: 'person' });
  const { inside, outside, declines } = body;
  return { starts, ends, inside, outside, coverId: cover?.id ?? null, declines };
}

const today = (ctx: Context, owner: Person): number => Math.floor(toWall(owner.zone, ctx.now) / DAY) * DAY;

/** Says that somebody is away: for them, and for whoever may set their notice. It shows in their calendar, and takes their time in every search. */
export function addAbsence(ctx: Context, handle: string, body: NewAbsence): Result<AbsencesAnswer> {
  return ctx.db.write(() => {
    const found = findToSet(ctx, personByHandle(ctx.db, handle));
    if (isRefusal(found)) return found;
    const fields = readFields(ctx, found, body, null);
    if ('ok' in fields) return fields;
    const itemId = showInCalendar(ctx, found, fields, null);
    if (typeof itemId !== 'number') return itemId;
    const key = newKey();
    saveAbsence(ctx.db, {
      key,
      personId: found.owner.id,
      ...fields,
      itemId,
      setBy: ctx.viewer.id,
      setAt: ctx.now,
      version: 1,
    });
    return changed(ctx, found, key, 'absence.set', null, fields);
  });
}

/** Changes an absence, as it was last read. */
export function changeAbsence(
  ctx: Context,
  key: string,
  { version, ...body }: NewAbsence & { version: number },
): Result<AbsencesAnswer> {
  return ctx.db.write(() => {
    const was = absenceByKey(ctx.db, key);
    const found = findToSet(ctx, was && personById(ctx.db, was.personId));
    if (isRefusal(found)) return found;
    if (!was || was.ends <= ctx.now) return refuse('notFound');
    if (was.version !== version) return refuse('changedMeanwhile', { data: answerOf(ctx, found) });
    const fields = readFields(ctx, found, body, was);
    if ('ok' in fields) return fields;
    const itemId = showInCalendar(ctx, found, fields, was.itemId);
    if (typeof itemId !== 'number') return itemId;
    saveAbsence(ctx.db, { ...was, ...fields, itemId, setBy: ctx.viewer.id, setAt: ctx.now, version: version + 1 });
    return changed(ctx, found, key, 'absence.changed', fieldsOf(was), fields);
  });
}

/** Takes an absence away, and what showed it in the calendar. */
export function removeAbsence(ctx: Context, key: string): Result<AbsencesAnswer> {
  return ctx.db.write(() => {
    const was = absenceByKey(ctx.db, key);
    const found = findToSet(ctx, was && personById(ctx.db, was.personId));
    if (isRefusal(found)) return found;
    if (!was || was.ends <= ctx.now) return refuse('notFound');
    removeStored(ctx.db, was.id, ctx.now);
    const item = shownBy(ctx, was.itemId);
    if (item) {
      const after = {
        ...item,
        ...authorship(ctx, found.decided.calendar),
        removedAt: ctx.now,
        version: item.version + 1,
      };
      writeItems(ctx, found.decided.calendar, 'item.removed', [{ before: item, after }]);
    }
    return changed(ctx, found, key, 'absence.removed', fieldsOf(was), null);
  });
}

/**
 * Gives who covers an absence what a delegate has, and what else is named, for its days: for whoever gives access there. All of it, or
 * nothing where one can't be given; what they have already stays as it is.
 */
export function giveCover(ctx: Context, key: string, { further }: CoverBody): Result<AbsencesAnswer> {
  return ctx.db.write(() => {
    const one = absenceByKey(ctx.db, key);
    const found = findToSet(ctx, one && personById(ctx.db, one.personId));
    if (isRefusal(found)) return found;
    const cover = one?.coverId == null ? null : personById(ctx.db, one.coverId);
    if (!one || one.ends <= ctx.now) return refuse('notFound');
    if (!cover) return refuse('badInput', { fields: { cover: 'person' } });
    const { owner, decided } = found;
    const begun = one.starts <= ctx.now;
    const span = {
      from: begun ? null : dayOf(owner, one.starts),
      until: dayOf(owner, one.ends - 1),
      zone: owner.zone,
    };
    const give = (shared: Shareable, rights: Rights) =>
      giveAccess(ctx, shared.key, {
        audience: { kind: 'person', id: cover.handle },
        rights,
        span,
        seen: null,
        tell: { note: '' },
      });
    if (!isCovered(ctx, decided, one)) {
      const given = give(decided.calendar, PRESETS.delegate);
      if (!given.ok) return given;
    }
    const has = furtherCovered(ctx, owner, cover, one);
    for (const what of new Set(further)) {
      const shared = firstOf(ctx.db, owner.id, what);
      if (!shared) return refuse('notFound');
      if (has.some((of) => of.what === what && of.covered)) continue;
      const given = give(shared, COVER[what]);
      if (!given.ok) return given;
    }
    tellDesks(ctx, found);
    return ok(answerOf(ctx, found));
  });
}

const fieldsOf = ({ starts, ends, inside, outside, coverId, declines }: StoredAbsence): Fields => ({
  starts,
  ends,
  inside,
  outside,
  coverId,
  declines,
});

function changed(
  ctx: Context,
  found: Found,
  key: string,
  verb: string,
  before: Fields | null,
  after: Fields | null,
): Result<AbsencesAnswer> {
  trailOn(ctx, found.decided.calendar, key, verb, before, after);
  tellDesks(ctx, found);
  return ok(answerOf(ctx, found));
}

/** Those whose Desks may have a row about it hear of it. */
function tellDesks(ctx: Context, { owner, decided }: Found): void {
  const named = grantsOn(ctx.db, decided.calendar.id).flatMap(({ audience, rights }) =>
    audience.kind === 'person' && (rights.add || rights.change !== 'none') ? [audience.personId] : [],
  );
  tellPeople(ctx.db, [owner.id, ctx.viewer.id, ...named]);
}

/** What shows an absence, where it still stands. */
function shownBy(ctx: Context, itemId: number | null): StoredItem | null {
  const item = itemId === null ? null : itemById(ctx.db, itemId);
  return item && item.removedAt === null ? item : null;
}

/** Shows an absence in its owner's calendar, as whole days on which they are away. Answers what shows it. */
function showInCalendar(ctx: Context, found: Found, fields: Fields, itemId: number | null): number | Refusal {
  const { owner, decided } = found;
  const { calendar } = decided;
  const when = {
    start: dayOf(owner, fields.starts),
    end: dateText((parseDate(dayOf(owner, fields.ends - 1)) ?? 0) + DAY),
    allDay: true,
    zone: calendar.zone,
  };
  const words = createTranslator({
    locale: LOCALES[owner.language],
    messages: TEXTS[owner.language],
    namespace: 'absences',
  });
  const draft = draftItem(
    ctx,
    calendar,
    // What colleagues are answered isn't for everybody who may read the calendar.
    newItem.parse({ when, title: words('away'), shows: 'away', kind: 'errand' }),
    ctx.viewer.id,
  );
  if ('ok' in draft) return draft;
  const before = shownBy(ctx, itemId);
  if (!before) {
    const full = noRoom(ctx, calendar, ctx.viewer.id, 1);
    if (full) return full;
  }
  const { start, end, days, zone } = draft;
  const after = before && {
    ...before,
    ...authorship(ctx, calendar),
    start,
    end,
    days,
    zone,
    version: before.version + 1,
    sequence: before.sequence + 1,
  };
  const { changes } = after
    ? writeItems(ctx, calendar, 'item.changed', [{ before, after }])
    : writeItems(ctx, calendar, 'item.added', [{ before: null, after: { ...draft, fixed: true } }]);
  return changes[0]?.after.id ?? 0;
}
