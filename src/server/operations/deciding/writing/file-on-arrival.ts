import { fitting } from '@/core/mail/index.ts';
import type { Connection } from '../../../db/index.ts';
import { folderOf, listById } from '../../../repositories/lists.ts';
import { mailRulesOf } from '../../../repositories/mail-rules.ts';
import { isAboutMeeting, type NewMessage } from '../../../repositories/message-row.ts';

/** Where something that arrives for somebody is kept: the folder their first rule that fits names, while it is there; else what arrived. */
export function fileOnArrival(db: Connection, ownerId: number, m: Omit<NewMessage, 'collectionId'>): number {
  const rule = fitting(mailRulesOf(db, ownerId), {
    from: { address: m.fromAddress, name: m.fromName },
    subject: m.subject || (m.facts.title ?? ''),
    text: m.body,
    meeting: isAboutMeeting(m),
  });
  const to = rule && listById(db, 'folder', rule.folderId);
  return to && to.ownerId === ownerId ? to.id : folderOf(db, ownerId, 'arrived').id;
}
