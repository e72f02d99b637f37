import type { SearchAnswer } from '@/contract/search.ts';
import { instantText } from '@/core/time/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import { mailHolding, type StoredMessage } from '../../repositories/messages.ts';
import {
  type Context,
  Directory,
  decideOnList,
  listReaderFor,
  type MessageView,
  viewOfMessage,
} from '../deciding/index.ts';
import { sharedWith } from '../lists/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { allWordsOf } from './words.ts';

/** Mails that are answered, and folders that are looked through. */
const MOST = 20;
const MOST_FOLDERS = 200;

const TEXTS = { sender: 'title', recipients: 'title', subject: 'title', body: 'full' } as const;
const FIELDS = ['sender', 'recipients', 'subject', 'body'] as const;

/** Plain mail whose words, as the one who asks sees it, hold every word that is looked for: in their own folders, and in those they were given. */
export function searchMessages(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'messages' | 'messagesCut'> {
  const folders = [...listsOf(ctx.db, 'folder', ctx.viewer.id), ...sharedWith(ctx, 'folder').slice(0, MOST_FOLDERS)];
  const directory = new Directory(ctx.db);
  const found: SearchAnswer['messages'][number][] = [];
  for (const list of folders) {
    if (found.length > MOST) break;
    const { decision } = decideOnList(ctx, list);
    if (decision.rights.sight === 'nothing') continue;
    const { handle = '', name = '', colour = 0 } = directory.person(list.ownerId) ?? {};
    const reader = listReaderFor(ctx.viewer.id, decision);
    const seen = new Map<string, { readonly m: StoredMessage; readonly view: MessageView }>();
    for (const texts of textsSeenOf(ctx.viewer.id, decision, FIELDS, TEXTS))
      for (const m of mailHolding(ctx.db, list.id, words, texts, reader, MOST + 1)) {
        const view = viewOfMessage(ctx, decision, m);
        if (view && holds(m, view, words)) seen.set(view.id, { m, view });
      }
    for (const { m, view } of seen.values())
      found.push({
        owner: { handle, name, colour: colour % 6 },
        folder: { key: list.key, name: list.name },
        message: {
          id: view.sight === 'full' ? view.id : null,
          from: m.fromName ?? m.fromAddress,
          subject: m.subject,
          at: instantText(m.at),
          firstLine: view.firstLine,
        },
      });
  }
  return { messages: found.slice(0, MOST), messagesCut: found.length > MOST };
}

/** Whether what is seen of a mail holds every word as the beginning of one of its own. */
function holds(m: StoredMessage, view: MessageView, words: readonly string[]): boolean {
  const people = [{ name: m.fromName, address: m.fromAddress }, ...m.recipients];
  const texts = [...people.flatMap(({ name, address }) => [name ?? '', address]), m.subject, view.text ?? ''];
  const own = texts.flatMap(allWordsOf);
  return words.every((word) => own.some((one) => one.startsWith(word)));
}
