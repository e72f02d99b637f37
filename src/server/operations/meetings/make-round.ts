import type { z } from 'zod';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { makeRoundBody } from '@/contract/meetings/holds.ts';
import { freshFields } from '@/core/calendar/index.ts';
import { parseInstant, toWall, wallText } from '@/core/time/index.ts';
import type { Result } from '../../result.ts';
import { type Context, isRefusal } from '../deciding/index.ts';
import { writeEach } from './change-several.ts';
import { beginSet, holdOne, lapseAt, mayAddTo } from './holds.ts';
import { createMeeting } from './save.ts';

const MINUTE = 60_000;

/**
 * Makes the meetings of a round, all or none, in one act that one token takes back: each held, to be fixed by itself, or called at once, and
 * then whoever comes is asked.
 */
export function makeRound(ctx: Context, key: string, body: z.infer<typeof makeRoundBody>): Result<SeveralAnswer> {
  const decided = mayAddTo(ctx, key, body.zone);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const lapsesAt = lapseAt(ctx, body.lapses);
  if (typeof lapsesAt !== 'number') return lapsesAt;
  const text = (at: number) => wallText(toWall(body.zone, at));
  return writeEach(ctx, body.meetings, ({ title, length, start, people }) => {
    const at = parseInstant(start) ?? 0;
    const when = { start: text(at), end: text(at + length * MINUTE), allDay: false, zone: body.zone };
    const item = { title, place: body.place, when };
    // Each is a set of its own: fixing one asks those who come to it, and leaves the others.
    if (body.as === 'holds') return holdOne(ctx, key, item, beginSet(ctx, calendar.id, people), lapsesAt);
    return createMeeting(ctx, key, { ...freshFields(title), ...item, ...(people.length > 0 ? { people } : {}) });
  });
}
