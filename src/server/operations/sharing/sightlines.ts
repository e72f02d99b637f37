import type { HistoryAnswer } from '@/contract/sharing/review.ts';
import type { GrantWire, SightlineRow, SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { decide, presetOf } from '@/core/access/index.ts';
import { pick } from '@/core/calendar/index.ts';
import { dateText, instantText } from '@/core/time/index.ts';
import { linkSecret } from '../../ids.ts';
import { lastUses } from '../../repositories/grant-use.ts';
import { grantsEver, grantsOn, type StoredGrant } from '../../repositories/grants.ts';
import { allGroups } from '../../repositories/groups.ts';
import { type Told, toldOf } from '../../repositories/notices.ts';
import { lettersAbout } from '../../repositories/outbox.ts';
import { allPeople, personByHandle } from '../../repositories/people.ts';
import { type Shareable, shareablesOf, shortName } from '../../repositories/shareables.ts';
import { accessActAt, operatorAt } from '../../repositories/trail.ts';
import { ok, type Result } from '../../result.ts';
import {
  audienceOf,
  type Context,
  collectionOf,
  type Decided,
  Directory,
  findShared,
  isCalendar,
  isRefusal,
  rulesOf,
  type Shared,
  viewsIn,
} from '../deciding/index.ts';
import { whatHangsOn } from './holding.ts';

/** Whose Sightlines a page shows: a calendar or a list of `handle`'s, where the viewer may give access there. */
export function findSharedOf(ctx: Context, handle: string, key?: string): { calendar: string } | null {
  const person = personByHandle(ctx.db, handle);
  if (!person) return null;
  const calendar = shareablesOf(ctx.db, person.id).find((c) => (key === undefined ? c.main : c.key === key));
  return calendar && !isRefusal(findShared(ctx, calendar.key)) ? { calendar: calendar.key } : null;
}

/** Who sees what in a calendar or a list: a row an audience, with what its grants come to under the house rules. */
export function listSightlines(ctx: Context, key: string): Result<SightlinesAnswer> {
  const shared = findShared(ctx, key);
  if (isRefusal(shared)) return shared;
  const of = shared.shared;
  const directory = new Directory(ctx.db);
  const owner = directory.person(of.ownerId);
  const near = isCalendar(shared)
    ? partnersOf(ctx, { ...shared, calendar: shared.shared }, directory)
    : new Map<string, number>();
  const rows = rowsOf(ctx, shared, directory);
  const others = rows.flatMap((row) => (row.effective.copies ? row.who.name : []));
  // Who comes from outside gives to those they know, and gets no directory by it; nor does a program that sees one calendar alone.
  const directoryToo = ctx.viewer.inside && ctx.token?.only == null;
  const people = directoryToo ? allPeople(ctx.db).filter((p) => p.id !== of.ownerId) : [];
  return ok({
    calendar: namedOf(of),
    others: shareablesOf(ctx.db, of.ownerId).flatMap((c) =>
      c.id !== of.id && !isRefusal(findShared(ctx, c.key)) ? [namedOf(c)] : [],
    ),
    owner: { handle: owner?.handle ?? '', name: owner?.name ?? '', colour: owner?.colour ?? 0 },
    own: shared.decision.owner,
    asAdministrator: shared.asAdministrator,
    suspended: of.suspended,
    told: of.kind === 'calendar' && of.main ? { owner: of.ownerTold || others.length === 0, others } : null,
    rows,
    people: people
      .map((p) => ({
        handle: p.handle,
        name: p.name,
        address: p.address,
        detail: p.role,
        role: p.kind === 'role',
        near: (near.get(p.address) ?? 0) > 0,
        often: near.get(p.address) ?? 0,
      }))
      .sort((a, b) => b.often - a.often)
      .map(({ often: _often, ...p }) => p),
    groups: directoryToo ? allGroups(ctx.db).map(({ key: id, name, members }) => ({ key: id, name, members })) : [],
  });
}

/** What a collection is called, and what it is. */
const namedOf = (of: Shareable) => ({
  key: of.key,
  name: shortName(of),
  main: of.main,
  kind: of.kind,
});

const DAY = 86_400_000;
/** How far back and ahead meetings are counted to say with whom the owner has most to do. */
const NEAR = 60 * DAY;

/** How often each address stands on the owner's meetings, as far as the viewer sees who is on them. */
export function partnersOf(ctx: Context, { calendar, decision }: Decided, directory: Directory): Map<string, number> {
  const often = new Map<string, number>();
  const [from, to] = [ctx.now - NEAR, ctx.now + NEAR];
  const range = { from, to, fromDate: dateText(from), toDate: dateText(to) };
  for (const view of viewsIn(ctx.db, directory, calendar, range, { person: ctx.viewer, decision }))
    for (const party of [...(view.attendees ?? []), ...(view.organiser ? [view.organiser] : [])])
      often.set(party.address, (often.get(party.address) ?? 0) + 1);
  return often;
}

function rowsOf(ctx: Context, { shared, asAdministrator }: Shared, directory: Directory): SightlineRow[] {
  const byAudience = new Map<string, StoredGrant[]>();
  for (const grant of grantsOn(ctx.db, shared.id)) {
    const audience = JSON.stringify(grant.audience);
    byAudience.set(audience, [...(byAudience.get(audience) ?? []), grant]);
  }
  const told = toldOf(ctx.db, shared.id);
  const used = lastUses(ctx.db, shared.id);
  const letters = lettersAbout(ctx.db, shared.id);
  const house = rulesOf(ctx.db, shared);
  return [...byAudience.values()].flatMap((grants): SightlineRow[] => {
    const audience = audienceOf(ctx, grants[0] as StoredGrant);
    if (!audience) return [];
    const alone = { ...collectionOf(shared, grants), suspended: false };
    const decision = decide(alone, audience.viewer, ctx.now, house);
    const cutBy = decision.because.flatMap((step) => (step.step === 'ceiling' ? [step.rule] : []));
    const standingFirst = [...grants].sort((a, b) => (a.starts ?? a.ends ?? 0) - (b.starts ?? b.ends ?? 0));
    const { link } = audience;
    return [
      {
        audience: audience.wire,
        who: { name: audience.name, detail: audience.detail },
        outside: audience.outside,
        role: audience.person?.kind === 'role',
        // A link's address is sight of items, which nobody has by being an administrator; and no token is told a secret.
        link: link && !asAdministrator && !ctx.token ? `/see/${linkSecret(link.key)}` : null,
        shown: link && !asAdministrator ? pick(link, ['ahead', 'language', 'zone', 'framedBy', 'booking']) : null,
        effective: decision.rights,
        cutBy: [...new Set(cutBy)],
        grants: standingFirst.map((grant) =>
          grantWireOf(grant, ctx.now, directory, {
            hanging: hangingOn(ctx, shared, grant),
            told: told.get(grant.id),
            used: link ? (link.lastUsed ?? undefined) : used.get(grant.id),
            letter: letters.get(grant.id),
          }),
        ),
      },
    ];
  });
}

function grantWireOf(
  grant: StoredGrant,
  now: number,
  directory: Directory,
  facts: {
    hanging: readonly string[];
    told: Told | undefined;
    used: number | undefined;
    letter: GrantWire['letter'] | undefined;
  },
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
    byAdministrator: grant.byAdministrator,
    told: text(facts.told?.at ?? null),
    heard: facts.told ? { told: facts.told.told, opened: facts.told.opened, last: text(facts.told.lastOpened) } : null,
    letter: facts.letter ?? null,
    used: text(facts.used ?? null),
    hanging: [...facts.hanging],
  };
}

const MOST_HANGING = 50;

/** What would end with a grant: whose access to what, as the one who takes it away reads it. */
function hangingOn(ctx: Context, shared: Shareable, grant: StoredGrant): string[] {
  if (!grant.rights.shares) return [];
  return whatHangsOn(ctx, shared, grant)
    .slice(0, MOST_HANGING)
    .flatMap((one) => {
      const name = audienceOf(ctx, one.grant)?.name;
      return name ? [one.shared.main ? name : `${name}: ${one.shared.name}`] : [];
    });
}

const MOST_HISTORY = 500;

/** Every grant ever recorded on a calendar or a list: what, to whom, when it began and when it was replaced or taken away. */
export function readHistory(ctx: Context, key: string): Result<HistoryAnswer> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const directory = new Directory(ctx.db);
  const text = (at: number | null) => (at === null ? null : instantText(at));
  const endedBy = ({ audience, recordedUntil }: StoredGrant) => {
    if (recordedUntil === null) return null;
    const act = accessActAt(ctx.db, decided.shared.id, JSON.stringify(audience), recordedUntil);
    return act && { actor: directory.name(act.actorId), hands: act.hands };
  };
  return ok({
    entries: grantsEver(ctx.db, decided.shared.id, MOST_HISTORY).flatMap((grant) => {
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
          hands: operatorAt(ctx.db, decided.shared.id, grant.recordedFrom, grant.givenBy),
          ended: endedBy(grant),
        },
      ];
    }),
  });
}
