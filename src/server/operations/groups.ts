import type { GroupsAnswer } from '@/contract/people.ts';
import { newKey } from '../ids.ts';
import { hub } from '../live/hub.ts';
import { calendarById } from '../repositories/calendars.ts';
import { calendarsNaming } from '../repositories/grants.ts';
import {
  allGroups,
  endMembership,
  groupByKey,
  groupsOf,
  insertGroup,
  insertMembership,
  membersOf,
} from '../repositories/groups.ts';
import { type Person, personByHandle, personById } from '../repositories/people.ts';
import { recordTrail } from '../repositories/trail.ts';
import { ok, type Result, refuse } from '../result.ts';
import type { Context } from './context.ts';

/** Makes a group with its first members; memberships are dated facts. Answers its key. */
export function addGroup(ctx: Context, name: string, members: readonly Person[]): string {
  const key = newKey();
  ctx.db.write(() => {
    const id = insertGroup(ctx.db, key, name);
    for (const person of members) insertMembership(ctx.db, id, person.id, ctx.now, ctx.viewer.id);
    recordTrail(ctx.db, {
      key: newKey(),
      at: ctx.now,
      actorId: ctx.viewer.id,
      principalId: ctx.viewer.id,
      calendarId: null,
      subject: key,
      verb: 'group.added',
      before: null,
      after: { name, members: members.map((p) => p.key) },
    });
  });
  return key;
}

/** The groups with their members' names. For anyone inside: the directory is no secret. */
export function listGroups(ctx: Context): Result<GroupsAnswer> {
  const groups = allGroups(ctx.db).map((group) => ({
    key: group.key,
    name: group.name,
    members: membersOf(ctx.db, group.id)
      .flatMap((id) => personById(ctx.db, id) ?? [])
      .map((p) => ({ handle: p.handle, name: p.name }))
      .sort((a, b) => a.name.localeCompare(b.name)),
  }));
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
  const before = groupsOf(ctx.db, person.id);
  if (before.includes(group.id) === body.member) return ok({ done: true });
  const concerned = new Set(calendarsNaming(ctx.db, person.id));
  ctx.db.write(() => {
    if (body.member) insertMembership(ctx.db, group.id, person.id, ctx.now, ctx.viewer.id);
    else endMembership(ctx.db, group.id, person.id, ctx.now);
    recordTrail(ctx.db, {
      key: newKey(),
      at: ctx.now,
      actorId: ctx.viewer.id,
      principalId: ctx.viewer.id,
      calendarId: null,
      subject: group.key,
      verb: body.member ? 'group.joined' : 'group.left',
      before: null,
      after: { person: person.key },
    });
  });
  for (const id of calendarsNaming(ctx.db, person.id)) concerned.add(id);
  for (const id of concerned) {
    const calendar = calendarById(ctx.db, id);
    if (calendar) hub().tell(person.id, { kind: 'access', calendar: calendar.key });
  }
  return ok({ done: true });
}
