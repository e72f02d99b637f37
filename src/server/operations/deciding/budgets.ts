/*
 * The most of everything that somebody's input can lengthen, in one place. What they cut is said: in a preview, in an answer, or in
 * the refusal that names them.
 */

/** Items that stand in one calendar. */
export const MOST_ITEMS_IN_CALENDAR = 50_000;
/** Items that one person adds in a day, by hand, by script or with files. */
export const MOST_ADDED_A_DAY = 60_000;
/** Occurrences of one item within the index's four to five years. */
export const MOST_OCCURRENCES_OF_ITEM = 45_000;
/** Occurrences of one calendar within those years. */
export const MOST_OCCURRENCES_IN_CALENDAR = 200_000;
/** Items in one file. */
export const MOST_ITEMS_IN_FILE = 20_000;
/** What one answer holds; the window asks on behind it. */
export const MOST_ITEMS_IN_ANSWER = 5000;
export const MOST_BYTES_IN_ANSWER = 4_000_000;
/** Occurrences, and series worked out beyond the index, that are read on the request's thread; more are read beside it. */
export const LIGHT_OCCURRENCES = 2000;
export const LIGHT_SERIES = 300;
