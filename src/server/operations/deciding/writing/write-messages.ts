import type { Connection } from '../../../db/index.ts';
import { type Folder, listById } from '../../../repositories/lists.ts';
import { isAboutMeeting, type NewMessage, type StoredMessage } from '../../../repositories/message-row.ts';
import { insertMessage, saveMessage } from '../../../repositories/messages.ts';
import type { Context } from '../context/context.ts';
import { viewOfMessage } from '../reading/message-views.ts';
import { trailOn } from './trail.ts';
import { announceInList } from './write-in-list.ts';

interface Change {
  readonly before: StoredMessage | null;
  readonly after: StoredMessage;
}

/**
 * Tells the open windows of those whose view of a folder differs by what happened to its messages. What is about a meeting is told of to whoever
 * reads meetings by `tellReaders`.
 */
function announceMessages(db: Connection, changes: readonly Change[]): void {
  const folders = new Set(changes.flatMap(({ before, after }) => [before?.collectionId ?? -1, after.collectionId]));
  const inFolder = (m: StoredMessage) => ({ ...m, listId: m.collectionId });
  for (const id of folders) {
    const list = listById(db, 'folder', id);
    if (!list) continue;
    announceInList(
      { db },
      list,
      changes.map(({ before, after }) => ({ before: before && inFolder(before), after: inFolder(after) })),
      (ctx, on) => (m) => {
        // Who sees what is about a meeting depends on that too, and whoever runs the calendar is told by it.
        const view = isAboutMeeting(m) && !on.decision.owner ? null : viewOfMessage(ctx, on.decision, m);
        return view && { ...view, version: m.version, flagged: m.flagged };
      },
    );
  }
}

/** Keeps a message in a folder, and tells whoever sees it there. In the caller's transaction. */
export function addMessage(db: Connection, m: NewMessage): StoredMessage {
  const after = insertMessage(db, m);
  announceMessages(db, [{ before: null, after }]);
  return after;
}

/**
 * Writes messages of one folder as they are to be from now on: their rows, one row of the trail, and what open windows are told. Whether it may be
 * done is the caller's to decide, in the same transaction. The trail keeps which messages they were and no word of them.
 */
export function writeMessages(
  ctx: Pick<Context, 'db' | 'now' | 'viewer'>,
  folder: Folder,
  verb: string | null,
  changes: readonly { readonly before: StoredMessage; readonly after: StoredMessage }[],
  told: { readonly before?: unknown; readonly after?: unknown } = {},
): void {
  if (changes.length === 0) return;
  ctx.db.write(() => {
    for (const { after } of changes) saveMessage(ctx.db, after);
    if (verb !== null)
      trailOn(ctx, folder, changes[0]?.after.key ?? '', verb, told.before ?? null, {
        messages: changes.map(({ after }) => after.key),
        ...(told.after ?? {}),
      });
    announceMessages(ctx.db, changes);
  });
}
