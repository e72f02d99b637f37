import { z } from 'zod';
import {
  CARD_VERSIONS,
  type ContactFieldSeenAt,
  contactFields,
  contactSights,
  newContactFields,
  sentContactFields,
} from '@/core/contacts/index.ts';
import { authorship, broughtIn, list, listName, listsAnswerOf } from './lists.ts';
import { at, type Routes } from './route.ts';

const sent = {
  ...sentContactFields,
  createdBy: z.strictObject({ name: z.string().nullable(), address: z.string() }).nullable(),
};
type Sent = typeof sent;
const sentAt = <S extends 'title' | 'outline' | 'full'>(sight: S) =>
  Object.fromEntries(Object.entries(sent).filter(([name]) => contactSights[name as keyof Sent] === sight)) as {
    [K in ContactFieldSeenAt<S>]: Sent[K];
  };
const title = { id: z.string(), book: z.string(), ...sentAt('title') };
const outline = { ...title, ...sentAt('outline') };
const full = {
  ...outline,
  ...sentAt('full'),
  version: z.number(),
  may: z.strictObject({ change: z.boolean(), remove: z.boolean() }),
  /** Who of the house has one of the addresses. */
  inside: z.strictObject({ handle: z.string(), name: z.string() }).nullable(),
  /** Whether there is a picture of them, at its own address. */
  picture: z.boolean(),
  created: authorship,
  changed: authorship,
};
const removal = { mayRemove: z.literal(true).optional() };

/** A contact as one viewer gets it. Strict: a key that the sight doesn't have fails. */
const contactUnion = z.union([
  z.strictObject({ ...title, ...removal }),
  z.strictObject({ ...outline, ...removal }),
  z.strictObject(full),
]);
/** The same, read without knowing how it is seen. */
const anyContact = z.strictObject({
  ...title,
  ...removal,
  ...z.strictObject(full).partial().omit({ id: true, book: true, name: true }).shape,
});
export type ContactWire = z.infer<typeof anyContact>;
export const contactWire = contactUnion as unknown as z.ZodType<ContactWire>;

/** An address book, with what one may do in it. An empty name is the one everybody begins with. */
const book = list({
  /** How many contacts one is shown; `null` where there are more than are counted. */
  count: z.number().nullable(),
});
export type AddressBookWire = z.infer<typeof book>;
const booksAnswer = listsAnswerOf(book);
export type AddressBooksAnswer = z.infer<typeof booksAnswer>;

const contactsQuery = z.strictObject({
  /** Only those whose texts, as one sees them, hold these words. */
  words: z.string().max(200, 'tooLong:200').optional(),
  /** Go on behind this one. */
  after: z.string().max(64).optional(),
});
const contactsAnswer = z.strictObject({
  list: book,
  contacts: z.array(contactWire),
  /** Behind which to go on; `null`: these are all. */
  more: z.string().nullable(),
  /** More hold the words than are answered. */
  cut: z.boolean(),
});
export interface ContactsAnswer {
  readonly list: AddressBookWire;
  readonly contacts: readonly ContactWire[];
  readonly more: string | null;
  readonly cut: boolean;
}

const newContact = z.strictObject(newContactFields);
export type NewContact = z.infer<typeof newContact>;

/** The touched fields and the version seen. */
const contactPatch = z.strictObject({
  version: z.number().int(),
  fields: z.strictObject(contactFields).partial(),
});
export type ContactPatch = z.infer<typeof contactPatch>;

const written = z.strictObject({ contact: contactWire.nullable(), undo: z.string() });
export interface ContactWrittenAnswer {
  readonly contact: ContactWire | null;
  readonly undo: string;
}

const alike = z.strictObject({
  /** Groups of contacts that are likely one and the same. */
  groups: z.array(z.array(contactWire)),
  /** There are more groups than are answered, or more contacts than were looked at. */
  cut: z.boolean(),
});
export interface AlikeAnswer {
  readonly groups: readonly (readonly ContactWire[])[];
  readonly cut: boolean;
}

const around = z.strictObject({
  /** Meetings with them that one may see, the nearest to now first. */
  meetings: z.array(
    z.strictObject({
      item: z.string(),
      title: z.string().nullable(),
      start: z.string(),
      end: z.string(),
      allDay: z.boolean(),
      owner: z.strictObject({ handle: z.string(), name: z.string() }),
      calendar: z.string(),
      main: z.boolean(),
    }),
  ),
  /** When one last met: the latest day of those that are over. */
  lastMet: z.string().nullable(),
  /** Mail with them that one may read in the folders of `owner`, the latest first. */
  messages: z.array(
    z.strictObject({
      message: z.string(),
      owner: z.string(),
      subject: z.string(),
      at: z.string(),
      incoming: z.boolean(),
    }),
  ),
  cut: z.boolean(),
});
export type ContactAroundAnswer = z.infer<typeof around>;

const known = z.strictObject({
  contacts: z.array(z.strictObject({ name: z.string(), organisation: z.string().nullable(), address: z.string() })),
  /** There are more. */
  cut: z.boolean(),
});
export type ContactsKnown = z.infer<typeof known>;

/** People outside, and notes on people inside: one's own, and those of whoever shares theirs. */
export const contactRoutes = {
  listAddressBooks: {
    ...at('listAddressBooks'),
    who: 'person',
    summary: 'Somebody’s address books that one sees',
    answer: booksAnswer,
  },
  addAddressBook: {
    ...at('addAddressBook'),
    who: 'person',
    summary: 'Begin a further address book of one’s own',
    body: listName,
    answer: z.strictObject({ list: z.string() }),
  },
  findContacts: {
    ...at('findContacts'),
    who: 'person',
    summary: 'Addresses of contacts whose texts hold some words, in every address book of which one sees all',
    query: z.strictObject({ words: z.string().max(200, 'tooLong:200') }),
    answer: known,
  },
  listContacts: {
    ...at('listContacts'),
    who: 'person',
    summary: 'The contacts of an address book, as one sees them, by name',
    query: contactsQuery,
    answer: contactsAnswer,
  },
  listAlikeContacts: {
    ...at('listAlikeContacts'),
    who: 'person',
    summary: 'Contacts of an address book that are likely one and the same',
    answer: alike,
  },
  addContact: {
    ...at('addContact'),
    who: 'person',
    summary: 'Add a contact in the owner’s name',
    body: newContact,
    answer: written,
  },
  readContact: {
    ...at('readContact'),
    who: 'person',
    summary: 'One contact that one sees in full',
    answer: contactWire,
  },
  changeContact: {
    ...at('changeContact'),
    who: 'person',
    summary: 'Change the touched fields of a contact',
    body: contactPatch,
    answer: written,
  },
  readContactPicture: {
    ...at('readContactPicture'),
    who: 'person',
    summary: 'The picture of a contact that one sees in full',
    rawAnswer: 'image/jpeg',
  },
  setContactPicture: {
    ...at('setContactPicture'),
    who: 'person',
    summary: 'Give a contact a picture: the body is its bytes (JPEG, PNG, GIF or WebP), at most 150 KB',
    query: z.strictObject({ version: z.coerce.number().int() }),
    rawBody: 'application/octet-stream',
    answer: written,
  },
  removeContactPicture: {
    ...at('removeContactPicture'),
    who: 'person',
    summary: 'Take a contact’s picture away',
    query: z.strictObject({ version: z.coerce.number().int() }),
    answer: written,
  },
  removeContact: {
    ...at('removeContact'),
    who: 'person',
    summary: 'Remove a contact',
    query: z.strictObject({ version: z.coerce.number().int().optional() }),
    answer: written,
  },
  copyContact: {
    ...at('copyContact'),
    who: 'person',
    summary: 'Copy a contact that one sees in full into an address book one may add to',
    body: z.strictObject({ book: z.string().max(64) }),
    answer: written,
  },
  mergeContacts: {
    ...at('mergeContacts'),
    who: 'person',
    summary: 'Make one contact of several of one address book; the first stays',
    body: z.strictObject({
      contacts: z
        .array(z.strictObject({ id: z.string().max(64), version: z.number().int() }))
        .min(2, 'mergeTwo')
        .max(20, 'tooMany:20'),
    }),
    answer: written,
  },
  listAroundContact: {
    ...at('listAroundContact'),
    who: 'person',
    summary: 'Meetings and messages with a contact that one may see, and when one last met',
    answer: around,
  },
  exportContacts: {
    ...at('exportContacts'),
    who: 'person',
    summary: 'An address book as a file of cards (vCard), for whoever may have all of it',
    query: z.strictObject({ version: z.enum(CARD_VERSIONS).optional() }),
    rawAnswer: 'text/vcard',
  },
  importContacts: {
    ...at('importContacts'),
    who: 'person',
    summary: 'Bring the cards of a file into an address book',
    rawBody: 'text/vcard',
    answer: broughtIn,
  },
} as const satisfies Routes;
