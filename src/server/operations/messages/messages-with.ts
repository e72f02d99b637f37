import { instantText } from '@/core/time/index.ts';
import { findFolder, folderIdsOf } from '../../repositories/lists.ts';
import { messagesWith } from '../../repositories/messages.ts';
import type { Person } from '../../repositories/people.ts';
import { type Context, isRefusal } from '../deciding/index.ts';
import { findReader, mayReadMessage } from './readers.ts';

/** Messages that are looked through for somebody, and those that are answered. */
const LOOKED_THROUGH = 2000;
const MOST_WITH = 8;

/** Messages of a person with whoever has one of some addresses, as far as the viewer may read that one’s at all: the latest first. */
export function messagesWithAny(
  ctx: Context,
  owner: Person,
  addresses: readonly string[],
): readonly { message: string; owner: string; subject: string; at: string; incoming: boolean }[] {
  const reader = findReader(ctx, owner.handle);
  if (isRefusal(reader)) return [];
  // What is still being written was said to nobody yet.
  const drafts = findFolder(ctx.db, owner.id, 'drafts')?.id;
  const folders = folderIdsOf(ctx.db, owner.id).filter((id) => id !== drafts);
  const wanted = new Set(addresses);
  return messagesWith(ctx.db, folders, addresses, LOOKED_THROUGH, MOST_WITH)
    .filter((message) => mayReadMessage(ctx, reader, message))
    .map(({ key, subject, at, fromAddress }) => ({
      message: key,
      owner: owner.handle,
      subject,
      at: instantText(at),
      incoming: wanted.has(fromAddress.toLowerCase()),
    }));
}
