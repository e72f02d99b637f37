import ICAL from 'ical.js';
import { FILED_FIELDS, type FiledField, specOf, type WrittenFields } from '../../calendar/index.ts';
import type { Length } from '../../recurrence/index.ts';
import { fromWallLenient, parseDate, parseWall, wallText } from '../../time/index.ts';
import { plainText } from './property.ts';
import { type UnmodelledFields, type UnmodelledLine, withStatuses, withUnmodelled } from './unmodelled.ts';

/** An item as it is written: what reading gives back, and what a reader of the file needs beside it. */
export interface WrittenItem extends UnmodelledFields {
  readonly uid: string;
  readonly recurrence: string | null;
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly zone: string;
  /** The zone whose clock `end` is on, where that is another. */
  readonly endZone?: string | null;
  readonly length: Length;
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
  readonly sequence: number;
  readonly kept: readonly UnmodelledLine[];
  /** When it was last changed, epoch milliseconds. */
  readonly changedAt: number;
  /** The series it stands for an occurrence of, where the file has it: its zone and form are those of the recurrence id. */
  readonly series?: Pick<WrittenItem, 'zone' | 'allDay'>;
  /** How far the last message has come to each attendee (RFC 6638 3.2.9), by address: told to the organiser's programs, never read back. */
  readonly statuses?: ReadonlyMap<string, string>;
  /** What its zone is called in the file, where that is not the zone's own name. */
  readonly tzid?: string;
  readonly seriesTzid?: string;
}

const CLASS = { follow: 'PUBLIC', open: 'PUBLIC', outline: 'CONFIDENTIAL', private: 'PRIVATE' } as const;

/** Calendar text as one reads it who knows only the standard's own properties: without those that are ours. */
export const withoutOwn = (text: string): string => text.replace(/^X-PARAMO-[^\r\n]*(\r\n[ \t][^\r\n]*)*\r\n/gim, '');

/** An item's content lines, unfolded, from BEGIN to END: our own, with what a file once said of it put back in place. */
export function eventLines(item: WrittenItem): string[] {
  return [
    'BEGIN:VEVENT',
    ...withStatuses(withUnmodelled(ownLines(item), item.kept, item), item.statuses),
    'END:VEVENT',
  ];
}

/** When an item is, as it is written. */
export type WrittenTimes = Pick<
  WrittenItem,
  | 'recurrence'
  | 'start'
  | 'end'
  | 'allDay'
  | 'zone'
  | 'endZone'
  | 'length'
  | 'rule'
  | 'added'
  | 'left'
  | 'series'
  | 'tzid'
  | 'seriesTzid'
>;

/** Puts a property that is a time into an event: a date, an instant in UTC, or a time on the clock of a zone. */
export function putTime(
  event: ICAL.Component,
  property: string,
  text: string,
  of: { readonly zone: string; readonly allDay: boolean },
  tzid?: string,
): void {
  const p = new ICAL.Property(property, event);
  const utc = of.zone === 'UTC';
  p.setValue(
    of.allDay ? ICAL.Time.fromDateString(text.slice(0, 10)) : ICAL.Time.fromDateTimeString(utc ? `${text}Z` : text),
  );
  if (!of.allDay && !utc) p.setParameter('tzid', tzid ?? of.zone);
  event.addProperty(p);
}

/** Puts into an event when it is: its start, its end or length, its repeats, and which occurrence of a series it stands for. */
export function putTimes(event: ICAL.Component, item: WrittenTimes): void {
  const time = (property: string, text: string, of: { zone: string; allDay: boolean }, tzid?: string) =>
    putTime(event, property, text, of, tzid);
  if (item.recurrence)
    time('recurrence-id', item.recurrence, item.series ?? item, item.series ? item.seriesTzid : item.tzid);
  time('dtstart', item.start, item, item.tzid);
  const ends = item.allDay ? null : item.endZone;
  const duration = ends ? null : durationText(item);
  if (duration) event.addPropertyWithValue('duration', ICAL.Duration.fromString(duration));
  else if (ends) time('dtend', item.end, { zone: ends, allDay: false });
  else if (item.end !== item.start) time('dtend', item.end, item, item.tzid);
  if (item.rule) event.addPropertyWithValue('rrule', ICAL.Recur.fromString(ruleForText(item)));
  for (const text of item.added) time('rdate', text, item, item.tzid);
  for (const text of item.left) time('exdate', text, item, item.tzid);
}

/** The lines that say what is modelled of an item. Our own values stand beside the standard ones in X- properties that win when read back. */
export function ownLines(item: WrittenItem): string[] {
  const event = new ICAL.Component('vevent');
  const put = (name: string, value: string) =>
    event.addProperty(new ICAL.Property([name, {}, 'text', plainText(value)]));
  put('uid', item.uid);
  event.addPropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(`${wallText(item.changedAt)}Z`));
  event.addPropertyWithValue('sequence', item.sequence);
  putTimes(event, item);
  for (const name of FILED_FIELDS) putField(event, name, item[name]);
  put('class', CLASS[item.visibility]);
  put('transp', item.shows === 'free' ? 'TRANSPARENT' : 'OPAQUE');
  if (item.cancelled) put('status', 'CANCELLED');
  else if (item.shows === 'tentative') put('status', 'TENTATIVE');
  if (item.organiser) addParty(event, 'organizer', item.organiser);
  for (const attendee of item.attendees) {
    const property = addParty(event, 'attendee', attendee);
    property.setParameter('partstat', attendee.answer.toUpperCase());
    if (attendee.role === 'may') property.setParameter('role', 'OPT-PARTICIPANT');
  }
  const text = event.toString().replace(/\r\n[ \t]/g, '');
  return text.split('\r\n').slice(1, -1);
}

/** Puts a field into the property it stands in; an empty one isn't written. */
export function putField(event: ICAL.Component, name: FiledField, value: WrittenFields[FiledField] | undefined): void {
  const property = (specOf(name).file ?? '').toLowerCase();
  if (name === 'importance') {
    if (value !== 'normal') event.addPropertyWithValue(property, value === 'high' ? 1 : 9);
  } else if (specOf(name).type === 'link') {
    if (value) event.addPropertyWithValue(property, value);
  } else if (typeof value === 'object' && value !== null) {
    if (value.length === 0) return;
    const p = new ICAL.Property(property, event);
    p.setValues(value.map(plainText));
    event.addProperty(p);
  } else if (value) event.addProperty(new ICAL.Property([property, {}, 'text', plainText(String(value))]));
}

/** Adds a person to an event: as a mail address, or, where it is none, as the address it is. */
export function addParty(
  event: ICAL.Component,
  name: string,
  party: { readonly address: string; readonly name: string | null },
): ICAL.Property {
  const isMail = /^[^\s@:]+@[^\s@:]+$/.test(party.address);
  const p = event.addPropertyWithValue(name, isMail ? `mailto:${party.address}` : party.address);
  if (party.name) p.setParameter('cn', plainText(party.name).replace(/\n/g, ' '));
  return p;
}

/** A length that holds whole days of the clock is written as such: an end as a time would make it exact (RFC 5545 3.8.5.3). */
function durationText({ allDay, length }: WrittenTimes): string | null {
  if (allDay || length.days === 0) return null;
  const rest = length.ms === 0 ? '' : `T${length.ms / 1000}S`;
  return `P${length.days}D${rest}`;
}

/** Inside, an end stands on the wall clock; the format asks for a date with all-day items, and for UTC otherwise. */
function ruleForText(item: WrittenTimes): string {
  return (item.rule as string).replace(/UNTIL=(\d{8})T(\d{6})Z?/, (_, date: string, time: string) => {
    if (item.allDay) return `UNTIL=${date}`;
    const day = `${date.slice(0, 4)}-${date.slice(4, 6)}-${date.slice(6)}`;
    const wall = parseWall(`${day}T${time.slice(0, 2)}:${time.slice(2, 4)}:${time.slice(4)}`) ?? parseDate(day) ?? 0;
    return `UNTIL=${wallText(fromWallLenient(item.zone, wall)).replace(/[-:]/g, '')}Z`;
  });
}
