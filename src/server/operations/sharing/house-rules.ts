import type { HouseRulesWire } from '@/contract/sharing/rules.ts';
import { decide } from '@/core/access/index.ts';
import { allCalendars } from '../../repositories/calendars.ts';
import { grantsOnAllCalendars } from '../../repositories/grants.ts';
import { recordHouseRules } from '../../repositories/house-rules.ts';
import { listsById } from '../../repositories/lists.ts';
import type { Shareable } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  announceAccess,
  audienceOf,
  type Context,
  ceilingsOn,
  collectionOf,
  storedRules,
  trailOwn,
} from '../deciding/index.ts';

/** The rules in force, whether the viewer may change them, and how many grants they cut. Everyone inside may read them. */
export function readHouseRules(ctx: Context): Result<{ rules: HouseRulesWire; mayChange: boolean; cut: number }> {
  if (!ctx.viewer.inside) return refuse('insideOnly');
  const rules = storedRules(ctx.db);
  if (!ctx.viewer.administrator) return ok({ rules, mayChange: false, cut: 0 });
  let cut = 0;
  const all = grantsOnAllCalendars(ctx.db);
  const shared = new Map<number, Shareable>();
  for (const one of [...allCalendars(ctx.db), ...listsById(ctx.db, null, [...all.keys()])]) shared.set(one.id, one);
  for (const [id, grants] of all)
    for (const grant of grants) {
      const of = shared.get(id);
      const audience = audienceOf(ctx, grant);
      if (!of || !audience) continue;
      const alone = { ...collectionOf(of, [grant]), suspended: false };
      const { because } = decide(alone, audience.viewer, ctx.now, ceilingsOn(rules, of));
      if (because.some((step) => step.step === 'ceiling')) cut++;
    }
  return ok({ rules, mayChange: true, cut });
}

/** Sets the rules. What was given before stays as it was given and is cut from this instant on. For administrators. */
export function changeHouseRules(ctx: Context, rules: HouseRulesWire): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const before = storedRules(ctx.db);
  ctx.db.write(() => {
    recordHouseRules(ctx.db, rules, ctx.now, ctx.viewer.id);
    trailOwn(ctx, 'house rules', 'house-rules.changed', before, rules);
  });
  const grants = grantsOnAllCalendars(ctx.db);
  // Of lists only those are concerned that were given to somebody.
  for (const of of [...allCalendars(ctx.db), ...listsById(ctx.db, null, [...grants.keys()])])
    announceAccess(ctx, of, collectionOf(of, grants.get(of.id) ?? []), ceilingsOn(before, of));
  return ok({ done: true });
}
