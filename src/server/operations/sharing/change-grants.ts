import type { ChangesAnswer, ChangesBody, GrantChange } from '@/contract/sharing/changes.ts';
import { type Collection, decide, type HouseRules, type Rights } from '@/core/access/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { membersOf } from '../../repositories/groups.ts';
import { personByAddress, personByHandle, personById } from '../../repositories/people.ts';
import { type Shareable, shareableByKey } from '../../repositories/shareables.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import type { Port } from '../../workers/port.ts';
import {
  again,
  type Context,
  collectionOf,
  Directory,
  type GrantRead,
  isRefusal,
  rulesOf,
  viewerOf,
} from '../deciding/index.ts';
import { type Plan, planGive, planTake, writePlan } from './give-access.ts';

/** What was changed, for whoever tells the open windows: the calendars, and who found something in their messages. */
export interface ChangedGrants {
  readonly answer: ChangesAnswer;
  readonly calendars: readonly number[];
  readonly told: readonly number[];
}

/** What a change is on: a calendar or a list by its key, or the main calendar of whoever is named. */
function sharedOf(ctx: Context, { of, calendar }: GrantChange): Shareable | null {
  if (calendar !== undefined) return shareableByKey(ctx.db, calendar);
  const owner = of === undefined ? null : of.includes('@') ? personByAddress(ctx.db, of) : personByHandle(ctx.db, of);
  return owner ? mainCalendarOf(ctx.db, owner.id) : null;
}

const at = (refusal: Refusal, i: number): Refusal =>
  refuse(refusal.code, {
    ...(refusal.facts ? { facts: refusal.facts } : {}),
    fields: refusal.fields
      ? Object.fromEntries(Object.entries(refusal.fields).map(([f, code]) => [`changes.${i}.${f}`, code]))
      : { [`changes.${i}`]: 'unclear' },
  });

/**
 * Gives and takes access on many calendars, each by the same rule and with the same refusals as one by hand, all of it in one transaction: a
 * refusal of one is none of them, and names which. With `dryRun` nothing is written.
 */
export function changeGrants(outer: Context, body: ChangesBody): Result<ChangedGrants> {
  const act = (): Result<ChangedGrants> => {
    const ctx = again(outer);
    if (isRefusal(ctx)) return ctx;
    const plans: Plan[] = [];
    const seen = new Set<string>();
    for (const [i, change] of body.changes.entries()) {
      const shared = sharedOf(ctx, change);
      // What isn't there and one on which one may not give are refused alike.
      const plan = shared ? planOf(ctx, shared.key, change) : refuse('notFound');
      if (isRefusal(plan)) return at(plan, i);
      const whom = `${shared?.id} ${JSON.stringify(plan.audience.toMake ?? plan.audience.stored)} ${plan.current?.id ?? ''}`;
      if (seen.has(whom)) return at(refuse('badInput', { fields: { audience: 'audienceTwice' } }), i);
      seen.add(whom);
      plans.push(plan);
    }
    const directory = new Directory(ctx.db);
    const inAll = body.dryRun ? comesTo(ctx, plans) : null;
    const results = plans.map((plan) => ({
      calendar: plan.decided.shared.key,
      owner: directory.name(plan.decided.shared.ownerId),
      who: plan.audience.name,
      before: plan.current?.rights ?? null,
      after: plan.next?.rights ?? null,
      ...(inAll?.(plan) ?? { had: null, has: null }),
    }));
    if (body.dryRun) return ok({ answer: { changed: false, results }, calendars: [], told: [] });
    for (const plan of plans) writePlan(ctx, plan);
    return ok({
      answer: { changed: true, results },
      calendars: [...new Set(plans.map((p) => p.decided.shared.id))],
      told: [...new Set(plans.flatMap((p) => [p.decided.shared.ownerId, ...peopleOf(ctx, p)]))],
    });
  };
  return body.dryRun ? outer.db.read(act) : outer.db.write(act);
}

/** What the person of each plan gets in all before the plans and after them; each collection's grants are read once. */
function comesTo(ctx: Context, plans: readonly Plan[]): (plan: Plan) => { had: Rights; has: Rights } | null {
  const sides = new Map<number, { before: Collection; after: Collection; house: HouseRules }>();
  for (const { decided } of plans) {
    // While sharing rests it is said what they get once it goes on.
    const shared = { ...decided.shared, suspended: false };
    if (sides.has(shared.id)) continue;
    const of = plans.filter((plan) => plan.decided.shared.id === shared.id);
    const gone = new Set(of.map(({ current }) => current?.id));
    const grants = grantsOn(ctx.db, shared.id);
    const fresh = of.flatMap(({ audience, next }, i): GrantRead[] =>
      next ? [{ key: `planned ${i}`, audience: audience.stored, ...next }] : [],
    );
    sides.set(shared.id, {
      before: collectionOf(shared, grants),
      after: collectionOf(shared, [...grants.filter(({ id }) => !gone.has(id)), ...fresh]),
      house: rulesOf(ctx.db, shared),
    });
  }
  return ({ decided, audience: { stored } }) => {
    const person = stored.kind === 'person' ? personById(ctx.db, stored.personId) : null;
    const side = sides.get(decided.shared.id);
    if (!person || !side) return null;
    const viewer = viewerOf(ctx.db, person);
    const rightsIn = (collection: Collection) => decide(collection, viewer, ctx.now, side.house).rights;
    return { had: rightsIn(side.before), has: rightsIn(side.after) };
  };
}

function peopleOf(ctx: Context, { audience: { stored } }: Plan): number[] {
  if (stored.kind === 'person') return stored.personId === 0 ? [] : [stored.personId];
  return stored.kind === 'group' ? membersOf(ctx.db, stored.groupId) : [];
}

function planOf(ctx: Context, key: string, change: GrantChange): Plan | Refusal {
  const { audience, rights, seen, span } = change;
  const tell = change.note === undefined ? {} : { tell: change.note === null ? null : { note: change.note } };
  if (rights === null) return planTake(ctx, key, { audience, seen, ...tell });
  return planGive(ctx, key, { audience, rights, seen, span: span ?? null, ...tell });
}

/** The same on a worker thread, where it writes while nobody else does: a thousand changes take longer than anybody should wait for. */
export const changeGrantsAlone = (
  ctx: Context,
  args: { body: ChangesBody },
  port: Port,
): Promise<Result<ChangedGrants>> =>
  args.body.dryRun ? Promise.resolve(changeGrants(ctx, args.body)) : port.alone(() => changeGrants(ctx, args.body));
