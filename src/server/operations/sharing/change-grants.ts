import type { ChangesAnswer, ChangesBody, GrantChange } from '@/contract/sharing/changes.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { membersOf } from '../../repositories/groups.ts';
import { personByAddress, personByHandle } from '../../repositories/people.ts';
import { type Shareable, shareableByKey } from '../../repositories/shareables.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import type { Port } from '../../workers/port.ts';
import { again, type Context, Directory, isRefusal } from '../deciding/index.ts';
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
export function changeGrants(asked: Context, body: ChangesBody): Result<ChangedGrants> {
  return asked.db.write((): Result<ChangedGrants> => {
    const ctx = again(asked);
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
    const results = plans.map(({ decided, audience, current, next }) => ({
      calendar: decided.shared.key,
      owner: directory.name(decided.shared.ownerId),
      who: audience.name,
      before: current?.rights ?? null,
      after: next?.rights ?? null,
    }));
    if (body.dryRun) return ok({ answer: { changed: false, results }, calendars: [], told: [] });
    for (const plan of plans) writePlan(ctx, plan);
    return ok({
      answer: { changed: true, results },
      calendars: [...new Set(plans.map((p) => p.decided.shared.id))],
      told: [...new Set(plans.flatMap((p) => [p.decided.shared.ownerId, ...peopleOf(ctx, p)]))],
    });
  });
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

/** The same beside requests, while nobody else writes: a thousand changes take longer than anybody should wait for. */
export const changeGrantsAlone = (
  ctx: Context,
  args: { body: ChangesBody },
  port: Port,
): Promise<Result<ChangedGrants>> => port.alone(() => changeGrants(ctx, args.body));
