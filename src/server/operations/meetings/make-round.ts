import type { z } from 'zod';
import type { SeveralAnswer } from '@/contract/items-several.ts';
import type { makeRoundBody } from '@/contract/meetings-holds.ts';
import { isZone, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { type Result, refuse } from '../../result.ts';
import { type Context, Directory, findCalendar, isRefusal } from '../deciding/index.ts';
import { allOrNone } from './change-several.ts';
import { beginSet, holdOne, lapseAt } from './holds.ts';
import { createMeeting } from './save.ts';

const MINUTE = 60_000;

/**
 * Makes the meetings of a round, all or none, in one act that one token takes back: each held, to be fixed by itself, or called at once, and
 * then whoever comes is asked.
 */
export function makeRound(ctx: Context, key: string, body: z.infer<typeof makeRoundBody>): Result<SeveralAnswer> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar, decision } = decided;
  if (!decision.rights.add)
    return refuse('mayNotAdd', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  if (!isZone(body.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  const lapsesAt = lapseAt(ctx, body.lapses);
  if (typeof lapsesAt !== 'number') return lapsesAt;
  const text = (at: number) => wallText(toWall(body.zone, at));
  return allOrNone(ctx, body.meetings, ({ title, length, start, people }) => {
    const at = parseInstant(start) ?? 0;
    const when = { start: text(at), end: text(at + length * MINUTE), allDay: false, zone: body.zone };
    const item = { title, place: body.place, when };
    // Each is a set of its own: fixing one asks those who come to it, and leaves the others.
    if (body.as === 'holds') return holdOne(ctx, key, item, beginSet(ctx, calendar.id, people), lapsesAt);
    return createMeeting(ctx, key, { ...PLAIN, ...item, ...(people.length > 0 ? { people } : {}) });
  });
}

const PLAIN = {
  kind: 'meeting',
  shows: 'busy',
  notes: null,
  link: null,
  categories: [] as string[],
  importance: 'normal',
  visibility: 'follow',
  briefing: null,
} as const;
