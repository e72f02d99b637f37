import type { ChangeMessagesBody } from '@/contract/messages.ts';
import { may as mayOnFolder } from '@/core/access/index.ts';
import type { Connection } from '../../db/index.ts';
import type { StoredMessage } from '../../repositories/message-row.ts';
import { forgetMessages } from '../../repositories/messages.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, Directory, findList, isRefusal, writeMessages } from '../deciding/index.ts';
import { BACK_FOR, findReader, type OnFolder, type Reader, type SeenMessage, seenByIds } from './readers.ts';

const DONE = { done: true } as const;

/**
 * Does one thing to some messages of a folder: files them into another of the same owner, flags them, marks them private, removes them or brings
 * them back. All of them or none: what may not be done to one is refused, and of what isn't seen nothing is said.
 */
export function changeMessages(ctx: Context, key: string, body: ChangeMessagesBody): Result<typeof DONE> {
  return ctx.db.write(() => {
    const on = findList(ctx, 'folder', key);
    if (isRefusal(on)) return on;
    const owner = new Directory(ctx.db).person(on.list.ownerId);
    const reader = owner ? findReader(ctx, owner.handle) : refuse('notFound');
    if (isRefusal(reader)) return reader;
    const found = findAll(ctx, reader, on, body.messages, body.removed === false);
    if (isRefusal(found)) return found;
    const name = { facts: { name: reader.owner.name } };
    const may = (what: 'change' | 'remove') => found.every(({ view }) => view.may[what]);
    const write = (
      verb: string,
      next: (m: StoredMessage) => StoredMessage,
      after: unknown = {},
    ): Result<typeof DONE> => {
      const changes = found.map(({ m }) => ({ before: m, after: { ...next(m), version: m.version + 1 } }));
      writeMessages(ctx, on.list, verb, changes, { after });
      return ok(DONE);
    };
    if (body.removed !== undefined) {
      if (!may('remove')) return refuse('mayNotRemove', name);
      return body.removed
        ? write('message.removed', (m) => ({ ...m, removedAt: ctx.now }))
        : write('message.broughtBack', (m) => ({ ...m, removedAt: null }));
    }
    if (body.to !== undefined) {
      const to = findList(ctx, 'folder', body.to);
      if (
        isRefusal(to) ||
        to.list.ownerId !== on.list.ownerId ||
        to.list.role === 'drafts' ||
        on.list.role === 'drafts'
      )
        return refuse('badInput', { fields: { to: 'otherFolder' } });
      if (!may('remove')) return refuse('mayNotRemove', name);
      if (!mayOnFolder(to.decision).add) return refuse('mayNotAdd', name);
      return write('message.filed', (m) => ({ ...m, collectionId: to.list.id }), { to: to.list.id });
    }
    if (!may('change')) return refuse('mayNotChange', name);
    const { flagged, private: isPrivate } = body;
    if (flagged !== undefined)
      return write(flagged ? 'message.flagged' : 'message.unflagged', (m) => ({ ...m, flagged }));
    // Who isn't let into what is private would lose it by this, and nobody could tell them why.
    if (!on.decision.owner && !on.decision.rights.private) return refuse('mayNotChange', name);
    return write(isPrivate ? 'message.private' : 'message.open', ({ facts: { private: _was, ...facts }, ...m }) => ({
      ...m,
      facts: { ...facts, ...(isPrivate ? { private: true as const } : {}) },
    }));
  });
}

/** Messages of a folder by the ids under which they are seen there, each of them or none: those that are there, or those that were removed. */
function findAll(
  ctx: Context,
  reader: Reader,
  { list }: OnFolder,
  ids: readonly string[],
  removed: boolean,
): readonly SeenMessage[] | Refusal {
  const found = seenByIds(ctx, reader, ids, list.id).filter(({ m }) =>
    removed ? (m.removedAt ?? 0) > ctx.now - BACK_FOR : m.removedAt === null,
  );
  return found.length === new Set(ids).size ? found : refuse('notFound');
}

/** Takes away for good what was removed thirty days ago; others have their turn between. */
export async function clearMessages(db: Connection, now: number, turn: () => Promise<void>): Promise<void> {
  while (db.write(() => forgetMessages(db, now - BACK_FOR, 200)) === 200) await turn();
}
