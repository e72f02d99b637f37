import ICAL from 'ical.js';
import {
  ANSWERS,
  type Answer,
  type Attendee,
  type Importance,
  KINDS,
  type Kind,
  LIMITS,
  type Party,
  STATUSES,
  type Status,
  VISIBILITIES,
  type Visibility,
} from '../../calendar/index.ts';
import { dateText, parseDate, parseWall, toWall, wallText } from '../../time/index.ts';
import { type Block, cutIntoBlocks } from './lines.ts';
import { matchZone } from './zones.ts';

/** One VEVENT, read. Wall times are texts in `zone`; `rule` is the RRULE's value as it stands, not yet checked. */
export interface ReadItem {
  readonly uid: string;
  /** Wall-clock text of the happening this one replaces, in the series' zone; `null` for an item of its own. */
  readonly recurrence: string | null;
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly zone: string;
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
  readonly title: string;
  readonly kind: Kind;
  readonly place: string | null;
  readonly notes: string | null;
  readonly link: string | null;
  readonly categories: readonly string[];
  readonly importance: Importance;
  readonly shows: Status;
  readonly visibility: Visibility;
  readonly cancelled: boolean;
  readonly organiser: Party | null;
  readonly attendees: readonly Attendee[];
  readonly sequence: number;
  readonly line: number;
}

/** Something in a file that couldn't be taken as it stands: a closed code, the line, and the facts a sentence needs. */
export interface ReadProblem {
  readonly code:
    | 'noStart'
    | 'badStart'
    | 'badEnd'
    | 'endBeforeStart'
    | 'unknownZone'
    | 'unreadable'
    | 'unended'
    | 'twice'
    | 'tooLong'
    | 'otherKind'
    | 'manyRules';
  readonly line: number;
  readonly title: string | null;
  readonly fact: string | null;
}

/** What was understood differently than a reader might expect, said in the preview. */
export interface ReadRemark {
  readonly code: 'zoneByOffsets' | 'floating' | 'truncatedText' | 'noUid';
  readonly fact: string;
  readonly count: number;
}

export type ReadFile =
  | { readonly kind: 'notACalendar' }
  | { readonly kind: 'tooMany'; readonly most: number }
  | {
      readonly kind: 'read';
      readonly items: readonly ReadItem[];
      readonly problems: readonly ReadProblem[];
      readonly remarks: readonly ReadRemark[];
      readonly ended: boolean;
    };

export interface ReadOptions {
  /** The calendar's own zone, in which floating times are read. */
  readonly zone: string;
  /** Zones a VTIMEZONE without a known name may be matched to, the likeliest first. */
  readonly candidates: readonly string[];
  /** An instant near which a VTIMEZONE's offsets are compared, epoch milliseconds. */
  readonly now: number;
  readonly most: number;
}

const DAY = 86_400_000;

class Unreadable extends Error {
  constructor(
    readonly code: ReadProblem['code'],
    readonly fact: string | null = null,
  ) {
    super(code);
  }
}

/**
 * Reads iCalendar text (RFC 5545) into items. Each item that can't be read becomes a problem with its line; the others
 * stand. Never throws; work is linear in the text and bounded by `most` components.
 */
export function readCalendar(text: string, options: ReadOptions): ReadFile {
  const cut = cutIntoBlocks(text, options.most + 200);
  if (!cut.isCalendar) return { kind: 'notACalendar' };
  if (cut.cut || cut.blocks.filter((b) => b.name === 'VEVENT').length > options.most)
    return { kind: 'tooMany', most: options.most };
  const reader = new Reader(options, cut.blocks);
  const items: ReadItem[] = [];
  const problems: ReadProblem[] = [];
  const seen = new Set<string>();
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
      const item = reader.read(block);
      const id = `${item.uid}\n${item.recurrence ?? ''}`;
      if (seen.has(id)) blame(block, 'twice', item.uid);
      else {
        seen.add(id);
        items.push(item);
      }
    } catch (error) {
      if (error instanceof Unreadable) blame(block, error.code, error.fact);
      else blame(block, 'unreadable');
    }
  }
  if (cut.unended) blame(cut.unended, 'unended');
  return { kind: 'read', items: reader.inSeriesZones(items), problems, remarks: reader.remarks(), ended: cut.ended };
}

function titleOf(text: string): string | null {
  const found = /^SUMMARY(?:;[^:\r\n]*)?:(.*)$/im.exec(text)?.[1]?.trim();
  return found ? found.replace(/\\([,;\\])/g, '$1').slice(0, 120) : null;
}

interface ReadTime {
  readonly wall: number;
  readonly zone: string;
  readonly isDate: boolean;
  readonly utc: boolean;
}

class Reader {
  private readonly definitions = new Map<string, string>();
  private readonly matches = new Map<string, string | null>();
  private readonly counts = new Map<string, ReadRemark>();
  private unnamed = 0;

  constructor(
    private readonly options: ReadOptions,
    blocks: readonly Block[],
  ) {
    for (const block of blocks) {
      if (block.name !== 'VTIMEZONE') continue;
      const tzid = /^TZID(?:;[^:\r\n]*)?:(.*)$/im.exec(block.text)?.[1]?.trim();
      if (tzid) this.definitions.set(tzid, block.text);
    }
  }

  remarks(): ReadRemark[] {
    return [...this.counts.values()];
  }

  private remark(code: ReadRemark['code'], fact: string): void {
    const key = `${code}\n${fact}`;
    const count = this.counts.get(key)?.count ?? 0;
    this.counts.set(key, { code, fact, count: count + 1 });
  }

  private zoneFor(tzid: string): string {
    let zone = this.matches.get(tzid);
    if (zone === undefined) {
      const { candidates, now } = this.options;
      const match = matchZone(tzid, this.definitions.get(tzid) ?? null, candidates, now);
      zone = match.kind === 'zone' ? match.zone : null;
      if (match.kind === 'zone' && match.how === 'offsets') this.remark('zoneByOffsets', `${tzid} = ${match.zone}`);
      this.matches.set(tzid, zone);
    }
    if (zone === null) throw new Unreadable('unknownZone', tzid);
    return zone;
  }

  /** Reads the text itself, since the parser would move 30 February on to March without a word. */
  private time(property: ICAL.Property, raw: unknown, code: 'badStart' | 'badEnd'): ReadTime {
    if (typeof raw !== 'string') throw new Unreadable(code);
    if (!raw.includes('T')) {
      const wall = parseDate(raw);
      if (wall === null) throw new Unreadable(code, raw);
      return { wall, zone: this.options.zone, isDate: true, utc: false };
    }
    const wall = parseWall(raw.replace(/Z$/, ''));
    if (wall === null) throw new Unreadable(code, raw);
    if (raw.endsWith('Z')) return { wall, zone: 'UTC', isDate: false, utc: true };
    const tzid = property.getFirstParameter('tzid');
    if (tzid) return { wall, zone: this.zoneFor(tzid), isDate: false, utc: false };
    this.remark('floating', this.options.zone);
    return { wall, zone: this.options.zone, isDate: false, utc: false };
  }

  read(block: Block): ReadItem {
    let event: ICAL.Component | null;
    try {
      event = new ICAL.Component(
        ICAL.parse(`BEGIN:VCALENDAR\r\n${block.text}\r\nEND:VCALENDAR`) as never,
      ).getFirstSubcomponent('vevent');
    } catch {
      throw new Unreadable('unreadable');
    }
    if (!event) throw new Unreadable('unreadable');
    const startProperty = event.getFirstProperty('dtstart');
    if (!startProperty) throw new Unreadable('noStart');
    const start = this.time(startProperty, rawValues(startProperty)[0], 'badStart');
    const endWall = this.endOf(event, start);
    if (endWall < start.wall) throw new Unreadable('endBeforeStart');
    if (endWall - start.wall > LIMITS.days * DAY) throw new Unreadable('tooLong');
    const rules = event.getAllProperties('rrule');
    if (rules.length > 1 || event.hasProperty('exrule')) throw new Unreadable('manyRules');
    const text = (wall: number) => (start.isDate ? dateText(wall) : wallText(wall));
    const inZone = (t: ReadTime): string => {
      if (start.isDate || t.isDate)
        return t.isDate && !start.isDate ? wallText(t.wall + (start.wall % DAY)) : dateText(t.wall);
      return wallText(t.zone === start.zone ? t.wall : toWall(start.zone, instantOf(t)));
    };
    const dates = (name: string): string[] =>
      event.getAllProperties(name).flatMap((p) =>
        rawValues(p)
          .slice(0, 2000)
          .map((v) => inZone(this.time(p, Array.isArray(v) ? v[0] : v, 'badStart'))),
      );
    const recurrenceProperty = event.getFirstProperty('recurrence-id');
    const recurrence = recurrenceProperty
      ? this.time(recurrenceProperty, rawValues(recurrenceProperty)[0], 'badStart')
      : null;
    return {
      uid: this.uidOf(event),
      recurrence: recurrence ? recurrenceText(recurrence) : null,
      start: text(start.wall),
      end: text(endWall),
      allDay: start.isDate,
      zone: start.zone,
      rule: rules[0] ? rawRule(rules[0]) : null,
      added: dates('rdate'),
      left: dates('exdate'),
      ...this.fields(event),
      sequence: Math.max(0, Math.min(1_000_000, Number(textOf(event, 'sequence') ?? 0) || 0)),
      line: block.line,
    };
  }

  /** Recurrence ids in UTC or another zone are put into the zone of the series they belong to. */
  inSeriesZones(items: readonly ReadItem[]): ReadItem[] {
    const series = new Map(items.filter((i) => i.recurrence === null).map((i) => [i.uid, i]));
    return items.map((item) => {
      if (item.recurrence === null) return item;
      const [wallPart, zone] = item.recurrence.split('|') as [string, string];
      const master = series.get(item.uid);
      const target = master?.zone ?? item.zone;
      if (master?.allDay) return { ...item, recurrence: wallPart.slice(0, 10) };
      if (!wallPart.includes('T')) {
        const time = master ? master.start.slice(11) : '00:00:00';
        return { ...item, recurrence: `${wallPart}T${time}` };
      }
      const wall = parseWall(wallPart) as number;
      if (zone === target) return { ...item, recurrence: wallPart };
      return {
        ...item,
        recurrence: wallText(toWall(target, instantOf({ wall, zone, isDate: false, utc: zone === 'UTC' }))),
      };
    });
  }

  private uidOf(event: ICAL.Component): string {
    const uid = textOf(event, 'uid')?.trim().slice(0, 400);
    if (uid) return uid;
    this.remark('noUid', '');
    // Without a UID the text itself stands in for it, so that bringing the same file in twice still finds it.
    return `without-uid-${hash(event.toString())}-${this.unnamed++}`;
  }

  private endOf(event: ICAL.Component, start: ReadTime): number {
    const endProperty = event.getFirstProperty('dtend');
    if (endProperty) {
      const end = this.time(endProperty, rawValues(endProperty)[0], 'badEnd');
      if (end.isDate !== start.isDate) throw new Unreadable('badEnd');
      if (end.isDate) return end.wall === start.wall ? start.wall + DAY : end.wall;
      return end.zone === start.zone ? end.wall : toWall(start.zone, instantOf(end));
    }
    const duration = safely(() => event.getFirstPropertyValue('duration'));
    if (duration instanceof ICAL.Duration) {
      const seconds = duration.toSeconds();
      if (seconds < 0) throw new Unreadable('endBeforeStart');
      return start.wall + (start.isDate ? Math.max(1, Math.round(seconds / 86_400)) * DAY : seconds * 1000);
    }
    if (event.hasProperty('duration')) throw new Unreadable('badEnd');
    return start.isDate ? start.wall + DAY : start.wall;
  }

  private fields(event: ICAL.Component) {
    const title = this.cut(textOf(event, 'summary'), LIMITS.title, true) ?? '';
    const own = textOf(event, 'x-paramo-visibility')?.toLowerCase();
    const klass = textOf(event, 'class')?.toUpperCase();
    const visibility: Visibility =
      oneOf(VISIBILITIES, own) ?? (klass === 'PRIVATE' || klass === 'CONFIDENTIAL' ? 'private' : 'follow');
    const priority = Number(textOf(event, 'priority') ?? 0);
    const url = textOf(event, 'url')?.trim() ?? null;
    const status = textOf(event, 'status')?.toUpperCase();
    const transparent = textOf(event, 'transp')?.toUpperCase() === 'TRANSPARENT';
    const shows: Status =
      oneOf(STATUSES, textOf(event, 'x-paramo-shows')?.toLowerCase()) ??
      (transparent ? 'free' : status === 'TENTATIVE' ? 'tentative' : 'busy');
    return {
      title: title || '(no title)',
      kind: oneOf(KINDS, textOf(event, 'x-paramo-kind')?.toLowerCase()) ?? ('meeting' as Kind),
      place: this.cut(textOf(event, 'location'), LIMITS.place, true),
      notes: this.cut(textOf(event, 'description'), LIMITS.notes, false),
      link: url && /^https?:\/\/[^\s/]+/i.test(url) && url.length <= LIMITS.link ? url : null,
      categories: event
        .getAllProperties('categories')
        .flatMap((p) => p.getValues() as string[])
        .map((c) => clean(String(c), true).slice(0, LIMITS.category))
        .filter(Boolean)
        .slice(0, LIMITS.categories),
      importance: (priority >= 1 && priority <= 4 ? 'high' : priority >= 6 ? 'low' : 'normal') as Importance,
      shows,
      visibility,
      cancelled: status === 'CANCELLED',
      organiser: partyOf(event.getFirstProperty('organizer')),
      attendees: event
        .getAllProperties('attendee')
        .slice(0, LIMITS.attendees)
        .flatMap((p) => {
          const party = partyOf(p);
          const answer = oneOf(ANSWERS, String(p.getFirstParameter('partstat') ?? '').toLowerCase()) ?? 'needs-action';
          return party ? [{ ...party, answer: answer as Answer }] : [];
        }),
    };
  }

  private cut(text: string | null, max: number, oneLine: boolean): string | null {
    if (text === null) return null;
    const plain = clean(text, oneLine);
    if (plain.length > max) this.remark('truncatedText', String(max));
    return plain.slice(0, max) || null;
  }
}

function clean(text: string, oneLine: boolean): string {
  // biome-ignore lint/suspicious/noControlCharactersInRegex: exactly these are taken out
  const plain = text.replace(/\r\n?/g, '\n').replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g, '');
  return oneLine ? plain.replace(/\s+/g, ' ').trim() : plain.trim();
}

function instantOf(t: ReadTime): number {
  if (t.utc || t.zone === 'UTC') return t.wall;
  // The offset at the wall time taken as UTC is within a day of the right one; a second look settles it.
  const guess = t.wall - (toWall(t.zone, t.wall) - t.wall);
  return t.wall - (toWall(t.zone, guess) - guess);
}

function recurrenceText(t: ReadTime): string {
  return t.isDate ? `${dateText(t.wall)}|` : `${wallText(t.wall)}|${t.zone}`;
}

function safely<T>(read: () => T): T | null {
  try {
    return read();
  } catch {
    return null;
  }
}

function textOf(event: ICAL.Component, name: string): string | null {
  const value = safely(() => event.getFirstPropertyValue(name));
  return value === null || value === undefined ? null : String(value);
}

function oneOf<T extends string>(list: readonly T[], value: string | null | undefined): T | null {
  return list.find((x) => x === value) ?? null;
}

/** A property's values as texts, before the parser makes anything of them; a period is a pair. */
function rawValues(property: ICAL.Property): unknown[] {
  return (property.toJSON() as unknown[]).slice(3);
}

function rawRule(property: ICAL.Property): string {
  const value = safely(() => property.getFirstValue());
  const json = property.toJSON() as unknown[];
  const raw = json[3];
  if (value && typeof value === 'object' && 'toString' in value) return String(value);
  return typeof raw === 'string' ? raw : 'UNREADABLE';
}

function partyOf(property: ICAL.Property | null): Party | null {
  if (!property) return null;
  const value = String(safely(() => property.getFirstValue()) ?? '');
  const address = /^mailto:(.+)$/i.exec(value.trim())?.[1]?.trim().toLowerCase();
  if (!address || address.length > LIMITS.address || !/^[^\s@]+@[^\s@]+$/.test(address)) return null;
  const cn = property.getFirstParameter('cn');
  return { address, name: cn ? clean(String(cn), true).slice(0, LIMITS.name) || null : null };
}

/** FNV-1a over UTF-16 units; names an item without a UID, nothing more. */
function hash(text: string): string {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return (h >>> 0).toString(36);
}
