import type { PeopleAnswer, PersonWire } from '@/contract/people/people.ts';
import {
  type Collection,
  type Decision,
  decide,
  deciderFor,
  type Grant,
  type HouseRules,
  type Viewer,
} from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import { furtherCalendars } from '../../repositories/calendars.ts';
import { grantsNaming, grantsSpeakingTo } from '../../repositories/grants.ts';
import { listsById } from '../../repositories/lists.ts';
import { directoryLines, outsidePeople } from '../../repositories/people.ts';
import { type Shareable, shortName } from '../../repositories/shareables.ts';
import { ok, type Result } from '../../result.ts';
import { type Context, ceilingsOn, decideOnAll, nextRights, storedRules, viewerOf } from '../deciding/index.ts';

/**
 * The directory, with what the viewer may see of each calendar. Inside, that people are there is no secret; calendars are.
 * Who comes from outside gets no directory: only those who let them see something.
 */
export function listPeople(ctx: Context): Result<PeopleAnswer> {
  const grants = grantsSpeakingTo(ctx.db, ctx.viewer.id);
  const viewer = viewerOf(ctx.db, ctx.viewer);
  const house = storedRules(ctx.db);
  const decideOne = deciderFor(viewer, ctx.now, house.main);
  const further = furtherSeen(ctx, viewer, grants);
  const lists = listsSeenBy(ctx, viewer, grants);
  const people = directoryLines(ctx.db).map((line): PersonWire => {
    const [id, handle, name, address, role, site, phone, colour, calendar, suspended, kind, resource, size] = line;
    const collection = {
      kind: 'calendar' as const,
      main: true,
      owner: String(id),
      suspended: suspended === 1,
      grants: calendar === null ? [] : (grants.get(calendar) ?? []),
    };
    const decision = decideOne(collection);
    const { rights } = decision;
    return {
      handle,
      name,
      address,
      role,
      site,
      // Numbers stand in the directory, and who comes from outside has none.
      phone: ctx.viewer.inside ? phone : '',
      colour,
      kind,
      resource,
      size,
      rights,
      ...comeTo(decision, collection, viewer, ctx.now, house.main),
      further: further.get(id) ?? [],
      lists: lists.get(id) ?? [],
    };
  });
  const outside = ctx.viewer.administrator
    ? outsidePeople(ctx.db).map((p) => ({
        handle: p.handle,
        name: p.name,
        address: p.address,
        left: p.leftAt !== null,
        grants: grantsNaming(ctx.db, p.id).length,
      }))
    : [];
  const seen = people.filter((p) => p.rights.sight !== 'nothing' || p.further.length > 0 || p.lists.length > 0);
  return ok({ people: ctx.viewer.inside ? people : seen, outside });
}

/** Through what somebody comes to what they see, when that next changes by itself, and to what. */
function comeTo(
  { rights, because }: Decision,
  collection: Collection,
  viewer: Viewer,
  now: number,
  house: HouseRules,
): Pick<PersonWire, 'through' | 'until' | 'next'> {
  const step = because[0]?.step;
  const known = step === 'owner' || step === 'person' || step === 'group' || step === 'everyone';
  const through = known && rights.sight !== 'nothing' ? step : 'none';
  const next = nextRights({ decision: { rights }, collection, viewer }, now, house);
  return next ? { through, until: instantText(next.at), next: next.rights } : { through, until: null, next: null };
}

/** The further calendars that somebody sees, by their owner. */
function furtherSeen(
  ctx: Context,
  viewer: Viewer,
  grants: ReadonlyMap<number, readonly Grant[]>,
): Map<number, PersonWire['further']> {
  const house = storedRules(ctx.db);
  const seen = new Map<number, PersonWire['further']>();
  for (const calendar of furtherCalendars(ctx.db)) {
    const { kind, main, ownerId, key, name, suspended } = calendar;
    const collection = { kind, main, owner: String(ownerId), suspended, grants: grants.get(calendar.id) ?? [] };
    const ceilings = ceilingsOn(house, calendar);
    const decision = decide(collection, viewer, ctx.now, ceilings);
    const { rights } = decision;
    if (rights.sight === 'nothing') continue;
    const one = { key, name, rights, ...comeTo(decision, collection, viewer, ctx.now, ceilings) };
    seen.set(ownerId, [...(seen.get(ownerId) ?? []), one]);
  }
  return seen;
}

/** The lists, address books and folders of others that somebody sees something of, by their owner. */
function listsSeenBy(
  ctx: Context,
  viewer: Viewer,
  grants: ReadonlyMap<number, readonly Grant[]>,
): Map<number, PersonWire['lists']> {
  const house = storedRules(ctx.db);
  const seen = new Map<number, PersonWire['lists']>();
  for (const { shared, decision } of decideOnAll(ctx, listsById(ctx.db, null, [...grants.keys()]))) {
    const { id, ownerId, kind, key, main, suspended } = shared;
    const { rights } = decision;
    if (rights.sight === 'nothing' || ownerId === ctx.viewer.id) continue;
    const collection = { kind, main, owner: String(ownerId), suspended, grants: grants.get(id) ?? [] };
    const name = shortName(shared as Shareable);
    const one = {
      key,
      name,
      kind,
      rights,
      ...comeTo(decision, collection, viewer, ctx.now, ceilingsOn(house, shared)),
    };
    seen.set(ownerId, [...(seen.get(ownerId) ?? []), one]);
  }
  return seen;
}
