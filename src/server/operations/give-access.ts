import type { AudienceWire, GiveBody } from '@/contract/access.ts';
import { type Decision, fitRights, type Misfit, type Rights } from '@/core/access/index.ts';
import { fromWallLenient, isZone, parseDate } from '@/core/time/index.ts';
import { newKey } from '../ids.ts';
import { endGrant, grantsOn, insertGrant, type StoredGrant } from '../repositories/grants.ts';
import { type StoredItem, updateItem } from '../repositories/items.ts';
import { recordTrail } from '../repositories/trail.ts';
import { ok, type Refusal, type Result, refuse } from '../result.ts';
import { announceAccess, announceItems } from './announce.ts';
import { type FoundAudience, findAudience, sameAudience } from './audience.ts';
import type { Context } from './context.ts';
import { collectionOf, type Decided, isRefusal } from './deciding.ts';
import { findItem } from './find-item.ts';
import { heldLess } from './preview-access.ts';
import { findShared } from './sightlines.ts';
import { tellOf } from './tell.ts';
import { hands, type ItemChange, trailItems } from './writing.ts';

const MISFIT_FIELDS = {
  sight: 'misfitSight',
  fullSight: 'misfitFullSight',
  add: 'misfitAdd',
  arrangeAll: 'misfitArrangeAll',
} as const satisfies Record<Misfit['needs'], string>;

const DAY = 86_400_000;

/**
 * Gives an audience these rights on a calendar, standing or for a time. `seen` names the grant that is changed: its record
 * ends and the new one begins at the same instant; `null` adds one beside what is there. Refused are rights that don't fit
 * together, rights above the giver's own, dates that have passed, a second standing grant, and a row that someone else
 * changed since it was seen.
 */
export function giveAccess(ctx: Context, key: string, body: GiveBody): Result<{ done: true }> {
  const found = findGrant(ctx, key, body.audience, body.seen);
  if (isRefusal(found)) return found;
  const { decided, audience, current } = found;
  const misfit = fitRights(body.rights).lowered[0];
  if (misfit) return refuse('badInput', { fields: { [misfit.right]: MISFIT_FIELDS[misfit.needs] } });
  const above = heldLess(body.rights, decided.decision.rights) ?? touchesMore(decided.decision, current);
  if (above) return refuse('badInput', { fields: { [above]: 'giverHoldsLess' } });
  const span = readSpan(ctx, body.span ?? null, current);
  if (isRefusal(span)) return span;
  const standing = found.others.some((g) => g.starts === null && g.ends === null);
  if (standing && span.starts === null && span.ends === null) return refuse('changedMeanwhile');
  const hidden = toHide(ctx, decided, body.alsoPrivate ?? []);
  if (isRefusal(hidden)) return hidden;
  write(ctx, decided, audience, current, { rights: body.rights, ...span }, body.tell ?? null, hidden);
  return ok({ done: true });
}

/** Takes one of an audience's grants away, after which what is left, their groups' or everyone's count. */
export function takeAccess(
  ctx: Context,
  key: string,
  body: { audience: AudienceWire; seen: string; tell?: { note: string } | null | undefined },
): Result<{ done: true }> {
  const found = findGrant(ctx, key, body.audience, body.seen);
  if (isRefusal(found)) return found;
  const above = touchesMore(found.decided.decision, found.current);
  if (above) return refuse('badInput', { fields: { [above]: 'giverHoldsLess' } });
  write(ctx, found.decided, found.audience, found.current, null, body.tell ?? null);
  return ok({ done: true });
}

interface Found {
  readonly decided: Decided;
  readonly audience: FoundAudience;
  readonly current: StoredGrant | null;
  readonly others: readonly StoredGrant[];
}

function findGrant(ctx: Context, key: string, wire: AudienceWire, seen: string | null): Found | Refusal {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const audience = findAudience(ctx, wire);
  if (!audience) return refuse('badInput', { fields: { audience: 'audience' } });
  if (audience.person?.id === decided.calendar.ownerId)
    return refuse('badInput', { fields: { audience: 'audienceOwner' } });
  const theirs = grantsOn(ctx.db, decided.calendar.id).filter((g) => sameAudience(g.audience, audience.stored));
  const current = theirs.find((g) => g.key === seen) ?? null;
  if (seen !== null && !current) return refuse('changedMeanwhile');
  return { decided, audience, current, others: theirs.filter((g) => g !== current) };
}

/** The dates of a grant: days of the giver's own clock, the last one included. What had begun before stays as it began. */
function readSpan(
  ctx: Context,
  span: GiveBody['span'] | null,
  current: StoredGrant | null,
): { starts: number | null; ends: number | null } | Refusal {
  if (!span || (span.from === null && span.until === null)) return { starts: null, ends: null };
  const wrong = (fields: Record<string, string>) => refuse('badInput', { fields });
  if (!isZone(span.zone)) return wrong({ zone: 'zone' });
  const [from, until] = [span.from, span.until].map((date) => (date === null ? null : parseDate(date)));
  if (span.from !== null && from === null) return wrong({ from: 'date' });
  if (span.until !== null && until === null) return wrong({ until: 'date' });
  const starts = from === null || from === undefined ? null : fromWallLenient(span.zone, from);
  const ends = until === null || until === undefined ? null : fromWallLenient(span.zone, until + DAY);
  if (starts !== null && ends !== null && ends <= starts) return wrong({ until: 'endBeforeStart' });
  if (ends !== null && ends <= ctx.now) return wrong({ until: 'datePassed' });
  if (starts !== null && starts < ctx.now - DAY && starts !== current?.starts) return wrong({ from: 'datePassed' });
  return { starts, ends };
}

/** Someone who gives access for another may not take down what stands above their own rights either. */
function touchesMore(decision: Decision, current: StoredGrant | null): keyof Rights | null {
  return decision.owner || current === null ? null : heldLess(current.rights, decision.rights);
}

/** The items to be marked private with a grant, whole series where one is meant; each must be one the giver may change. */
function toHide(ctx: Context, { calendar }: Decided, ids: readonly string[]): StoredItem[] | Refusal {
  const items = new Map<number, StoredItem>();
  for (const id of ids) {
    const found = findItem(ctx, id);
    if (isRefusal(found)) return found;
    if (found.decided.calendar.id !== calendar.id || !found.may.change) return refuse('notFound');
    items.set(found.item.id, found.item);
  }
  return [...items.values()];
}

type Next = { readonly rights: Rights; readonly starts: number | null; readonly ends: number | null };

function write(
  ctx: Context,
  decided: Decided,
  audience: FoundAudience,
  current: StoredGrant | null,
  next: Next | null,
  tell: { note: string } | null,
  hidden: readonly StoredItem[] = [],
) {
  const { calendar } = decided;
  const before = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  const changes = hidden.map(
    (item): ItemChange => ({
      before: item,
      after: { ...item, ...hands(ctx, calendar), visibility: 'private', version: item.version + 1 },
    }),
  );
  ctx.db.write(() => {
    for (const { after } of changes) updateItem(ctx.db, after);
    if (changes.length > 0) trailItems(ctx, calendar, 'item.changed', changes);
    if (current) endGrant(ctx.db, current.id, ctx.now);
    const id = next
      ? insertGrant(ctx.db, {
          key: newKey(),
          calendarId: calendar.id,
          audience: audience.stored,
          ...next,
          givenBy: ctx.viewer.id,
          givenFor: calendar.ownerId,
          recordedFrom: ctx.now,
        })
      : null;
    recordTrail(ctx.db, {
      key: newKey(),
      at: ctx.now,
      actorId: ctx.viewer.id,
      principalId: calendar.ownerId,
      calendarId: calendar.id,
      subject: JSON.stringify(audience.stored),
      verb: next ? 'access.given' : 'access.taken',
      before: current && { rights: current.rights, starts: current.starts, ends: current.ends },
      after: next,
    });
    if (tell) tellOf(ctx, calendar, audience, id ?? null, current ? (next ? 'changed' : 'taken') : 'given', tell.note);
  });
  announceAccess(ctx, calendar, before);
  if (changes.length > 0) announceItems(ctx, calendar, changes);
}
