import { dateText, parseDate, parseWall } from '../../time/index.ts';
import { fold, plainText } from './property.ts';
import { eventLines, type WrittenItem } from './write-event.ts';
import { zoneLines } from './write-zone.ts';
import type { FileZone } from './zones.ts';

/**
 * Writes items as iCalendar text (RFC 5545), lines folded at 75 octets. Our own values stand beside the standard ones in X-
 * properties that win when the text is read back, so that reading what was written gives the same items. `zones`: the definitions
 * of items that are on a clock of a file's own, which are written as they came. Without a `name` it is no calendar's file but some items of one.
 */
export function writeCalendar(
  items: readonly WrittenItem[],
  name: string | null,
  zones: readonly FileZone[] = [],
): string {
  const series = new Map(items.filter((i) => i.recurrence === null).map((i) => [i.uid, i]));
  const called = tzidsOf(zones);
  const earliest = new Map<string, number>();
  for (const item of items) {
    if (item.allDay || item.zone === 'UTC') continue;
    const at = [item.start, ...item.added].map((text) => parseWall(text) ?? parseDate(text) ?? 0);
    earliest.set(item.zone, Math.min(earliest.get(item.zone) ?? Number.POSITIVE_INFINITY, ...at));
    if (item.endZone && item.endZone !== 'UTC')
      earliest.set(item.endZone, Math.min(earliest.get(item.endZone) ?? Number.POSITIVE_INFINITY, ...at));
  }
  const lines = [
    'BEGIN:VCALENDAR',
    'PRODID:-//Paramo//Calendar//EN',
    'VERSION:2.0',
    ...(name === null ? [] : [`X-WR-CALNAME:${escaped(name)}`]),
    ...[...earliest].flatMap(([zone, from]) => {
      const own = zones.find((z) => z.name === zone);
      const tzid = called.get(zone);
      return own && tzid !== undefined ? definitionLines(own, tzid) : zoneLines(zone, from);
    }),
    ...items.flatMap((item) => {
      const master = item.recurrence === null ? undefined : series.get(item.uid);
      const tzid = called.get(item.zone);
      const seriesTzid = master && called.get(master.zone);
      return eventLines({
        ...item,
        ...(tzid === undefined ? {} : { tzid }),
        ...(master ? { series: master } : {}),
        ...(seriesTzid === undefined ? {} : { seriesTzid }),
      });
    }),
    'END:VCALENDAR',
  ];
  return lines.map((line) => `${fold(line)}\r\n`).join('');
}

/** What each definition is called in a file: the name it came with, told apart where two came with one. */
function tzidsOf(zones: readonly FileZone[]): Map<string, string> {
  const called = new Map<string, string>();
  const taken = new Set<string>();
  for (const zone of zones) {
    const plain = plainText(zone.tzid).replace(/["\n]/g, ' ').trim() || 'Zone';
    let tzid = plain;
    for (let n = 2; taken.has(tzid); n++) tzid = `${plain} ${n}`;
    taken.add(tzid);
    called.set(zone.name, tzid);
  }
  return called;
}

const definitionLines = (zone: FileZone, tzid: string): string[] =>
  zone.text.split('\r\n').map((line) => (/^TZID[;:]/i.test(line) ? `TZID:${escaped(tzid)}` : plainText(line)));

/** A TEXT value (RFC 5545 3.3.11). */
const escaped = (text: string): string =>
  plainText(text)
    .replace(/[\\;,]/g, '\\$&')
    .replace(/\n/g, '\\n');

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
