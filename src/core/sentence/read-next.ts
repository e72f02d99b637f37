import { parseDate, weekdayOf } from '../time/index.ts';
import { nextMonday } from './days.ts';
import { readSentence } from './read-sentence.ts';
import type { Known } from './tokens.ts';

/** What is asked for where somebody types "next 30 minutes with her at Marsh Lab", or "find 45 minutes with Bruno next week". */
export interface NextQuestion {
  readonly minutes: number;
  /** Whoever has to be there beside the one whose calendar it is, by the names they have, and addresses. */
  readonly people: readonly string[];
  readonly place: string | null;
  /** All times are asked for, not the next alone; in which days, where that is said: the first, at midnight, and how many. */
  readonly all: boolean;
  readonly days: { readonly first: number; readonly count: number } | null;
}

/** What each language begins with, whom it says without a name, the lengths it says without a number, and its weeks. */
const SAYS = {
  en: {
    begins: /^(?:the\s+)?next\s+(?:free\s+)?/i,
    finds: /^(?:find|when)\s+(?:me\s+)?(?:a\s+time\s+(?:for|of)\s+)?(?:an?\s+)?/i,
    whom: /\bwith\s+(?:her|him|them|me|us)\b/i,
    half: /^(?:half\s+an\s+hour|half\s+hour)\b/i,
    hour: /^hour\b/i,
    nextWeek: /\bnext\s+week\b/i,
    thisWeek: /\bthis\s+week\b/i,
  },
  pt: {
    begins: /^(?:[oa]s?\s+)?pr[oó]xim[oa]s?\s+/i,
    finds: /^(?:encontrar?|procurar?|quando)\s+(?:uma?\s+)?/i,
    whom: /\b(?:com\s+(?:el[ea]s?|n[oó]s)|comigo|connosco)(?![\p{L}])/iu,
    half: /^meia\s+hora\b/i,
    hour: /^hora\b/i,
    nextWeek: /(?:\bn?a\s+pr[oó]xima\s+semana|\bpara\s+a\s+semana)(?![\p{L}])/iu,
    thisWeek: /\b(?:nesta|esta)\s+semana(?![\p{L}])/iu,
  },
} as const;

/**
 * Reads what asks for times of some length: how long, with whom, where, and where all are asked for in which days, in whatever order. `null`
 * for everything else, and for what says more than that. "With her" is whoever the calendar is of. Never throws.
 */
export function readNext(text: string, known: Known): NextQuestion | null {
  const says = SAYS[known.language];
  const said = text.trim();
  const all = says.finds.test(said);
  if (!all && !says.begins.test(said)) return null;
  let rest = said
    .replace(all ? says.finds : says.begins, '')
    .replace(says.half, '30m')
    .replace(says.hour, '60m')
    .replace(says.whom, ' ');
  let days: NextQuestion['days'] = null;
  if (all && says.nextWeek.test(rest)) days = { first: nextMonday(known.today), count: 7 };
  else if (all && says.thisWeek.test(rest)) days = { first: known.today, count: 7 - weekdayOf(known.today) };
  if (days !== null) rest = rest.replace(says.nextWeek, ' ').replace(says.thisWeek, ' ');
  const { title, day, from, length, allDay, place, people, visibility, shows, rule } = readSentence(rest, known);
  const on = day === null ? null : parseDate(day);
  if (on !== null && (!all || days !== null)) return null;
  const more = title !== '' || from !== null || allDay || visibility || shows || rule;
  if (more || length === null || length < 5 || length > 1440) return null;
  return { minutes: length, people, place, all, days: on === null ? days : { first: on, count: 1 } };
}
