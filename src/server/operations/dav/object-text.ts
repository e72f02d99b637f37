import type { ItemPatch } from '@/contract/items/items.ts';
import { FILED_FIELDS, pick } from '@/core/calendar/index.ts';
import { type ReadItem, readCalendar, withoutOwn } from '@/core/formats/index.ts';
import { dateText, parseDate, parseWall, wallText } from '@/core/time/index.ts';
import { type Refusal, refuse } from '../../result.ts';
import { nameZone } from '../../zone-name.ts';
import { isRefusal } from '../deciding/index.ts';
import { COMMON_ZONES, TOO_MANY } from '../items/index.ts';

/*
 * The text of one object of a calendar as a program sends it, and what differs between two of them.
 */

/** Components of one text: a series, and occurrences of it that were changed by themselves. */
const MOST_PARTS = 150;
/** Zones that an object may define itself, and content lines of one of its components. */
const MOST_ZONES = 10;
const MOST_LINES = 3000;
/** What an object may be called outside. */
const MOST_UID = 500;

export interface Text {
  /** A series or a single item; or one occurrence that came without its series. */
  readonly main: ReadItem;
  readonly apart: readonly ReadItem[];
  /** What an occurrence that stands for all later ones (RFC 5545 3.2.13) makes of the series from there on, each a series of its own. */
  readonly tails: readonly Omit<Text, 'tails'>[];
}

/** One object out of calendar text, or why it is none: other components, several objects, a zone or a date that can't be read. */
export function textOf(text: string, zone: string): Text | Refusal {
  const limits = { most: MOST_PARTS, mostZones: MOST_ZONES, mostLines: MOST_LINES };
  const options = { zone, candidates: [zone, ...COMMON_ZONES], nameZone, ...limits, splits: true };
  const read = readCalendar(text, options);
  if (read.kind === 'notACalendar') return refuse('notACalendar');
  if (read.kind === 'tooMany') return refuse(TOO_MANY[read.what], { facts: { most: read.most } });
  const wrong = read.problems[0];
  if (wrong) return refuse('badInput', { fields: { [wrong.title ?? wrong.code]: 'unclear' } });
  if (read.items.some((item) => item.zone.startsWith('~'))) return refuse('badInput', { fields: { zone: 'zone' } });
  const uids = [...new Set(read.items.map(({ uid }) => uid))];
  if (uids.some((uid) => uid.length > MOST_UID)) return refuse('badInput', { fields: { uid: `tooLong:${MOST_UID}` } });
  // What is split off a series is an object of its own, under a UID that begins with the series'.
  const [first = '', ...others] = uids.sort((a, b) => a.length - b.length);
  const texts = uids.map((uid) => oneOf(read.items.filter((item) => item.uid === uid)));
  const [one, ...tails] = texts.flatMap((text) => text ?? []);
  if (!one || tails.length < others.length || others.some((uid) => !uid.startsWith(`${first.slice(0, 360)}#`)))
    return refuse('badInput', { fields: { uid: 'oneThing' } });
  return { ...one, tails };
}

/** The items of one UID as an object: a series with what was changed by itself, or one occurrence that came without its series. */
function oneOf(items: readonly ReadItem[]): Omit<Text, 'tails'> | null {
  const mains = items.filter((item) => item.recurrence === null);
  const [main = items.length === 1 ? items[0] : undefined] = mains;
  if (!main || mains.length > 1) return null;
  const apart = items.filter((item) => item !== main);
  // An occurrence that was called off is one that the series leaves out (RFC 5545 3.8.1.11).
  const isOff = (item: ReadItem) => item.cancelled && !main.cancelled;
  const off = apart.flatMap((item) => (isOff(item) ? (item.recurrence ?? []) : []));
  if (off.length === 0) return { main, apart };
  return {
    main: { ...main, left: [...new Set([...main.left, ...off])].sort() },
    apart: apart.filter((item) => !isOff(item)),
  };
}

const SHOWN_BY_CLASS = /^X-PARAMO-VISIBILITY[^:\r\n]*:outline\r?$/im;

/**
 * What a program was given and what it sends, both read by what it knows: ours too, or only the standard's own properties. Where the standard's
 * word for who sees it is one that we gave it ourselves, that word is meant so in what comes back.
 */
export function bothOf(given: string, sent: string, zone: string): { before: Text; after: Text | Refusal } {
  const own = /^X-PARAMO-/im.test(sent);
  const outlined = !own && SHOWN_BY_CLASS.test(given);
  const known = (text: string): string => {
    const plain = own ? text : withoutOwn(text);
    return outlined ? plain.replace(/^CLASS:CONFIDENTIAL(\r?)$/gim, '$&\nX-PARAMO-VISIBILITY:outline$1') : plain;
  };
  const before = textOf(known(given), zone);
  if (isRefusal(before)) throw new Error(`what was given can't be read back: ${before.code}`);
  return { before, after: textOf(known(sent), zone) };
}

/** The fields that differ from what was given. */
export function fieldsChanged(before: ReadItem, after: ReadItem): ItemPatch['fields'] {
  return pick(
    after,
    FILED_FIELDS.filter((name) => JSON.stringify(before[name]) !== JSON.stringify(after[name])),
  );
}

export const whenOf = ({ start, end, allDay, zone, endZone }: ReadItem) => ({
  start,
  end,
  allDay,
  zone,
  endZone: allDay ? null : endZone,
});

/** What is written for a program, whose event without an end is a moment. */
export const momentary = <B extends { readonly when?: object | undefined }>(body: B): B =>
  body.when ? { ...body, when: { ...body.when, moment: true } } : body;

export const isMoved = (before: ReadItem, after: ReadItem): boolean =>
  JSON.stringify(whenOf(before)) !== JSON.stringify(whenOf(after));

/** An item as it was read, so far on its clock from where it is. */
export const movedBy = (item: ReadItem, by: number): ReadItem => ({
  ...item,
  start: shifted(item.start, by),
  end: shifted(item.end, by),
});

/** How far a series was moved on its clock, in milliseconds. */
export function shiftOf(before: ReadItem, after: ReadItem): number {
  const wall = (one: ReadItem) => (one.allDay ? parseDate(one.start) : parseWall(one.start)) ?? 0;
  return wall(after) - wall(before);
}

export function shifted(text: string, by: number): string {
  if (by === 0) return text;
  const isDate = !text.includes('T');
  const wall = isDate ? parseDate(text) : parseWall(text);
  return wall === null ? text : isDate ? dateText(wall + by) : wallText(wall + by);
}

/** The days of a series that were picked by hand, all of them where there is no rule: with a time where that is another than the series' own. */
export function pickedDaysOf({ added, start, allDay, rule, left }: ReadItem): string[] {
  const first = rule === null && added.length > 0 && !left.includes(start) ? [start] : [];
  const isUsual = (text: string) => allDay || text.slice(11) === start.slice(11);
  return [...first, ...added].map((text) => (isUsual(text) ? text.slice(0, 10) : text));
}
