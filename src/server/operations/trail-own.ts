import { newKey } from '../ids.ts';
import { recordTrail } from '../repositories/trail.ts';
import type { Context } from './context.ts';

/** Leaves a trail row for what somebody did in their own name and on no calendar, within the transaction that does it. */
export function trailOwn(ctx: Context, subject: string, verb: string, before: unknown, after: unknown): void {
  recordTrail(ctx.db, {
    key: newKey(),
    at: ctx.now,
    actorId: ctx.viewer.id,
    principalId: ctx.viewer.id,
    calendarId: null,
    subject,
    verb,
    before,
    after,
  });
}
