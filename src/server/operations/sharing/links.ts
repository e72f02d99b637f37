import type { RangeQuery } from '@/contract/items/items.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import type { LinkItemsAnswer } from '@/contract/sharing/links.ts';
import { decide, nextChange } from '@/core/access/index.ts';
import { dateText, fromWallLenient, instantText } from '@/core/time/index.ts';
import type { Language } from '@/messages/languages.ts';
import { limiter } from '../../auth/limiter.ts';
import { now } from '../../clock.ts';
import { mustWait } from '../../db/gate.ts';
import { type Connection, database } from '../../db/index.ts';
import { linkKeyOf } from '../../ids.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { linkByKey, noteLinkUse } from '../../repositories/links.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  collectionOf,
  Directory,
  isRefusal,
  linkEnds,
  linkZone,
  type Range,
  readRange,
  readViews,
  rulesOf,
  sealedForLink,
} from '../deciding/index.ts';

/** Wrong addresses a place on the network may try in a quarter of an hour. */
const wrong = limiter(60, 15 * 60_000);
/** The same wrong address, from one place. */
const wrongOne = limiter(30, 15 * 60_000);
const ONCE_IN = 3_600_000;
/** A stranger's page shows so many; it is read on the request's thread. */
const MOST_BY_LINK = 1500;

/** A link by its secret, with what it shows now; `null` for a made-up, a withdrawn and an ended one. */
export function openLink(secret: string, db: Connection, at: number) {
  const key = linkKeyOf(secret);
  const link = key === null ? null : linkByKey(db, key);
  const calendar = link && calendarById(db, link.collectionId);
  if (link && calendar) {
    const collection = collectionOf(calendar, grantsOn(db, calendar.id));
    const viewer = { kind: 'link' as const, id: link.key };
    const decision = decide(collection, viewer, at, rulesOf(db, calendar));
    if (decision.rights.sight !== 'nothing') return { link, calendar, collection, viewer, decision, db, at } as const;
  }
  return null;
}

/** The language a link's page is drawn in where one was set for it, and it shows anything; otherwise its reader's. */
export const linkLanguage = (secret: string, db: Connection = database(), at: number = now()): Language | null =>
  openLink(secret, db, at)?.link.language ?? null;

/** A link found by its secret, or the refusal that every other address gets; a made-up, a withdrawn and an ended one are answered alike. */
export function findLink(
  secret: string,
  headers: Headers,
  db: Connection = database(),
  at: number = now(),
): OpenLink | Refusal {
  const open = openLink(secret, db, at);
  if (open) return open;
  // Counted by the place and the address it tried: no number of wrong ones shuts out whoever holds a good one.
  const place = headers.get('x-forwarded-for') ?? '';
  const counts = wrong.take(place, at) && wrongOne.take(`${place} ${secret.slice(0, 60)}`, at);
  return refuse(counts ? 'linkGone' : 'tooManyTries');
}

/** A range as far as a link shows; `null` where it lies beyond. */
function cutTo(range: Range, zone: string, ends: number): Range | null {
  const at = fromWallLenient(zone, ends);
  if (range.from >= at) return null;
  // Days are the link's: where they begin earlier elsewhere, what is all day ends by its date.
  const [toDate = range.toDate] = [range.toDate, dateText(ends)].sort();
  return { ...range, to: Math.min(range.to, at), toDate };
}

/** Notes that a link was read, once an hour. */
export function noteLinkRead({ link, db, at }: Pick<OpenLink, 'link' | 'db' | 'at'>): void {
  if (link.lastUsed === null || Math.abs(at - link.lastUsed) > ONCE_IN)
    if (!mustWait()) db.write(() => noteLinkUse(db, link.key, at));
}

/** A link that is open, and what it shows at an instant. */
export type OpenLink = NonNullable<ReturnType<typeof openLink>>;

/** What a link shows of its calendar in a range: views cut to the link, and whose calendar it is. */
export function linkItems(found: OpenLink, query: RangeQuery): Result<Omit<LinkItemsAnswer, 'version'>> {
  const { link, calendar, collection, viewer, decision, db, at } = found;
  const wanted = readRange(query);
  if (isRefusal(wanted)) return wanted;
  const zone = linkZone(link, calendar);
  const ends = linkEnds(link, zone, at);
  const range = cutTo(wanted, zone, ends);
  const directory = new Directory(db);
  const next = nextChange(collection, viewer, at);
  const looker = { person: null, decision, sealAs: sealedForLink(link.id) };
  const { items, more, unread } = range
    ? readViews(db, directory, calendar, range, looker, { most: MOST_BY_LINK })
    : { items: [], more: null, unread: false };
  const owner = directory.person(calendar.ownerId);
  return ok({
    owner: directory.name(calendar.ownerId),
    calendar: calendar.main ? '' : calendar.name,
    zone: calendar.zone,
    ends: dateText(ends),
    ownZone: link.zone,
    sight: decision.rights.sight,
    hours: readWorkHours(owner?.workHours ?? null),
    hoursZone: owner?.zone ?? calendar.zone,
    booking: link.booking,
    items,
    until: next === null ? null : instantText(next),
    now: instantText(at),
    cutShort: unread,
    more,
  });
}
