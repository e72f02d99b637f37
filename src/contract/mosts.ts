/** As many calendars as a board holds at once. */
export const MOST_ON_BOARD = 30;

/** As many items as one act takes, and as many dates as an item is put on at once: each costs more than a millisecond of everybody's time. */
export const MOST_AT_ONCE = 30;

/** As many times as are held for one meeting. */
export const MOST_HELD = 12;

/** As many standing wishes as somebody has for their days. */
export const MOST_KEEPS = 12;

/** So many weeks a series reaches for which a time is looked for. */
export const MOST_SERIES_WEEKS = 52;

/** As many changes of access as are made in one act. */
export const MOST_CHANGES = 1000;

/** As many people as one asks for access in one act. */
export const MOST_ASKED = 100;
