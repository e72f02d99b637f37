import { writeFileSync } from 'node:fs';
import type { ImportPreview } from '@/contract/items/files.ts';
import { type FileZone, type ReadItem, type ReadProblem, readCalendar, recurrenceIn } from '@/core/formats/index.ts';
import { expand, type Series } from '@/core/recurrence/index.ts';
import { dateText, parseDate, parseWall, toWall, wallText } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { countItems, itemsByUid } from '../../repositories/items.ts';
import { countOccurrences, type IndexedOccurrence } from '../../repositories/occurrences.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import type { Port } from '../../workers/port.ts';
import { nameZone } from '../../zone-name.ts';
import {
  type Context,
  isRefusal,
  MOST_ITEMS_IN_CALENDAR,
  MOST_ITEMS_IN_FILE,
  MOST_OCCURRENCES_IN_CALENDAR,
  MOST_OCCURRENCES_OF_ITEM,
  repeats,
} from '../deciding/index.ts';
import { findImportable } from './importing.ts';

/** What reading a file leaves for bringing it in. */
export interface ReadyFile {
  readonly fresh: readonly ReadItem[];
  readonly newer: readonly ReadItem[];
  readonly zones: readonly FileZone[];
}

const SHOWN = 500;
const LIMITS_OF_FILE = { most: MOST_ITEMS_IN_FILE, mostZones: 300, mostLines: 20_000 };

/** What is refused where calendar text has more of something than may be. */
export const TOO_MANY = { items: 'tooManyItems', zones: 'tooManyZones', lines: 'tooManyLines' } as const;

/** Zones with most people on their offsets, so that a nameless definition is matched to the likeliest. */
export const COMMON_ZONES = [
  'Europe/London',
  'Europe/Berlin',
  'Europe/Athens',
  'America/New_York',
  'America/Chicago',
  'America/Denver',
  'America/Los_Angeles',
  'America/Sao_Paulo',
  'Asia/Kolkata',
  'Asia/Shanghai',
  'Asia/Tokyo',
  'Australia/Sydney',
];

/**
 * Reads a calendar file, holds it against what is in the calendar, and keeps what would come in in a file of the data folder. Answers
 * the preview, within the budgets of a calendar: what goes beyond them is named among what can't come in.
 */
export async function readFile(
  ctx: Context,
  args: { key: string; bytes: Uint8Array; file: string },
  port: Port,
): Promise<Result<Omit<ImportPreview, 'preview'>>> {
  const decided = findImportable(ctx, args.key);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const text = decode(args.bytes);
  if (text === null) return refuse('wrongEncoding');
  const candidates = [calendar.zone, ...COMMON_ZONES];
  const read = readCalendar(text, { zone: calendar.zone, candidates, nameZone, ...LIMITS_OF_FILE, splits: true });
  if (read.kind === 'notACalendar') return refuse('notACalendar');
  if (read.kind === 'tooMany') return refuse(TOO_MANY[read.what], { facts: { most: read.most } });
  await port.others();
  if (port.stopped()) return refuse('stopped');
  const fresh: ReadItem[] = [];
  const newer: ReadItem[] = [];
  const there: ReadItem[] = [];
  const problems: {
    code: ReadProblem['code'] | 'calendarFull' | 'tooManyHappenings';
    line: number;
    title: string | null;
    fact: string | null;
  }[] = [...read.problems];
  const replaced = replacedIn(read.items);
  let items = countItems(ctx.db, calendar.id);
  let occurrences = countOccurrences(ctx.db, calendar.id, MOST_OCCURRENCES_IN_CALENDAR);
  for (const item of read.items) {
    const standing = thereAlready(ctx.db, calendar, item);
    const problem = (code: 'calendarFull' | 'tooManyHappenings', most: number) =>
      problems.push({ code, line: item.line, title: item.title, fact: String(most) });
    if (standing && item.sequence <= standing.sequence) there.push(item);
    else if (standing) newer.push(item);
    else if (items >= MOST_ITEMS_IN_CALENDAR) problem('calendarFull', MOST_ITEMS_IN_CALENDAR);
    else {
      const { list, cut } = occurrencesRead(calendar, item, replaced);
      if (cut || occurrences + list.length > MOST_OCCURRENCES_IN_CALENDAR)
        problem('tooManyHappenings', MOST_OCCURRENCES_IN_CALENDAR);
      else {
        items++;
        occurrences += list.length;
        fresh.push(item);
      }
    }
  }
  const used = new Set([...fresh, ...newer].map((i) => i.zone));
  const ready: ReadyFile = { fresh, newer, zones: read.zones.filter((z) => used.has(z.name)) };
  writeFileSync(args.file, JSON.stringify(ready));
  problems.sort((a, b) => a.line - b.line);
  const tzids = new Map(read.zones.map((z) => [z.name, z.tzid]));
  const shown = (list: readonly ReadItem[]) => list.slice(0, SHOWN).map((item) => inPreview(item, tzids));
  return ok({
    fresh: shown(fresh),
    newer: shown(newer),
    there: shown(there),
    problems: problems
      .slice(0, SHOWN)
      .map(({ code, line, title, fact }) => ({ code, line, title, fact: fact?.slice(0, 200) ?? null })),
    remarks: read.remarks.slice(0, 50).map((r) => ({ ...r, fact: r.fact.slice(0, 200) })),
    counts: { fresh: fresh.length, newer: newer.length, there: there.length, problems: problems.length },
    ended: read.ended,
  });
}

/** Text that isn't UTF-8 (or UTF-16 with its mark) is refused, never guessed. */
function decode(bytes: Uint8Array): string | null {
  const [a, b] = bytes;
  const encoding = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8';
  try {
    const text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
    return text.includes('\u0000') ? null : text;
  } catch {
    return null;
  }
}

function inPreview(item: ReadItem, tzids: ReadonlyMap<string, string>) {
  const { title, start, end, allDay, zone, visibility, line } = item;
  return {
    title,
    start,
    end,
    allDay,
    zone: tzids.get(zone) ?? zone,
    repeats: item.rule,
    replaces: item.recurrence,
    visibility,
    line,
  };
}

/** The item that stands in a calendar for one of a file: the same UID and the same occurrence of it. */
export function thereAlready(db: Connection, calendar: Calendar, item: ReadItem): StoredItem | null {
  const all = itemsByUid(db, calendar.id, item.uid);
  const series = all.find((i) => i.recurrence === null);
  if (item.recurrence === null) return series ?? null;
  if (series) {
    const recurrence = recurrenceIn(seriesForm(series), item);
    const there = all.find((i) => i.recurrence === recurrence);
    if (there) return there;
  }
  // One that came without its series is named on its own clock.
  return all.find((i) => i.seriesId === null && i.recurrence === recurrenceIn(seriesForm(i), item)) ?? null;
}

/** What of a stored series a recurrence id has to fit. */
export const seriesForm = (series: StoredItem) => ({
  allDay: series.allDay,
  zone: series.zone,
  start: series.allDay ? dateText(series.start) : wallText(series.wall ?? toWall(series.zone, series.start)),
});

/** Which occurrences of each series a file has items of their own for. */
export function replacedIn(items: readonly ReadItem[]): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { uid, recurrence } of items)
    if (recurrence !== null) found.set(uid, [...(found.get(uid) ?? []), recurrence]);
  return found;
}

/** What the index will hold of an item of a file; `cut` where that is more than it may. */
export function occurrencesRead(
  calendar: Calendar,
  item: ReadItem,
  replaced: ReadonlyMap<string, readonly string[]>,
): { list: readonly IndexedOccurrence[]; cut: boolean } {
  if (!repeats(item)) return { list: [{ start: item.startAt, end: item.endAt }], cut: false };
  const series: Series = {
    startWall: parseWall(item.start) ?? parseDate(item.start) ?? 0,
    length: item.length,
    allDay: item.allDay,
    zone: item.zone,
    rule: item.rule === null ? null : { kind: 'rule', text: item.rule },
    added: item.added,
    left: [...item.left, ...(replaced.get(item.uid) ?? [])],
  };
  const { occurrences, cut } = expand(series, calendar.indexedFrom, calendar.indexedUntil, MOST_OCCURRENCES_OF_ITEM);
  return { list: occurrences, cut };
}
