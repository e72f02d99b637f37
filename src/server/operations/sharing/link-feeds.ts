import { createHash } from 'node:crypto';
import { createTranslator } from 'use-intl/core';
import type { RangeQuery } from '@/contract/items/items.ts';
import { readWorkHours, type WorkHours } from '@/contract/people/hours.ts';
import type { LinkItemsAnswer, LinkShown } from '@/contract/sharing/links.ts';
import { calendarText, freeBusyLines, seenLines } from '@/core/formats/index.ts';
import {
  dateText,
  fromWallLenient,
  isZone,
  parseBasicInstant,
  parseDate,
  parseInstant,
  toWall,
  weekStart,
} from '@/core/time/index.ts';
import { type Language, LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import { limiter } from '../../auth/limiter.ts';
import type { Connection } from '../../db/index.ts';
import { type Link, linkByKey, saveLinkShown } from '../../repositories/links.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  blockWords,
  type Context,
  Directory,
  findSharedCalendar,
  freeLapsed,
  isRefusal,
  linkEnds,
  linkZone,
  type Range,
  readViews,
  sealedForLink,
  takenIn,
  trailOn,
  type Views,
} from '../deciding/index.ts';
import { findLink, linkItems, noteLinkRead, type OpenLink, openLink } from './links.ts';

const DAY = 86_400_000;
/** How far back a feed goes: what has just been is still looked at. */
const BACK = 14 * DAY;
/** The most occurrences of a feed. */
const MOST = 1500;
/** How often one link is read within a minute, by all who have it. */
const reads = limiter(600, 60_000);

/** A text that a program asks for again and again, with what tells whether it changed. */
interface Feed {
  readonly text: string;
  readonly tag: string;
}

/** The language a feed is in: its link's own, or else its owner's. */
const languageFor = (link: Link, owner: Person | null): Language => link.language ?? owner?.language ?? 'en';

/** The days a feed holds: from two weeks back to as far as its link shows, on the link's clock. */
function feedRange({ link, calendar, at }: OpenLink): Range & { zone: string } {
  const zone = linkZone(link, calendar);
  const today = Math.floor(toWall(zone, at) / DAY) * DAY;
  const to = linkEnds(link, zone, at);
  const from = today - BACK;
  return {
    from: fromWallLenient(zone, from),
    to: fromWallLenient(zone, to),
    fromDate: dateText(from),
    toDate: dateText(to),
    zone,
  };
}

/** What a feed says of itself where it holds less than there is, in the link's language. */
const cutSaid = (language: Language): string =>
  createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'link' })('feedCut', {
    most: MOST,
  });

function readFor(found: OpenLink, range: Range): Views {
  const { link, calendar, decision, db } = found;
  const looker = { person: null, decision, sealAs: sealedForLink(link.id) };
  const whole = decision.rights.sight === 'full';
  return readViews(db, new Directory(db), calendar, range, looker, { most: MOST, whole });
}

const taggedText = (text: string): Feed => ({
  text,
  tag: createHash('sha256').update(text).digest('base64url').slice(0, 27),
});

/** What is read of a link, by what it is read as. */
export interface LinkReadings {
  readonly feed: Feed;
  readonly freeBusy: Feed;
  readonly week: ShownWeek;
  readonly items: Omit<LinkItemsAnswer, 'version'>;
}

/** What each reading is asked with. */
export interface LinkQueries {
  readonly feed: null;
  readonly freeBusy: { readonly start?: string | undefined; readonly end?: string | undefined };
  /** Which day's week, as a date; `null` for today's. */
  readonly week: string | null;
  readonly items: RangeQuery;
}

const READ: { readonly [K in keyof LinkReadings]: (link: OpenLink, query: LinkQueries[K]) => Result<LinkReadings[K]> } =
  {
    feed: linkFeed,
    freeBusy: linkFreeBusy,
    week: linkWeek,
    items: linkItems,
  };

/** Lets a reading of a link in: the link is found and counted, since each reading is work. Before anybody reads, what has lapsed is free. */
export function admitToLink(secret: string, headers: Headers): OpenLink | Refusal {
  const found = findLink(secret, headers);
  if (isRefusal(found)) return found;
  if (!reads.take(found.link.key, found.at)) return refuse('tooManyTries');
  freeLapsed({ db: found.db, now: found.at });
  noteLinkRead(found);
  return found;
}

/** Reads what a link shows at an instant, on whatever thread; one that was withdrawn meanwhile is gone. */
export function readLink<K extends keyof LinkReadings>(
  db: Connection,
  at: number,
  secret: string,
  as: K,
  query: LinkQueries[K],
): Result<LinkReadings[K]> {
  const link = openLink(secret, db, at);
  return link ? READ[as](link, query) : refuse('linkGone');
}

/**
 * What a link shows as a calendar file (RFC 5545): every occurrence by itself, under ids that say nothing below full sight, blocks without words
 * in the link's language. Being cut is said in it.
 */
function linkFeed(found: OpenLink): Result<Feed> {
  const { link, calendar, db, at } = found;
  const range = feedRange(found);
  const owner = personById(db, calendar.ownerId);
  const language = languageFor(link, owner);
  const { items, more, unread } = readFor(found, range);
  const words = blockWords(language);
  // The same all day long, so that what didn't change reads the same.
  const stamp = `${dateText(at)}T00:00:00Z`;
  const t = createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'link' });
  const lines = items.flatMap((item) => seenLines(item, `${item.id}@paramo`, stamp, words));
  const name = calendar.main
    ? (owner?.name ?? '')
    : t('titleNamed', { calendar: calendar.name, owner: owner?.name ?? '' });
  const says = more !== null || unread ? cutSaid(language) : undefined;
  return ok(taggedText(calendarText(lines, { name, zone: range.zone, every: 'PT1H', ...(says ? { says } : {}) })));
}

/** An instant as a query gives it: as in a time range of RFC 4791, or as RFC 3339 writes it. */
const readInstant = (text: string): number | null => parseBasicInstant(text) ?? parseInstant(text);

/**
 * When whoever a link shows is taken, as VFREEBUSY (RFC 5545 3.6.4), between two instants or over all that the link shows; never beyond that.
 * It says no more than free/busy, whatever the link shows besides. Where there is more than is read, it ends with what was read, so that no
 * time it speaks of looks free that isn't, and says so.
 */
function linkFreeBusy(found: OpenLink, query: LinkQueries['freeBusy']): Result<Feed> {
  const all = feedRange(found);
  const start = query.start === undefined ? all.from : readInstant(query.start);
  const end = query.end === undefined ? all.to : readInstant(query.end);
  if (start === null) return refuse('badInput', { fields: { start: 'instant' } });
  if (end === null) return refuse('badInput', { fields: { end: 'instant' } });
  if (end <= start) return refuse('badInput', { fields: { end: 'endBeforeStart' } });
  const from = Math.min(Math.max(start, all.from), all.to);
  const to = Math.max(from, Math.min(end, all.to));
  const wall = (at: number) => dateText(toWall(all.zone, at));
  const range = { from, to, fromDate: wall(from), toDate: dateText((parseDate(wall(to)) ?? 0) + DAY) };
  const { items, more, unread } = readFor(found, range);
  const taken = takenIn(items, all.zone);
  const stamp = `${dateText(found.at)}T00:00:00Z`;
  const readTo = more === null ? to : Math.max(from, Math.min(to, taken.at(-1)?.span[0] ?? from));
  const lines = freeBusyLines(taken, [from, readTo], stamp, `${found.link.key}-free-busy@paramo`);
  const owner = personById(found.db, found.calendar.ownerId);
  const says = more !== null || unread ? cutSaid(languageFor(found.link, owner)) : undefined;
  return ok(taggedText(calendarText(lines, { name: owner?.name ?? '', ...(says ? { says } : {}) })));
}

/** A week of a link as a page without script shows it. `from` is its first day; `days` each with what is seen of it. */
interface ShownWeek {
  readonly title: string;
  readonly sight: string;
  readonly zone: string;
  readonly language: Language | null;
  readonly framedBy: string | null;
  readonly booking: string | null;
  /** When its owner works, for each weekday of the page's own zone; `null` where they don't say, or work on another clock. */
  readonly hours: WorkHours;
  readonly from: number;
  readonly before: number | null;
  readonly after: number | null;
  readonly items: Views['items'];
  readonly cut: boolean;
}

/** What a link shows of a week, for a page that works without script and may stand in a frame on one website alone. */
function linkWeek(found: OpenLink, wanted: string | null): Result<ShownWeek> {
  const { link, calendar, decision, db, at } = found;
  const zone = linkZone(link, calendar);
  const today = Math.floor(toWall(zone, at) / DAY) * DAY;
  const ends = linkEnds(link, zone, at);
  const earliest = weekStart(today - BACK);
  const day = (wanted && parseDate(wanted)) || today;
  const from = Math.min(Math.max(weekStart(day), earliest), weekStart(ends - DAY));
  const to = Math.min(from + 7 * DAY, ends);
  const range = {
    from: fromWallLenient(zone, from),
    to: fromWallLenient(zone, to),
    fromDate: dateText(from),
    toDate: dateText(to),
  };
  const { items, more, unread } = readFor(found, range);
  const owner = new Directory(db).name(calendar.ownerId);
  const person = personById(db, calendar.ownerId);
  return ok({
    title: calendar.main ? owner : `${calendar.name}, ${owner}`,
    sight: decision.rights.sight,
    zone,
    language: link.language,
    framedBy: link.framedBy,
    booking: link.booking,
    hours: person && person.zone === zone ? readWorkHours(person.workHours) : null,
    from,
    before: from > earliest ? from - 7 * DAY : null,
    after: from + 7 * DAY < ends ? from + 7 * DAY : null,
    items,
    cut: more !== null || unread,
  });
}

/** A website as its origin: a host alone is meant with https. `null` for what is none. */
function originOf(text: string): string | null {
  try {
    const url = new URL(/^[a-z]+:\/\//i.test(text) ? text : `https://${text}`);
    const local = url.protocol === 'http:' && /^(localhost|127\.0\.0\.1)$/.test(url.hostname);
    const plain = url.username === '' && url.pathname === '/' && url.search === '' && url.hash === '';
    return plain && (url.protocol === 'https:' || local) && /^[a-z0-9.-]+$/i.test(url.hostname) ? url.origin : null;
  } catch {
    return null;
  }
}

/** Sets how a link shows what it shows. For those who see its address. */
export function setLinkShown(ctx: Context, key: string, linkKey: string, body: LinkShown): Result<{ done: true }> {
  const shared = findSharedCalendar(ctx, key);
  if (isRefusal(shared)) return shared;
  const link = linkByKey(ctx.db, linkKey);
  if (shared.asAdministrator || link?.collectionId !== shared.calendar.id) return refuse('notFound');
  if (body.zone !== null && !isZone(body.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  const framedBy = body.framedBy ? originOf(body.framedBy) : null;
  if (body.framedBy && framedBy === null) return refuse('badInput', { fields: { framedBy: 'website' } });
  const { ahead, language, zone, booking } = link;
  const shown = { ...body, framedBy, booking: body.booking || null };
  ctx.db.write(() => {
    saveLinkShown(ctx.db, linkKey, shown);
    trailOn(
      ctx,
      shared.calendar,
      linkKey,
      'link.shown',
      { ahead, language, zone, framedBy: link.framedBy, booking },
      shown,
    );
  });
  return ok({ done: true });
}
