import type { OpenedItem, PreviewAnswer, PreviewBody } from '@/contract/access.ts';
import type { ItemWire } from '@/contract/items.ts';
import {
  type Choice,
  choicesFor,
  type Decision,
  decide,
  fitRights,
  NO_RIGHTS,
  presetOf,
  type Rights,
  readerOf,
  SIGHT_RANK,
} from '@/core/access/index.ts';
import { SCOPES } from '@/core/calendar/index.ts';
import { grantsOn, type StoredGrant } from '../repositories/grants.ts';
import { ok, type Result, refuse } from '../result.ts';
import { type FoundAudience, findAudience, sameAudience } from './audience.ts';
import type { Context } from './context.ts';
import { collectionOf, type Decided, isRefusal, rulesOf } from './deciding.ts';
import { Directory } from './directory.ts';
import { comingRange, openedItem } from './findings.ts';
import { readRange } from './range.ts';
import { findShared } from './sightlines.ts';
import { type Range, viewsIn, viewsThrough } from './views.ts';

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
  const replaced = standing.find((g) => g.key === body.seen);
  if (replaced && !sameAudience(replaced.audience, audience.stored)) return refuse('changedMeanwhile');
  const others = standing.filter((g) => g !== replaced);
  const house = rulesOf(ctx.db);
  const decideWith = (grants: readonly StoredGrant[]): Decision =>
    decide(collectionOf(decided.calendar, grants), audience.viewer, ctx.now, house);
  const rights = body.rights && fitRights(body.rights).rights;
  const after = decideWith(rights ? [...others, thoughtGrant(decided, audience, rights)] : others);
  const without = decideWith(others);
  const before = decideWith(standing);
  const look = (decision: Decision) => viewsAs(ctx, decided, range, audience, decision);
  return ok({
    effective: after.rights,
    before: before.rights,
    without: without.rights,
    withoutStep: without.because[0]?.step ?? 'none',
    choices: choicesFor(rights ?? NO_RIGHTS).map((choice) => ({
      ...choice,
      barred: barredBy(ctx, decided, audience, choice),
    })),
    preset: body.rights && presetOf(body.rights),
    opened: audience.stored.kind === 'everyone' ? opened(ctx, decided, before, after) : [],
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
    recordedUntil: null,
  };
}

const MOST_OPENED = 200;

/** Coming items whose title everyone would come to read, each series once; only those the giver may change. */
function opened(ctx: Context, decided: Decided, before: Decision, after: Decision): OpenedItem[] {
  if (
    SIGHT_RANK[after.rights.sight] <= SIGHT_RANK[before.rights.sight] ||
    SIGHT_RANK[after.rights.sight] < SIGHT_RANK.title
  )
    return [];
  const directory = new Directory(ctx.db);
  const mine = viewsIn(ctx.db, directory, decided.calendar.id, comingRange(ctx), {
    person: ctx.viewer,
    decision: decided.decision,
  });
  const plain = { named: false, created: false, ownerInvited: false };
  const [was, is] = [readerOf(before), readerOf(after)];
  const titled = (seen: string | null) => seen !== null && seen !== 'busy' && seen !== 'withheld';
  const series = new Set<string>();
  return mine
    .flatMap((view): OpenedItem[] => {
      if (!view.visibility || !view.may?.change) return [];
      const facts = { shows: view.shows, visibility: view.visibility, cancelled: false };
      if (titled(was.seen(facts, plain)) || !titled(is.seen(facts, plain))) return [];
      const key = view.id.split('~')[0] ?? view.id;
      if (series.has(key)) return [];
      series.add(key);
      return openedItem(view);
    })
    .slice(0, MOST_OPENED);
}

/** An audience's views under a decision, with nothing in them that the one who looks doesn't see too. */
export function viewsAs(
  ctx: Context,
  { calendar, decision: mine }: Decided,
  range: Range,
  audience: Pick<FoundAudience, 'person'>,
  theirs: Decision,
): ItemWire[] {
  const target = { person: audience.person, decision: theirs, ownersIds: mine.owner };
  const looker = mine.owner ? null : { person: ctx.viewer, decision: mine };
  return viewsThrough(ctx.db, new Directory(ctx.db), calendar.id, range, target, looker);
}

/** Why a choice can't be made for an audience: the house rule that would cut it, or that the giver holds less. */
function barredBy(
  ctx: Context,
  { decision }: Decided,
  { viewer, stored }: FoundAudience,
  choice: Choice,
): string | null {
  const { rights } = choice;
  const house = rulesOf(ctx.db);
  const alone = {
    owner: 'nobody',
    suspended: false,
    grants: [
      { key: 'choice', audience: { kind: 'everyone' as const }, rights, from: null, until: null },
      ...(viewer.kind === 'person' && stored.kind !== 'everyone'
        ? [{ key: 'choice', audience: { kind: 'person' as const, id: viewer.id }, rights, from: null, until: null }]
        : []),
    ],
  };
  const cut = decide(alone, viewer, ctx.now, house).because.find((step) => step.step === 'ceiling');
  if (cut?.step === 'ceiling') return cut.rule;
  return heldLess(rights, decision.rights) === null ? null : 'giverHoldsLess';
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
