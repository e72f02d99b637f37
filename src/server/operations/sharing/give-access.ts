import type {
  AudienceWire,
  GiveBody,
  GivenAnswer,
  GiveSeveralBody,
  TakeBody,
  TakeSeveralBody,
} from '@/contract/sharing/sharing.ts';
import { fitRights, type Misfit, NO_RIGHTS, offeredOn, type Rights } from '@/core/access/index.ts';
import { newKey } from '../../ids.ts';
import type { SharedCollection } from '../../repositories/collections.ts';
import { endGrant, grantsOn, insertGrant, type StoredGrant } from '../../repositories/grants.ts';
import { insertLink } from '../../repositories/links.ts';
import { wasTold } from '../../repositories/notices.ts';
import { nameOutsider } from '../../repositories/outsider-names.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  announceAccess,
  authorship,
  type Context,
  collectionOf,
  type FoundAudience,
  findAudience,
  findItem,
  findShared,
  type ItemToWrite,
  isRefusal,
  type Shared,
  sameAudience,
  trailOn,
  writeItems,
} from '../deciding/index.ts';

import { endWhatHung, gainsWithout, heldLess, holdsByThread, holdsUntil, lessens, speaksToGiver } from './holding.ts';
import { addOutsider } from './outsiders.ts';
import { linkBarred } from './preview-access.ts';
import { requestInReturn, settleAccessRequest } from './settle-access-request.ts';
import { readSpan } from './span.ts';
import { tellOf, tellOwner } from './tell.ts';

const MISFIT_FIELDS = {
  sight: 'misfitSight',
  fullSight: 'misfitFullSight',
  add: 'misfitAdd',
  arrangeAll: 'misfitArrangeAll',
  otherKind: 'misfitOtherKind',
} as const satisfies Record<Misfit['needs'], string>;

/**
 * Gives an audience these rights on a calendar or a list, standing or for a time. `seen` names the grant that is changed: its record
 * ends and the new one begins at the same instant; `null` adds one beside what is there. Somebody outside who wasn't known yet,
 * and a new link, are made with it. Refused are rights that don't fit together, rights above the giver's own, dates that have
 * passed, a second standing grant, and a row that someone else changed since it was seen.
 */
export function giveAccess(ctx: Context, key: string, body: GiveBody): Result<GivenAnswer> {
  const plan = planGive(ctx, key, body);
  if (isRefusal(plan)) return plan;
  const { shared } = plan.decided;
  const before = collectionOf(shared, grantsOn(ctx.db, shared.id));
  const given = ctx.db.write(() => writePlan(ctx, plan));
  announceAccess(ctx, plan.decided.shared, before);
  return ok(given);
}

/** Several acts of giving on one collection: all of them, or none where one can't be done. A refusal's fields say which. */
export function giveSeveral(ctx: Context, key: string, body: GiveSeveralBody): Result<{ done: true }> {
  const plans: Plan[] = [];
  const seen = new Set<string>();
  for (const [i, give] of body.gives.entries()) {
    const plan = planGive(ctx, key, give);
    if (isRefusal(plan))
      return plan.fields
        ? refuse(plan.code, {
            fields: Object.fromEntries(Object.entries(plan.fields).map(([f, code]) => [`gives.${i}.${f}`, code])),
          })
        : plan;
    const { stored, toMake } = plan.audience;
    const whom = toMake?.kind === 'person' ? toMake.address : JSON.stringify(stored);
    if (seen.has(whom)) return refuse('badInput', { fields: { [`gives.${i}.audience`]: 'audienceTwice' } });
    seen.add(whom);
    plans.push(plan);
  }
  const first = plans[0];
  if (!first) return ok({ done: true });
  const { shared } = first.decided;
  const before = collectionOf(shared, grantsOn(ctx.db, shared.id));
  ctx.db.write(() => {
    for (const plan of plans) writePlan(ctx, plan);
  });
  for (const plan of plans) announceAccess(ctx, plan.decided.shared, before);
  return ok({ done: true });
}

/** Takes one of an audience's grants away, after which what is left, their groups' or everyone's count. */
export function takeAccess(ctx: Context, key: string, body: TakeBody): Result<{ done: true }> {
  return takeAll(ctx, [planTake(ctx, key, body)]);
}

/** Takes several grants of one collection away: all of them, or none where one can't be. */
export function takeSeveral(ctx: Context, key: string, body: TakeSeveralBody): Result<{ done: true }> {
  return takeAll(
    ctx,
    body.takes.map((take) => planTake(ctx, key, take)),
  );
}

function takeAll(ctx: Context, planned: readonly (Plan | Refusal)[]): Result<{ done: true }> {
  const plans: Plan[] = [];
  for (const plan of planned) {
    if (isRefusal(plan)) return plan;
    if (plans.some((p) => p.current?.id === plan.current?.id))
      return refuse('badInput', { fields: { audience: 'audienceTwice' } });
    plans.push(plan);
  }
  const shared = plans[0]?.decided.shared;
  if (!shared) return ok({ done: true });
  const before = collectionOf(shared, grantsOn(ctx.db, shared.id));
  ctx.db.write(() => {
    for (const plan of plans) writePlan(ctx, plan);
  });
  announceAccess(ctx, shared, before);
  return ok({ done: true });
}

/** Where `seen` isn't given, it is the standing grant that is meant, whichever that is; for taking, where there is none, a dated one. */
type Unseen<T extends { seen: string | null }> = Omit<T, 'seen'> & { readonly seen?: T['seen'] | undefined };

/** What taking one of an audience's grants away would write, checked; or why it can't be. */
export function planTake(ctx: Context, key: string, body: Unseen<TakeBody>): Plan | Refusal {
  const found = findGrant(ctx, key, body.audience, body.seen, true);
  if (isRefusal(found)) return found;
  const { current } = found;
  if (!current) return refuse('badInput', { fields: { audience: 'nothingToTake' } });
  const barred = barredTaking(ctx, found.decided, current);
  const decided = barred ? asAdministratorInstead(ctx, found.decided) : found.decided;
  if (barred && !decided) return barred;
  const tell = tellingOf(ctx, found, body.tell);
  return { ...found, decided: decided ?? found.decided, next: null, tell, inReturn: null, hidden: [], hangs: false };
}

interface Found {
  readonly decided: Shared;
  readonly audience: FoundAudience;
  readonly current: StoredGrant | null;
  readonly others: readonly StoredGrant[];
}
type Next = { readonly rights: Rights; readonly starts: number | null; readonly ends: number | null };

/** One act on an audience's grants, checked and ready to be written. */
export interface Plan extends Found {
  readonly next: Next | null;
  readonly tell: { readonly note: string } | null;
  /** What the owner asks of theirs with it. */
  readonly inReturn: Rights | null;
  readonly hidden: readonly StoredItem[];
  readonly hangs: boolean;
}

/** What giving an audience these rights would write, checked; or why it can't be. */
export function planGive(ctx: Context, key: string, body: Unseen<GiveBody>): Plan | Refusal {
  // What is given for a time stands beside what stands.
  const dated = body.span != null && (body.span.from !== null || body.span.until !== null);
  const found = findGrant(ctx, key, body.audience, body.seen === undefined && dated ? null : body.seen, false);
  if (isRefusal(found)) return found;
  const { audience, current } = found;
  // A token must not let people in who would stay after it is withdrawn: only a person in a window opens new ways in.
  if (ctx.token && audience.toMake) return refuse('notByToken');
  const offered = offeredOn(found.decided.shared);
  // Whoever acts sets the away notice as a rule; where there is none to set, that is left out of what they are given.
  const rights = offered.without.includes('absence') ? { ...body.rights, absence: false } : body.rights;
  const misfit = fitRights(rights, offered).lowered[0];
  if (misfit) return refuse('badInput', { fields: { [misfit.right]: MISFIT_FIELDS[misfit.needs] } });
  if (audience.stored.kind === 'link') {
    const barred = linkBarred(ctx, found.decided, rights);
    if (barred) return refuse('badInput', { fields: { sight: barred } });
    if (audience.name === '') return refuse('badInput', { fields: { audience: 'linkName' } });
  }
  const span = readSpan(ctx, body.span ?? null, current);
  if (isRefusal(span)) return span;
  const next = { rights, ...span };
  const barred = barredGiving(ctx, found.decided, audience, current, next);
  const decided = barred ? asAdministratorInstead(ctx, found.decided) : found.decided;
  if (!decided) return barred as Refusal;
  const standing = found.others.some((g) => g.starts === null && g.ends === null);
  if (standing && span.starts === null && span.ends === null) return refuse('changedMeanwhile');
  const hidden = toHide(ctx, decided, body.alsoPrivate ?? []);
  if (isRefusal(hidden)) return hidden;
  if (decided.shared.kind !== 'calendar' && audience.outside) return wrongAudience('listInside');
  const free = decided.asAdministrator || decided.decision.owner;
  const inReturn = body.asks && body.asks !== 'nothing' ? { ...NO_RIGHTS, sight: body.asks } : null;
  if (inReturn && !(decided.decision.owner && decided.shared.main && audience.person?.inside))
    return refuse('badInput', { fields: { asks: 'askInside' } });
  const tell = tellingOf(ctx, found, body.tell);
  return { ...found, decided, next, tell, inReturn, hidden, hangs: !free && holdsByThread(decided) };
}

const wrongAudience = (code: string): Refusal => refuse('badInput', { fields: { audience: code } });

/** Whether an audience is told: as it is said, and, where nothing is, of what becomes of a grant that they were told of. */
function tellingOf(
  ctx: Context,
  { current, decided }: Found,
  said: GiveBody['tell'],
): { readonly note: string } | null {
  if (said !== undefined) return said;
  return current && wasTold(ctx.db, current.id, decided.shared.ownerId) ? { note: '' } : null;
}

function findGrant(
  ctx: Context,
  key: string,
  wire: AudienceWire,
  seen: string | null | undefined,
  orDated: boolean,
): Found | Refusal {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const audience = findAudience(ctx, wire, decided.shared);
  if (isRefusal(audience)) return audience;
  if (audience.person?.id === decided.shared.ownerId)
    return refuse('badInput', { fields: { audience: 'audienceOwner' } });
  const theirs = grantsOn(ctx.db, decided.shared.id).filter((g) => sameAudience(g.audience, audience.stored));
  const current =
    (seen === undefined
      ? (theirs.find((g) => g.starts === null && g.ends === null) ?? (orDated ? theirs[0] : undefined))
      : theirs.find((g) => g.key === seen)) ?? null;
  if (seen !== null && seen !== undefined && !current) return refuse('changedMeanwhile');
  return { decided, audience, current, others: theirs.filter((g) => g !== current) };
}

/** An administrator gives and takes any access, where they couldn't as a sharer. */
function asAdministratorInstead(ctx: Context, decided: Shared): Shared | null {
  return ctx.viewer.administrator && !decided.decision.owner ? { ...decided, asAdministrator: true } : null;
}

const less = (field: string, code = 'giverHoldsLess'): Refusal => refuse('badInput', { fields: { [field]: code } });

/**
 * Why somebody may not give this: more than they hold, longer than they hold it, what stands above their own rights, or anything but
 * less to a row that speaks to themselves. `null` where they may.
 */
function barredGiving(
  ctx: Context,
  decided: Shared,
  audience: FoundAudience,
  current: StoredGrant | null,
  next: Next,
): Refusal | null {
  const { decision, asAdministrator } = decided;
  if (asAdministrator || decision.owner) return null;
  const above = heldLess(next.rights, decision.rights) ?? (current && heldLess(current.rights, decision.rights));
  if (above) return less(above);
  const lesser = current !== null && lessens(next, current);
  const shutsOut = current === null && next.rights.sight === 'nothing';
  if (audience.toMake === null && speaksToGiver(ctx, audience.stored) && !lesser && !shutsOut)
    return less('audience', 'audienceSelf');
  if (lesser || shutsOut) return null;
  const until = holdsUntil(ctx, decided, next.rights);
  if (until === null || (next.ends !== null && next.ends <= until)) return null;
  return less('until', `giverHoldsUntil:${until}`);
}

/** Why somebody may not take this away: it stands above their own rights, or they themselves would get more by it. */
function barredTaking(ctx: Context, decided: Shared, current: StoredGrant): Refusal | null {
  const { decision, asAdministrator } = decided;
  if (asAdministrator || decision.owner) return null;
  const above = heldLess(current.rights, decision.rights);
  if (above) return less(above);
  return speaksToGiver(ctx, current.audience) && gainsWithout(ctx, decided, current)
    ? less('audience', 'audienceSelf')
    : null;
}

/** The items to be marked private with a grant, whole series where one is meant; each must be one the giver may change. */
function toHide(ctx: Context, { shared }: Shared, ids: readonly string[]): StoredItem[] | Refusal {
  const items = new Map<number, StoredItem>();
  for (const id of ids) {
    const found = findItem(ctx, id);
    if (isRefusal(found)) return found;
    if (found.decided.calendar.id !== shared.id || !found.may.change) return refuse('notFound');
    items.set(found.item.id, found.item);
  }
  return [...items.values()];
}

const changesOf = (ctx: Context, { decided, hidden }: Plan): ItemToWrite[] =>
  hidden.map((item) => ({
    before: item,
    after: { ...item, ...authorship(ctx, decided.shared), visibility: 'private', version: item.version + 1 },
  }));

/** Writes a plan, within the transaction of whoever calls; answers what the audience is called from now on, and the new grant's key. */
export function writePlan(ctx: Context, plan: Plan): GivenAnswer {
  const { decided, current, next, tell } = plan;
  const { shared } = decided;
  if (shared.kind === 'calendar') writeItems(ctx, shared, 'item.changed', changesOf(ctx, plan));
  const audience = makeAudience(ctx, shared, plan.audience);
  if (current) endGrant(ctx.db, current.id, ctx.now);
  const key = newKey();
  const id = next
    ? insertGrant(ctx.db, {
        key,
        collectionId: shared.id,
        audience: audience.stored,
        ...next,
        givenBy: ctx.viewer.id,
        givenFor: shared.ownerId,
        byAdministrator: decided.asAdministrator,
        hangs: plan.hangs,
        recordedFrom: ctx.now,
      })
    : null;
  const before = current && { rights: current.rights, starts: current.starts, ends: current.ends };
  trailOn(ctx, shared, JSON.stringify(audience.stored), next ? 'access.given' : 'access.taken', before, next);
  const kind = current ? (next ? 'changed' : 'taken') : 'given';
  if (tell) tellOf(ctx, shared, audience, id ?? null, kind, tell.note);
  tellOwner(ctx, shared, audience, id ?? current?.id ?? null, kind);
  if (current) endWhatHung(ctx, shared);
  if (id !== null && plan.inReturn && audience.person)
    requestInReturn(ctx, audience.person, plan.inReturn, id, plan.tell?.note.trim() ?? '');
  if (id !== null && next && audience.person) settleAccessRequest(ctx, shared, audience.person.id, { ...next, id });
  return { audience: audience.wire, grant: key };
}

/** Makes what an audience still lacks: a person known by an address alone, or a link. */
function makeAudience(ctx: Context, shared: SharedCollection, audience: FoundAudience): FoundAudience {
  const { toMake } = audience;
  if (!toMake) return audience;
  if (toMake.kind === 'link') {
    insertLink(ctx.db, {
      key: toMake.key,
      collectionId: shared.id,
      name: toMake.name,
      madeBy: ctx.viewer.id,
      madeAt: ctx.now,
    });
    return { ...audience, wire: { kind: 'link', id: toMake.key } };
  }
  const person = addOutsider(ctx, toMake.address, toMake.name);
  nameOutsider(ctx.db, shared.id, person.id, toMake.name);
  return {
    ...audience,
    person,
    wire: { kind: 'person', id: person.handle },
    stored: { kind: 'person', personId: person.id },
  };
}
