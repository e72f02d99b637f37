import type { RouteName } from '@/contract/routes.ts';
import {
  addContact,
  changeContact,
  copyContact,
  findContacts,
  listAddressBooks,
  listContacts,
  mergeContacts,
  readContact,
  readContactPicture,
  removeContact,
  setContactPicture,
} from '../../operations/contacts/index.ts';
import {
  exportContactsInWorker,
  importContactsInWorker,
  listAlikeContactsInWorker,
  listAroundContactInWorker,
} from '../../operations/in-worker/in-worker.ts';
import { addList } from '../../operations/lists/index.ts';
import { ok, refuse } from '../../result.ts';
import { utf8 } from '../body.ts';
import { cardFile, sandboxed } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const contactsHandlers = {
  listAddressBooks: ({ ctx, params }) => listAddressBooks(ctx, params.person),
  addAddressBook: ({ ctx, params, body }) => addList(ctx, 'contacts', params.person, body),
  findContacts: ({ ctx, query }) => ok(findContacts(ctx, query.words)),
  listContacts: ({ ctx, params, query }) => listContacts(ctx, params.book, query),
  listAlikeContacts: { slow: ({ ctx, params }) => listAlikeContactsInWorker(ctx, params.book) },
  addContact: ({ ctx, params, body }) => addContact(ctx, params.book, body),
  readContact: ({ ctx, params }) => readContact(ctx, params.contact),
  changeContact: ({ ctx, params, body }) => changeContact(ctx, params.contact, body),
  readContactPicture: {
    slow: async ({ ctx, params }) => {
      const picture = readContactPicture(ctx, params.contact);
      return picture.ok ? sandboxed(picture.value) : picture;
    },
  },
  setContactPicture: {
    slow: async ({ ctx, params, query, bytes }) => setContactPicture(ctx, params.contact, query.version, bytes),
  },
  removeContactPicture: ({ ctx, params, query }) => setContactPicture(ctx, params.contact, query.version, null),
  removeContact: ({ ctx, params, query }) => removeContact(ctx, params.contact, query),
  copyContact: ({ ctx, params, body }) => copyContact(ctx, params.contact, body),
  mergeContacts: ({ ctx, params, body }) => mergeContacts(ctx, params.book, body),
  listAroundContact: { slow: ({ ctx, params }) => listAroundContactInWorker(ctx, params.contact) },
  exportContacts: {
    slow: async ({ ctx, params, query }) => {
      const result = await exportContactsInWorker(ctx, params.book, query.version ?? '4.0');
      return result.ok ? cardFile(result.value.name, result.value.text) : result;
    },
  },
  importContacts: {
    slow: async ({ ctx, params, bytes }) => {
      const text = utf8(bytes);
      return text === null ? refuse('wrongEncoding') : importContactsInWorker(ctx, params.book, text);
    },
  },
} satisfies Partial<HandlersOf<RouteName>>;
