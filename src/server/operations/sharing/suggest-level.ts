import type { AudienceWire, SuggestedLevel } from '@/contract/sharing/sharing.ts';
import { decide, PRESETS, presetOf } from '@/core/access/index.ts';
import { type Kin, type Known, kinOf, LADDER, type Least, leastFor } from '@/core/review/index.ts';
import { calendarsById, calendarsOf, mainCalendarOf } from '../../repositories/calendars.ts';
import { calendarsNaming, grantsOn } from '../../repositories/grants.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { isTied } from '../../repositories/same-person.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  type Context,
  Directory,
  decideOn,
  findAudience,
  findSharedCalendar,
  isRefusal,
  rulesOf,
  type SharedCalendar,
} from '../deciding/index.ts';
import { partnersOf } from './sightlines.ts';

/** The levels that say something of what is usual: those that can be suggested. */
const isLeast = (preset: string | null): preset is Least => (LADDER as readonly (string | null)[]).includes(preset);
/** So many such people elsewhere say something of what is usual. */
const ENOUGH = 3;

/**
 * The least that would serve somebody who is chosen, and why: by who they are to the owner, how often they meet as whoever gives sees it, and
 * what such people are given on the other calendars that whoever gives gives access to. Only for one person who has nothing by name yet.
 */
export function suggestLevel(
  ctx: Context,
  key: string,
  body: { audience: AudienceWire },
): Result<{ suggested: SuggestedLevel | null }> {
  const shared = findSharedCalendar(ctx, key);
  if (isRefusal(shared)) return shared;
  const audience = findAudience(ctx, body.audience, shared.calendar);
  if (isRefusal(audience)) return audience;
  const { stored, toMake } = audience;
  // Somebody typed by address who was never named here is anybody, known elsewhere or not.
  const person = toMake ? null : audience.person;
  if (stored.kind !== 'person' || stored.personId === shared.calendar.ownerId) return ok({ suggested: null });
  if (
    !toMake &&
    grantsOn(ctx.db, shared.calendar.id).some(
      (g) => g.audience.kind === 'person' && g.audience.personId === stored.personId,
    )
  )
    return ok({ suggested: null });
  const owner = personById(ctx.db, shared.calendar.ownerId);
  if (!owner) return refuse('notFound');
  const address = person?.address ?? (toMake?.kind === 'person' ? toMake.address : '');
  const meets = shared.asAdministrator ? 0 : (partnersOf(ctx, shared, new Directory(ctx.db)).get(address) ?? 0);
  // Whom the owner arranges for is theirs to know.
  const runsTheirs = shared.decision.owner && person !== null && runs(ctx, person);
  const known: Known = {
    ...plainly(person, audience.outside),
    // Which accounts are the owner's own is theirs to know.
    tied: shared.decision.owner && person !== null && isTied(ctx.db, owner.id, person.id),
    namesake: isNamesake(owner, audience.name, address),
    runsTheirs,
    meets,
  };
  const { usual, of } = usualFor(ctx, shared, kinOf({ ...known, meets: 0 }));
  const all = findAudience(ctx, { kind: 'everyone' }, shared.calendar);
  if (isRefusal(all)) return all;
  const everyone = decide(shared.collection, all.viewer, ctx.now, rulesOf(ctx.db, shared.calendar));
  const { kin, level } = leastFor(known, everyone.rights.sight, usual);
  return ok({
    suggested: { kin, preset: level, rights: PRESETS[level], meets, elsewhere: usual === level ? of : null },
  });
}

const plainly = (person: Person | null, outside: boolean) => ({
  outside,
  desk: person?.kind === 'role',
  role: person?.role ?? '',
});

/** Whether somebody at another address is called what the owner is called: most likely themselves, elsewhere. */
const isNamesake = (owner: Person, name: string, address: string): boolean =>
  address !== owner.address && name.trim().toLowerCase() === owner.name.trim().toLowerCase();

function runs(ctx: Context, person: Person): boolean {
  const theirs = person.inside ? mainCalendarOf(ctx.db, person.id) : null;
  return theirs !== null && decideOn(ctx, theirs).decision.rights.change === 'all';
}

/** What such people are given most often on the other calendars that the viewer gives access to. */
function usualFor(ctx: Context, shared: SharedCalendar, kin: Kin): { usual: Least | null; of: number } {
  const ids = [...calendarsNaming(ctx.db, ctx.viewer.id), ...calendarsOf(ctx.db, ctx.viewer.id).map((c) => c.id)];
  const counts = new Map<Least, number>();
  const calendars = calendarsById(
    ctx.db,
    [...new Set(ids)].filter((id) => id !== shared.calendar.id),
  );
  for (const calendar of calendars) {
    const { decision } = decideOn(ctx, calendar);
    if (!decision.owner && !decision.rights.shares) continue;
    for (const grant of grantsOn(ctx.db, calendar.id)) {
      const person = grant.audience.kind === 'person' ? personById(ctx.db, grant.audience.personId) : null;
      const preset = presetOf(grant.rights);
      if (!person || grant.ends !== null || !isLeast(preset)) continue;
      const known = { ...plainly(person, !person.inside), tied: false, namesake: false, runsTheirs: false, meets: 0 };
      if (kinOf(known) === kin) counts.set(preset, (counts.get(preset) ?? 0) + 1);
    }
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  return most && most[1] >= ENOUGH ? { usual: most[0], of: most[1] } : { usual: null, of: 0 };
}
