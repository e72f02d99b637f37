import { setSuspended } from '../../repositories/collections.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { membersOf } from '../../repositories/groups.ts';
import { shareableById, shareableByKey } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { announceAccess, type Context, collectionOf, Directory, decideOnShared, trailOn } from '../deciding/index.ts';
import { MOST_TOLD, rightsOf, tellConcerned } from './tell.ts';

/**
 * Suspends all sharing of a calendar or a list, or resumes it with every grant as it was. The owner's alone.
 * Those named, or in a group that is named, are told where what they get differs by it.
 */
export function suspendSharing(ctx: Context, key: string, suspended: boolean): Result<{ done: true }> {
  const shared = shareableByKey(ctx.db, key);
  if (!shared) return refuse('notFound');
  const { decision } = decideOnShared(ctx, shared);
  if (decision.rights.sight === 'nothing') return refuse('notFound');
  if (!decision.owner) return refuse('ownerOnly', { facts: { name: new Directory(ctx.db).name(shared.ownerId) } });
  if (shared.suspended === suspended) return ok({ done: true });
  const grants = grantsOn(ctx.db, shared.id);
  const before = collectionOf(shared, grants);
  const named = grants.flatMap(({ audience }) =>
    audience.kind === 'person'
      ? [audience.personId]
      : audience.kind === 'group'
        ? membersOf(ctx.db, audience.groupId)
        : [],
  );
  const was = rightsOf(ctx, [...new Set(named)].slice(0, MOST_TOLD), shared.id);
  ctx.db.write(() => {
    setSuspended(ctx.db, shared.id, suspended, ctx.now, ctx.viewer.id);
    const verb = suspended ? 'sharing.suspended' : 'sharing.resumed';
    trailOn(ctx, shared, shared.key, verb, { suspended: !suspended }, { suspended });
    const now = rightsOf(ctx, was.keys(), shared.id);
    const concerned = [...was.keys()].filter((one) => was.get(one) !== now.get(one));
    tellConcerned(ctx, shared, concerned, 'changed');
  });
  announceAccess(ctx, shareableById(ctx.db, shared.id) ?? shared, before);
  return ok({ done: true });
}
