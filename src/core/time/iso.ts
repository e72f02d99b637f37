const DAY = 86_400_000;

/** Days since 1970-01-01 of a proleptic Gregorian date (Hinnant's civil-from-days, inverted). */
export function dayNumber(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yoe = y - era * 400;
  const doy = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  return era * 146_097 + yoe * 365 + Math.floor(yoe / 4) - Math.floor(yoe / 100) + doy - 719_468;
}

/** The date of a day number, as `[year, month 1-12, day 1-31]`. */
export function civil(days: number): [number, number, number] {
  const z = days + 719_468;
  const era = Math.floor(z / 146_097);
  const doe = z - era * 146_097;
  const yoe = Math.floor((doe - Math.floor(doe / 1460) + Math.floor(doe / 36_524) - Math.floor(doe / 146_096)) / 365);
  const doy = doe - (365 * yoe + Math.floor(yoe / 4) - Math.floor(yoe / 100));
  const mp = Math.floor((5 * doy + 2) / 153);
  const month = mp < 10 ? mp + 3 : mp - 9;
  return [yoe + era * 400 + (month <= 2 ? 1 : 0), month, doy - Math.floor((153 * mp + 2) / 5) + 1];
}

const two = (n: number): string => (n < 10 ? `0${n}` : `${n}`);
let lastDay = Number.NaN;
let lastDayText = '';

/** `2027-03-02` of a wall or UTC time in milliseconds. Years 0000-9999. */
export function dateText(ms: number): string {
  const days = Math.floor(ms / DAY);
  if (days !== lastDay) {
    const [y, m, d] = civil(days);
    lastDay = days;
    lastDayText = `${String(y).padStart(4, '0')}-${two(m)}-${two(d)}`;
  }
  return lastDayText;
}

/** `2027-03-02T10:00:00Z` of an instant in epoch milliseconds; fractions of a second are cut. */
export function instantText(ms: number): string {
  return `${wallText(ms)}Z`;
}

/** `2027-03-02T10:00:00` of a wall-clock time, in milliseconds as if it were UTC. */
export function wallText(ms: number): string {
  const inDay = ms - Math.floor(ms / DAY) * DAY;
  const s = Math.floor(inDay / 1000);
  return `${dateText(ms)}T${two(Math.floor(s / 3600))}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
}

const DATE = /^(\d{4})-(\d{2})-(\d{2})$/;
const WALL = /^(\d{4}-\d{2}-\d{2})T(\d{2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?$/;

/** Milliseconds at the start of a date as if UTC; `null` for what is no date of the calendar (30 February). */
export function parseDate(text: string): number | null {
  const m = DATE.exec(text);
  if (!m) return null;
  const ms = dayNumber(Number(m[1]), Number(m[2]), Number(m[3])) * DAY;
  return dateText(ms) === text ? ms : null;
}

/** Wall-clock milliseconds of `2027-03-02T10:00[:00]`; `null` where it is not one. */
export function parseWall(text: string): number | null {
  const m = WALL.exec(text);
  if (!m) return null;
  const day = parseDate(m[1] as string);
  const [h, min, s] = [Number(m[2]), Number(m[3]), Number(m[4] ?? 0)];
  if (day === null || h > 23 || min > 59 || s > 59) return null;
  return day + ((h * 60 + min) * 60 + s) * 1000;
}

/** Epoch milliseconds of an instant written in UTC (`...Z`) or with an offset; `null` where it is not one. */
export function parseInstant(text: string): number | null {
  const m = /^(.*?)(Z|[+-]\d{2}:\d{2})$/.exec(text);
  if (!m) return null;
  const wall = parseWall(m[1] as string);
  if (wall === null) return null;
  const z = m[2] as string;
  if (z === 'Z') return wall;
  const minutes = Number(z.slice(1, 3)) * 60 + Number(z.slice(4));
  return wall - (z[0] === '-' ? -1 : 1) * minutes * 60_000;
}

/** The weekday of a day number, 0 for Monday. */
export const weekdayOfDay = (days: number): number => (((days + 3) % 7) + 7) % 7;

/** The weekday of a date or a wall time in milliseconds, 0 for Monday. */
export const weekdayOf = (date: number): number => weekdayOfDay(Math.floor(date / DAY));

/** Monday of the week that holds the date, both as day-start milliseconds; `firstDay` 1 = Monday ... 7 = Sunday. */
export function weekStart(dayMs: number, firstDay = 1): number {
  const days = Math.floor(dayMs / DAY);
  const weekday = weekdayOfDay(days);
  return (days - ((weekday - (firstDay - 1) + 7) % 7)) * DAY;
}

/** An instant as RFC 5545 writes it in UTC (`20270302T090000Z`), in epoch milliseconds; `null` for anything else. */
export function parseBasicInstant(text: string): number | null {
  const at = /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/.exec(text);
  return at && parseInstant(`${at[1]}-${at[2]}-${at[3]}T${at[4]}:${at[5]}:${at[6]}Z`);
}
