import type { CardVersion, WrittenContact } from '@/core/contacts/index.ts';
import { pictureIn, type UnmodelledLine } from '@/core/formats/index.ts';
import type { Connection } from '../db/index.ts';
import { boundIn, boundTo, HOLDING, type ListReader, type ListTexts, SHOWN } from './shown.ts';

/** A contact as it is kept, but for the lines of its card: what is written of it, by the table of fields. */
export interface ListedContact extends WrittenContact {
  readonly id: number;
  readonly key: string;
  readonly listId: number;
  readonly uid: string;
  /** It was changed since it was read from a card. */
  readonly touched: boolean;
  /** Whether its card holds a picture, as it was listed; `hasPicture` says it of every contact. */
  readonly picture?: boolean;
  readonly version: number;
  readonly createdBy: number;
  readonly createdFor: number;
  readonly createdAt: number;
  readonly changedBy: number;
  readonly changedFor: number;
  readonly changedAt: number;
  readonly removedAt: number | null;
}

/** The whole of it: with the lines of the card it was read from, and the version they are of. */
export interface StoredContact extends ListedContact {
  readonly cardVersion: CardVersion;
  readonly kept: readonly UnmodelledLine[];
}

type Json = 'addresses' | 'phones' | 'categories';
interface Listed extends Omit<ListedContact, Json | 'touched' | 'picture'>, Record<Json, string> {
  readonly touched: 0 | 1;
  readonly picture: 0 | 1;
}
interface Row extends Listed {
  readonly cardVersion: CardVersion;
  readonly kept: string;
}

/** Columns by the field each holds. */
const COLUMNS = {
  key: 'key',
  listId: 'list_id',
  uid: 'uid',
  name: 'name',
  role: 'role',
  organisation: 'organisation',
  place: 'place',
  addresses: 'addresses',
  phones: 'phones',
  link: 'link',
  notes: 'notes',
  categories: 'categories',
  visibility: 'visibility',
  touched: 'touched',
  picture: 'picture',
  version: 'version',
  createdBy: 'created_by',
  createdFor: 'created_for',
  createdAt: 'created_at',
  changedBy: 'changed_by',
  changedFor: 'changed_for',
  changedAt: 'changed_at',
  removedAt: 'removed_at',
} as const satisfies Record<Exclude<keyof Listed, 'id'>, string>;
const ALL = { ...COLUMNS, cardVersion: 'card_version', kept: 'kept' } as const;
const named = (columns: Readonly<Record<string, string>>) =>
  Object.entries(columns)
    .map(([name, column]) => `${column} AS ${name}`)
    .join(', ');
const SELECT = `SELECT id, ${named(COLUMNS)} FROM contact`;
const SELECT_ALL = `SELECT id, ${named(ALL)} FROM contact`;

const list = <T>(text: string): readonly T[] => (text === '[]' ? [] : JSON.parse(text));
const decode = ({ addresses, phones, categories, touched, picture, ...row }: Listed): ListedContact => ({
  ...row,
  addresses: list(addresses),
  phones: list(phones),
  categories: list(categories),
  touched: touched === 1,
  picture: picture === 1,
});
const decodeAll = ({ cardVersion, kept, ...row }: Row): StoredContact => ({
  ...decode(row),
  cardVersion,
  kept: list(kept),
});

/** Whether a contact's card holds a picture. */
export const hasPicture = (contact: ListedContact | Omit<StoredContact, 'id'>): boolean =>
  'kept' in contact ? pictureIn(contact.kept, contact.cardVersion) !== null : contact.picture === true;

/** A name in the form by which contacts are in order. */
export const nameOrder = (name: string): string => name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

const encode = (contact: Omit<StoredContact, 'id'>) => ({
  ...contact,
  addresses: JSON.stringify(contact.addresses),
  phones: JSON.stringify(contact.phones),
  categories: JSON.stringify(contact.categories),
  kept: JSON.stringify(contact.kept),
  touched: Number(contact.touched),
  picture: Number(hasPicture(contact)),
  nameOrder: nameOrder(contact.name),
});

const NAMES = Object.entries(ALL);
const INSERT = `INSERT INTO contact (name_order, ${NAMES.map(([, column]) => column).join(', ')}) VALUES (@nameOrder, ${NAMES.map(([name]) => `@${name}`).join(', ')})`;
const UPDATE = `UPDATE contact SET name_order = @nameOrder, ${NAMES.map(([name, column]) => `${column} = @${name}`).join(', ')} WHERE id = @id`;

export function insertContact(db: Connection, contact: Omit<StoredContact, 'id'>): StoredContact {
  return { ...contact, id: db.run(INSERT, encode(contact)) };
}

export function updateContact(db: Connection, contact: StoredContact): void {
  db.run(UPDATE, { ...encode(contact), id: contact.id });
}

const one = (row: Row | undefined): StoredContact | null => (row ? decodeAll(row) : null);

export const contactByKey = (db: Connection, key: string): StoredContact | null =>
  one(db.get<Row>(`${SELECT_ALL} WHERE key = ?`, key));

export const contactById = (db: Connection, id: number): StoredContact | null =>
  one(db.get<Row>(`${SELECT_ALL} WHERE id = ?`, id));

/** A contact of a book by what it is called outside. */
export const contactByUid = (db: Connection, listId: number, uid: string): StoredContact | null =>
  one(db.get<Row>(`${SELECT_ALL} WHERE list_id = ? AND uid = ? AND removed_at IS NULL`, listId, uid));

/** Contacts of a book by name, as far as somebody is shown them; at most `most`, after one by its name’s order and its row number. */
export const contactsOf = (
  db: Connection,
  listId: number,
  reader: ListReader,
  after: { readonly order: string; readonly id: number } | null,
  most: number,
): ListedContact[] =>
  db
    .all<Listed>(
      `${SELECT} WHERE list_id = @listId AND removed_at IS NULL AND (name_order, id) > (@order, @id) AND ${SHOWN}
         ORDER BY name_order, id LIMIT @most`,
      { listId, order: after?.order ?? '', id: after?.id ?? 0, most, ...boundTo(reader) },
    )
    .map(decode);

/** Every contact of a book that somebody is shown, with its card, in the order they were made: at most `most`. */
export const allContactsOf = (db: Connection, listId: number, reader: ListReader, most: number): StoredContact[] =>
  db
    .all<Row>(`${SELECT_ALL} WHERE list_id = @listId AND removed_at IS NULL AND ${SHOWN} ORDER BY id LIMIT @most`, {
      listId,
      most,
      ...boundTo(reader),
    })
    .map(decodeAll);

/** How many contacts of a book somebody is shown; counted up to `most`. */
export const countShownContacts = (db: Connection, listId: number, reader: ListReader, most: number): number =>
  db.get<{ n: number }>(
    `SELECT count(*) AS n FROM (SELECT 1 FROM contact WHERE list_id = @listId AND removed_at IS NULL AND ${SHOWN} LIMIT @most)`,
    { listId, most, ...boundTo(reader) },
  )?.n ?? 0;

/** How many contacts a book has, and how many bytes the lines of their cards. */
export const weighBook = (db: Connection, listId: number): { readonly contacts: number; readonly bytes: number } =>
  db.get<{ contacts: number; bytes: number }>(
    `SELECT count(*) AS contacts, ifnull(sum(octet_length(kept)), 0) AS bytes FROM contact
       WHERE list_id = ? AND removed_at IS NULL`,
    listId,
  ) ?? { contacts: 0, bytes: 0 };

/** Contacts somebody made in a book, which they may remove at whatever sight they have of them; the latest first, at most `most`. */
export const contactsMadeBy = (db: Connection, listId: number, personId: number, most: number): ListedContact[] =>
  db
    .all<Listed>(
      `${SELECT} WHERE list_id = ? AND created_by = ? AND removed_at IS NULL ORDER BY id DESC LIMIT ?`,
      listId,
      personId,
      most,
    )
    .map(decode);

/** Contacts of a book whose texts hold all of some words, by name: at most `most`. */
export const contactsHolding = (
  db: Connection,
  listIds: readonly number[],
  words: readonly string[],
  texts: ListTexts,
  reader: ListReader,
  most: number,
): ListedContact[] =>
  db
    .all<Listed>(
      `${SELECT} WHERE id IN (SELECT rowid FROM contact_text WHERE contact_text MATCH @match) AND removed_at IS NULL
         AND ${SHOWN} AND ${HOLDING} ORDER BY name_order, id LIMIT @most`,
      { ...boundIn(listIds, words, texts), most, ...boundTo(reader) },
    )
    .map(decode);

/** Contacts of some books with a mail address, whoever may be shown them: at most `most`. */
export const contactsAt = (
  db: Connection,
  listIds: readonly number[],
  address: string,
  most: number,
): ListedContact[] =>
  db
    .all<Listed>(
      `${SELECT} WHERE id IN (SELECT contact_id FROM contact_address WHERE address = ?)
         AND list_id IN (SELECT value FROM json_each(?)) AND removed_at IS NULL ORDER BY id LIMIT ?`,
      address,
      JSON.stringify(listIds),
      most,
    )
    .map(decode);
