import { type Decision, decide, type HouseRules, type Rights, SIGHT_RANK } from '@/core/access/index.ts';
import { SCOPES } from '@/core/calendar/index.ts';
import { newKey } from '../../ids.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import type { SharedCollection } from '../../repositories/collections.ts';
import { endGrant, grantsOn, insertGrant, type StoredAudience, type StoredGrant } from '../../repositories/grants.ts';
import { groupsOf } from '../../repositories/groups.ts';
import { personById } from '../../repositories/people.ts';
import { type Shareable, shareableById, shareablesOf } from '../../repositories/shareables.ts';
import {
  type Context,
  collectionOf,
  type DecidedAlone,
  rulesOf,
  type Shared,
  trailOn,
  viewerOf,
} from '../deciding/index.ts';
import { tellOf } from './tell.ts';

/*
 * Whoever gives access for somebody else gives no more, and for no longer, than they hold. What they hold for a time or through a group
 * ends with that. A row that speaks to themselves they may only lower.
 */

/** Whether every right of a set is one the giver holds too; the first that isn't, otherwise `null`. */
export function heldLess(given: Rights, held: Rights): keyof Rights | null {
  if (SIGHT_RANK[given.sight] > SIGHT_RANK[held.sight]) return 'sight';
  for (const right of ['change', 'remove'] as const)
    if (SCOPES.indexOf(given[right]) > SCOPES.indexOf(held[right])) return right;
  for (const right of ['add', 'private', 'speaks', 'copies', 'shares', 'absence'] as const)
    if (given[right] && !held[right]) return right;
  return null;
}

type Decides = (at: number) => Decision;

/** Every instant from now on at which some grant begins or ends. */
function edges({ collection }: Pick<DecidedAlone, 'collection'>, now: number): number[] {
  const found = collection.grants
    .flatMap((g) => [g.from, g.until])
    .filter((at): at is number => at !== null && at > now);
  return [...new Set(found)].sort((a, b) => a - b);
}

/** Decides for the viewer at instants to come, as if sharing weren't suspended. */
function decidesFor({ collection, viewer }: Pick<DecidedAlone, 'collection' | 'viewer'>, house: HouseRules): Decides {
  return (at) => decide({ ...collection, suspended: false }, viewer, at, house);
}

/** The instant until which the one who gives goes on sharing and holding some rights; `null` where that has no end. */
export function holdsUntil(
  ctx: Context,
  decided: DecidedAlone & { readonly shared: Pick<SharedCollection, 'main'> },
  rights: Rights,
): number | null {
  const decides = decidesFor(decided, rulesOf(ctx.db, decided.shared));
  return (
    edges(decided, ctx.now).find((at) => {
      const { rights: then } = decides(at);
      return !then.shares || heldLess(rights, then) !== null;
    }) ?? null
  );
}

/** Whether what the one who gives holds hangs on something: a group they are in, or a grant for a time. */
export function holdsByThread({ collection, decision }: DecidedAlone): boolean {
  const keys = new Set(decision.because.flatMap((step) => ('grants' in step ? step.grants : [])));
  return collection.grants.some((g) => keys.has(g.key) && (g.audience.kind === 'group' || g.until !== null));
}

/** Whether an audience is, or holds, the viewer. */
export function speaksToGiver(ctx: Context, stored: StoredAudience): boolean {
  switch (stored.kind) {
    case 'person':
      return stored.personId === ctx.viewer.id;
    case 'group':
      return groupsOf(ctx.db, ctx.viewer.id).includes(stored.groupId);
    case 'everyone':
      return ctx.viewer.inside;
    case 'link':
      return false;
    default:
      return stored satisfies never;
  }
}

type Span = Pick<StoredGrant, 'starts' | 'ends'>;

/** Whether a grant gives nothing that another didn't give already, at any instant. */
export function lessens(
  next: Span & { readonly rights: Rights },
  current: Span & { readonly rights: Rights },
): boolean {
  return (
    heldLess(next.rights, current.rights) === null &&
    (!next.rights.suggest || current.rights.suggest) &&
    (current.starts === null || (next.starts !== null && next.starts >= current.starts)) &&
    (current.ends === null || (next.ends !== null && next.ends <= current.ends))
  );
}

/** Whether the viewer would, now or later, get anything more if a grant were gone. */
export function gainsWithout(ctx: Context, decided: Shared, gone: StoredGrant): boolean {
  const house = rulesOf(ctx.db, decided.shared);
  const without = { ...decided.collection, grants: decided.collection.grants.filter((g) => g.key !== gone.key) };
  const before = decidesFor(decided, house);
  const after = decidesFor({ collection: without, viewer: decided.viewer }, house);
  return [ctx.now, ...edges(decided, ctx.now)].some((at) => {
    const [was, is] = [before(at).rights, after(at).rights];
    return heldLess(is, was) !== null || (is.suggest && !was.suggest);
  });
}

/**
 * Ends the grants that depended on what somebody no longer holds, in the transaction that took it from them: grants given by a person who
 * held the rights for a time, through a group, or on the owner's main calendar. Where the rights only end later, the grants end at that
 * instant. The audiences are told. Repeats until nothing depends on what has ended.
 */
export function endWhatHung(ctx: Context, shared: Shareable): void {
  for (let again = true; again; ) {
    again = false;
    for (const c of near(ctx, shared))
      for (const grant of grantsOn(ctx.db, c.id)) {
        const until = grant.hangs ? heldUntil(ctx, c, grant) : null;
        if (until === null || (grant.ends !== null && grant.ends <= until)) continue;
        if (until <= Math.max(ctx.now, grant.starts ?? ctx.now)) end(ctx, c, grant);
        else shorten(ctx, c, grant, until);
        again = true;
      }
  }
}

/** On what something may hang on what is held of one. */
const near = (ctx: Context, shared: Shareable): readonly Shareable[] =>
  shared.main ? shareablesOf(ctx.db, shared.ownerId) : [shared];

/** What would end with a grant, since whoever it speaks to gave it, or keeps it, by what the grant gives them. */
export function whatHangsOn(
  ctx: Context,
  shared: Shareable,
  gone: StoredGrant,
): { shared: Shareable; grant: StoredGrant }[] {
  return near(ctx, shared).flatMap((c) =>
    grantsOn(ctx.db, c.id).flatMap((grant) => {
      if (!grant.hangs || grant.id === gone.id) return [];
      const [before, after] = [heldUntil(ctx, c, grant), heldUntil(ctx, c, grant, gone)];
      const shorter = after !== null && (before === null || after < before);
      return shorter && (grant.ends === null || after < grant.ends) ? [{ shared: c, grant }] : [];
    }),
  );
}

/**
 * The first instant, from now or from when a grant begins, at which whoever gave it no longer holds what it gives, or shares; `null` where they
 * hold it to its end. `without` is a grant left out of account.
 */
function heldUntil(ctx: Context, shared: Shareable, grant: StoredGrant, without?: StoredGrant): number | null {
  const giver = personById(ctx.db, grant.givenBy);
  const begin = Math.max(ctx.now, grant.starts ?? ctx.now);
  if (!giver) return begin;
  if (giver.id === shared.ownerId) return null;
  // What its maker keeps on a further calendar hangs on what they hold on the main one.
  const own = grant.audience.kind === 'person' && grant.audience.personId === giver.id;
  const on = own ? mainCalendarOf(ctx.db, shared.ownerId) : shareableById(ctx.db, shared.id);
  if (!on) return begin;
  const grants = grantsOn(ctx.db, on.id).filter((one) => one.id !== without?.id);
  const held = { collection: collectionOf(on, grants), viewer: viewerOf(ctx.db, giver) };
  const decides = decidesFor(held, rulesOf(ctx.db, on));
  const holds = (at: number): boolean => {
    const { rights } = decides(at);
    return rights.shares && heldLess(grant.rights, rights) === null;
  };
  const instants = [begin, ...edges(held, begin)].filter((at) => grant.ends === null || at < grant.ends);
  return instants.find((at) => !holds(at)) ?? null;
}

/** Lets a grant end earlier than it would. */
function shorten(ctx: Context, shared: Shareable, grant: StoredGrant, ends: number): void {
  endGrant(ctx.db, grant.id, ctx.now);
  const id = insertGrant(ctx.db, { ...grant, key: newKey(), ends, recordedFrom: ctx.now });
  const { rights, starts } = grant;
  const subject = JSON.stringify(grant.audience);
  trailOn(ctx, shared, subject, 'access.given', { rights, starts, ends: grant.ends }, { rights, starts, ends });
  tellOf(ctx, shared, { stored: grant.audience }, id, 'changed', '');
}

function end(ctx: Context, shared: Shareable, grant: StoredGrant): void {
  endGrant(ctx.db, grant.id, ctx.now);
  const before = { rights: grant.rights, starts: grant.starts, ends: grant.ends };
  trailOn(ctx, shared, JSON.stringify(grant.audience), 'access.taken', before, null);
  tellOf(ctx, shared, { stored: grant.audience }, null, 'taken', '');
}
