import ICAL from 'ical.js';
import { LIMITS } from '../../calendar/index.ts';
import { readRule } from '../../recurrence/index.ts';
import { type Due, dueText, type WrittenTask } from '../../tasks/index.ts';
import { fromWallLenient, parseDate, parseInstant, parseWall, toWall, wallText } from '../../time/index.ts';
import { fieldsOf, textOf } from './fields.ts';
import { type Block, cutIntoBlocks } from './lines.ts';
import { fold, insideOf, type Property, plainText, propertyOf } from './property.ts';
import { durationOf, rawValues, stampOf, titleOf } from './read-times.ts';
import { type UnmodelledFields, type UnmodelledLine, unmodelledOf, withUnmodelled } from './unmodelled.ts';
import { Unreadable } from './unreadable.ts';
import { putField, putTime } from './write-event.ts';
import { zoneLines } from './write-zone.ts';
import { FileZones } from './zones.ts';

const DAY = 86_400_000;
/** The properties of a task that are written anew, never kept. */
const OURS = ['DUE', 'COMPLETED', 'STATUS', 'PERCENT-COMPLETE'];

/** A task as it is written (VTODO, RFC 5545 3.6.2): what reading gives back. */
export interface WrittenTodo extends WrittenTask {
  readonly uid: string;
  readonly due: Due | null;
  readonly zone: string;
  /** When it was done, epoch milliseconds; `null` where it is open. */
  readonly doneAt: number | null;
  readonly rule: string | null;
  readonly kept: readonly UnmodelledLine[];
  /** When it was last changed, epoch milliseconds, and whether that was since it was read. */
  readonly changedAt: number;
  readonly touched: boolean;
}

/** A task as somebody sees it who isn't told when it was done. */
export interface SeenTodo extends Omit<WrittenTodo, 'doneAt'> {
  readonly doneAt: number | 'unsaid' | null;
}

/** A task that was read, with the line it began on. */
export interface ReadTodo extends Omit<WrittenTodo, 'changedAt' | 'touched'> {
  readonly line: number;
}

export type ReadTodos =
  | { readonly kind: 'notACalendar' }
  | { readonly kind: 'tooMany' }
  | {
      readonly kind: 'read';
      readonly todos: readonly ReadTodo[];
      /** What couldn't be read: a closed code, the line, and what it is called. */
      readonly problems: readonly { readonly code: string; readonly line: number; readonly title: string | null }[];
    };

const FIELDS = ['title', 'notes', 'link', 'categories', 'importance', 'visibility'] as const;
const CLASS = { follow: 'PUBLIC', open: 'PUBLIC', outline: 'CONFIDENTIAL', private: 'PRIVATE' } as const;

/** The fields of an item that unmodelled lines depend on, of a task: what tasks don't have is as nothing. */
const unmodelledFields = (todo: WrittenTask, touched: boolean): UnmodelledFields => ({
  ...todo,
  shows: 'busy',
  kind: 'meeting',
  place: null,
  cancelled: false,
  organiser: null,
  attendees: [],
  touched,
});

/** Writes tasks as iCalendar text, lines folded at 75 octets; reading it gives the same tasks. */
export function writeTodos(todos: readonly SeenTodo[], name: string | null): string {
  const earliest = new Map<string, number>();
  for (const { due, zone } of todos)
    if (due && 'instant' in due && zone !== 'UTC')
      earliest.set(zone, Math.min(earliest.get(zone) ?? Number.POSITIVE_INFINITY, toWall(zone, due.instant)));
  const lines = [
    'BEGIN:VCALENDAR',
    'PRODID:-//Paramo//Tasks//EN',
    'VERSION:2.0',
    ...(name === null ? [] : [`X-WR-CALNAME:${escaped(name)}`]),
    ...[...earliest].flatMap(([zone, from]) => zoneLines(zone, from)),
    ...todos.flatMap((todo) => [
      'BEGIN:VTODO',
      ...withUnmodelled(ownLines(todo), todo.kept, unmodelledFields(todo, todo.touched)),
      'END:VTODO',
    ]),
    'END:VCALENDAR',
  ];
  return lines.map((line) => `${fold(line)}\r\n`).join('');
}

const escaped = (name: string): string =>
  plainText(name)
    .replace(/[\\;,]/g, '\\$&')
    .replace(/\n/g, '\\n');

function ownLines(todo: Omit<SeenTodo, 'kept' | 'touched'>): string[] {
  const part = new ICAL.Component('vtodo');
  const put = (name: string, value: string) =>
    part.addProperty(new ICAL.Property([name, {}, 'text', plainText(value)]));
  const instant = (name: string, at: number) =>
    part.addPropertyWithValue(name, ICAL.Time.fromDateTimeString(`${wallText(at)}Z`));
  put('uid', todo.uid);
  instant('dtstamp', todo.changedAt);
  const { due, zone } = todo;
  if (due) {
    const allDay = 'date' in due;
    const text = allDay ? dueText(due) : wallText(toWall(zone, due.instant));
    // What repeats counts from a start (3.8.5.3), and what has a start is due later than that: at the end of its day, or a second on.
    if (todo.rule) {
      putTime(part, 'dtstart', text, { zone, allDay });
      part.addPropertyWithValue('duration', ICAL.Duration.fromString(allDay ? 'P1D' : 'PT1S'));
      part.addPropertyWithValue('rrule', ICAL.Recur.fromString(ruleText(todo.rule, zone, allDay)));
    } else putTime(part, 'due', text, { zone, allDay });
    put('x-paramo-due', allDay ? text : dueText(due));
    put('x-paramo-zone', zone);
  }
  if (todo.doneAt !== null) {
    put('status', 'COMPLETED');
    if (todo.doneAt !== 'unsaid') instant('completed', todo.doneAt);
  } else put('status', 'NEEDS-ACTION');
  for (const name of FIELDS) putField(part, name, todo[name]);
  put('class', CLASS[todo.visibility]);
  return part
    .toString()
    .replace(/\r\n[ \t]/g, '')
    .split('\r\n')
    .slice(1, -1);
}

/** Inside, an end stands on the wall clock; the format asks for a date with dates, and for UTC otherwise. */
const ruleText = (rule: string, zone: string, allDay: boolean): string =>
  rule.replace(/UNTIL=(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})Z?/, (_, y, m, d, h, min, s) => {
    if (allDay) return `UNTIL=${y}${m}${d}`;
    const wall = parseWall(`${y}-${m}-${d}T${h}:${min}:${s}`) ?? 0;
    return `UNTIL=${wallText(fromWallLenient(zone, wall)).replace(/[-:]/g, '')}Z`;
  });

interface TodoOptions {
  /** The zone of times that name none, and of days. */
  readonly zone: string;
  /** When something is taken to be done that says no time of it. */
  readonly now: number;
  readonly candidates: readonly string[];
  readonly nameZone: (text: string) => string;
  readonly most: number;
}

/**
 * Reads the tasks of iCalendar text. Each that can't be read becomes a problem with its line; the others stand, and what else a calendar holds is
 * passed over. Never throws.
 */
export function readTodos(text: string, options: TodoOptions): ReadTodos {
  const cut = cutIntoBlocks(text, options.most * 2 + 200);
  if (!cut.isCalendar) return { kind: 'notACalendar' };
  const blocks = cut.blocks.filter(({ name }) => name === 'VTODO');
  if (cut.cut || blocks.length > options.most) return { kind: 'tooMany' };
  const zones = new FileZones(cut.blocks, options.candidates, options.nameZone);
  const todos = new Map<string, ReadTodo>();
  const problems: { code: string; line: number; title: string | null }[] = [];
  const blame = (block: Block, code: string) => problems.push({ code, line: block.line, title: titleOf(block.text) });
  for (const block of blocks) {
    try {
      const todo = todoOf(block, zones, options);
      if (todos.has(todo.uid)) blame(block, 'twice');
      else todos.set(todo.uid, todo);
    } catch (error) {
      blame(block, error instanceof Unreadable ? error.code : 'unreadable');
    }
  }
  for (const block of cut.blocks.filter(({ name }) => name === 'UNENDED')) blame(block, 'unended');
  if (cut.unended) blame(cut.unended, 'unended');
  return { kind: 'read', todos: [...todos.values()], problems };
}

function todoOf(block: Block, zones: FileZones, options: TodoOptions): ReadTodo {
  const { properties } = insideOf(block.text);
  const plain = block.text.replace(/\r\n(?:RRULE|EXRULE)[;:][^\r]*/gi, '');
  const part = new ICAL.Component(
    ICAL.parse(`BEGIN:VCALENDAR\r\n${plain}\r\nEND:VCALENDAR`) as never,
  ).getFirstSubcomponent('vtodo');
  if (!part) throw new Unreadable('unreadable');
  const fields = fieldsOf(part, properties, () => {});
  const written = Object.fromEntries(FIELDS.map((name) => [name, fields[name]])) as unknown as WrittenTask;
  const { due, zone } = dueOf(part, zones, options);
  const uid = textOf(part, 'uid')?.trim().slice(0, 400);
  if (!uid) throw new Unreadable('unreadable', 'UID');
  const todo = { ...written, uid, due, zone, doneAt: doneAt(part, properties, options), rule: null };
  const rule = ruleOf(properties, due, zone);
  const { unmodelled } = unmodelledOf(block.text, unmodelledFields(todo, false), ownLines({ ...todo, changedAt: 0 }));
  const others = unmodelled.filter(({ line }) => !OURS.includes(propertyOf(line)?.name ?? ''));
  return { ...todo, rule, kept: others, line: block.line };
}

type Zoned = { readonly due: Due | null; readonly zone: string };

/** When it is due: as it says itself, or at the end of its length from its start; a start alone is when it is due where it repeats. */
function dueOf(part: ICAL.Component, zones: FileZones, options: TodoOptions): Zoned {
  const own = textOf(part, 'x-paramo-due');
  const zone = textOf(part, 'x-paramo-zone');
  const said = timeOf(part, 'due', zones, options);
  const start = timeOf(part, 'dtstart', zones, options);
  const duration = part.getFirstProperty('duration');
  const length = duration && durationOf(String(rawValues(duration)[0] ?? ''));
  const after = ({ due, zone: of }: Zoned): Zoned => {
    if (!due || !length) return { due, zone: of };
    // The day a length of whole days ends on is the one before its end.
    if ('date' in due) return { due: { date: due.date + Math.max(0, length.days - 1) * DAY }, zone: of };
    const wall = toWall(of, due.instant) + length.days * DAY;
    return { due: { instant: fromWallLenient(of, wall) + length.ms }, zone: of };
  };
  const found = said ?? (start && after(start)) ?? { due: null, zone: options.zone };
  // Our own word holds as long as the standard's says the same.
  const mine = own && ownDue(own);
  if (mine && found.due && near(mine, found.due))
    return { due: mine, zone: zone && zones.clockOf(zone) ? zone : found.zone };
  return found;
}

const ownDue = (text: string): Due | null => {
  const date = parseDate(text);
  if (date !== null) return { date };
  const instant = parseInstant(text);
  return instant === null ? null : { instant };
};
const near = (a: Due, b: Due): boolean =>
  'date' in a ? 'date' in b && a.date === b.date : 'instant' in b && Math.abs(a.instant - b.instant) <= 1000;

function timeOf(part: ICAL.Component, name: string, zones: FileZones, options: TodoOptions): Zoned | null {
  const property = part.getFirstProperty(name);
  const raw = property && rawValues(property)[0];
  if (!property || typeof raw !== 'string' || raw === '') return null;
  if (!raw.includes('T')) {
    const date = parseDate(raw);
    if (date === null) throw new Unreadable('badStart', raw);
    return { due: { date }, zone: options.zone };
  }
  const wall = parseWall(raw.replace(/Z$/, '').replace(/:60$/, ':59'));
  if (wall === null) throw new Unreadable('badStart', raw);
  if (raw.endsWith('Z')) return { due: { instant: wall }, zone: options.zone };
  const tzid = property.getFirstParameter('tzid');
  const clock = tzid ? zones.clockOf(tzid) : options.zone;
  if (clock === null) throw new Unreadable('unknownZone', String(tzid));
  const named = tzid ? (zones.namedFor(tzid, wall) ?? options.zone) : options.zone;
  return { due: { instant: fromWallLenient(clock, wall) }, zone: named };
}

function doneAt(part: ICAL.Component, properties: readonly Property[], options: TodoOptions): number | null {
  const status = textOf(part, 'status')?.trim().toUpperCase();
  const completed = part.getFirstProperty('completed');
  const raw = completed ? String(rawValues(completed)[0] ?? '') : '';
  const at = parseWall(raw.replace(/Z$/, ''));
  if (status === 'NEEDS-ACTION' || status === 'IN-PROCESS') return null;
  if (status === 'COMPLETED' || status === 'CANCELLED' || at !== null || textOf(part, 'percent-complete') === '100')
    return at ?? (stampOf(properties) || options.now);
  return null;
}

function ruleOf(properties: readonly Property[], due: Due | null, zone: string): string | null {
  const [first, ...more] = properties.filter(({ name }) => name === 'RRULE');
  if (!first) return null;
  if (more.length > 0 || properties.some(({ name }) => name === 'EXRULE')) throw new Unreadable('manyRules');
  if (!due) throw new Unreadable('noStart');
  const allDay = 'date' in due;
  const read = readRule(first.value, allDay ? due.date : toWall(zone, due.instant), allDay ? null : zone);
  if (read.kind === 'problem') throw new Unreadable(read.code, first.value);
  return read.text.slice(0, LIMITS.notes);
}
