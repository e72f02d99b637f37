import ICAL from 'ical.js';
import { LIMITS } from '../../calendar/index.ts';
import { endOf, type Length, readRule } from '../../recurrence/index.ts';
import {
  dateText,
  fromWall,
  fromWallLenient,
  LATEST,
  parseDate,
  parseWall,
  toWall,
  wallText,
} from '../../time/index.ts';
import { fieldsOf, textOf } from './fields.ts';
import { type Block, cutIntoBlocks } from './lines.ts';
import { insideOf, type Property } from './property.ts';
import type { ReadFile, ReadItem, ReadOptions, ReadProblem, ReadRemark } from './read-item.ts';
import {
  bounded,
  durationOf,
  hash,
  instantOf,
  inZone,
  type ReadTime,
  rawValues,
  stampOf,
  titleOf,
} from './read-times.ts';
import { splitRanges } from './split-range.ts';
import { unmodelledOf } from './unmodelled.ts';
import { Unreadable } from './unreadable.ts';
import { ownLines } from './write-event.ts';
import { FileZones } from './zones.ts';

const DAY = 86_400_000;

/**
 * Reads iCalendar text (RFC 5545) into items. Each item that can't be read becomes a problem with its line; the others
 * stand. Of several revisions of one item the newest does. Never throws; work is bounded by the most of components, zones and lines.
 */
export function readCalendar(text: string, options: ReadOptions): ReadFile {
  const cut = cutIntoBlocks(text, options.most + options.mostZones + 200);
  if (!cut.isCalendar) return { kind: 'notACalendar' };
  const { most, mostZones, mostLines } = options;
  const count = (name: string) => cut.blocks.filter((b) => b.name === name).length;
  if (cut.cut || count('VEVENT') > most) return { kind: 'tooMany', what: 'items', most };
  if (count('VTIMEZONE') > mostZones) return { kind: 'tooMany', what: 'zones', most: mostZones };
  if (cut.blocks.some((b) => hasMoreLines(b.text, mostLines)))
    return { kind: 'tooMany', what: 'lines', most: mostLines };
  const reader = new Reader(options, cut.blocks);
  const items = new Map<string, ReadItem>();
  const problems: ReadProblem[] = [];
  const blame = (block: Block, code: ReadProblem['code'], fact: string | null = null) =>
    problems.push({ code, line: block.line, title: titleOf(block.text), fact });
  for (const block of cut.blocks) {
    if (block.name === 'VTIMEZONE') continue;
    if (block.name === 'UNENDED') {
      blame(block, 'unended');
      continue;
    }
    if (block.name !== 'VEVENT') {
      blame(block, 'otherKind', block.name);
      continue;
    }
    try {
      for (const item of reader.read(block)) {
        const id = `${item.uid}\n${item.recurrence ?? ''}`;
        const other = items.get(id);
        if (!other) items.set(id, item);
        else if (isNewer(item, other) || isNewer(other, item)) {
          reader.remark('olderRevision', item.uid);
          if (isNewer(item, other)) items.set(id, item);
        } else blame(block, 'twice', item.uid);
      }
    } catch (error) {
      if (error instanceof Unreadable) blame(block, error.code, error.fact);
      else blame(block, 'unreadable');
    }
  }
  if (cut.unended) blame(cut.unended, 'unended');
  const { items: apart, unsplit } = splitRanges(inSeriesZones([...items.values()]));
  for (const { line, title } of unsplit) problems.push({ code: 'thisAndFuture', line, title, fact: null });
  return {
    kind: 'read',
    items: apart,
    zones: reader.zones.inUse(),
    problems,
    remarks: reader.remarks(),
    ended: cut.ended,
  };
}

/** Whether a text has more than so many lines, counted no further. */
function hasMoreLines(text: string, most: number): boolean {
  let count = 1;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) if (++count > most) return true;
  return false;
}

/** Whether one revision of an item is newer than another: by SEQUENCE, then by when it was made. */
function isNewer(a: Pick<ReadItem, 'sequence' | 'stamp'>, b: Pick<ReadItem, 'sequence' | 'stamp'>): boolean {
  return a.sequence > b.sequence || (a.sequence === b.sequence && a.stamp > b.stamp);
}

class Reader {
  readonly zones: FileZones;
  private readonly counts = new Map<string, ReadRemark>();
  private unnamed = 0;

  constructor(
    private readonly options: ReadOptions,
    blocks: readonly Block[],
  ) {
    this.zones = new FileZones(blocks, options.candidates, options.nameZone);
  }

  remarks(): ReadRemark[] {
    return [...this.counts.values()];
  }

  readonly remark = (code: ReadRemark['code'], fact: string): void => {
    const key = `${code}\n${fact}`;
    const count = this.counts.get(key)?.count ?? 0;
    if (count === 0 && this.counts.size >= 500) return;
    this.counts.set(key, { code, fact, count: count + 1 });
  };

  /** Reads the text itself, since the parser would move 30 February on to March without a word. */
  private time(property: ICAL.Property, raw: unknown, code: 'badStart' | 'badEnd'): ReadTime {
    if (typeof raw !== 'string') throw new Unreadable(code);
    if (!raw.includes('T')) {
      const wall = parseDate(raw);
      if (wall === null) throw new Unreadable(code, raw);
      return { wall: bounded(wall, raw), clock: this.options.zone, tzid: null, isDate: true };
    }
    // A leap second is the last one that clocks show.
    const wall = parseWall(raw.replace(/Z$/, '').replace(/:60$/, ':59'));
    if (wall === null) throw new Unreadable(code, raw);
    bounded(wall, raw);
    if (raw.endsWith('Z')) return { wall, clock: 'UTC', tzid: null, isDate: false };
    const tzid = property.getFirstParameter('tzid');
    if (tzid) {
      const clock = this.zones.clockOf(tzid);
      if (clock === null) throw new Unreadable('unknownZone', tzid);
      return { wall, clock, tzid, isDate: false };
    }
    this.remark('floating', this.options.zone);
    return { wall, clock: this.options.zone, tzid: null, isDate: false };
  }

  /** The item of a block, and beside it one for each added date that has a length of its own. */
  read(block: Block): ReadItem[] {
    const { properties } = insideOf(block.text);
    const event = eventOf(block);
    const startProperty = event.getFirstProperty('dtstart');
    if (!startProperty) throw new Unreadable('noStart');
    const start = this.time(startProperty, rawValues(startProperty)[0], 'badStart');
    const startAt = instantOf(start);
    const { length, endAt } = this.lengthOf(event, start, startAt);
    if (endAt < startAt) throw new Unreadable('endBeforeStart');
    if (endAt - startAt > LIMITS.days * DAY) throw new Unreadable('tooLong');
    const { rule, until } = ruleOf(properties, start);
    const added = this.dates(event, 'rdate', start);
    const left = this.dates(event, 'exdate', start);
    const last = Math.max(endAt, rule === null ? 0 : until, ...added.map((d) => d.at + (endAt - startAt)));
    const zone = this.zoneFor(start, startAt, last);
    const endZone = this.endZoneOf(event, zone, endAt);
    const recurrenceProperty = event.getFirstProperty('recurrence-id');
    const andLater = recurrenceProperty?.getFirstParameter('range') !== undefined;
    if (andLater && !this.options.splits) throw new Unreadable('thisAndFuture');
    const recurrence = recurrenceProperty
      ? this.time(recurrenceProperty, rawValues(recurrenceProperty)[0], 'badStart')
      : null;
    const text = (at: number) => (start.isDate ? dateText(at) : wallText(toWall(zone, at)));
    const sequence = Number(textOf(event, 'sequence') ?? 0);
    const item: ReadItem = {
      uid: this.uidOf(event),
      recurrence: recurrence && (recurrence.isDate ? dateText(recurrence.wall) : inZone(recurrence, start, zone)),
      ...(andLater ? { andLater } : {}),
      recurrenceZone: zone,
      // Where the clocks leave the start out, the wall time it was given as stays: its series is by that.
      start: start.isDate ? dateText(start.wall) : wallText(start.wall),
      end: endZone === null ? text(endAt) : wallText(toWall(endZone, endAt)),
      allDay: start.isDate,
      zone,
      endZone,
      startAt,
      endAt,
      length,
      rule,
      added: added.map((d) => d.text),
      left: left.map((d) => d.text),
      ...fieldsOf(event, properties, this.remark),
      kept: [],
      sequence: Number.isFinite(sequence) ? Math.max(0, Math.min(1_000_000_000, Math.trunc(sequence))) : 0,
      stamp: stampOf(properties),
      line: block.line,
    };
    const { unmodelled, dropped } = unmodelledOf(
      block.text,
      { ...item, touched: false },
      ownLines({ ...item, touched: false, changedAt: 0 }),
    );
    for (const name of dropped) this.remark('notKept', name);
    const whole = { ...item, kept: unmodelled };
    return [whole, ...added.flatMap((d) => (d.endAt === null ? [] : [ofItsOwnLength(whole, d, text(d.endAt))]))];
  }

  /** The zone of an end that is on another clock, where it is one that has a name: a definition of a file's own isn't kept for an end. */
  private endZoneOf(event: ICAL.Component, zone: string, at: number): string | null {
    const property = event.getFirstProperty('dtend');
    const end = property && this.time(property, rawValues(property)[0], 'badEnd');
    if (!end || end.isDate || end.tzid === null) return null;
    const found = this.zones.namedFor(end.tzid, at);
    if (found === null) this.remark('endZone', end.tzid);
    return found === zone ? null : found;
  }

  private zoneFor(start: ReadTime, from: number, until: number): string {
    if (start.tzid === null || start.isDate) return start.clock;
    const found = this.zones.keptFor(start.tzid, from, until);
    if (!found) throw new Unreadable('unknownZone', start.tzid);
    if (found.how === 'offsets') this.remark('zoneByOffsets', `${start.tzid} = ${found.zone}`);
    if (found.how === 'definition') this.remark('zoneByDefinition', start.tzid);
    return found.zone;
  }

  /** Added or left-out dates, on the clock of the start. */
  private dates(event: ICAL.Component, name: 'rdate' | 'exdate', start: ReadTime): Added[] {
    const found: Added[] = [];
    for (const p of event.getAllProperties(name))
      for (const raw of rawValues(p)) {
        const pair = Array.isArray(raw) ? raw : null;
        const value = pair ? pair[0] : raw;
        if (value === '') continue;
        if (found.length >= LIMITS.dates) throw new Unreadable('tooManyDates', String(LIMITS.dates));
        const time = this.time(p, value, 'badStart');
        const at = instantOf(time);
        const text =
          start.isDate || time.isDate
            ? time.isDate && !start.isDate
              ? wallText(time.wall + (start.wall - Math.floor(start.wall / DAY) * DAY))
              : dateText(time.wall)
            : wallText(time.clock === start.clock ? time.wall : toWall(start.clock, at));
        found.push({ text, at, endAt: pair ? this.periodEnd(p, pair[1], time, at) : null });
      }
    return found;
  }

  private periodEnd(property: ICAL.Property, raw: unknown, start: ReadTime, at: number): number {
    if (typeof raw === 'string' && /^P/i.test(raw)) {
      const length = durationOf(raw);
      if (!length) throw new Unreadable('badEnd', raw);
      return endOf(start.clock, at, start.wall, length);
    }
    const end = instantOf(this.time(property, raw, 'badEnd'));
    if (end < at) throw new Unreadable('endBeforeStart');
    return end;
  }

  private uidOf(event: ICAL.Component): string {
    const uid = textOf(event, 'uid')?.trim().slice(0, 400);
    if (uid) return uid;
    this.remark('noUid', '');
    // Without a UID the text itself stands in for it, so that bringing the same file in twice still finds it.
    return `without-uid-${hash(event.toString())}-${this.unnamed++}`;
  }

  /** An end given as a time is exact; a DURATION's days and weeks are nominal, the rest of it exact (RFC 5545 3.3.6). */
  private lengthOf(event: ICAL.Component, start: ReadTime, startAt: number): { length: Length; endAt: number } {
    const exact = (endAt: number) => ({ length: { days: 0, ms: endAt - startAt }, endAt });
    const days = (n: number) => ({ length: { days: n, ms: 0 }, endAt: startAt + n * DAY });
    const endProperty = event.getFirstProperty('dtend');
    if (endProperty) {
      const end = this.time(endProperty, rawValues(endProperty)[0], 'badEnd');
      if (end.isDate !== start.isDate) throw new Unreadable('badEnd');
      if (end.isDate) {
        if (end.wall < start.wall) throw new Unreadable('endBeforeStart');
        return days(Math.max(1, (end.wall - start.wall) / DAY));
      }
      // A start that the clocks leave out keeps its length: both ends are moved on.
      const leftOut = end.clock === start.clock && fromWall(start.clock, start.wall) === null;
      return exact(leftOut ? startAt + (end.wall - start.wall) : instantOf(end));
    }
    if (event.hasProperty('duration')) {
      const length = durationOf(String(rawValues(event.getFirstProperty('duration') as ICAL.Property)[0] ?? ''));
      if (!length) throw new Unreadable('badEnd');
      if (start.isDate) return days(Math.max(1, length.days + Math.round(length.ms / DAY)));
      return { length, endAt: endOf(start.clock, startAt, toWall(start.clock, startAt), length) };
    }
    return start.isDate ? days(1) : exact(startAt);
  }
}

interface Added {
  readonly text: string;
  readonly at: number;
  readonly endAt: number | null;
}

/** An added date with a length of its own, as the item that stands for it. */
function ofItsOwnLength(item: ReadItem, date: Added, end: string): ReadItem {
  const endAt = date.endAt as number;
  return {
    ...item,
    recurrence: date.text,
    start: date.text,
    end,
    startAt: date.at,
    endAt,
    length: { days: 0, ms: endAt - date.at },
    rule: null,
    added: [],
    left: [],
  };
}

/** The rule as it stands in the file (the parser would reprint it without what it doesn't know), and how long it goes on. */
function ruleOf(properties: readonly Property[], start: ReadTime): { rule: string | null; until: number } {
  const rules = properties.filter((p) => p.name === 'RRULE');
  const first = rules[0];
  if (rules.length > 1 || properties.some((p) => p.name === 'EXRULE')) throw new Unreadable('manyRules');
  if (!first) return { rule: null, until: 0 };
  const read = readRule(first.value, start.wall, start.isDate ? null : start.clock);
  if (read.kind === 'problem') throw new Unreadable(read.code, first.value);
  const end = /UNTIL=(\d{4})(\d{2})(\d{2})/.exec(read.text);
  const until = end ? (parseDate(`${end[1]}-${end[2]}-${end[3]}`) ?? LATEST) + 2 * DAY : LATEST - DAY;
  return { rule: read.text, until: Math.min(until, LATEST - DAY) };
}

function eventOf(block: Block): ICAL.Component {
  // Rules are read from the text; one that the parser can't read must not take its item with it. A list of no dates is nothing.
  const text = block.text.replace(
    /\r\n(?:(?:RRULE|EXRULE)[;:][^\r]*|(?:EXDATE|RDATE)(?:;[^:\r]*)?:[ \t]*(?=\r))/gi,
    '',
  );
  let event: ICAL.Component | null = null;
  try {
    event = new ICAL.Component(ICAL.parse(`BEGIN:VCALENDAR\r\n${text}\r\nEND:VCALENDAR`) as never).getFirstSubcomponent(
      'vevent',
    );
  } catch {
    // Said below.
  }
  if (!event) throw new Unreadable('unreadable');
  return event;
}

/** Recurrence ids in another zone than their series are put into the series' zone and form. */
function inSeriesZones(items: readonly ReadItem[]): ReadItem[] {
  const series = new Map(items.filter((i) => i.recurrence === null).map((i) => [i.uid, i]));
  return items.map((item) => {
    const master = item.recurrence === null ? undefined : series.get(item.uid);
    return master ? { ...item, recurrence: recurrenceIn(master, item), recurrenceZone: master.zone } : item;
  });
}

/** The recurrence id of an item in the form of its series: a date where that is all day, else its clock's time. */
export function recurrenceIn(
  series: { readonly allDay: boolean; readonly zone: string; readonly start: string },
  item: { readonly recurrence: string | null; readonly recurrenceZone: string },
): string | null {
  const { recurrence } = item;
  if (recurrence === null) return null;
  if (series.allDay) return recurrence.slice(0, 10);
  if (!recurrence.includes('T')) return `${recurrence}T${series.start.slice(11)}`;
  if (item.recurrenceZone === series.zone) return recurrence;
  const at = fromWallLenient(item.recurrenceZone, parseWall(recurrence) as number);
  return wallText(toWall(series.zone, at));
}
