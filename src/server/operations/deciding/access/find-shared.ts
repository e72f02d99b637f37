import { may } from '@/core/access/index.ts';
import { calendarByKey } from '../../../repositories/calendars.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';
import { Directory } from '../context/directory.ts';
import { type Decided, decideOn } from './deciding.ts';

/** A calendar on which the one who asks may give and take access, as its sharer or as an administrator alone. */
export interface Shared extends Decided {
  readonly asAdministrator: boolean;
}

/**
 * A calendar on which the one who asks may give and take access: its owner, those they let, and administrators, who gain no
 * sight by it. Anyone else gets the refusal their sight allows.
 */
export function findShared(ctx: Context, key: string): Shared | Refusal {
  const calendar = calendarByKey(ctx.db, key);
  if (!calendar) return refuse('notFound');
  const decided = decideOn(ctx, calendar);
  if (may(decided.decision).share) return { ...decided, asAdministrator: false };
  // A token for one calendar is no way to be an administrator of the others.
  if (ctx.viewer.administrator && ctx.token?.only == null) return { ...decided, asAdministrator: true };
  if (decided.decision.rights.sight === 'nothing') return refuse('notFound');
  return refuse('mayNotShare', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
}
