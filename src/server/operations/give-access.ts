import type { AudienceWire, GiveBody } from '@/contract/access.ts';
import { type Decision, fitRights, type Misfit, type Rights } from '@/core/access/index.ts';
import { newKey } from '../ids.ts';
import { endGrant, grantsOn, insertGrant, type StoredGrant } from '../repositories/grants.ts';
import { recordTrail } from '../repositories/trail.ts';
import { ok, type Refusal, type Result, refuse } from '../result.ts';
import { announceAccess } from './announce.ts';
import { type FoundAudience, findAudience, sameAudience } from './audience.ts';
import type { Context } from './context.ts';
import { collectionOf, type Decided, isRefusal } from './deciding.ts';
import { heldLess } from './preview-access.ts';
import { findShared } from './sightlines.ts';

const MISFIT_FIELDS = {
  sight: 'misfitSight',
  fullSight: 'misfitFullSight',
  add: 'misfitAdd',
  arrangeAll: 'misfitArrangeAll',
} as const satisfies Record<Misfit['needs'], string>;

/**
 * Gives an audience these rights on a calendar. One that is there already is changed, never doubled: its record ends and
 * the new one begins at the same instant. Refused are rights that don't fit together, rights above the giver's own, and a
 * row that someone else changed since it was seen.
 */
export function giveAccess(ctx: Context, key: string, body: GiveBody): Result<{ done: true }> {
  const found = standingGrant(ctx, key, body.audience, body.seen);
  if (isRefusal(found)) return found;
  const { decided, audience, current } = found;
  const misfit = fitRights(body.rights).lowered[0];
  if (misfit) return refuse('badInput', { fields: { [misfit.right]: MISFIT_FIELDS[misfit.needs] } });
  const above = heldLess(body.rights, decided.decision.rights) ?? touchesMore(decided.decision, current);
  if (above) return refuse('badInput', { fields: { [above]: 'giverHoldsLess' } });
  write(ctx, decided, audience, current, body.rights);
  return ok({ done: true });
}

/** Takes an audience's own rights away, after which those of their groups or of everyone count again. */
export function takeAccess(
  ctx: Context,
  key: string,
  body: { audience: AudienceWire; seen: string },
): Result<{ done: true }> {
  const found = standingGrant(ctx, key, body.audience, body.seen);
  if (isRefusal(found)) return found;
  const above = touchesMore(found.decided.decision, found.current);
  if (above) return refuse('badInput', { fields: { [above]: 'giverHoldsLess' } });
  write(ctx, found.decided, found.audience, found.current, null);
  return ok({ done: true });
}

interface Found {
  readonly decided: Decided;
  readonly audience: FoundAudience;
  readonly current: StoredGrant | null;
}

function standingGrant(ctx: Context, key: string, wire: AudienceWire, seen: string | null): Found | Refusal {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const audience = findAudience(ctx, wire);
  if (!audience) return refuse('badInput', { fields: { audience: 'audience' } });
  if (audience.person?.id === decided.calendar.ownerId)
    return refuse('badInput', { fields: { audience: 'audienceOwner' } });
  const standing = grantsOn(ctx.db, decided.calendar.id);
  const current =
    standing.find((g) => g.starts === null && g.ends === null && sameAudience(g.audience, audience.stored)) ?? null;
  if ((current?.key ?? null) !== seen) return refuse('changedMeanwhile');
  return { decided, audience, current };
}

/** Someone who gives access for another may not take down what stands above their own rights either. */
function touchesMore(decision: Decision, current: StoredGrant | null): keyof Rights | null {
  return decision.owner || current === null ? null : heldLess(current.rights, decision.rights);
}

function write(
  ctx: Context,
  decided: Decided,
  audience: FoundAudience,
  current: StoredGrant | null,
  rights: Rights | null,
) {
  const { calendar } = decided;
  const before = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  ctx.db.write(() => {
    if (current) endGrant(ctx.db, current.id, ctx.now);
    if (rights)
      insertGrant(ctx.db, {
        key: newKey(),
        calendarId: calendar.id,
        audience: audience.stored,
        rights,
        starts: null,
        ends: null,
        givenBy: ctx.viewer.id,
        givenFor: calendar.ownerId,
        recordedFrom: ctx.now,
      });
    recordTrail(ctx.db, {
      key: newKey(),
      at: ctx.now,
      actorId: ctx.viewer.id,
      principalId: calendar.ownerId,
      calendarId: calendar.id,
      subject: JSON.stringify(audience.stored),
      verb: rights ? 'access.given' : 'access.taken',
      before: current?.rights ?? null,
      after: rights,
    });
  });
  announceAccess(ctx, calendar, before);
}
