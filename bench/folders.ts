import { NO_RIGHTS } from '../src/core/access/index.ts';
import { listFolders } from '../src/server/operations/messages/folders.ts';
import { listMessages } from '../src/server/operations/messages/list-messages.ts';
import { search } from '../src/server/operations/search/index.ts';
import { searchMessages } from '../src/server/operations/search/search-messages.ts';
import { giveAccess } from '../src/server/operations/sharing/index.ts';
import { START, smallOrganisation } from '../src/server/operations/small-organisation.ts';
import { folderOf } from '../src/server/repositories/lists.ts';
import { insertMessage, mailHolding, messagesIn } from '../src/server/repositories/messages.ts';
import { line, sideBySide } from './measure.ts';

/* A folder of a hundred thousand mails: a page of it, two words in it, and the folders with their counts, against the queries alone. */
const MOST = 100_000;
const ROUNDS = 30;
const org = smallOrganisation();
const ines = org.ctx('ines', START);
const arrived = folderOf(org.db, ines.viewer.id, 'arrived');
const rights = { ...NO_RIGHTS, sight: 'full' as const };
giveAccess(ines, arrived.key, { audience: { kind: 'person', id: 'bruno' }, rights, seen: null });
org.db.write(() => {
  for (let i = 0; i < MOST; i++)
    insertMessage(org.db, {
      collectionId: arrived.id,
      at: START - (MOST - i) * 60_000,
      thread: `mail ${i}`,
      kind: 'mail',
      meetingId: null,
      fromAddress: `p${i % 997}@house-${i % 97}.example`,
      fromName: `${['Marta', 'Bento', 'Nora', 'Ruy'][i % 4]} ${i % 997}`,
      byAddress: null,
      byName: null,
      recipients: [{ address: 'ines@cloudmoor.example', name: 'Ines' }],
      subject: `About the ${['weir', 'lease', 'hide', 'store'][i % 4]} ${i}`,
      body: `What there is to say of it, ${i}.\n\nMore than a line, as mails are, and again, and again.\n`.repeat(4),
      facts: i % 50 === 0 ? { private: true } : {},
      messageId: `<m${i}@house.example>`,
      inReplyTo: null,
      refs: [],
      actorId: null,
    });
});

const reader = { privateToo: false, own: null };
const columns = ['sender', 'recipients', 'subject', 'body'];
for (const handle of ['ines', 'bruno']) {
  const ctx = org.ctx(handle, START);
  const { page, query, alone, find, raw, folders } = sideBySide(ROUNDS, {
    page: () => JSON.stringify(listMessages(ctx, 'ines', { folder: arrived.key })),
    query: () => JSON.stringify(messagesIn(org.db, arrived.id, reader, null, null, 201)),
    alone: () => JSON.stringify(searchMessages(ctx, ['weir', '9984'])),
    find: () => JSON.stringify(search(ctx, { words: 'weir 9984', everywhere: '1' })),
    raw: () => JSON.stringify(mailHolding(org.db, [arrived.id], ['weir', '9984'], { columns }, reader, 21)),
    folders: () => JSON.stringify(listFolders(ctx, handle, {})),
  });
  console.log(line(`${handle}: a page of 50 threads of 100,000 mails; floor: the rows read for it`, page, query));
  console.log(
    line(`${handle}: two words, that kind alone, in 100,000 mails; floor: the rows that hold them`, alone, raw),
  );
  console.log(
    line(`${handle}: two words, with all other kinds, in 100,000 mails; floor: the rows that hold them`, find, raw),
  );
  console.log(line(`${handle}: the folders with their counts; floor: the rows of a page`, folders, query));
}
org.close();
