import type { Decision } from '@/core/access/index.ts';
import { type Refusal, refuse } from '../../result.ts';
import { type Context, type Decided, Directory, findCalendar, isRefusal } from '../deciding/index.ts';

/**
 * Bringing in a file and taking one out touch every item, private ones too, and say what is there already: so they are for
 * the owner, and for whoever arranges everything and is let into what is private.
 */
export function mayImport(decision: Decision): boolean {
  return decision.owner || (decision.rights.add && decision.rights.change === 'all' && decision.rights.private);
}

/** A calendar that the viewer may bring a file into, and take one out of. */
export function findImportable(ctx: Context, key: string): Decided | Refusal {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided) || mayImport(decided.decision)) return decided;
  return refuse('mayNotImport', { facts: { name: new Directory(ctx.db).name(decided.calendar.ownerId) } });
}
