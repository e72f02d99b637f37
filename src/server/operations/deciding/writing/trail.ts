import { newKey } from '../../../ids.ts';
import type { SharedCollection } from '../../../repositories/collections.ts';
import { recordTrail } from '../../../repositories/trail.ts';
import type { Context } from '../context/context.ts';
import { operatorOf } from '../context/operator.ts';

/** Leaves a trail row for what somebody did in their own name and on no calendar, within the transaction that does it. */
export function trailOwn(ctx: Context, subject: string, verb: string, before: unknown, after: unknown): void {
  recordTrail(ctx.db, {
    key: newKey(),
    at: ctx.now,
    actorId: ctx.viewer.id,
    principalId: ctx.viewer.id,
    collectionId: null,
    subject,
    verb,
    before,
    after,
    hands: operatorOf(ctx),
  });
}

/** The same for what somebody did on something shared, in their own and its owner's name. Answers the row's key, by which it is undone. */
export function trailOn(
  ctx: Context,
  shared: Pick<SharedCollection, 'id' | 'ownerId'>,
  subject: string,
  verb: string,
  before: unknown,
  after: unknown,
): string {
  const key = newKey();
  recordTrail(ctx.db, {
    key,
    at: ctx.now,
    actorId: ctx.viewer.id,
    principalId: shared.ownerId,
    collectionId: shared.id,
    subject,
    verb,
    before,
    after,
    hands: operatorOf(ctx),
  });
  return key;
}
