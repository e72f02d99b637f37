import type { SightlineRow, SightlinesAnswer } from '@/contract/access.ts';
import { decide, may, PRESETS, presetOf, type Rights } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import { grantsOn, type StoredGrant } from '../repositories/grants.ts';
import { allGroups } from '../repositories/groups.ts';
import { allPeople } from '../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../result.ts';
import { audienceOf } from './audience.ts';
import type { Context } from './context.ts';
import { collectionOf, type Decided, findCalendar, isRefusal, rulesOf } from './deciding.ts';
import { Directory } from './directory.ts';

/** A calendar on which the one who asks may give and take access; anyone else gets the refusal their sight allows. */
export function findShared(ctx: Context, key: string): Decided | Refusal {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  if (may(decided.decision).share) return decided;
  return refuse('mayNotShare', { facts: { name: new Directory(ctx.db).name(decided.calendar.ownerId) } });
}

/** Who sees what in a calendar: a row an audience, with what the grant comes to under the house rules. */
export function listSightlines(ctx: Context, key: string): Result<SightlinesAnswer> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const directory = new Directory(ctx.db);
  const owner = directory.person(calendar.ownerId);
  const rows = grantsOn(ctx.db, calendar.id).flatMap((grant) => rowFor(ctx, decided, grant, directory) ?? []);
  return ok({
    calendar: { key: calendar.key, name: calendar.name },
    owner: { handle: owner?.handle ?? '', name: owner?.name ?? '', colour: owner?.colour ?? 0 },
    own: decided.decision.owner,
    rows,
    people: allPeople(ctx.db)
      .filter((p) => p.id !== calendar.ownerId)
      .map((p) => ({ handle: p.handle, name: p.name, address: p.address, detail: p.role })),
    groups: allGroups(ctx.db).map(({ key: id, name, members }) => ({ key: id, name, members })),
    presets: Object.entries(PRESETS).map(([name, rights]) => ({ name, rights: rights as Rights })),
  });
}

function rowFor(ctx: Context, { calendar }: Decided, grant: StoredGrant, directory: Directory): SightlineRow | null {
  const audience = audienceOf(ctx, grant);
  if (!audience) return null;
  const alone = { ...collectionOf(calendar, [grant]), suspended: false };
  const decision = decide(alone, audience.viewer, ctx.now, rulesOf(ctx.db));
  const cutBy = decision.because.flatMap((step) => (step.step === 'ceiling' ? [step.rule] : []));
  return {
    key: grant.key,
    audience: audience.wire,
    who: { name: audience.name, detail: audience.detail },
    rights: grant.rights,
    effective: decision.rights,
    cutBy: [...new Set(cutBy)],
    preset: presetOf(grant.rights),
    since: instantText(grant.recordedFrom),
    given: { actor: directory.name(grant.givenBy), principal: directory.name(grant.givenFor) },
  };
}
