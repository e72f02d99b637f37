import { fromWallLenient } from '@/core/time/index.ts';
import { absencesOf } from '../../repositories/absences.ts';
import type { Arriving } from '../../repositories/deliveries.ts';
import { itemById } from '../../repositories/items.ts';
import type { AttendeeMeeting } from '../../repositories/meetings.ts';
import type { Person } from '../../repositories/people.ts';
import type { Acting } from '../deciding/index.ts';
import { insideBy } from './invited.ts';

const MOST_WORDS = 1000;

/**
 * Whether a new invitation is declined for whoever is away then and wants it so, and with what words: those of their notice. It has to begin and
 * end within the absence. A series waits for a person, and so does what came from outside and nobody vouches for. `null`: it isn't.
 */
export function declinedWhileAway(
  ctx: Acting,
  me: Person,
  invitation: AttendeeMeeting,
  mail: Arriving | null,
): { readonly comment: string | null } | null {
  const item = invitation.itemId === null ? null : itemById(ctx.db, invitation.itemId);
  if (!item || item.rule !== null || item.added.length > 0 || (mail && !mail.checked)) return null;
  const at = (time: number): number => (item.allDay ? fromWallLenient(me.zone, time) : time);
  const away = absencesOf(ctx.db, me.id, ctx.now).find(
    ({ starts, ends, declines }) => declines && starts <= at(item.start) && at(item.end) <= ends,
  );
  if (!away) return null;
  const isInside = insideBy(ctx.db, item.organiser?.address ?? '') !== null;
  return { comment: (isInside ? away.inside : away.outside).slice(0, MOST_WORDS) || null };
}
