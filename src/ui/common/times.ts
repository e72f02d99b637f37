import type { DateOrder } from '@/core/sentence/index.ts';
import { dateText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import type { Language } from '@/messages/languages.ts';
import { language, locale, SHORT_PT } from './language.ts';

export const DAY = 86_400_000;
export const MINUTE = 60_000;

/** How a person wants times shown. */
export interface TimeStyle {
  readonly zone: string;
  readonly hours: '12' | '24';
  readonly weekFirst: number;
  readonly dateOrder: DateOrder;
  readonly language: Language;
}

const formats = new Map<string, Intl.DateTimeFormat>();
function format(key: string, options: Intl.DateTimeFormatOptions, wall: number): string {
  const named = `${locale()} ${key}`;
  let f = formats.get(named);
  if (!f) {
    f = new Intl.DateTimeFormat(locale(), { ...options, timeZone: 'UTC' });
    formats.set(named, f);
  }
  return f.format(wall);
}

/** A wall-clock time as text, by the person's clock. Wall times are milliseconds as if UTC. */
export function clock(wall: number, hours: '12' | '24'): string {
  return hours === '24'
    ? format('h24', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }, wall)
    : format('h12', { hour: 'numeric', minute: '2-digit', hour12: true }, wall);
}

const inPortuguese = (): boolean => language() === 'pt';
const weekdayPt = (wall: number): string => SHORT_PT.weekdays[new Date(wall).getUTCDay()] ?? '';
const monthPt = (wall: number): string => SHORT_PT.months[new Date(wall).getUTCMonth()] ?? '';
const numberOf = (wall: number): number => new Date(wall).getUTCDate();

export const dayName = (wall: number): string =>
  inPortuguese()
    ? `${weekdayPt(wall)} ${numberOf(wall)}`
    : format('day', { weekday: 'short', day: 'numeric' }, wall).replace(',', '');
export const dayMonth = (wall: number): string =>
  inPortuguese() ? `${numberOf(wall)} ${monthPt(wall)}` : format('dm', { day: 'numeric', month: 'short' }, wall);
export const fullDay = (wall: number): string =>
  inPortuguese()
    ? `${weekdayPt(wall)} ${numberOf(wall)} ${monthPt(wall)} ${new Date(wall).getUTCFullYear()}`
    : format('full', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }, wall).replace(',', '');
export const weekday = (wall: number): string =>
  inPortuguese() ? weekdayPt(wall) : format('wd', { weekday: 'short' }, wall);

/** `23–29 November`, or with both months where a week has two. */
export function weekTitle(from: number, days = 7): string {
  const to = from + (days - 1) * DAY;
  const month = (w: number) => format('month', { month: 'long' }, w);
  const day = (w: number) => format('d', { day: 'numeric' }, w);
  const year = format('y', { year: 'numeric' }, to);
  return month(from) === month(to)
    ? `${day(from)}–${day(to)} ${month(to)} ${year}`
    : `${day(from)} ${month(from)} – ${day(to)} ${month(to)} ${year}`;
}

/** `March 2027`. */
export const monthTitle = (wall: number): string => format('my', { month: 'long', year: 'numeric' }, wall);

/** Start and end of a view as wall-clock times in a zone; all-day items are dates already. */
export function wallsOf(
  item: { start: string; end: string; allDay: boolean },
  zone: string,
): { start: number; end: number } {
  if (item.allDay) return { start: parseDate(item.start) ?? 0, end: parseDate(item.end) ?? 0 };
  return { start: toWall(zone, parseInstant(item.start) ?? 0), end: toWall(zone, parseInstant(item.end) ?? 0) };
}

/** The day something begins on the clock of a zone, as an address names it. */
export const dayOf = ({ start, allDay }: { readonly start: string; readonly allDay: boolean }, zone: string): string =>
  allDay ? start : dateText(toWall(zone, parseInstant(start) ?? 0));

/** When a view is, in words. */
export function whenText(item: { start: string; end: string; allDay: boolean }, style: TimeStyle): string {
  const { start, end } = wallsOf(item, style.zone);
  if (item.allDay) return end - start <= DAY ? fullDay(start) : `${fullDay(start)} – ${fullDay(end - DAY)}`;
  return sameDay(start, end)
    ? `${fullDay(start)}, ${clock(start, style.hours)}–${clock(end, style.hours)}`
    : `${fullDay(start)}, ${clock(start, style.hours)} – ${fullDay(end)}, ${clock(end, style.hours)}`;
}

const sameDay = (a: number, b: number): boolean => Math.floor(a / DAY) === Math.floor((b - 1) / DAY);

/** The last part of a zone's name, as people say it. */
export const zonePlace = (zone: string): string => (zone.split('/').at(-1) ?? zone).replace(/_/g, ' ');

export function hoursText(minutes: number): string {
  const h = Math.round((minutes / 60) * 2) / 2;
  const text = Number.isInteger(h) ? String(h) : h.toFixed(1);
  return `${language() === 'pt' ? text.replace('.', ',') : text} h`;
}

/** A day and a time of day, by the reader's clock. */
export function atText(instant: string, style: TimeStyle): string {
  const wall = toWall(style.zone, parseInstant(instant) ?? 0);
  return `${dayMonth(wall)}, ${clock(wall, style.hours)}`;
}
