import type { EverythingAnswer } from '@/contract/sharing/sharing.ts';
import { may } from '@/core/access/index.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { personByHandle } from '../../repositories/people.ts';
import { firstCollectionOf, shareablesOf, shortName } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, decideOnShared } from '../deciding/index.ts';

/**
 * All of a person's that the viewer sees anything of: calendars, lists of tasks, address books and message folders, each with what they may see and
 * do there; and, for whoever gives access to it, how many rows of it stand. Nobody, and nothing to see, are answered alike.
 */
export function listEverything(ctx: Context, handle: string): Result<EverythingAnswer> {
  const owner = personByHandle(ctx.db, handle);
  if (!owner) return refuse('notFound');
  const all = shareablesOf(ctx.db, owner.id).flatMap((shared) => {
    const { decision } = decideOnShared(ctx, shared);
    if (decision.rights.sight === 'nothing') return [];
    const { share } = may(decision);
    const standing = grantsOn(ctx.db, shared.id).filter(
      ({ audience, ends }) => audience.kind !== 'everyone' && (ends === null || ends > ctx.now),
    );
    return [
      {
        key: shared.key,
        kind: shared.kind,
        name: shortName(shared),
        main: shared.main,
        first: firstCollectionOf(shared),
        rights: decision.rights,
        share,
        given: share ? standing.length : null,
        suspended: share && shared.suspended,
      },
    ];
  });
  const own = owner.id === ctx.viewer.id;
  if (all.length === 0 && !own) return refuse('notFound');
  return ok({ owner: { handle: owner.handle, name: owner.name, colour: owner.colour % 6 }, own, all });
}
