import type { GrantWire, HistoryAnswer, SightlineRow, SightlinesAnswer } from '@/contract/access.ts';
import { decide, may, presetOf } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import { lastUses } from '../repositories/grant-use.ts';
import { grantsEver, grantsOn, type StoredGrant } from '../repositories/grants.ts';
import { allGroups } from '../repositories/groups.ts';
import { toldOf } from '../repositories/notices.ts';
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

/** Who sees what in a calendar: a row an audience, with what its grants come to under the house rules. */
export function listSightlines(ctx: Context, key: string): Result<SightlinesAnswer> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const directory = new Directory(ctx.db);
  const owner = directory.person(calendar.ownerId);
  return ok({
    calendar: { key: calendar.key, name: calendar.name },
    owner: { handle: owner?.handle ?? '', name: owner?.name ?? '', colour: owner?.colour ?? 0 },
    own: decided.decision.owner,
    suspended: calendar.suspended,
    rows: rowsOf(ctx, decided, directory),
    people: allPeople(ctx.db)
      .filter((p) => p.id !== calendar.ownerId)
      .map((p) => ({ handle: p.handle, name: p.name, address: p.address, detail: p.role })),
    groups: allGroups(ctx.db).map(({ key: id, name, members }) => ({ key: id, name, members })),
  });
}

function rowsOf(ctx: Context, { calendar }: Decided, directory: Directory): SightlineRow[] {
  const byAudience = new Map<string, StoredGrant[]>();
  for (const grant of grantsOn(ctx.db, calendar.id)) {
    const audience = JSON.stringify(grant.audience);
    byAudience.set(audience, [...(byAudience.get(audience) ?? []), grant]);
  }
  const told = toldOf(ctx.db, calendar.id);
  const used = lastUses(ctx.db, calendar.id);
  const house = rulesOf(ctx.db);
  return [...byAudience.values()].flatMap((grants): SightlineRow[] => {
    const audience = audienceOf(ctx, grants[0] as StoredGrant);
    if (!audience) return [];
    const alone = { ...collectionOf(calendar, grants), suspended: false };
    const decision = decide(alone, audience.viewer, ctx.now, house);
    const cutBy = decision.because.flatMap((step) => (step.step === 'ceiling' ? [step.rule] : []));
    const standingFirst = [...grants].sort((a, b) => (a.starts ?? a.ends ?? 0) - (b.starts ?? b.ends ?? 0));
    return [
      {
        audience: audience.wire,
        who: { name: audience.name, detail: audience.detail },
        effective: decision.rights,
        cutBy: [...new Set(cutBy)],
        grants: standingFirst.map((grant) =>
          grantWireOf(grant, ctx.now, directory, { told: told.get(grant.id), used: used.get(grant.id) }),
        ),
      },
    ];
  });
}

function grantWireOf(
  grant: StoredGrant,
  now: number,
  directory: Directory,
  facts: { told: number | undefined; used: number | undefined },
): GrantWire {
  const text = (at: number | null) => (at === null ? null : instantText(at));
  return {
    key: grant.key,
    rights: grant.rights,
    preset: presetOf(grant.rights),
    from: text(grant.starts),
    until: text(grant.ends),
    state:
      grant.ends !== null && grant.ends <= now
        ? 'ended'
        : grant.starts !== null && grant.starts > now
          ? 'toCome'
          : 'now',
    since: instantText(grant.recordedFrom),
    given: { actor: directory.name(grant.givenBy), principal: directory.name(grant.givenFor) },
    told: text(facts.told ?? null),
    used: text(facts.used ?? null),
  };
}

const MOST_HISTORY = 500;

/** Every grant ever recorded on a calendar: what, to whom, when it began and when it was replaced or taken away. */
export function readHistory(ctx: Context, key: string): Result<HistoryAnswer> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const directory = new Directory(ctx.db);
  const text = (at: number | null) => (at === null ? null : instantText(at));
  return ok({
    entries: grantsEver(ctx.db, decided.calendar.id, MOST_HISTORY).flatMap((grant) => {
      const audience = audienceOf(ctx, grant);
      if (!audience) return [];
      return [
        {
          key: grant.key,
          audience: audience.wire,
          name: audience.name,
          rights: grant.rights,
          preset: presetOf(grant.rights),
          from: text(grant.starts),
          until: text(grant.ends),
          recorded: instantText(grant.recordedFrom),
          replaced: text(grant.recordedUntil),
          given: { actor: directory.name(grant.givenBy), principal: directory.name(grant.givenFor) },
        },
      ];
    }),
  });
}
