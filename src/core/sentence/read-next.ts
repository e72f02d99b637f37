import { readSentence } from './read-sentence.ts';
import type { Known } from './tokens.ts';

/** What is asked for where somebody types "next 30 minutes with her at Marsh Lab". */
export interface NextAsked {
  readonly minutes: number;
  /** Whoever has to be there beside the one whose calendar it is, by the names they have, and addresses. */
  readonly people: readonly string[];
  readonly place: string | null;
}

/** What each language begins with, whom it says without a name, and the lengths it says without a number. */
const SAYS = {
  en: {
    begins: /^(?:the\s+)?next\s+(?:free\s+)?/i,
    whom: /\bwith\s+(?:her|him|them|me|us)\b/i,
    half: /^(?:half\s+an\s+hour|half\s+hour)\b/i,
    hour: /^hour\b/i,
  },
  pt: {
    begins: /^(?:[oa]s?\s+)?pr[oó]xim[oa]s?\s+/i,
    whom: /\b(?:com\s+(?:el[ea]s?|n[oó]s)|comigo|connosco)(?![\p{L}])/iu,
    half: /^meia\s+hora\b/i,
    hour: /^hora\b/i,
  },
} as const;

/**
 * Reads what asks for the next time of some length: how long, with whom, where, in whatever order. `null` for everything else, and for what
 * says more than that. "With her" is whoever the calendar is of. Never throws.
 */
export function readNext(text: string, known: Known): NextAsked | null {
  const says = SAYS[known.language];
  const said = text.trim();
  if (!says.begins.test(said)) return null;
  const rest = said
    .replace(says.begins, '')
    .replace(says.half, '30m')
    .replace(says.hour, '60m')
    .replace(says.whom, ' ');
  const { title, day, from, length, allDay, place, people, visibility, shows, rule } = readSentence(rest, known);
  const more = title !== '' || day !== null || from !== null || allDay || visibility || shows || rule;
  return more || length === null || length < 5 || length > 1440 ? null : { minutes: length, people, place };
}
