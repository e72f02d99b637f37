import type { SearchAnswer } from '@/contract/search.ts';
import { instantText } from '@/core/time/index.ts';
import type { StoredMessage } from '../../repositories/message-row.ts';
import { mailHolding } from '../../repositories/messages.ts';
import { type Context, listReaderFor, type MessageView, viewOfMessage } from '../deciding/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { inList, type SeenList, throughLists } from './through-lists.ts';
import { allWordsOf } from './words.ts';

const TEXTS = { sender: 'title', recipients: 'title', subject: 'title', body: 'full' } as const;
const FIELDS = ['sender', 'recipients', 'subject', 'body'] as const;

type Found = Omit<SearchAnswer['messages'][number], 'owner'>;

/** Plain mail whose words, as the viewer sees it, hold every word that is looked for: in their own folders, and in those they were given. */
export function searchMessages(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'messages' | 'messagesCut'> {
  const { found, cut } = throughLists(ctx, 'folder', (alike, most) => {
    const [{ decision }] = alike;
    const folders = alike.map(({ list }) => list.id);
    const reader = listReaderFor(ctx.viewer.id, decision);
    const seen = new Map<string, readonly [SeenList<'folder'>, Found]>();
    for (const texts of textsSeenOf(ctx.viewer.id, decision, FIELDS, TEXTS))
      for (const m of mailHolding(ctx.db, folders, words, texts, reader, most)) {
        const view = viewOfMessage(ctx, decision, m);
        if (!view || !holds(m, view, words)) continue;
        const on = inList(alike, m.collectionId);
        const message = {
          id: view.sight === 'full' ? view.id : null,
          from: m.fromName ?? m.fromAddress,
          subject: m.subject,
          at: instantText(m.at),
          firstLine: view.firstLine,
        };
        seen.set(view.id, [on, { folder: { key: on.list.key, name: on.list.name }, message }]);
      }
    return [...seen.values()];
  });
  return { messages: found, messagesCut: cut };
}

/** Whether what is seen of a mail holds every word as the beginning of one of its own. */
function holds(m: StoredMessage, view: MessageView, words: readonly string[]): boolean {
  const people = [{ name: m.fromName, address: m.fromAddress }, ...m.recipients];
  const texts = [...people.flatMap(({ name, address }) => [name ?? '', address]), m.subject, view.text ?? ''];
  const own = texts.flatMap(allWordsOf);
  return words.every((word) => own.some((one) => one.startsWith(word)));
}
