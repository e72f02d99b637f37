import type { HouseRulesWire } from '@/contract/access.ts';
import { decide } from '@/core/access/index.ts';
import { newKey } from '../ids.ts';
import { hub } from '../live/hub.ts';
import { mainCalendars } from '../repositories/calendars.ts';
import { grantsOnMainCalendars } from '../repositories/grants.ts';
import { recordHouseRules } from '../repositories/house-rules.ts';
import { personById } from '../repositories/people.ts';
import { recordTrail } from '../repositories/trail.ts';
import { ok, type Result, refuse } from '../result.ts';
import { audienceOf } from './audience.ts';
import type { Context } from './context.ts';
import { collectionOf, rulesOf, viewerOf } from './deciding.ts';

/** The ceilings in force, whether the one who asks may change them, and how many grants they cut. Everyone may read them. */
export function readHouseRules(ctx: Context): Result<{ rules: HouseRulesWire; mayChange: boolean; cut: number }> {
  const rules = rulesOf(ctx.db);
  if (!ctx.viewer.administrator) return ok({ rules, mayChange: false, cut: 0 });
  let cut = 0;
  const calendars = new Map(mainCalendars(ctx.db).map((c) => [c.id, c]));
  for (const [id, grants] of grantsOnMainCalendars(ctx.db))
    for (const grant of grants) {
      const calendar = calendars.get(id);
      const audience = audienceOf(ctx, grant);
      if (!calendar || !audience) continue;
      const alone = { ...collectionOf(calendar, [grant]), suspended: false };
      if (decide(alone, audience.viewer, ctx.now, rules).because.some((step) => step.step === 'ceiling')) cut++;
    }
  return ok({ rules, mayChange: true, cut });
}

/** Sets the ceilings. What was given before stays as it was given and is cut from this instant on. For administrators. */
export function changeHouseRules(ctx: Context, rules: HouseRulesWire): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const before = rulesOf(ctx.db);
  ctx.db.write(() => {
    recordHouseRules(ctx.db, rules, ctx.now, ctx.viewer.id);
    recordTrail(ctx.db, {
      key: newKey(),
      at: ctx.now,
      actorId: ctx.viewer.id,
      principalId: ctx.viewer.id,
      calendarId: null,
      subject: 'house rules',
      verb: 'house-rules.changed',
      before,
      after: rules,
    });
  });
  const grants = grantsOnMainCalendars(ctx.db);
  const collections = mainCalendars(ctx.db).map((calendar) => ({
    calendar,
    collection: collectionOf(calendar, grants.get(calendar.id) ?? []),
  }));
  for (const id of hub().people()) {
    const person = personById(ctx.db, id);
    if (!person) continue;
    const viewer = viewerOf(ctx.db, person);
    for (const { calendar, collection } of collections) {
      const [was, is] = [before, rules].map((house) => decide(collection, viewer, ctx.now, house));
      if (JSON.stringify(was?.rights) !== JSON.stringify(is?.rights) || was?.ceiling !== is?.ceiling || is?.owner)
        hub().tell(id, { kind: 'access', calendar: calendar.key });
    }
  }
  return ok({ done: true });
}
