import { type Decision, decide, type HouseRules, type Rights, SIGHT_RANK } from '@/core/access/index.ts';
import { SCOPES } from '@/core/calendar/index.ts';
import { type Calendar, calendarById, calendarsOf, mainCalendarOf } from '../../repositories/calendars.ts';
import { endGrant, grantsOn, type StoredAudience, type StoredGrant } from '../../repositories/grants.ts';
import { groupsOf } from '../../repositories/groups.ts';
import { personById } from '../../repositories/people.ts';
import { type Context, collectionOf, type Decided, rulesOf, trailOn, viewerOf } from '../deciding/index.ts';
import { tellOf } from './tell.ts';

/*
 * Nobody who gives access for somebody gives more, or longer, than they hold; what they hold for a time or through a group ends with
 * it; and a row that speaks to themselves they may only lessen.
 */

/** Whether every right of a set is one the giver holds too; the first that isn't, otherwise `null`. */
export function heldLess(given: Rights, held: Rights): keyof Rights | null {
  if (SIGHT_RANK[given.sight] > SIGHT_RANK[held.sight]) return 'sight';
  for (const right of ['change', 'remove'] as const)
    if (SCOPES.indexOf(given[right]) > SCOPES.indexOf(held[right])) return right;
  for (const right of ['add', 'private', 'speaks', 'copies', 'shares'] as const)
    if (given[right] && !held[right]) return right;
  return null;
}

type Decides = (at: number) => Decision;

/** Every instant from now on at which some grant begins or ends. */
function edges({ collection }: Pick<Decided, 'collection'>, now: number): number[] {
  const found = collection.grants
    .flatMap((g) => [g.from, g.until])
    .filter((at): at is number => at !== null && at > now);
  return [...new Set(found)].sort((a, b) => a - b);
}

/** Decides for the one who asks at instants to come, as if sharing weren't suspended. */
function decidesFor({ collection, viewer }: Pick<Decided, 'collection' | 'viewer'>, house: HouseRules): Decides {
  return (at) => decide({ ...collection, suspended: false }, viewer, at, house);
}

/** The instant until which the one who gives goes on sharing and holding some rights; `null` where that has no end. */
export function holdsUntil(ctx: Context, decided: Decided, rights: Rights): number | null {
  const decides = decidesFor(decided, rulesOf(ctx.db, decided.calendar));
  return (
    edges(decided, ctx.now).find((at) => {
      const { rights: then } = decides(at);
      return !then.shares || heldLess(rights, then) !== null;
    }) ?? null
  );
}

/** Whether what the one who gives holds hangs on something: a group they are in, or a grant for a time. */
export function holdsByThread({ collection, decision }: Decided): boolean {
  const keys = new Set(decision.because.flatMap((step) => ('grants' in step ? step.grants : [])));
  return collection.grants.some((g) => keys.has(g.key) && (g.audience.kind === 'group' || g.until !== null));
}

/** Whether an audience is, or holds, the one who asks. */
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

/** Whether the one who asks would, now or later, get anything more if a grant were gone. */
export function gainsWithout(ctx: Context, decided: Decided, gone: StoredGrant): boolean {
  const house = rulesOf(ctx.db, decided.calendar);
  const without = { ...decided.collection, grants: decided.collection.grants.filter((g) => g.key !== gone.key) };
  const before = decidesFor(decided, house);
  const after = decidesFor({ collection: without, viewer: decided.viewer }, house);
  return [ctx.now, ...edges(decided, ctx.now)].some((at) => {
    const [was, is] = [before(at).rights, after(at).rights];
    return heldLess(is, was) !== null || (is.suggest && !was.suggest);
  });
}

/**
 * Ends what hung on what somebody no longer holds, in the transaction that took that from them: grants that a person gave who held
 * them for a time or through a group. Those to whom they spoke are told. Goes on until nothing is left to end.
 */
export function endWhatHung(ctx: Context, calendar: Calendar): void {
  const near = calendar.main ? calendarsOf(ctx.db, calendar.ownerId) : [calendar];
  for (let again = true; again; ) {
    again = false;
    for (const c of near)
      for (const grant of grantsOn(ctx.db, c.id))
        if (grant.hangs && !stillHolds(ctx, c, grant)) {
          end(ctx, c, grant);
          again = true;
        }
  }
}

function stillHolds(ctx: Context, calendar: Calendar, grant: StoredGrant): boolean {
  const giver = personById(ctx.db, grant.givenBy);
  if (!giver) return false;
  if (giver.id === calendar.ownerId) return true;
  // What its maker keeps on a further calendar hangs on what they hold on the main one.
  const own = grant.audience.kind === 'person' && grant.audience.personId === giver.id;
  const on = own ? mainCalendarOf(ctx.db, calendar.ownerId) : calendarById(ctx.db, calendar.id);
  if (!on) return false;
  const collection = collectionOf(on, grantsOn(ctx.db, on.id));
  const { rights } = decidesFor({ collection, viewer: viewerOf(ctx.db, giver) }, rulesOf(ctx.db, on))(ctx.now);
  return rights.shares && heldLess(grant.rights, rights) === null;
}

function end(ctx: Context, calendar: Calendar, grant: StoredGrant): void {
  endGrant(ctx.db, grant.id, ctx.now);
  const before = { rights: grant.rights, starts: grant.starts, ends: grant.ends };
  trailOn(ctx, calendar, JSON.stringify(grant.audience), 'access.taken', before, null);
  tellOf(ctx, calendar, { stored: grant.audience }, null, 'taken', '');
}
