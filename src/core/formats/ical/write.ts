import ICAL from 'ical.js';
import { dateText, offsetAt, parseDate, parseWall, transitions, wallText } from '../../time/index.ts';
import type { ReadItem } from './read.ts';

/** An item as it is written: what reading gives back, with when it was last changed (epoch milliseconds). */
export type WrittenItem = Omit<ReadItem, 'line'> & { readonly changedAt: number };

const CLASS = { follow: 'PUBLIC', open: 'PUBLIC', outline: 'CONFIDENTIAL', private: 'PRIVATE' } as const;

/**
 * Writes items as iCalendar text (RFC 5545). Our own values stand beside the standard ones in X- properties that win
 * when the text is read back, so that reading what was written gives the same items.
 */
export function writeCalendar(items: readonly WrittenItem[], name: string): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.addPropertyWithValue('prodid', '-//Paramo//Calendar//EN');
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('x-wr-calname', name);
  const zones = new Map<string, [number, number]>();
  for (const item of items) {
    if (item.allDay || item.zone === 'UTC') continue;
    const at = wallMs(item.start);
    const [from, until] = zones.get(item.zone) ?? [at, at];
    zones.set(item.zone, [Math.min(from, at), Math.max(until, at)]);
  }
  for (const [zone, [from, until]] of zones) calendar.addSubcomponent(zoneComponent(zone, from, until));
  for (const item of items) calendar.addSubcomponent(eventComponent(item));
  return `${calendar.toString()}\r\n`;
}

function wallMs(text: string): number {
  return parseWall(text) ?? parseDate(text) ?? 0;
}

function eventComponent(item: WrittenItem): ICAL.Component {
  const event = new ICAL.Component('vevent');
  const time = (property: string, text: string) => {
    const value = item.allDay
      ? ICAL.Time.fromDateString(text.slice(0, 10))
      : ICAL.Time.fromDateTimeString(item.zone === 'UTC' ? `${text}Z` : text);
    const p = new ICAL.Property(property, event);
    p.setValue(value);
    if (!item.allDay && item.zone !== 'UTC') p.setParameter('tzid', item.zone);
    event.addProperty(p);
  };
  event.addPropertyWithValue('uid', item.uid);
  event.addPropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(`${wallText(item.changedAt)}Z`));
  event.addPropertyWithValue('sequence', item.sequence);
  if (item.recurrence) time('recurrence-id', item.recurrence);
  time('dtstart', item.start);
  time('dtend', item.end);
  if (item.rule) event.addPropertyWithValue('rrule', ICAL.Recur.fromString(ruleForText(item)));
  for (const text of item.added) time('rdate', text);
  for (const text of item.left) time('exdate', text);
  event.addPropertyWithValue('summary', item.title);
  if (item.place) event.addPropertyWithValue('location', item.place);
  if (item.notes) event.addPropertyWithValue('description', item.notes);
  if (item.link) event.addPropertyWithValue('url', item.link);
  if (item.categories.length > 0) {
    const p = new ICAL.Property('categories', event);
    p.setValues([...item.categories]);
    event.addProperty(p);
  }
  if (item.importance !== 'normal') event.addPropertyWithValue('priority', item.importance === 'high' ? 1 : 9);
  event.addPropertyWithValue('class', CLASS[item.visibility]);
  event.addPropertyWithValue('x-paramo-visibility', item.visibility);
  event.addPropertyWithValue('transp', item.shows === 'free' ? 'TRANSPARENT' : 'OPAQUE');
  event.addPropertyWithValue('x-paramo-shows', item.shows);
  event.addPropertyWithValue('x-paramo-kind', item.kind);
  if (item.cancelled) event.addPropertyWithValue('status', 'CANCELLED');
  else if (item.shows === 'tentative') event.addPropertyWithValue('status', 'TENTATIVE');
  if (item.organiser) {
    const p = event.addPropertyWithValue('organizer', `mailto:${item.organiser.address}`);
    if (item.organiser.name) p.setParameter('cn', item.organiser.name);
  }
  for (const attendee of item.attendees) {
    const p = event.addPropertyWithValue('attendee', `mailto:${attendee.address}`);
    if (attendee.name) p.setParameter('cn', attendee.name);
    p.setParameter('partstat', attendee.answer.toUpperCase());
  }
  return event;
}

/** Inside, an end stands on the wall clock; the format asks for a date with all-day items, and for UTC otherwise. */
function ruleForText(item: WrittenItem): string {
  return (item.rule as string).replace(/UNTIL=(\d{8})T(\d{6})Z/, (_, date: string, time: string) => {
    if (item.allDay) return `UNTIL=${date}`;
    const ms = wallMs(
      `${date.slice(0, 4)}-${date.slice(4, 6)}-${date.slice(6)}T${time.slice(0, 2)}:${time.slice(2, 4)}:${time.slice(4)}`,
    );
    const instant = ms - offsetAt(item.zone, ms - offsetAt(item.zone, ms));
    return `UNTIL=${wallText(instant).replace(/[-:]/g, '')}Z`;
  });
}

/** A VTIMEZONE whose changes are written out by date, from a year before the first item to ten after the last. */
function zoneComponent(zone: string, from: number, until: number): ICAL.Component {
  const YEAR = 366 * 86_400_000;
  const component = new ICAL.Component('vtimezone');
  component.addPropertyWithValue('tzid', zone);
  const begin = from - YEAR;
  const edges = [begin, ...transitions(zone, begin, until + 10 * YEAR, 100)];
  let before = offsetAt(zone, begin);
  const winter = Math.min(...edges.map((edge) => offsetAt(zone, edge)));
  for (const edge of edges) {
    const offset = offsetAt(zone, edge);
    const part = new ICAL.Component(offset > winter ? 'daylight' : 'standard');
    part.addPropertyWithValue('dtstart', ICAL.Time.fromDateTimeString(wallText(edge + before)));
    part.addPropertyWithValue('tzoffsetfrom', ICAL.UtcOffset.fromSeconds(before / 1000));
    part.addPropertyWithValue('tzoffsetto', ICAL.UtcOffset.fromSeconds(offset / 1000));
    component.addSubcomponent(part);
    before = offset;
  }
  return component;
}

/** A name for the file: letters, digits and dashes of the calendar's name and the day it was written. */
export function calendarFileName(name: string, now: number): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return `${plain || 'calendar'}-${dateText(now)}.ics`;
}
