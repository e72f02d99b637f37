import type { z } from 'zod';
import type { FoundDaysAnswer, foundDaysQuery } from '@/contract/search.ts';
import { dateText, parseInstant, toWall } from '@/core/time/index.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, findCalendar, isRefusal, readRange, readViews } from '../deciding/index.ts';
import { holds, wordsOf } from './words.ts';

/** So many answers of a range are looked through: each holds as many items as a board shows. */
const MOST_ANSWERS = 4;

/**
 * On which days of a range something of a calendar holds every word that is looked for, and how much: worked out from what the viewer
 * sees of it, so that what they don't see is matched by nothing and counted nowhere. A day counts what begins on it.
 */
export function findDays(ctx: Context, key: string, query: z.infer<typeof foundDaysQuery>): Result<FoundDaysAnswer> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const range = readRange(query);
  if (isRefusal(range)) return range;
  const words = wordsOf(query.words);
  if (words.length === 0) return refuse('badInput', { fields: { words: 'words' } });
  const directory = new Directory(ctx.db);
  const looker = { person: ctx.viewer, decision: decided.decision };
  const days = new Map<string, number>();
  let after: number | null = 0;
  let cut = false;
  for (let answers = 0; after !== null && answers < MOST_ANSWERS; answers++) {
    const read = readViews(ctx.db, directory, decided.calendar, range, looker, { after });
    for (const view of read.items) {
      if ((query.kind !== undefined && view.kind !== query.kind) || !holds(view, words)) continue;
      const date = view.allDay ? view.start : dateText(toWall(query.zone, parseInstant(view.start) ?? 0));
      days.set(date, (days.get(date) ?? 0) + 1);
    }
    cut ||= read.unread;
    after = read.more;
  }
  const found = [...days].map(([date, count]) => ({ date, count })).sort((a, b) => (a.date < b.date ? -1 : 1));
  return ok({ days: found, cut: cut || after !== null });
}
