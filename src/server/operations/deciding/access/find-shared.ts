import { may } from '@/core/access/index.ts';
import type { Calendar } from '../../../repositories/calendars.ts';
import { type Shareable, shareableByKey } from '../../../repositories/shareables.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';
import { Directory } from '../context/directory.ts';
import { type Decided, type DecidedAlone, decideOnShared, isRefusal } from './deciding.ts';

/** Something on which the viewer may give and take access, as its sharer or as an administrator alone. */
export interface Shared extends DecidedAlone {
  readonly shared: Shareable;
  readonly asAdministrator: boolean;
}

/** The same of a calendar. */
export interface SharedCalendar extends Decided {
  readonly shared: Calendar;
  readonly asAdministrator: boolean;
}

/**
 * Something on which the viewer may give and take access: its owner, those they let, and administrators, who gain no
 * sight by it. Anyone else gets the refusal their sight allows.
 */
export function findShared(ctx: Context, key: string): Shared | Refusal {
  const shared = shareableByKey(ctx.db, key);
  if (!shared) return refuse('notFound');
  const decided = decideOnShared(ctx, shared);
  if (may(decided.decision).share) return { shared, ...decided, asAdministrator: false };
  // A token for one calendar is no way to be an administrator of the others.
  if (ctx.viewer.administrator && ctx.token?.only == null) return { shared, ...decided, asAdministrator: true };
  if (decided.decision.rights.sight === 'nothing') return refuse('notFound');
  return refuse('mayNotShare', { facts: { name: new Directory(ctx.db).name(shared.ownerId) } });
}

/** The same where it has to be a calendar: anything else isn't there. */
export function findSharedCalendar(ctx: Context, key: string): SharedCalendar | Refusal {
  const found = findShared(ctx, key);
  if (isRefusal(found)) return found;
  return isCalendar(found) ? { ...found, calendar: found.shared } : refuse('notFound');
}

/** Whether what is shared is a calendar. */
export const isCalendar = <T extends { readonly shared: Shareable }>(
  one: T,
): one is T & { readonly shared: Calendar } => one.shared.kind === 'calendar';
