import { newKey } from '../ids.ts';
import { insertGroup, insertMembership } from '../repositories/groups.ts';
import type { Person } from '../repositories/people.ts';
import { recordTrail } from '../repositories/trail.ts';
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
