import { createHash } from 'node:crypto';
import type { ItemWire } from '@/contract/items/items.ts';
import { FILED_FIELDS, type FiledField, freshFields, type WrittenFields } from '@/core/calendar/index.ts';
import {
  calendarText,
  eventLines,
  fitsFilter,
  seenLines,
  type WrittenItem,
  writeCalendar,
} from '@/core/formats/index.ts';
import { dateText, fromWallLenient, parseWall, wallText } from '@/core/time/index.ts';
import { calendarByKey } from '../../repositories/calendars.ts';
import { allItems, itemById, itemByKey, replacementsOf } from '../../repositories/items.ts';
import { itemByProgramName, programNames } from '../../repositories/program-names.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  actsBy,
  blockWords,
  type Context,
  type Decided,
  Directory,
  findByAnyId,
  findCalendar,
  isRefusal,
  noteUse,
  readViews,
  repeats,
  viewFor,
} from '../deciding/index.ts';
import { mayImport, writtenFrom } from '../items/index.ts';
import { bounded, daysOf, isWithin, LONGEST, shownInstants } from './instants.ts';
import { listProgramsOn } from './lists.ts';
import { type Instants, MOST_BYTES, MOST_OBJECTS, type ObjectsWanted, type ProgramObject } from './program-object.ts';
import { ScheduleStatuses } from './schedule-status.ts';

/*
 * A calendar as the objects a program reads and writes (RFC 4791 4.1), each at exactly the sight of the viewer. What they may change is one
 * object with all its occurrences, the ones that were changed by themselves among them. All else is one object for each occurrence as they see
 * it, under the id that the board gives it: nothing in it says which of them belong together.
 */

/** Readings of occurrences for one answer: each holds as many as an answer does. */
const MOST_READINGS = 8;

const hash = (text: string): string => createHash('sha256').update(text).digest('base64url').slice(0, 22);

/** The fields of a file as a view has them; what it doesn't have is as in a new item. */
function filedIn(view: ItemWire): Pick<WrittenFields, FiledField> {
  const fresh = freshFields('');
  return Object.fromEntries(FILED_FIELDS.map((name) => [name, view[name] ?? fresh[name]])) as unknown as typeof fresh;
}

/** One calendar as one person's programs have it. */
export class Programs {
  readonly directory: Directory;
  readonly names: ReadonlyMap<number, string>;
  private readonly words;
  private readonly statuses;
  private readonly homes = new Map<string, StoredItem | null>();
  private readonly written = new Map<number, WrittenItem | null>();
  constructor(
    readonly ctx: Context,
    readonly decided: Decided,
  ) {
    this.directory = new Directory(ctx.db);
    this.names = programNames(ctx.db, ctx.viewer.id, decided.calendar.id);
    this.words = blockWords(ctx.viewer.language);
    this.statuses = new ScheduleStatuses(ctx.db);
  }

  /** The view of an item that is one object with all its occurrences; `null` where its occurrences are objects of their own. */
  private wholeView(item: StoredItem): ItemWire | null {
    const view = viewFor(this.ctx, this.decided, item, item, this.directory);
    if (!view || !('notes' in view) || !view.may?.change) return null;
    // On which clock it repeats is for those who see it as it is set.
    return view.asSet !== undefined || !repeats(item) ? view : null;
  }

  /** The item in whose object a stored one stands: the series of one that was changed by itself, or itself. */
  homeOf(item: StoredItem): StoredItem | null {
    if (item.seriesId !== null) {
      const series = itemById(this.ctx.db, item.seriesId);
      if (series && series.removedAt === null && this.wholeView(series)) return this.wholeView(item) ? series : null;
    }
    return this.wholeView(item) ? item : null;
  }

  /** An item as it is written, of what its view has and nothing else. */
  private writtenOf(item: StoredItem, view: ItemWire, uid: string, left: readonly string[]): WrittenItem {
    const set = view.asSet;
    const zone = set ? this.directory.zone(item.zone) : this.ctx.viewer.zone;
    const endZone = set && item.endZone !== null ? this.directory.zone(item.endZone) : null;
    return {
      ...writtenFrom({ ...item, zone, endZone, ...(zone === item.zone ? {} : { wall: null, days: 0 }) }),
      uid,
      ...filedIn(view),
      shows: set?.shows ?? view.shows,
      cancelled: set?.cancelled ?? false,
      organiser: view.organiser ?? null,
      attendees: view.attendees ?? [],
      left,
      kept: mayImport(this.decided.decision) ? item.kept : [],
      statuses: view.attendees ? this.statuses.of(item) : new Map(),
    };
  }

  /** An object with all its occurrences, as its written items, the series first. */
  writtenWhole(item: StoredItem): WrittenItem[] | null {
    const view = this.wholeView(item);
    if (!view) return null;
    if (item.seriesId !== null) {
      // By itself here: its series is another object, or none.
      const alone = { ...item, recurrence: null };
      return [this.writtenOf(alone, view, `${item.key}@paramo`, [])];
    }
    const apart = replacementsOf(this.ctx.db, item.id);
    const seen = apart.flatMap((one) => {
      const v = this.wholeView(one);
      return v ? [{ one, v }] : [];
    });
    // An occurrence that was changed by itself and isn't theirs to change stands elsewhere, as they see it, if at all.
    const elsewhere = apart.filter((one) => !seen.some((s) => s.one.id === one.id)).map((one) => one.recurrence ?? '');
    const left = [...new Set([...item.left, ...elsewhere])].sort();
    return [
      this.writtenOf(item, view, item.uid, left),
      ...seen.map(({ one, v }) => this.writtenOf(one, v, item.uid, [])),
    ];
  }

  nameOf(item: StoredItem): string {
    return this.names.get(item.id) ?? `${item.key}.ics`;
  }

  whole(item: StoredItem, texts: boolean): ProgramObject | null {
    const items = this.writtenWhole(item);
    if (!items) return null;
    const plain = items.map(({ changedAt: _at, statuses, ...one }) => ({ ...one, statuses: [...(statuses ?? [])] }));
    const unanswered = plain.map(({ attendees, sequence: _sequence, statuses: _statuses, ...one }) => ({
      ...one,
      attendees: attendees.map(({ answer: _answer, ...a }) => a),
    }));
    return {
      name: this.nameOf(item),
      tag: hash(JSON.stringify(plain)),
      scheduleTag: hash(JSON.stringify(unanswered)),
      text: texts ? writeCalendar(items, null) : null,
      mayChange: true,
    };
  }

  private seenText(view: ItemWire): string {
    const { now } = this.ctx;
    const stamp = `${dateText(now)}T00:00:00Z`;
    return calendarText(seenLines(view, `${view.id}@paramo`, stamp, this.words), {});
  }

  seen(view: ItemWire, texts: boolean): ProgramObject {
    const { version: _version, asSet: _asSet, maySuggest: _suggest, ...plain } = view;
    const tag = hash(JSON.stringify([plain, this.ctx.viewer.language]));
    const text = texts ? this.seenText(view) : null;
    return { name: `${view.id}.ics`, tag, scheduleTag: tag, text, mayChange: view.may?.change === true };
  }

  /**
   * Every occurrence of a view by itself, in UTC (RFC 4791 9.6.5): of an object with all its occurrences everything that the whole text says, but how
   * it repeats; of what is seen only, what is seen.
   */
  occurrenceLines(view: ItemWire, home: StoredItem | null): string[] {
    const stored = home && (itemByKey(this.ctx.db, view.id.split('~')[0] ?? '') ?? home);
    const own = stored && this.writtenHere(stored, home);
    if (!own || !home) return seenLines(view, `${view.id}@paramo`, `${dateText(this.ctx.now)}T00:00:00Z`, this.words);
    const wall = (instant: string) => instant.replace(/\.\d+|Z$/g, '');
    const [start, end] = [wall(view.start), wall(view.end)];
    const ms = Date.parse(view.end) - Date.parse(view.start);
    return eventLines({
      ...own,
      start,
      end,
      length: { days: 0, ms },
      zone: view.allDay ? own.zone : 'UTC',
      endZone: null,
      rule: null,
      added: [],
      left: [],
      recurrence: repeats(home) && stored.seriesId === null ? start : this.insteadOf(stored, home),
    });
  }

  /** One item of an object as it is written there, once for all its occurrences. */
  private writtenHere(stored: StoredItem, home: StoredItem): WrittenItem | null {
    const known = this.written.get(stored.id);
    if (known !== undefined) return known;
    const view = this.wholeView(stored);
    const uid = home.seriesId === null ? home.uid : `${home.key}@paramo`;
    const written = view && this.writtenOf(stored, view, uid, []);
    this.written.set(stored.id, written);
    return written;
  }

  /** Which occurrence of its series an item stands for, in UTC; `null` for one that stands for none here. */
  private insteadOf(stored: StoredItem, home: StoredItem): string | null {
    if (stored.recurrence === null || stored.id === home.id) return null;
    const at = home.allDay ? null : parseWall(stored.recurrence);
    return at === null ? stored.recurrence : wallText(fromWallLenient(home.zone, at));
  }

  /** The views of some instants, as many readings as it takes; `cut` where it would take more. */
  views(instants: Instants): { items: ItemWire[]; cut: boolean } {
    const { ctx, decided, directory } = this;
    const range = daysOf(bounded(instants, ctx.now), decided.calendar.zone);
    const looker = { person: ctx.viewer, decision: decided.decision };
    const items: ItemWire[] = [];
    let after = 0;
    for (let n = 0; n < MOST_READINGS; n++) {
      const read = readViews(ctx.db, directory, decided.calendar, range, looker, { after, whole: true });
      items.push(...read.items);
      if (read.more === null) return { items, cut: read.unread };
      after = read.more;
    }
    return { items, cut: true };
  }

  /** The item whose object a view stands in; `null` where it is an object by itself. Looked up once for all the occurrences of one. */
  homeOfView(view: ItemWire): StoredItem | null {
    if (!('notes' in view) || !view.may?.change) return null;
    const key = view.id.split('~')[0] ?? '';
    const known = this.homes.get(key);
    if (known !== undefined) return known;
    const item = itemByKey(this.ctx.db, key);
    const home = item && this.homeOf(item);
    this.homes.set(key, home);
    return home;
  }

  /** An object of this calendar by its name; `null` where the viewer has none so. */
  find(name: string): { readonly item: StoredItem | null; readonly view: ItemWire } | null {
    const { ctx, decided } = this;
    const { calendar } = decided;
    const given = itemByProgramName(ctx.db, ctx.viewer.id, calendar.id, name);
    const id = /^([A-Za-z0-9_~-]{1,120})\.ics$/.exec(name)?.[1];
    const stored = given !== null ? itemById(ctx.db, given) : id === undefined ? null : itemByKey(ctx.db, id);
    if (stored && stored.removedAt === null && stored.calendarId === calendar.id) {
      const home = this.homeOf(stored);
      const view = home?.id === stored.id && this.nameOf(stored) === name ? this.wholeView(stored) : null;
      if (view) return { item: stored, view };
    }
    if (id === undefined) return null;
    const found = findByAnyId(ctx, id);
    if (isRefusal(found) || found.decided.calendar.id !== calendar.id || found.view.id !== id) return null;
    return this.homeOfView(found.view) ? null : { item: null, view: found.view };
  }

  object(name: string, texts: boolean): ProgramObject | null {
    const found = this.find(name);
    return found && (found.item ? this.whole(found.item, texts) : this.seen(found.view, texts));
  }
}

/** A calendar as one's programs have it; hidden and missing answer alike. */
export function programsOn(ctx: Context, key: string): Programs | Refusal {
  const decided = findCalendar(ctx, key);
  return isRefusal(decided) ? decided : new Programs(ctx, decided);
}

/** The objects of a calendar that are wanted, within the budget of an answer: `cut` says that there are more. */
export function listObjects(
  ctx: Context,
  key: string,
  wanted: ObjectsWanted,
): Result<{ objects: ProgramObject[]; missing: string[]; cut: boolean }> {
  const list = listProgramsOn(ctx, key);
  if (list) return list.list(wanted);
  const programs = programsOn(ctx, key);
  if (isRefusal(programs)) return programs;
  noteUse(ctx, programs.decided.decision);
  const { filter, expand, names } = wanted;
  const texts = wanted.texts || filter !== undefined;
  const objects: ProgramObject[] = [];
  let bytes = 0;
  let cut = false;
  /** Whether there is room for it. */
  const add = (object: ProgramObject): boolean => {
    if (filter && !fitsFilter(object.text ?? '', filter)) return true;
    bytes += object.text?.length ?? 200;
    if (objects.length >= MOST_OBJECTS || bytes > MOST_BYTES) cut = true;
    else objects.push(object);
    return !cut;
  };
  const expanded = expand && expandedIn(programs, expand);
  const inIts = (object: ProgramObject): ProgramObject =>
    expanded ? { ...object, text: expanded.get(object.name) ?? null } : object;
  if (names) {
    const missing: string[] = [];
    for (const name of names.slice(0, MOST_OBJECTS)) {
      const object = programs.object(name, texts);
      if (object === null) missing.push(name);
      else if (!add(inIts(object))) break;
    }
    return ok({ objects, missing, cut: cut || names.length > MOST_OBJECTS });
  }
  const read = programs.views(wanted.range ?? shownInstants(ctx.now));
  const done = new Set<number>();
  for (const view of read.items) {
    const home = programs.homeOfView(view);
    if (home && done.has(home.id)) continue;
    if (home) done.add(home.id);
    const object = home ? programs.whole(home, texts) : programs.seen(view, texts);
    if (object && !add(inIts(object))) break;
  }
  // What they may change is listed wherever it lies: what isn't would be taken for removed.
  const { range } = wanted;
  const writes = actsBy(programs.decided.decision);
  if (!cut && writes && (range === undefined || range.to - range.from > LONGEST))
    for (const item of allItems(ctx.db, programs.decided.calendar.id)) {
      const home = done.has(item.id) ? null : programs.homeOf(item);
      if (home === null || done.has(home.id) || (range && !isWithin(item, range))) continue;
      done.add(home.id);
      const object = programs.whole(home, texts);
      if (object && !add(inIts(object))) break;
    }
  return ok({ objects, missing: [], cut: cut || read.cut });
}

/** The occurrences between two instants, by the object they belong to, as one text each. */
function expandedIn(programs: Programs, instants: Instants): Map<string, string> {
  const lines = new Map<string, string[]>();
  for (const view of programs.views(instants).items) {
    const home = programs.homeOfView(view);
    const name = home ? programs.nameOf(home) : `${view.id}.ics`;
    lines.set(name, [...(lines.get(name) ?? []), ...programs.occurrenceLines(view, home)]);
  }
  return new Map([...lines].map(([name, all]) => [name, calendarText(all, {})]));
}

/** Occurrences changed by themselves with which an object takes long to write. */
const LONG = 20;

/** Whether an object takes long to write, the viewer; `false` for what isn't there. */
export function isLongObject(ctx: Context, key: string, name: string): boolean {
  const calendar = calendarByKey(ctx.db, key);
  const given = calendar && itemByProgramName(ctx.db, ctx.viewer.id, calendar.id, name);
  const item = given ? itemById(ctx.db, given) : itemByKey(ctx.db, name.replace(/\.ics$/, ''));
  return item !== null && replacementsOf(ctx.db, item.id).length > LONG;
}

/** One object of a calendar with its text. */
export function readObject(ctx: Context, key: string, name: string): Result<ProgramObject> {
  const list = listProgramsOn(ctx, key);
  if (list) return list.read(name);
  const programs = programsOn(ctx, key);
  if (isRefusal(programs)) return programs;
  noteUse(ctx, programs.decided.decision);
  const object = programs.object(name, true);
  return object ? ok(object) : refuse('notFound');
}
