import type { Barred, PreviewAnswer, PreviewBody } from '@/contract/access.ts';
import type { ItemWire } from '@/contract/items.ts';
import { type Decision, decide, EXTRAS, fitRights, presetOf, type Rights, SIGHT_RANK } from '@/core/access/index.ts';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import { grantsOn, type StoredGrant } from '../repositories/grants.ts';
import { ok, type Result, refuse } from '../result.ts';
import { type FoundAudience, findAudience, sameAudience } from './audience.ts';
import type { Context } from './context.ts';
import { collectionOf, type Decided, isRefusal, rulesOf } from './deciding.ts';
import { Directory } from './directory.ts';
import { readRange } from './range.ts';
import { findShared } from './sightlines.ts';
import { type Range, viewsIn } from './views.ts';

/**
 * What an audience would get under rights thought of but not given: the decision, what doesn't fitRights, what the house rules
 * bar, and the days asked for exactly as they would be served. For anyone but the owner, cut to what they see themselves.
 */
export function previewAccess(ctx: Context, key: string, body: PreviewBody): Result<PreviewAnswer> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const range = readRange(body.range);
  if (isRefusal(range)) return range;
  const audience = findAudience(ctx, body.audience);
  if (!audience || audience.person?.id === decided.calendar.ownerId)
    return refuse('badInput', { fields: { audience: 'audience' } });
  const standing = grantsOn(ctx.db, decided.calendar.id);
  const others = standing.filter((g) => !sameAudience(g.audience, audience.stored));
  const house = rulesOf(ctx.db);
  const decideWith = (grants: readonly StoredGrant[]): Decision =>
    decide(collectionOf(decided.calendar, grants), audience.viewer, ctx.now, house);
  const thought = body.rights ? fitRights(body.rights) : null;
  const after = decideWith(thought ? [...others, thoughtGrant(decided, audience, thought.rights)] : others);
  const without = decideWith(others);
  const before = decideWith(standing);
  const look = (decision: Decision) => cutToLooker(ctx, decided, range, audience, decision);
  return ok({
    effective: after.rights,
    before: before.rights,
    without: without.rights,
    withoutStep: without.because[0]?.step ?? 'none',
    misfits: (thought?.lowered ?? []).map(({ right, needs }) => ({ right, needs })),
    barred: barred(ctx, decided, audience),
    preset: body.rights && presetOf(body.rights),
    items: look(after),
    itemsBefore: look(before),
  });
}

function thoughtGrant({ calendar }: Decided, { stored }: FoundAudience, rights: Rights): StoredGrant {
  return {
    id: 0,
    key: 'thought of',
    calendarId: calendar.id,
    audience: stored,
    rights,
    starts: null,
    ends: null,
    givenBy: 0,
    givenFor: 0,
    recordedFrom: 0,
  };
}

/** The audience's views, with nothing in them that the one who looks doesn't see too. */
function cutToLooker(
  ctx: Context,
  { calendar, decision: mine }: Decided,
  range: Range,
  audience: FoundAudience,
  theirs: Decision,
): ItemWire[] {
  const directory = new Directory(ctx.db);
  const views = viewsIn(ctx.db, directory, calendar.id, range, {
    person: audience.person,
    decision: theirs,
    ownersIds: mine.owner,
  });
  const plain = views.map(({ may: _may, asSet: _asSet, version: _version, ...view }) => view);
  if (mine.owner) return plain;
  const own = viewsIn(ctx.db, directory, calendar.id, range, { person: ctx.viewer, decision: mine });
  const seen = new Map<string, ItemWire[]>();
  for (const view of own) {
    const at = `${view.start} ${view.end}`;
    seen.set(at, [...(seen.get(at) ?? []), view]);
  }
  return plain.flatMap((view, i) => {
    // Matched by title where both see one, otherwise by time: what can't be matched is left out.
    const same = (seen.get(`${view.start} ${view.end}`) ?? []).find(
      (m) => view.title === undefined || m.title === undefined || m.title === view.title,
    );
    if (!same) return [];
    const common = Object.fromEntries(Object.entries(view).filter(([field]) => field in same));
    return [{ ...(common as unknown as ItemWire), id: `preview-${i}` }];
  });
}

/** Every choice that can't be made for an audience, with the reason: a house rule, or that the giver holds less. */
function barred(ctx: Context, { decision }: Decided, { viewer, stored }: FoundAudience): Barred[] {
  const house = rulesOf(ctx.db);
  const list: Barred[] = [];
  const inside = viewer.kind === 'person' && viewer.inside;
  for (const sight of SIGHTS) {
    const rule = stored.kind === 'everyone' ? 'everyoneSight' : inside ? null : 'outsideSight';
    if (rule && SIGHT_RANK[sight] > SIGHT_RANK[house[rule]]) list.push({ right: 'sight', value: sight, reason: rule });
    else if (SIGHT_RANK[sight] > SIGHT_RANK[decision.rights.sight])
      list.push({ right: 'sight', value: sight, reason: 'giverHoldsLess' });
  }
  if (!inside)
    for (const right of ['change', 'remove'] as const)
      for (const scope of SCOPES)
        if (SCOPES.indexOf(scope) > SCOPES.indexOf(house.outsideReach))
          list.push({ right, value: scope, reason: 'outsideReach' });
  for (const extra of EXTRAS) {
    if (extra === 'suggest') continue;
    if (!inside && !house.outsideExtras) list.push({ right: extra, value: 'true', reason: 'outsideExtras' });
    else if (!decision.rights[extra]) list.push({ right: extra, value: 'true', reason: 'giverHoldsLess' });
  }
  return list;
}

/** Whether every right of a set is one the giver holds too; the first that isn't, otherwise `null`. */
export function heldLess(given: Rights, held: Rights): keyof Rights | null {
  if (SIGHT_RANK[given.sight] > SIGHT_RANK[held.sight]) return 'sight';
  for (const right of ['change', 'remove'] as const)
    if (SCOPES.indexOf(given[right]) > SCOPES.indexOf(held[right])) return right;
  for (const right of ['add', 'private', 'speaks', 'copies', 'shares'] as const)
    if (given[right] && !held[right]) return right;
  return null;
}
