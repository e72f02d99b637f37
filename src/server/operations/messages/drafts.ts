import type { DraftBody, ThreadAnswer } from '@/contract/messages.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { folderOf } from '../../repositories/lists.ts';
import type { StoredMessage } from '../../repositories/message-row.ts';
import { countShownIn, messageByKey } from '../../repositories/messages.ts';
import { personByAddress } from '../../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { addMessage, type Context, decideOnList, isRefusal, viewOfMessage, writeMessages } from '../deciding/index.ts';
import { findReader, mayReadMessage, type OnFolder, type Reader } from './readers.ts';

/** Mails of one person that are being written. */
const MOST_DRAFTS = 500;

/** A draft as it was typed so far: its addresses are one text, since nothing of them has to be right yet. */
export const draftOf = (db: Connection, m: StoredMessage): NonNullable<ThreadAnswer['draft']> => ({
  key: m.key,
  version: m.version,
  owner: {
    handle: personByAddress(db, m.fromAddress)?.handle ?? '',
    name: m.fromName ?? '',
    address: m.fromAddress,
  },
  to: m.recipients.map(({ address }) => address).join(', '),
  subject: m.subject,
  text: m.body,
  answers: m.facts.answers ?? null,
});

/**
 * Where what somebody writes in a person's name is kept meanwhile: in that person's Drafts where they may add to it, so that whoever acts for them
 * can go on with it; else in their own.
 */
function draftsFor(ctx: Context, { owner }: Reader): OnFolder {
  const theirs = decideOnList(ctx, folderOf(ctx.db, owner.id, 'drafts'));
  const { add, sight } = theirs.decision.rights;
  return add && sight === 'full' ? theirs : decideOnList(ctx, folderOf(ctx.db, ctx.viewer.id, 'drafts'));
}

/**
 * Keeps a mail as it was typed so far, in whoever's Drafts it belongs. One that was changed elsewhere meanwhile is refused, so that nobody's words
 * take the place of another's.
 */
export function saveDraft(
  ctx: Context,
  handle: string,
  body: DraftBody,
): Result<{ draft: string; version: number; folder: string }> {
  return ctx.db.write(() => {
    const reader = findReader(ctx, handle);
    if (isRefusal(reader)) return reader;
    const { owner } = reader;
    if (!reader.speaks) return refuse('mayNotSpeak', { facts: { name: owner.name } });
    const answered = body.answers === null ? null : messageByKey(ctx.db, body.answers);
    if (body.answers !== null && (!answered || !mayReadMessage(ctx, reader, answered))) return refuse('notFound');
    const typed = {
      recipients: [{ address: body.to, name: null }],
      subject: body.subject,
      body: body.text,
      facts: {
        ...(body.answers === null ? {} : { answers: body.answers }),
        // What answers something private is as private while it is written.
        ...(answered?.facts.private ? { private: true as const } : {}),
      },
    };
    if (body.draft !== null) {
      const found = findDraftOf(ctx, reader, body.draft);
      if (isRefusal(found)) return found;
      const { draft, on } = found;
      if (draft.version !== body.version) return refuse('changedMeanwhile', { data: draftOf(ctx.db, draft) });
      const after = { ...draft, ...typed, at: ctx.now, version: draft.version + 1 };
      writeMessages(ctx, on.list, null, [{ before: draft, after }]);
      return ok({ draft: draft.key, version: after.version, folder: on.list.key });
    }
    const on = draftsFor(ctx, reader);
    if (countShownIn(ctx.db, on.list.id, { privateToo: true, own: null }, MOST_DRAFTS) >= MOST_DRAFTS)
      return refuse('listFull', { facts: { most: MOST_DRAFTS } });
    const by = ctx.viewer.id === owner.id ? null : ctx.viewer;
    const draft = addMessage(ctx.db, {
      ...typed,
      collectionId: on.list.id,
      at: ctx.now,
      thread: `draft ${newKey()}`,
      kind: 'mail',
      meetingId: null,
      fromAddress: owner.address,
      fromName: owner.name,
      byAddress: by?.address ?? null,
      byName: by?.name ?? null,
      messageId: null,
      inReplyTo: null,
      refs: [],
      actorId: ctx.viewer.id,
    });
    return ok({ draft: draft.key, version: draft.version, folder: on.list.key });
  });
}

/** A draft written in a person's name, in their Drafts or in one's own, that the viewer may go on with. */
export function findDraftOf(
  ctx: Context,
  reader: Reader,
  key: string,
): { draft: StoredMessage; on: OnFolder } | Refusal {
  const draft = messageByKey(ctx.db, key);
  if (!draft || draft.removedAt !== null || draft.fromAddress !== reader.owner.address) return refuse('notFound');
  const own = decideOnList(ctx, folderOf(ctx.db, ctx.viewer.id, 'drafts'));
  const on = draft.collectionId === own.list.id ? own : reader.folders.get(draft.collectionId);
  if (on?.list.role !== 'drafts') return refuse('notFound');
  const view = viewOfMessage(ctx, on.decision, draft);
  if (view?.sight !== 'full') return refuse('notFound');
  if (!view.may.change) return refuse('mayNotChange', { facts: { name: reader.owner.name } });
  return { draft, on };
}
