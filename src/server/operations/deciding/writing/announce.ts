import { type Collection, decide, type HouseRules, nextChange, type Viewer } from '@/core/access/index.ts';
import { now } from '../../../clock.ts';
import type { Connection } from '../../../db/index.ts';
import { hub, type Listener } from '../../../live/hub.ts';
import { log } from '../../../log.ts';
import type { Calendar } from '../../../repositories/calendars.ts';
import type { SharedCollection } from '../../../repositories/collections.ts';
import { grantsOn } from '../../../repositories/grants.ts';
import { type Link, linkByKey } from '../../../repositories/links.ts';
import { type Person, personById } from '../../../repositories/people.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import { collectionOf, rulesOf, viewerOf } from '../access/deciding.ts';
import { type LinkEnds, linkEndsAt } from '../access/link-ends.ts';
import type { Context } from '../context/context.ts';
import { Directory } from '../context/directory.ts';
import { type Change, type ChangedRows, changedRows, DayRows, seenChange } from '../reading/changed-rows.ts';
import { rowOf } from '../reading/row-item.ts';
import { type Looker, sealedForLink, viewOfRow } from '../reading/views.ts';
import { occurrencesBetween } from './indexing.ts';

/** Listeners that are worked out before others get their turn. */
export const A_SLICE = 16;

/**
 * Tells the open windows of those whose view of an item differs between before and after what they see of it now; nobody else hears
 * of it. Worked out once the write is there, beside it and a few listeners at a time, by the rights of that instant.
 */
export function announceItems(ctx: Pick<Context, 'db'>, calendar: Calendar, changes: readonly Change[]): void {
  const { db } = ctx;
  db.afterWriting(() => {
    const listeners = hub().listeners();
    if (listeners.length === 0) return;
    let rows: ChangedRows | null = null;
    try {
      rows = changedRows(db, calendar, changes, now());
    } catch (error) {
      // The write is done and is answered as done: windows hear only that something changed, and ask.
      log().error({ error: String(error) }, 'what changed could not be worked out');
    }
    inTurn(async () => {
      for (let from = 0; from < listeners.length; from += A_SLICE) {
        if (!db.raw.open) return;
        tellSlice(db, calendar, changes, rows, listeners.slice(from, from + A_SLICE));
        await new Promise((others) => setImmediate(others));
      }
    });
  });
}

/** Writes are told one after the other, each to all of its listeners, so that the last thing a listener hears is the latest. */
const holder = globalThis as { paramoTelling?: Promise<void> };
export function inTurn(work: () => Promise<void>): void {
  holder.paramoTelling = (holder.paramoTelling ?? new Promise<void>((go) => setImmediate(go)))
    .then(work)
    .catch((error: unknown) => log().error({ error: String(error) }, 'a change could not be told'));
}

/** Ends once everything that was written until now has been told. */
export const everythingTold = async (): Promise<void> => holder.paramoTelling;

function tellSlice(
  db: Connection,
  calendar: Calendar,
  changes: readonly Change[],
  rows: ChangedRows | null,
  listeners: readonly Listener[],
): void {
  const reading = readingOf(db, calendar);
  const days = new DayRows(db, calendar);
  // An occurrence taken out of its series may be gone for who doesn't see what it became.
  const apart = changes.some(({ before, after }) => before === null && after?.seriesId != null);
  for (const heard of listening(db, listeners)) {
    const at = now();
    const looker = lookerOf(reading, heard, at);
    if (!looker) continue;
    const ends = endsOf(heard, calendar, at);
    const near = rows && { ...rows, before: upTo(rows.before, ends), after: upTo(rows.after, ends) };
    const seen = near && seenChange(db, reading.directory, near, looker, heard.person?.zone ?? null, days);
    const happens = seen === null ? apart : seen.gone.length + seen.shown.length > 0;
    if (!happens && !differs(db, reading.directory, changes, looker, ends)) continue;
    hub().changed(heard.listener, calendar.key, { seen, until: nextChange(reading.collection, heard.viewer, at) });
  }
}

interface Reading {
  readonly collection: Collection;
  readonly house: HouseRules;
  readonly directory: Directory;
}

const readingOf = (db: Connection, calendar: Calendar): Reading => ({
  collection: collectionOf(calendar, grantsOn(db, calendar.id)),
  house: rulesOf(db, calendar),
  directory: new Directory(db),
});

/** Who looks, where they see anything of the calendar. */
function lookerOf({ collection, house }: Reading, { viewer, person, sealAs }: Listening, at: number): Looker | null {
  const decision = decide(collection, viewer, at, house);
  return decision.rights.sight === 'nothing' ? null : { person, decision, ...(sealAs === null ? {} : { sealAs }) };
}

/** A link shows a limited number of days ahead: changes beyond them are not told to its readers. `null` for a person. */
const endsOf = ({ link }: Listening, calendar: Calendar, at: number): LinkEnds | null =>
  link && linkEndsAt(link, calendar, at);

const isWithin = (ends: LinkEnds | null, start: number, allDay: boolean): boolean =>
  ends === null || start < (allDay ? ends.allDay : ends.hours);

const upTo = (rows: ChangedRows['before'], ends: LinkEnds | null) =>
  rows.filter((row) => isWithin(ends, row.at, row.all_day === 1));

/** Whether somebody's view of an item differs between before and after, as far as they see ahead; of a repeat, that of the whole of it. */
function differs(
  db: Connection,
  directory: Directory,
  changes: readonly Change[],
  looker: Looker,
  ends: LinkEnds | null,
): boolean {
  const look = (item: StoredItem | null) =>
    item === null || item.removedAt !== null || !isWithin(ends, item.start, item.allDay)
      ? null
      : viewOfRow(db, directory, rowOf(item), looker);
  const when = (item: StoredItem | null) => (ends === null ? repeatText(item) : startsText(db, item, ends));
  return changes.some(({ before, after }) => {
    const [was, is] = [look(before), look(after)];
    if (was === null && is === null) return false;
    if (was === null || is === null || JSON.stringify(was) !== JSON.stringify(is)) return true;
    return when(before) !== when(after);
  });
}

/** Those of some listeners whose view of an item differs between before and after. */
export function whoSees(
  ctx: Context,
  calendar: Calendar,
  changes: readonly Change[],
  listeners: readonly Listener[],
): Listener[] {
  const reading = readingOf(ctx.db, calendar);
  return listening(ctx.db, listeners).flatMap((heard) => {
    const looker = lookerOf(reading, heard, ctx.now);
    return looker && differs(ctx.db, reading.directory, changes, looker, endsOf(heard, calendar, ctx.now))
      ? [heard.listener]
      : [];
  });
}

const repeatText = (item: StoredItem | null): string =>
  item === null ? '' : JSON.stringify([item.rule, item.added, item.left, item.zone]);

/** When an item happens, up to where a link ends. */
const startsText = (db: Connection, item: StoredItem | null, ends: LinkEnds): string =>
  item === null
    ? ''
    : occurrencesBetween(db, item, item.start, item.allDay ? ends.allDay : ends.hours)
        .map(({ start }) => start)
        .join();

/** Tells the open windows of those whose rights differ from what a collection gave them before, once that is committed. */
export function announceAccess(
  ctx: Pick<Context, 'db' | 'now'>,
  shared: SharedCollection,
  before: Collection,
  rulesBefore?: HouseRules,
): void {
  ctx.db.afterWriting(() => {
    const after = collectionOf(shared, grantsOn(ctx.db, shared.id));
    const house = rulesOf(ctx.db, shared);
    for (const { listener, viewer } of listening(ctx.db, hub().listeners())) {
      const was = decide(before, viewer, ctx.now, rulesBefore ?? house);
      const is = decide(after, viewer, ctx.now, house);
      // Who shares it reads all its grants: for them any change of them is one.
      const reads = is.owner || was.rights.shares || is.rights.shares;
      if (JSON.stringify(was.rights) !== JSON.stringify(is.rights) || was.ceiling !== is.ceiling || reads)
        hub().tell(listener, { kind: 'access', calendar: shared.key });
    }
  });
}

export interface Listening {
  readonly listener: Listener;
  readonly viewer: Viewer;
  readonly person: Person | null;
  /** The number a link's ids are sealed for. */
  readonly sealAs: number | null;
  readonly link: Link | null;
}

/** Whoever has a window open, as the rule reads them. */
export function listening(db: Connection, listeners: readonly Listener[]): Listening[] {
  return listeners.flatMap((listener): Listening[] => {
    if (typeof listener === 'string') {
      const link = linkByKey(db, listener.slice('link:'.length));
      if (!link) return [];
      return [{ listener, viewer: { kind: 'link', id: link.key }, person: null, sealAs: sealedForLink(link.id), link }];
    }
    const person = personById(db, listener);
    return person ? [{ listener, viewer: viewerOf(db, person), person, sealAs: null, link: null }] : [];
  });
}
