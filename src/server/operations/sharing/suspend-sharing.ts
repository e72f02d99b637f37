import { setSuspended } from '../../repositories/collections.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { membersOf } from '../../repositories/groups.ts';
import { shareableById, shareableByKey } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { announceAccess, type Context, collectionOf, Directory, decideOnShared, trailOn } from '../deciding/index.ts';
import { tellConcerned } from './tell.ts';

/** Suspends all sharing of a calendar or a list, or resumes it with every grant as it was. The owner's alone; who was given something by name or through a group is told. */
export function suspendSharing(ctx: Context, key: string, suspended: boolean): Result<{ done: true }> {
  const shared = shareableByKey(ctx.db, key);
  if (!shared) return refuse('notFound');
  const { decision } = decideOnShared(ctx, shared);
  if (decision.rights.sight === 'nothing') return refuse('notFound');
  if (!decision.owner) return refuse('ownerOnly', { facts: { name: new Directory(ctx.db).name(shared.ownerId) } });
  if (shared.suspended === suspended) return ok({ done: true });
  const before = collectionOf(shared, grantsOn(ctx.db, shared.id));
  ctx.db.write(() => {
    setSuspended(ctx.db, shared.id, suspended, ctx.now, ctx.viewer.id);
    const verb = suspended ? 'sharing.suspended' : 'sharing.resumed';
    trailOn(ctx, shared, shared.key, verb, { suspended: !suspended }, { suspended });
    const named = grantsOn(ctx.db, shared.id).flatMap(({ audience }) =>
      audience.kind === 'person'
        ? [audience.personId]
        : audience.kind === 'group'
          ? membersOf(ctx.db, audience.groupId)
          : [],
    );
    tellConcerned(ctx, shared, named, 'changed');
  });
  announceAccess(ctx, shareableById(ctx.db, shared.id) ?? shared, before);
  return ok({ done: true });
}
