import type { Rights } from '@/core/access/index.ts';
import { newKey } from '../../ids.ts';
import {
  type AccessRequest,
  accessRequestBetween,
  putAccessRequest,
  putAnswer,
} from '../../repositories/access-requests.ts';
import type { SharedCollection } from '../../repositories/collections.ts';
import type { Person } from '../../repositories/people.ts';
import { type Context, tellPeople, trailOwn } from '../deciding/index.ts';
import { heldLess } from './holding.ts';

/** Whether some rights are all that an access request is for. */
export const coversRequest = (given: Rights, { rights }: Pick<AccessRequest, 'rights'>): boolean =>
  heldLess(rights, given) === null && (!rights.suggest || given.suggest || given.add);

/**
 * Somebody was given access by hand while they waited for it: an open access request that this fulfils is answered by it, in the transaction that
 * gives, so that nobody else answers what is there already.
 */
export function settleAccessRequest(
  ctx: Context,
  shared: Pick<SharedCollection, 'id' | 'ownerId' | 'main'>,
  personId: number,
  given: { readonly id: number; readonly rights: Rights; readonly starts: number | null },
): void {
  const request = accessRequestBetween(ctx.db, personId, shared.ownerId, shared.main ? null : shared.id);
  if (request?.state !== 'open' || (given.starts ?? 0) > ctx.now || !coversRequest(given.rights, request)) return;
  putAnswer(ctx.db, request.id, {
    at: ctx.now,
    answer: 'given',
    byId: ctx.viewer.id,
    forId: shared.ownerId,
    grantId: given.id,
    note: '',
    quiet: false,
  });
}

/**
 * Asks somebody for their calendar with what they are given of one's own, in the transaction that gives: one message, which reads both
 * ways, with the words that go with it. An access request that waits already becomes this one.
 */
export function requestInReturn(ctx: Context, person: Person, rights: Rights, gave: number, why: string): void {
  const key = accessRequestBetween(ctx.db, ctx.viewer.id, person.id, null)?.key ?? newKey();
  const request = { key, fromId: ctx.viewer.id, toId: person.id, collectionId: null, at: ctx.now, rights };
  putAccessRequest(ctx.db, { ...request, starts: null, ends: null, why, gave });
  trailOwn(ctx, key, 'ask.made', null, { to: person.key, rights, why, gave: true });
  tellPeople(ctx.db, [person.id]);
}
