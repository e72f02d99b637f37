import type { NewRoom } from '@/contract/people/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { addPerson, checkNewPerson } from './people.ts';

/**
 * Adds a room or a thing to the directory, with a calendar that answers for itself: nobody signs in as it. For administrators, who give
 * access to its calendar as to any other.
 */
export function addRoom(ctx: Context, input: NewRoom): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const { resource, place, size, ...person } = input;
  const checked = checkNewPerson(ctx.db, person);
  if (!checked.ok) return checked;
  addPerson(ctx.db, ctx.now, ctx.viewer, { ...person, role: '', site: place, account: null, resource, size });
  return ok({ done: true });
}
