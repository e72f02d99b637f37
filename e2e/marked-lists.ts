import { expect } from 'vitest';
import type { Caller } from './caller.ts';
import { rights } from './exits.ts';

/*
 * A list of tasks and an address book in which every text carries a marker, and what of it each kind of viewer may meet.
 */

/** What each thing that is marked is called after: who may see it. */
export const ITEMS = ['follow', 'open', 'outline', 'private'] as const;
export type ItemName = (typeof ITEMS)[number];

/** What of her tasks each meets, by the table of docs/access.md: hers whole; to whom it was given in full, and at title; nobody else. */
export const TASK_FIELDS = ['title', 'notes', 'link', 'category'] as const;
export const taskMark = (item: ItemName, field: (typeof TASK_FIELDS)[number]) => `zqtask${item}${field}qz`;
export const MAY_TASKS: Record<string, Record<ItemName, readonly (typeof TASK_FIELDS)[number][]>> = {
  ines: { follow: TASK_FIELDS, open: TASK_FIELDS, outline: TASK_FIELDS, private: TASK_FIELDS },
  tomas: { follow: TASK_FIELDS, open: TASK_FIELDS, outline: ['title'], private: [] },
  bruno: { follow: ['title'], open: TASK_FIELDS, outline: ['title'], private: [] },
};
/** An address book of hers, and whom it holds: given to Tomas in full, to Pim in outline and to Bruno by name. */
const CONTACT_OUTLINE = ['name', 'role', 'organisation', 'place'] as const;
export const CONTACT_FIELDS = [...CONTACT_OUTLINE, 'address', 'phone', 'link', 'notes', 'category', 'picture'] as const;
export const contactMark = (item: ItemName, field: (typeof CONTACT_FIELDS)[number]) => `zqcont${item}${field}qz`;
/** Whether an answer holds a field of a contact: a picture as it is, or as a card writes it (base64, folded). */
export function holdsContact(said: string, item: ItemName, field: (typeof CONTACT_FIELDS)[number]): boolean {
  const mark = contactMark(item, field);
  if (said.includes(mark)) return true;
  if (field !== 'picture') return false;
  const written = Buffer.from(pictureOf(item)).toString('base64').slice(0, -4);
  return said.replace(/(?:&#13;|\r)?\n[ \t]/g, '').includes(written);
}
/** A picture of a contact: what begins as one. */
const pictureOf = (item: ItemName) => `GIF89a${contactMark(item, 'picture')}`;
export const MAY_CONTACTS: Record<string, Record<ItemName, readonly (typeof CONTACT_FIELDS)[number][]>> = {
  ines: { follow: CONTACT_FIELDS, open: CONTACT_FIELDS, outline: CONTACT_FIELDS, private: CONTACT_FIELDS },
  tomas: { follow: CONTACT_FIELDS, open: CONTACT_FIELDS, outline: CONTACT_OUTLINE, private: [] },
  pim: { follow: CONTACT_OUTLINE, open: CONTACT_FIELDS, outline: CONTACT_OUTLINE, private: [] },
  bruno: { follow: ['name'], open: CONTACT_FIELDS, outline: ['name'], private: [] },
};
export const NOTHING_LISTED = { follow: [], open: [], outline: [], private: [] };

/** Mails of hers in a folder, each marked: given to Tomas in full, to Pim in outline and to Bruno by title. */
const MAIL_TITLE = ['from', 'subject'] as const;
const MAIL_OUTLINE = [...MAIL_TITLE, 'line'] as const;
export const MAIL_FIELDS = [...MAIL_OUTLINE, 'text', 'file', 'bytes'] as const;
type MailField = (typeof MAIL_FIELDS)[number];
const MAILS = ['follow', 'private'] as const;
export const mailMark = (item: ItemName, field: MailField) => `zqmess${item}${field}qz`;
export const MAY_MAILS: Record<string, Record<ItemName, readonly MailField[]>> = {
  ines: { ...NOTHING_LISTED, follow: MAIL_FIELDS, private: MAIL_FIELDS },
  tomas: { ...NOTHING_LISTED, follow: MAIL_FIELDS },
  pim: { ...NOTHING_LISTED, follow: MAIL_OUTLINE },
  bruno: { ...NOTHING_LISTED, follow: MAIL_TITLE },
};

/** A marked list: its key, and those of what it holds. */
interface Marked {
  readonly key: string;
  readonly keys: readonly string[];
}

async function give(ines: Caller, list: string, to: readonly (readonly [string, string])[]): Promise<void> {
  for (const [id, sight] of to) {
    const given = { audience: { kind: 'person', id }, rights: { ...rights, sight }, seen: null };
    expect((await ines.send('PUT', `/api/calendars/${list}/grants`, given)).status).toBe(200);
  }
}

/** Tasks of hers, each marked and belonging to the item of its name; given to Tomas in full and to Bruno by title. */
export async function addTasks(ines: Caller, ids: readonly string[]): Promise<Marked> {
  const begun = await ines.send('POST', '/api/people/ines/lists', { name: 'zqlistnameqz' });
  const { list } = JSON.parse(begun.text) as { list: string };
  const keys: string[] = [];
  for (const [i, item] of ITEMS.entries()) {
    const made = await ines.send('POST', `/api/lists/${list}/tasks`, {
      title: taskMark(item, 'title'),
      notes: taskMark(item, 'notes'),
      link: `https://${taskMark(item, 'link')}.example/`,
      categories: [taskMark(item, 'category')],
      visibility: item,
      tie: { item: ids[i], as: 'prepare', days: 1 },
    });
    expect(made.status).toBe(200);
    keys.push(JSON.parse(made.text).task.id);
  }
  await give(ines, list, [
    ['tomas', 'full'],
    ['bruno', 'title'],
  ]);
  return { key: list, keys };
}

/** Mails of hers as they come in, in a folder of their own, one of them private. */
export async function addMails(ines: Caller, deliver: (raw: string) => Promise<unknown>): Promise<Marked> {
  const begun = await ines.send('POST', '/api/people/ines/folders', { name: 'zqfoldnameqz', parent: null });
  const { list: folder } = JSON.parse(begun.text) as { list: string };
  const rules = [{ sender: 'zqmess', words: null, meeting: false, folder }];
  expect((await ines.send('PUT', '/api/people/ines/mail-rules', { rules })).status).toBe(200);
  for (const item of MAILS) {
    const of = (field: MailField) => mailMark(item, field);
    await deliver(
      [
        `From: ${of('from')} <zqmess@river.example>`,
        'To: i.varga@cloudmoor.example',
        `Subject: ${of('subject')}`,
        `Message-ID: <${item}-mail@river.example>`,
        'MIME-Version: 1.0',
        'Content-Type: multipart/mixed; boundary=b',
        '',
        '--b',
        'Content-Type: text/plain; charset=utf-8',
        '',
        of('line'),
        of('text'),
        '--b',
        `Content-Type: text/plain; name="${of('file')}.txt"`,
        `Content-Disposition: attachment; filename="${of('file')}.txt"`,
        '',
        of('bytes'),
        '--b--',
        '',
      ].join('\r\n'),
    );
  }
  type Listed = { threads: { messages: { key: string; subject: string }[] }[] };
  const { threads } = await ines.json<Listed>(`/api/people/ines/messages?folder=${folder}`);
  const all = threads.flatMap(({ messages }) => messages);
  const keys = MAILS.map((item) => all.find(({ subject }) => subject === mailMark(item, 'subject'))?.key ?? '');
  expect(keys.every(Boolean)).toBe(true);
  const hidden = await ines.send('POST', `/api/folders/${folder}/messages`, { messages: [keys[1]], private: true });
  expect(hidden.status).toBe(200);
  await give(ines, folder, [
    ['tomas', 'full'],
    ['pim', 'outline'],
    ['bruno', 'title'],
  ]);
  return { key: folder, keys };
}

/** Contacts of hers, each marked. */
export async function addContacts(ines: Caller): Promise<Marked> {
  const begun = await ines.send('POST', '/api/people/ines/books', { name: 'zqbooknameqz' });
  const { list: book } = JSON.parse(begun.text) as { list: string };
  const keys: string[] = [];
  for (const item of ITEMS) {
    const made = await ines.send('POST', `/api/books/${book}/contacts`, {
      ...Object.fromEntries([...CONTACT_OUTLINE, 'notes' as const].map((field) => [field, contactMark(item, field)])),
      addresses: [{ value: `${contactMark(item, 'address')}@x.example`, as: 'work' }],
      phones: [{ value: contactMark(item, 'phone'), as: '' }],
      link: `https://${contactMark(item, 'link')}.example/`,
      categories: [contactMark(item, 'category')],
      visibility: item,
    });
    expect(made.status).toBe(200);
    const { id } = JSON.parse(made.text).contact as { id: string };
    const picture = await ines.send('PUT', `/api/contacts/${id}/picture?version=1`, pictureOf(item));
    expect(picture.status).toBe(200);
    keys.push(id);
  }
  await give(ines, book, [
    ['tomas', 'full'],
    ['pim', 'outline'],
    ['bruno', 'title'],
  ]);
  return { key: book, keys };
}
