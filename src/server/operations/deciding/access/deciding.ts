import {
  type Collection,
  type Decision,
  decide,
  type Grant,
  type HouseRules,
  nextChange,
  type Rights,
  STARTING_HOUSE_RULES,
  type Viewer,
} from '@/core/access/index.ts';
import type { Connection } from '../../../db/index.ts';
import { type Calendar, calendarByKey, calendarsById } from '../../../repositories/calendars.ts';
import type { SharedCollection } from '../../../repositories/collections.ts';
import { grantsOn, grantsSpeakingTo, type StoredGrant } from '../../../repositories/grants.ts';
import { groupsOf } from '../../../repositories/groups.ts';
import { houseRules, houseRulesAt, type StoredHouseRules } from '../../../repositories/house-rules.ts';
import type { Person } from '../../../repositories/people.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';

/** A person as the rule reads them; with `groups` given, those instead of the ones they are in. */
export function viewerOf(
  db: Connection,
  person: Pick<Person, 'id' | 'inside'>,
  groups = groupsOf(db, person.id),
): Viewer {
  return { kind: 'person', id: String(person.id), inside: person.inside, groups: new Set(groups.map(String)) };
}

/** What the rule reads of a grant: one that stands, or one that is thought of. */
export type GrantRead = Pick<StoredGrant, 'key' | 'audience' | 'rights' | 'starts' | 'ends'>;

/** A stored grant as the rule reads it. */
function grantOf(stored: GrantRead): Grant {
  const a = stored.audience;
  return {
    key: stored.key,
    audience:
      a.kind === 'person'
        ? { kind: 'person', id: String(a.personId) }
        : a.kind === 'group'
          ? { kind: 'group', id: String(a.groupId) }
          : a.kind === 'link'
            ? { kind: 'link', id: a.link }
            : { kind: 'everyone' },
    rights: stored.rights,
    from: stored.starts,
    until: stored.ends,
  };
}

/** What is shared, with its grants, as the rule reads it. */
export function collectionOf(shared: SharedCollection, grants: readonly GrantRead[]): Collection {
  const { kind, main, ownerId, suspended } = shared;
  return { kind, main, owner: String(ownerId), suspended, grants: grants.map(grantOf) };
}

/** The rules where none was ever set. */
const STARTING: StoredHouseRules = {
  main: STARTING_HOUSE_RULES,
  further: null,
  startSight: 'busy',
  linksBy: 'sharers',
  warnOutside: true,
  meetingLinks: false,
};

/** All the house rules in force, or, with `at`, those that were in force at that instant. */
export function storedRules(db: Connection, at?: number): StoredHouseRules {
  return (at === undefined ? houseRules(db) : houseRulesAt(db, at)) ?? STARTING;
}

/** The ceilings that some rules hold: what isn't somebody's main calendar may have its own. */
export const ceilingsOn = (rules: StoredHouseRules, shared: Pick<SharedCollection, 'main'>): HouseRules =>
  shared.main ? rules.main : (rules.further ?? rules.main);

/** The ceilings in force on what is shared. */
export function rulesOf(db: Connection, shared: Pick<SharedCollection, 'main'>): HouseRules {
  return ceilingsOn(storedRules(db), shared);
}

/** What the viewer may see and do in a collection now, and what that was decided by. */
export interface DecidedAlone {
  readonly collection: Collection;
  readonly viewer: Viewer;
  readonly decision: Decision;
}
/** The same together with the calendar it was decided on. */
export interface Decided extends DecidedAlone {
  readonly calendar: Calendar;
}

/** Whether the token the viewer came with is limited to another calendar: then there is nothing for it here. */
const isShut = ({ token }: Pick<Context, 'token'>, shared: Pick<SharedCollection, 'id'>): boolean =>
  token != null && token.only !== null && token.only !== shared.id;

/** Decides for the viewer on something that is shared, of whatever kind. */
export function decideOnShared(ctx: Context, shared: SharedCollection): DecidedAlone {
  const viewer = viewerOf(ctx.db, ctx.viewer);
  const collection = collectionOf(shared, grantsOn(ctx.db, shared.id));
  const decision = isShut(ctx, shared)
    ? decide({ ...collection, owner: '', grants: [] }, viewer, ctx.now, rulesOf(ctx.db, shared))
    : decide(collection, viewer, ctx.now, rulesOf(ctx.db, shared));
  return { collection, viewer, decision };
}

/** So many dates of grants are looked through for one that changes something. */
const MOST_EDGES = 20;

/** When what somebody may see and do next changes by the dates of grants alone, and to what; `null` where it stays. */
export function nextRights(
  {
    decision,
    collection,
    viewer,
  }: Pick<DecidedAlone, 'collection' | 'viewer'> & { decision: Pick<Decision, 'rights'> },
  now: number,
  house: HouseRules,
): { readonly at: number; readonly rights: Rights } | null {
  const was = JSON.stringify(decision.rights);
  let at = nextChange(collection, viewer, now);
  for (let i = 0; at !== null && i < MOST_EDGES; i++) {
    const { rights } = decide(collection, viewer, at, house);
    if (JSON.stringify(rights) !== was) return { at, rights };
    at = nextChange(collection, viewer, at);
  }
  return null;
}

/** Decides for the viewer on one calendar. */
export const decideOn = (ctx: Context, calendar: Calendar): Decided => ({
  calendar,
  ...decideOnShared(ctx, calendar),
});

/** Decides for the viewer on several calendars, by their row numbers; those that aren't there are left out. */
export const decideOnSeveral = (ctx: Context, ids: readonly number[]): Pick<Decided, 'calendar' | 'decision'>[] =>
  decideOnAll(ctx, calendarsById(ctx.db, ids)).map(({ shared, decision }) => ({ calendar: shared, decision }));

/** Decides on several collections of whatever kind, in their order. */
export function decideOnAll<S extends SharedCollection>(
  ctx: Context,
  all: readonly S[],
): { readonly shared: S; readonly decision: Decision }[] {
  const viewer = viewerOf(ctx.db, ctx.viewer);
  const rules = storedRules(ctx.db);
  const ids = all.map(({ id }) => id);
  // Grants to other audiences play no part in this decision.
  const speaking = grantsSpeakingTo(ctx.db, ctx.viewer.id, ids);
  return all.map((shared) => {
    const { kind, main, ownerId, suspended } = shared;
    const shut = isShut(ctx, shared);
    const grants = shut ? [] : (speaking.get(shared.id) ?? []);
    const collection = { kind, main, owner: shut ? '' : String(ownerId), suspended, grants };
    return { shared, decision: decide(collection, viewer, ctx.now, ceilingsOn(rules, shared)) };
  });
}

/** Finds a calendar by its key; one that the asker may not see is answered exactly like one that doesn't exist. */
export function findCalendar(ctx: Context, key: string): Decided | Refusal {
  const calendar = calendarByKey(ctx.db, key);
  if (!calendar) return refuse('notFound');
  const decided = decideOn(ctx, calendar);
  return decided.decision.rights.sight === 'nothing' ? refuse('notFound') : decided;
}

export const isRefusal = (x: object): x is Refusal => 'ok' in x && x.ok === false;
