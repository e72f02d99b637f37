import { dayNumber } from './iso.ts';

const DAY = 86_400_000;

/** The first instant a time may have, and the first it may not: the years 1900 to 2200. Epoch milliseconds. */
export const EARLIEST = dayNumber(1900, 1, 1) * DAY;
export const LATEST = dayNumber(2201, 1, 1) * DAY;

/** Whether a time (an instant, a wall clock or a date, in milliseconds) lies in the years that calendars here speak of. */
export const inBounds = (ms: number): boolean => ms >= EARLIEST && ms < LATEST;
