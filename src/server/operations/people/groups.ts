import type { GroupsAnswer } from '@/contract/people/people.ts';
import { NO_RIGHTS } from '@/core/access/index.ts';
import { newKey } from '../../ids.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { calendarsNaming, calendarsOpenTo } from '../../repositories/grants.ts';
import {
  allGroups,
  directMembersOf,
  endMembership,
  endWithin,
  type Group,
  groupByKey,
  groupsAround,
  groupsWithin,
  insertGroup,
  insertMembership,
  insertWithin,
  membersOf,
} from '../../repositories/groups.ts';
import { type Person, personByHandle, personById } from '../../repositories/people.ts';
import { shareableById } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, tell, trailOwn } from '../deciding/index.ts';
import { endWhatHung, MOST_TOLD, rightsOf, tellConcerned, tellOfJoining } from '../sharing/index.ts';

/** Makes a group with its first members; memberships are dated facts. Answers its key. */
export function addGroup(ctx: Context, name: string, members: readonly Person[]): string {
  const key = newKey();
  ctx.db.write(() => {
    const id = insertGroup(ctx.db, key, name);
    for (const person of members) insertMembership(ctx.db, id, person.id, ctx.now, ctx.viewer.id);
    trailOwn(ctx, key, 'group.added', null, { name, members: members.map((p) => p.key) });
  });
  return key;
}

/** The groups with who and which groups stand in them. For anyone inside: the directory is no secret there. */
export function listGroups(ctx: Context): Result<GroupsAnswer> {
  if (!ctx.viewer.inside) return ok({ groups: [], mayChange: false });
  const all = allGroups(ctx.db);
  const groups = all.map((group) => {
    const within = new Set(groupsWithin(ctx.db, group.id));
    return {
      key: group.key,
      name: group.name,
      members: directMembersOf(ctx.db, group.id)
        .flatMap((id) => personById(ctx.db, id) ?? [])
        .map((p) => ({ handle: p.handle, name: p.name }))
        .sort((a, b) => a.name.localeCompare(b.name)),
      within: all.filter((g) => within.has(g.id)).map(({ key, name }) => ({ key, name })),
      people: group.members,
    };
  });
  return ok({ groups, mayChange: ctx.viewer.administrator });
}

/** Makes an empty group. For administrators. */
export function makeGroup(ctx: Context, name: string): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const taken = allGroups(ctx.db).some((g) => g.name.toLowerCase() === name.toLowerCase());
  if (taken) return refuse('alreadyThere', { fields: { name: 'groupTaken' } });
  addGroup(ctx, name, []);
  return ok({ done: true });
}

/**
 * Puts somebody into a group, or takes them out. What the group was given reaches them, or leaves them, at once; memberships
 * are dated facts, so that a past instant can still be asked about. For administrators.
 */
export function setMembership(
  ctx: Context,
  key: string,
  body: { handle: string; member: boolean },
): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const group = groupByKey(ctx.db, key);
  if (!group) return refuse('notFound');
  const person = personByHandle(ctx.db, body.handle);
  if (!person) return refuse('badInput', { fields: { handle: 'person' } });
  if (directMembersOf(ctx.db, group.id).includes(person.id) === body.member) return ok({ done: true });
  changeMembers(ctx, group, [person.id], body.member ? 'group.joined' : 'group.left', { person: person.key }, () => {
    if (body.member) insertMembership(ctx.db, group.id, person.id, ctx.now, ctx.viewer.id);
    else endMembership(ctx.db, group.id, person.id, ctx.now);
  });
  return ok({ done: true });
}

/**
 * Puts a group into another, or takes it out: whoever is in the inner one is in the outer one too. Refused where a group would
 * come to stand in itself. For administrators.
 */
export function setWithin(ctx: Context, key: string, body: { group: string; within: boolean }): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const outer = groupByKey(ctx.db, key);
  if (!outer) return refuse('notFound');
  const inner = groupByKey(ctx.db, body.group);
  if (!inner) return refuse('badInput', { fields: { group: 'group' } });
  if (body.within && groupsAround(ctx.db, outer.id).includes(inner.id))
    return refuse('badInput', { fields: { group: 'groupInItself' } });
  if (groupsWithin(ctx.db, outer.id).includes(inner.id) === body.within) return ok({ done: true });
  const verb = body.within ? 'group.joined' : 'group.left';
  changeMembers(ctx, outer, membersOf(ctx.db, inner.id), verb, { group: inner.key }, () => {
    if (body.within) insertWithin(ctx.db, outer.id, inner.id, ctx.now, ctx.viewer.id);
    else endWithin(ctx.db, outer.id, inner.id, ctx.now);
  });
  return ok({ done: true });
}

/**
 * Carries out a change of who is in a group, with its trail; what hung on a membership ends with it. The owners of what the group
 * opens are told that somebody came in, those taken out what they have less, and the windows of those concerned that their access to a
 * calendar changed, where it did.
 */
function changeMembers(
  ctx: Context,
  group: Group,
  people: readonly number[],
  verb: 'group.joined' | 'group.left',
  after: object,
  change: () => void,
): void {
  const calendars = () => new Set([...people.flatMap((id) => calendarsNaming(ctx.db, id)), ...openedBy(ctx, group)]);
  const was = new Map([...calendars()].map((id) => [id, rightsOf(ctx, people, id)]));
  ctx.db.write(() => {
    change();
    trailOwn(ctx, group.key, verb, null, after);
    if (verb === 'group.joined') tellOfJoining(ctx, group.id, joinedText(ctx, people, group));
    else for (const id of was.keys()) endOn(ctx, id);
    const named = new Map(people.map((id) => [id, new Set(calendarsNaming(ctx.db, id))]));
    let most = MOST_TOLD;
    for (const id of new Set([...was.keys(), ...calendars()])) {
      const shared = shareableById(ctx.db, id);
      if (!shared) continue;
      const before = was.get(id) ?? new Map<number, string>();
      const changed = [...rightsOf(ctx, people, id)].filter(([person, now]) => (before.get(person) ?? NOTHING) !== now);
      const whom = changed.map(([person]) => person);
      if (shared.kind === 'calendar') tell(ctx.db, whom, { kind: 'access', calendar: shared.key });
      if (verb !== 'group.left') continue;
      for (const person of whom.slice(0, most))
        most -= tellConcerned(ctx, shared, [person], named.get(person)?.has(id) ? 'changed' : 'taken');
    }
  });
}

/** The calendars that a group opens, by itself or by the groups it stands in. */
const openedBy = (ctx: Context, group: Group): number[] =>
  [group.id, ...groupsAround(ctx.db, group.id)].flatMap((id) => calendarsOpenTo(ctx.db, id));

const NOTHING = JSON.stringify(NO_RIGHTS);

function endOn(ctx: Context, calendarId: number): void {
  const calendar = calendarById(ctx.db, calendarId);
  if (calendar) endWhatHung(ctx, calendar);
}

const MOST_NAMES = 3;

function joinedText(ctx: Context, people: readonly number[], group: Group): string {
  const names = people.slice(0, MOST_NAMES).map((id) => personById(ctx.db, id)?.name ?? '');
  return `${names.join(', ')}${people.length > MOST_NAMES ? ` … ${people.length}` : ''} → ${group.name}`;
}
