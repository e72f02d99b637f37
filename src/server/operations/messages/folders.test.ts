import { createHash } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { type ChangeMessagesBody, messageRoutes } from '@/contract/messages.ts';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { type FolderRole, folderOf } from '../../repositories/lists.ts';
import { saveFacts } from '../../repositories/messages.ts';
import type { Result } from '../../result.ts';
import { search } from '../search/index.ts';
import { listEverything } from '../sharing/everything.ts';
import { giveAccess } from '../sharing/index.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { listTrail } from '../trail/index.ts';
import { changeMessages, clearMessages } from './change-messages.ts';
import { saveDraft } from './drafts.ts';
import { addFolder, listFolders, moveFolder, removeFolder } from './folders.ts';
import { listMessages, readMessages, readThread } from './list-messages.ts';
import { listMailRules, saveMailRules } from './mail-rules.ts';
import { readMessageFile } from './message-file.ts';
import { takeMail } from './receive-mail.ts';
import { writeMailFor } from './write-mail.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
};
const code = (result: Result<unknown>) => (result.ok ? null : result.code);
const FULL: Rights = { ...NO_RIGHTS, sight: 'full' };
const RUNS: Rights = { ...FULL, add: true, change: 'all', remove: 'all' };
const key = (role: FolderRole, handle = 'ines') => folderOf(org.db, org.person(handle).id, role).key;
const give = (to: string, rights: Rights, folder = key('arrived')) =>
  value(giveAccess(org.ctx('ines'), folder, { audience: { kind: 'person', id: to }, rights, seen: null }));
const address = (handle: string) => org.person(handle).address;
let mails = 0;
const mail = async (subject: string, text = 'Hello', more = '') => {
  mails += 1;
  const raw = [
    'From: Marta Quill <marta@quill.example>',
    `To: ${address('ines')}`,
    `Subject: ${subject}`,
    `Message-ID: <m${mails}@quill.example>`,
    'Date: Mon, 1 Mar 2027 09:00:00 +0000',
    more || 'Content-Type: text/plain; charset=utf-8',
    '',
    text,
  ].join('\r\n');
  await takeMail(org.db, org.ctx('ines').now, Buffer.from(raw), [address('ines')], null);
};
const threads = (by: string, folder = key('arrived'), more: { removed?: 'yes' } = {}) =>
  value(listMessages(org.ctx(by), 'ines', { folder, ...more })).threads;
const messages = (by: string, folder?: string, more: { removed?: 'yes' } = {}) =>
  threads(by, folder, more).flatMap((thread) => thread.messages);
const act = (by: string, folder: string, ids: string[], what: Omit<ChangeMessagesBody, 'messages'>) =>
  changeMessages(org.ctx(by), folder, { messages: ids, ...what });

describe('a folder', () => {
  test('is its owner’s alone to begin with: a calendar, run by somebody, opens none', async () => {
    org.give('ines', 'tomas', PRESETS.delegate);
    await mail('The lease');
    expect(threads('ines')).toMatchObject([{ title: 'The lease', unread: 1 }]);
    expect(value(listMessages(org.ctx('tomas'), 'ines', {})).threads).toEqual([]);
    for (const who of ['tomas', 'bruno', 'amara'])
      expect(code(listMessages(org.ctx(who), 'ines', { folder: key('arrived') }))).toBe('notFound');
    expect(code(listFolders(org.ctx('bruno'), 'ines', {}))).toBe('notFound');
    const { lists } = value(listFolders(org.ctx('ines'), 'ines', {}));
    expect(lists.map(({ name, role, unread }) => [name, role, unread])).toEqual([
      ['Arrived', 'arrived', 1],
      ['Sent', 'sent', 0],
      ['Drafts', 'drafts', 0],
      ['Filed', 'filed', 0],
    ]);
  });

  test.each([
    ['title', null, null],
    ['outline', 'First line', false],
    ['full', 'First line', false],
  ] as const)('at %s shows just that', async (sight, firstLine, attached) => {
    await mail('The lease', 'First line\nand sugar');
    give('bruno', { ...NO_RIGHTS, sight });
    const [seen] = messages('bruno');
    const [own] = messages('ines');
    expect(seen).toMatchObject({ subject: 'The lease', sight, firstLine, attached, from: { name: 'Marta Quill' } });
    expect(seen?.says).toBe(sight === 'full' ? 'First line\nand sugar' : '');
    expect(seen?.key === own?.key).toBe(sight === 'full');
    expect(JSON.stringify(threads('bruno')).includes(own?.key ?? '')).toBe(sight === 'full');
    const reads = (id: string) => code(readThread(org.ctx('bruno'), id));
    expect([reads(own?.key ?? ''), reads(seen?.key ?? '')]).toEqual(
      sight === 'full' ? [null, null] : ['notFound', 'notFound'],
    );
    const found = (words: string) => value(search(org.ctx('bruno'), { words })).messages.length;
    expect([found('lease'), found('marta'), found('sugar')]).toEqual([1, 1, sight === 'full' ? 1 : 0]);
    expect(value(listFolders(org.ctx('bruno'), 'bruno', {})).others).toMatchObject([{ name: 'Arrived', unread: 1 }]);
  });

  test('leaves out what is private, its count and its words too', async () => {
    give('bruno', FULL);
    await mail('The lease');
    await mail('A secret');
    const [secret] = messages('ines');
    const seen = () => [
      threads('bruno').map(({ title }) => title),
      value(listFolders(org.ctx('bruno'), 'bruno', {})).others[0]?.unread,
      value(search(org.ctx('bruno'), { words: 'secret' })).messages.length,
    ];
    expect(seen()).toEqual([['A secret', 'The lease'], 2, 1]);
    expect(code(act('bruno', key('arrived'), [secret?.key ?? ''], { private: true }))).toBe('mayNotChange');
    value(act('ines', key('arrived'), [secret?.key ?? ''], { private: true }));
    expect(seen()).toEqual([['The lease'], 1, 0]);
    expect(code(readThread(org.ctx('bruno'), secret?.key ?? ''))).toBe('notFound');
    give('amara', { ...FULL, private: true });
    expect(threads('amara')).toHaveLength(2);
  });

  test('a message is filed, flagged, removed and brought back within what one was given', async () => {
    await mail('The lease');
    const [lease] = messages('ines');
    const id = [lease?.key ?? ''];
    give('bruno', FULL);
    const refused = (what: Omit<ChangeMessagesBody, 'messages'>) => code(act('bruno', key('arrived'), id, what));
    expect([refused({ flagged: true }), refused({ removed: true }), refused({ to: key('filed') })]).toEqual([
      'mayNotChange',
      'mayNotRemove',
      'badInput',
    ]);
    give('amara', RUNS);
    value(act('amara', key('arrived'), id, { flagged: true }));
    expect(messages('ines')).toMatchObject([{ flagged: true }]);
    // Filing needs a right at both ends.
    expect(code(act('amara', key('arrived'), id, { to: key('filed') }))).toBe('badInput');
    give('amara', FULL, key('filed'));
    expect(code(act('amara', key('arrived'), id, { to: key('filed') }))).toBe('mayNotAdd');
    value(act('ines', key('arrived'), id, { to: key('filed') }));
    expect([messages('ines').length, messages('bruno').length, messages('amara', key('filed')).length]).toEqual([
      0, 0, 1,
    ]);
    value(act('ines', key('filed'), id, { to: key('arrived') }));
    value(act('amara', key('arrived'), id, { removed: true }));
    expect([messages('ines').length, messages('ines', key('arrived'), { removed: 'yes' }).length]).toEqual([0, 1]);
    expect(value(search(org.ctx('ines'), { words: 'lease' })).messages).toEqual([]);
    value(act('amara', key('arrived'), id, { removed: false }));
    expect(messages('ines')).toHaveLength(1);
    const { entries } = value(listTrail(org.ctx('ines'), { of: 'name', kind: 'messages' }));
    expect(entries.map(({ actor, verb, items }) => [actor, verb, items])).toEqual([
      ['Amara', 'message.broughtBack', ['The lease']],
      ['Amara', 'message.removed', ['The lease']],
      ['Ines', 'message.filed', ['The lease']],
      ['Ines', 'message.filed', ['The lease']],
      ['Amara', 'message.flagged', ['The lease']],
    ]);
  });

  test('of several all or none is done; one that isn’t seen is none', async () => {
    await mail('One');
    await mail('Two');
    const ids = messages('ines').map((m) => m.key);
    expect(code(act('ines', key('arrived'), [...ids, 'nobody'], { removed: true }))).toBe('notFound');
    expect(code(act('ines', key('sent'), ids, { removed: true }))).toBe('notFound');
    expect(messages('ines')).toHaveLength(2);
    value(act('ines', key('arrived'), ids, { removed: true }));
    expect(messages('ines')).toHaveLength(0);
  });

  test('what was removed is gone for good after thirty days', async () => {
    await mail('The lease');
    const ids = messages('ines').map((m) => m.key);
    value(act('ines', key('arrived'), ids, { removed: true }));
    await clearMessages(org.db, org.ctx('ines').now + 29 * 86_400_000, async () => {});
    value(act('ines', key('arrived'), ids, { removed: false }));
    value(act('ines', key('arrived'), ids, { removed: true }));
    await clearMessages(org.db, org.ctx('ines').now + 31 * 86_400_000, async () => {});
    expect(code(act('ines', key('arrived'), ids, { removed: false }))).toBe('notFound');
  });

  test('each has read for themselves, and can say that they haven’t', async () => {
    await mail('The lease');
    give('bruno', FULL);
    const ids = messages('ines').map((m) => m.key);
    value(readMessages(org.ctx('bruno'), 'ines', { messages: ids, unread: false }));
    expect([threads('bruno')[0]?.unread, threads('ines')[0]?.unread]).toEqual([0, 1]);
    value(readMessages(org.ctx('bruno'), 'ines', { messages: ids, unread: true }));
    expect(threads('bruno')[0]?.unread).toBe(1);
  });

  test('seen below full is said to be read by the id it is seen under', async () => {
    await mail('The lease');
    give('bruno', { ...NO_RIGHTS, sight: 'title' });
    const ids = messages('bruno').map((m) => m.key);
    value(readMessages(org.ctx('bruno'), 'ines', { messages: [...ids, 'nobody'], unread: false }));
    expect([threads('bruno')[0]?.unread, threads('ines')[0]?.unread]).toEqual([0, 1]);
    // In the one box it leads to its folder, since no address opens it.
    expect(value(search(org.ctx('bruno'), { words: 'lease' })).messages).toMatchObject([{ message: { id: null } }]);
  });

  test('is read a page at a time, each once, and nothing of the number of those that aren’t shown', async () => {
    for (let i = 0; i < 60; i++) await mail(`Mail ${i}`);
    const page = (before?: string) =>
      value(listMessages(org.ctx('ines'), 'ines', { folder: key('arrived'), ...(before ? { before } : {}) }));
    const first = page();
    const second = page(first.more ?? '');
    expect([first.threads.length, second.threads.length, second.more]).toEqual([50, 10, null]);
    expect(new Set([...first.threads, ...second.threads].map(({ key }) => key)).size).toBe(60);
    expect(first.more).toMatch(/^[\w-]{22}$/);
    expect(code(listMessages(org.ctx('ines'), 'ines', { before: '12' }))).toBe('badInput');
  });
});

test('all of a person’s stands on one page, as far as each sees it; how much was given is told to whoever gives it', async () => {
  give('bruno', FULL);
  const all = (by: string) =>
    value(listEverything(org.ctx(by), 'ines')).all.map(({ kind, name, given }) => [kind, name, given]);
  expect(all('bruno')).toEqual([
    ['calendar', 'Ines', null],
    ['folder', 'Arrived', null],
  ]);
  expect(all('ines')).toEqual([
    ['calendar', 'Ines', 0],
    ['tasks', '', 0],
    ['contacts', '', 0],
    ['folder', 'Arrived', 1],
    ['folder', 'Sent', 0],
    ['folder', 'Drafts', 0],
    ['folder', 'Filed', 0],
  ]);
  expect(code(listEverything(org.ctx('bruno'), 'nobody'))).toBe('notFound');
});

describe('folders in folders', () => {
  test('begin with what was given of the one they are made in, and have their own from then on', async () => {
    give('bruno', FULL, key('filed'));
    const water = value(addFolder(org.ctx('ines'), 'ines', { name: 'Water', parent: key('filed') })).list;
    expect(value(listFolders(org.ctx('bruno'), 'bruno', { all: 'yes' })).others.map(({ name }) => name)).toEqual([
      'Filed',
      'Water',
    ]);
    give('amara', FULL, water);
    expect(value(listFolders(org.ctx('amara'), 'amara', {})).others).toMatchObject([{ name: 'Water', parent: null }]);
    expect(code(addFolder(org.ctx('bruno'), 'ines', { name: 'Mine', parent: null }))).toBe('notFound');
    expect(code(addFolder(org.ctx('ines'), 'ines', { name: 'water', parent: null }))).toBe('alreadyThere');
    expect(code(removeFolder(org.ctx('bruno'), water))).toBe('ownerOnly');
  });

  test('never stand in themselves, nor deeper than may be; what holds folders stays', () => {
    let parent: string | null = null;
    const made: string[] = [];
    for (let i = 0; i < 8; i++) {
      parent = value(addFolder(org.ctx('ines'), 'ines', { name: `F${i}`, parent })).list;
      made.push(parent);
    }
    expect(addFolder(org.ctx('ines'), 'ines', { name: 'F8', parent })).toMatchObject({
      fields: { parent: 'deepest:8' },
    });
    const [top = '', second = ''] = made;
    for (const into of made)
      expect(moveFolder(org.ctx('ines'), top, into)).toMatchObject({ fields: { parent: 'folderInItself' } });
    expect(code(moveFolder(org.ctx('ines'), key('arrived'), top))).toBe('mainStays');
    expect(code(removeFolder(org.ctx('ines'), top))).toBe('folderHoldsFolders');
    value(moveFolder(org.ctx('ines'), second, null));
    value(removeFolder(org.ctx('ines'), top));
  });
});

describe('rules', () => {
  test('file what arrives, by sender, words or meeting; the first that fits', async () => {
    const rules = (list: unknown[]) =>
      saveMailRules(org.ctx('ines'), 'ines', messageRoutes.saveMailRules.body.parse({ rules: list }));
    const water = value(addFolder(org.ctx('ines'), 'ines', { name: 'Water', parent: null })).list;
    const rule = { sender: null, words: null, meeting: false, folder: water };
    value(rules([{ ...rule, sender: 'quill.example', words: 'licence' }]));
    await mail('The licence');
    await mail('The lease');
    // What a rule filed is as new as what arrived.
    expect(value(listMessages(org.ctx('ines'), 'ines', {})).threads.map(({ title }) => title)).toEqual([
      'The lease',
      'The licence',
    ]);
    expect([messages('ines').map((m) => m.subject), messages('ines', water).map((m) => m.subject)]).toEqual([
      ['The lease'],
      ['The licence'],
    ]);
    expect(code(rules([{ ...rule, sender: 'x', folder: key('arrived', 'bruno') }]))).toBe('badInput');
    expect(code(rules([{ ...rule, sender: 'x', folder: key('sent') }]))).toBe('badInput');
    expect(messageRoutes.saveMailRules.body.safeParse({ rules: [rule] }).success).toBe(false);
    expect(code(listMailRules(org.ctx('tomas'), 'ines'))).toBe('notFound');
    // A folder that went files nothing.
    value(removeFolder(org.ctx('ines'), water));
    await mail('Another licence');
    expect(messages('ines').map((m) => m.subject)).toEqual(['Another licence', 'The lease']);
    expect(value(listMailRules(org.ctx('ines'), 'ines')).rules).toEqual([]);
  });
});

describe('a draft', () => {
  const typed = { to: 'mar', subject: 'The lea', text: 'Dear', answers: null };

  test('is kept as it is typed, in whoever’s Drafts it belongs, and goes when it is sent', () => {
    const first = value(saveDraft(org.ctx('ines'), 'ines', { draft: null, version: 0, ...typed }));
    const again = { draft: first.draft, version: first.version, ...typed, text: 'Dear Marta' };
    const next = value(saveDraft(org.ctx('ines'), 'ines', again));
    expect(next).toMatchObject({ draft: first.draft, version: 2, folder: key('drafts') });
    expect(saveDraft(org.ctx('ines'), 'ines', again)).toMatchObject({ code: 'changedMeanwhile' });
    expect(value(readThread(org.ctx('ines'), first.draft)).draft).toMatchObject({ to: 'mar', text: 'Dear Marta' });
    const to = [{ address: 'marta@quill.example', name: null }];
    value(
      writeMailFor(org.ctx('ines'), 'ines', { to, subject: 'The lease', text: 'x', answers: null, draft: first.draft }),
    );
    expect([messages('ines', key('drafts')).length, messages('ines', key('sent')).length]).toEqual([0, 1]);
  });

  test('in another’s name is one’s own, or theirs where one was given that folder', () => {
    const save = (by: string) => value(saveDraft(org.ctx(by), 'ines', { draft: null, version: 0, ...typed }));
    org.give('ines', 'tomas', PRESETS.delegate);
    expect(save('tomas').folder).toBe(key('drafts', 'tomas'));
    expect(value(listMessages(org.ctx('ines'), 'ines', { folder: key('drafts') })).threads).toEqual([]);
    // Whosever draft it is, it says in whose name it goes out.
    const [his] = value(listMessages(org.ctx('tomas'), 'tomas', { folder: key('drafts', 'tomas') })).threads;
    const opened = value(readThread(org.ctx('tomas'), his?.messages[0]?.key ?? ''));
    expect(opened.draft?.owner).toMatchObject({ handle: 'ines', name: 'Ines' });
    give('tomas', RUNS, key('drafts'));
    const shared = save('tomas');
    expect(shared.folder).toBe(key('drafts'));
    expect(messages('ines', key('drafts'))).toMatchObject([{ by: { name: 'Tomas' }, from: { name: 'Ines' } }]);
    expect(code(saveDraft(org.ctx('bruno'), 'ines', { draft: shared.draft, version: 1, ...typed }))).toBe('notFound');
    expect(code(saveDraft(org.ctx('amara'), 'ines', { draft: null, version: 0, ...typed }))).toBe('notFound');
  });
});

describe('mail in somebody’s name', () => {
  test('is written by whoever was given a folder to speak from, and answered where it is read', async () => {
    await mail('The lease');
    const [lease] = messages('ines');
    const body = {
      to: [{ address: 'marta@quill.example', name: null }],
      subject: 'Re: The lease',
      text: 'Yes.',
      answers: lease?.key ?? '',
    };
    expect(code(writeMailFor(org.ctx('bruno'), 'ines', body))).toBe('notFound');
    give('bruno', FULL);
    expect(code(writeMailFor(org.ctx('bruno'), 'ines', body))).toBe('mayNotSpeak');
    give('amara', { ...FULL, add: true, speaks: true });
    value(writeMailFor(org.ctx('amara'), 'ines', body));
    const [thread] = value(listMessages(org.ctx('ines'), 'ines', {})).threads;
    expect(thread?.messages.map((m) => [m.from.name, m.by?.name ?? null, m.says])).toEqual([
      ['Marta Quill', null, 'Hello'],
      ['Ines', 'Amara', 'Yes.'],
    ]);
    expect(value(listTrail(org.ctx('ines'), { of: 'name', kind: 'messages' })).entries).toMatchObject([
      { actor: 'Amara', verb: 'message.sent', items: ['Re: The lease'] },
    ]);
    // A message of another folder is none of theirs to answer.
    value(act('ines', key('arrived'), [lease?.key ?? ''], { to: key('filed') }));
    expect(code(writeMailFor(org.ctx('amara'), 'ines', body))).toBe('notFound');
  });
});

describe('what comes with a mail', () => {
  const ATTACHED = [
    'MIME-Version: 1.0',
    'Content-Type: multipart/mixed; boundary=b',
    '',
    '--b',
    'Content-Type: text/plain',
    '',
    'See there.',
    '--b',
    'Content-Type: text/plain; name="plan.txt"',
    'Content-Disposition: attachment; filename="plan.txt"',
    '',
    'the plan',
    '--b--',
  ].join('\r\n');

  test('is kept byte by byte, for whoever reads all of the message', async () => {
    await mail('The plan', '', ATTACHED);
    give('bruno', { ...NO_RIGHTS, sight: 'outline' });
    expect(messages('bruno')).toMatchObject([{ attached: true, files: [] }]);
    const [own] = messages('ines');
    expect(own?.files).toMatchObject([{ key: '0', name: 'plan.txt' }]);
    const read = async (by: string, place = '0') => {
      const file = await readMessageFile(org.ctx(by), own?.key ?? '', place);
      return file.ok ? new Response(file.value.body).text() : file.code;
    };
    expect(await read('ines')).toBe('the plan');
    expect([await read('bruno'), await read('ines', '1'), await read('ines', '../0')]).toEqual([
      'notFound',
      'notFound',
      'notFound',
    ]);
    // What would be more in a day than one person gets of files is named and not kept.
    org.db.run('UPDATE message_file SET bytes = 499999999');
    await mail('Another plan', '', ATTACHED.replace('the plan', 'the other plan'));
    expect(messages('ines').map(({ files }) => [files[0]?.name, files[0]?.key])).toEqual([
      ['plan.txt', null],
      ['plan.txt', '0'],
    ]);
    const digest = createHash('sha256').update('the plan').digest('hex');
    expect(org.db.get('SELECT 1 AS n FROM message_file WHERE digest = ?', digest)).toEqual({ n: 1 });
  });
});

test('what is said of a meeting needs sight of that meeting too, whatever a folder shows', async () => {
  await mail('The lease');
  const [lease] = messages('ines');
  const stored = org.db.get<{ id: number }>('SELECT id FROM message WHERE key = ?', lease?.key ?? '');
  give('bruno', FULL);
  org.db.run("UPDATE message SET thread = 'meeting gone@x.example' WHERE id = ?", stored?.id ?? 0);
  expect(threads('bruno')).toMatchObject([{ kind: 'meeting' }]);
  saveFacts(org.db, stored?.id ?? 0, { private: true });
  expect(threads('bruno')).toEqual([]);
});
