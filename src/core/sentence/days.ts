import { civil, parseDate, weekdayOf } from '../time/index.ts';

export const DAY = 86_400_000;

/* Days as people name them. `today` and every answer is a date, as the milliseconds of its midnight in UTC; weekdays count from Monday, 0. */

/** The next such weekday, today included. */
export const nextWeekday = (today: number, weekday: number): number =>
  today + ((weekday - weekdayOf(today) + 7) % 7) * DAY;

/** Monday of the week after this one. */
export const nextMonday = (today: number): number => today + (7 - weekdayOf(today)) * DAY;

/** The next day of that number, today included; `null` where no month has one. */
export function nextDayOfMonth(today: number, day: number): number | null {
  for (let n = 0; n < 62; n++) if (civil(today / DAY + n)[2] === day) return today + n * DAY;
  return null;
}

/** A date by its parts; a year of two digits is one of this century. `null` where there is no such date. */
export function dateOf(year: string | number, month: number, day: number): number | null {
  const whole = String(year).length === 2 ? 2000 + Number(year) : Number(year);
  const pad = (n: number, to: number) => String(n).padStart(to, '0');
  return parseDate(`${pad(whole, 4)}-${pad(month, 2)}-${pad(day, 2)}`);
}

/** A day and month without a year: the next such date, or the nearest one before or after. `null` where no such year is near. */
export function dateNear(today: number, month: number, day: number, which: 'next' | 'nearest'): number | null {
  const [year] = civil(today / DAY);
  const found = [year - 1, year, year + 1].flatMap((y) => dateOf(y, month, day) ?? []);
  if (which === 'next') return found.find((at) => at >= today) ?? null;
  return found.sort((a, b) => Math.abs(a - today) - Math.abs(b - today))[0] ?? null;
}
