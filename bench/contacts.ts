import { contactRoutes } from '../src/contract/contacts.ts';
import { freshContact } from '../src/server/operations/contacts/change-contact.ts';
import { findContacts, listAlikeContacts, listContacts } from '../src/server/operations/contacts/index.ts';
import { decideOnList } from '../src/server/operations/deciding/index.ts';
import { START, smallOrganisation } from '../src/server/operations/small-organisation.ts';
import { contactsHolding, contactsOf, insertContact } from '../src/server/repositories/contacts.ts';
import { listsOf } from '../src/server/repositories/lists.ts';
import { line, sideBySide } from './measure.ts';

/* An address book of twenty thousand: a page of it, whom one knows by two words, and its doubles, against the queries alone. */
const MOST = 20_000;
const ROUNDS = 20;
const org = smallOrganisation();
const ctx = org.ctx('ines', START);
const list = listsOf(org.db, 'contacts', ctx.viewer.id)[0];
if (!list) throw new Error('no book');
const on = decideOnList(ctx, list);
org.db.write(() => {
  for (let i = 0; i < MOST; i++)
    insertContact(
      org.db,
      freshContact(
        ctx,
        on,
        contactRoutes.addContact.body.parse({
          name: `${['Marta', 'Bento', 'Nora', 'Ruy'][i % 4]} ${i}`,
          organisation: `House ${i % 97}`,
          addresses: [{ value: `p${i}@house-${i % 97}.example`, as: 'work' }],
          phones: [{ value: `+351 900 ${String(i).padStart(6, '0')}`, as: 'mobile' }],
          notes: `What there is to say of them, ${i}: more than a line, as notes are.`,
        }),
      ),
    );
});

const reader = { privateToo: true, own: ctx.viewer.id };
const columns = ['name', 'organisation', 'addresses', 'notes'];
const { page, query, find, raw, alike, rows } = sideBySide(ROUNDS, {
  page: () => JSON.stringify(listContacts(ctx, list.key, {})),
  query: () => JSON.stringify(contactsOf(org.db, list.id, reader, null, 251)),
  find: () => JSON.stringify(findContacts(ctx, 'nora 11')),
  raw: () => JSON.stringify(contactsHolding(org.db, [list.id], ['nora', '11'], { columns }, reader, 20)),
  alike: () => JSON.stringify(listAlikeContacts(ctx, list.key)),
  rows: () => JSON.stringify(contactsOf(org.db, list.id, reader, null, MOST)),
});
console.log(line('a page of 250 contacts of 20,000; floor: the rows', page, query));
console.log(line('two words in 20,000 contacts; floor: the rows that hold them', find, raw));
console.log(line('doubles among 20,000 contacts (on another thread); floor: the rows', alike, rows));
org.close();
