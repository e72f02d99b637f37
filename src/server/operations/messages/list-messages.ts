import type { MessagesAnswer, MessageWire, ThreadAnswer, ThreadWire } from '@/contract/messages.ts';
import { firstLineOf } from '@/core/mail/index.ts';
import { instantText } from '@/core/time/index.ts';
import { openSealed, sealIds } from '../../ids.ts';
import { countForNobody } from '../../repositories/inbound.ts';
import { itemById, unansweredIn } from '../../repositories/items.ts';
import { findFolder, folderIdsOf } from '../../repositories/lists.ts';
import { mailRulesOf } from '../../repositories/mail-rules.ts';
import { meetingById, meetingOfItem, meetingsByUid, type StoredMeeting } from '../../repositories/meetings.ts';
import {
  countUnread,
  folderOwner,
  type MessageFacts,
  markRead,
  markUnread,
  messageByKey,
  messagesIn,
  messagesOfThread,
  type Page,
  pageOf,
  readOf,
  type StoredMessage,
  saveFacts,
} from '../../repositories/messages.ts';
import { mailAbout } from '../../repositories/outgoing-mail.ts';
import type { Person } from '../../repositories/people.ts';
import { sendingsOn } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  type Context,
  type Decided,
  Directory,
  isRefusal,
  listReaderFor,
  mayOn,
  noteUse,
  viewFor,
} from '../deciding/index.ts';
import { answeredOf, receive, sendingWireOf, speaksOn, threadOf, timesOf } from '../meetings/index.ts';
import { draftOf } from './drafts.ts';
import {
  findReader,
  folderIn,
  mayReadMessage,
  messageSeen,
  type OnFolder,
  type Reader,
  type SeenMessage,
  seenByIds,
  uidOf,
} from './readers.ts';

/** Messages in one answer, by their number and about their size. */
const MOST_IN_FOLDER = 200;
const MOST_BYTES = 1_000_000;
/** How long what was removed can be brought back. */
const BACK_FOR = 30 * 86_400_000;
const MOST_MESSAGES = 300;
/** Threads in one answer; behind them it is asked on. */
const MOST_THREADS = 50;
const MOST_IN_THREAD = 60;
const MOST_OPEN = 100;

/**
 * The messages of a person by thread: of their meetings and what they wrote, what needs something first, then the latest; or those of one folder, the
 * latest first, as far as that folder shows them.
 */
export function listMessages(ctx: Context, handle: string, query: MessagesQuery): Result<MessagesAnswer> {
  const reader = findReader(ctx, handle);
  if (isRefusal(reader)) return reader;
  const folder = query.folder === undefined ? null : folderIn(reader, query.folder);
  if (query.folder !== undefined && !folder) return refuse('notFound');
  const before = query.before === undefined ? null : readMark(ctx, query.before);
  if (query.before !== undefined && before === null) return refuse('badInput', { fields: { before: 'unclear' } });
  const removed = query.removed === 'yes';
  if (removed && !folder) return refuse('badInput', { fields: { removed: 'unclear' } });
  const { owner, decided } = reader;
  const { db } = ctx;
  const page = folder
    ? pageOfFolder(ctx, folder, before, removed)
    : reader.meetings
      ? pageOf(
          db,
          [...new Set([...reader.plain, ...mailRulesOf(db, owner.id).map((rule) => rule.folderId)])],
          { messages: MOST_MESSAGES, threads: MOST_THREADS },
          before,
        )
      : NO_PAGE;
  const order = new Map<string, StoredMessage[]>();
  for (const message of page.messages) {
    const there = order.get(message.thread);
    if (there) there.push(message);
    else order.set(message.thread, [message]);
  }
  // What waits is there however long ago it came.
  const needs = reader.meetings && folder?.list.role !== 'sent' && !removed;
  const open = new Map(
    needs ? unansweredIn(db, decided.calendar.id, ctx.now, MOST_OPEN).map((i) => [threadOf(i.uid), i]) : [],
  );
  const waiting = new Map<string, StoredMeeting>();
  for (const s of needs ? sendingsOn(db, decided.calendar.id, MOST_OPEN) : []) {
    const meeting = meetingById(db, s.meetingId);
    if (meeting) waiting.set(threadOf(meeting.uid), meeting);
  }
  if (before === null && !folder)
    for (const key of [...open.keys(), ...waiting.keys()]) if (!order.has(key)) order.set(key, []);
  const look = lookAt(ctx, reader, page.messages, { open, waiting, folder });
  const threads = [...order].flatMap(([key, messages]) => threadWire(look, key, messages) ?? []);
  const rank = (thread: ThreadWire) => (thread.needs === null ? NEEDS.length : NEEDS.indexOf(thread.needs));
  // Of what is to be answered the soonest is first, of the rest what moved last.
  const when = (thread: ThreadWire) => (thread.needs === 'answer' ? (thread.when?.start ?? '') : '');
  if (folder) threads.sort((a, b) => b.at.localeCompare(a.at));
  else threads.sort((a, b) => rank(a) - rank(b) || when(a).localeCompare(when(b)) || b.at.localeCompare(a.at));
  const { handle: h, name, address, colour } = owner;
  return ok({
    owner: { handle: h, name, address, colour },
    own: reader.own,
    maySpeak: reader.speaks,
    meetings: reader.meetings,
    threads,
    forNobody: reader.own && ctx.viewer.administrator ? countForNobody(db) : 0,
    more: page.more === null ? null : (sealIds([{ viewer: ctx.viewer.id, item: page.more, start: 0 }])[0] ?? null),
  });
}

interface MessagesQuery {
  readonly before?: string | undefined;
  readonly folder?: string | undefined;
  readonly removed?: 'yes' | undefined;
}
const NO_PAGE: Page = { messages: [], more: null };

/** Behind which message to go on: a row number would tell how many there are in the house. */
function readMark(ctx: Context, text: string): number | null {
  const sealed = openSealed(text);
  return sealed?.viewer === ctx.viewer.id ? sealed.item : null;
}

function pageOfFolder(ctx: Context, on: OnFolder, before: number | null, removed: boolean): Page {
  noteUse(ctx, on.decision);
  const since = removed ? ctx.now - BACK_FOR : null;
  const reader = listReaderFor(ctx.viewer.id, on.decision);
  const rows = messagesIn(ctx.db, on.list.id, reader, before, since, MOST_IN_FOLDER + 1);
  const threads = new Set<string>();
  const messages: StoredMessage[] = [];
  let bytes = 0;
  for (const row of rows.slice(0, MOST_IN_FOLDER)) {
    bytes += row.body.length + 600;
    if ((!threads.has(row.thread) && threads.size === MOST_THREADS) || (bytes > MOST_BYTES && messages.length > 0))
      break;
    threads.add(row.thread);
    messages.push(row);
  }
  return { messages, more: messages.length < rows.length ? (messages.at(-1)?.id ?? null) : null };
}

/** One thread whole, by one of its messages: whatever else of it stands in folders that are seen. What is being written is as it was typed. */
export function readThread(ctx: Context, key: string): Result<ThreadAnswer> {
  const message = messageByKey(ctx.db, key);
  const owner = message && message.removedAt === null ? folderOwner(ctx.db, message.collectionId) : null;
  if (!message || !owner) return refuse('notFound');
  const reader = findReader(ctx, owner);
  if (isRefusal(reader) || !mayReadMessage(ctx, reader, message)) return refuse('notFound');
  const isDraft = reader.folders.get(message.collectionId)?.list.role === 'drafts';
  const drafts = findFolder(ctx.db, reader.owner.id, 'drafts')?.id;
  const among = isDraft ? [message.collectionId] : folderIdsOf(ctx.db, reader.owner.id).filter((id) => id !== drafts);
  const all = messagesOfThread(ctx.db, among, message.thread, MOST_IN_THREAD).reverse();
  const look = lookAt(ctx, reader, all, { open: new Map(), waiting: new Map(), folder: null });
  const thread = threadWire(look, message.thread, all);
  if (!thread || thread.withheld) return refuse('notFound');
  return ok({ thread, draft: isDraft ? draftOf(ctx.db, message) : null });
}

/** What a thread may need of somebody, what can't wait first. */
const NEEDS = ['answer', 'counter', 'say', 'question', 'mail'] as const;

interface Look {
  readonly ctx: Context;
  readonly reader: Reader;
  readonly read: ReadonlySet<number>;
  /** The invitations that wait for an answer, and the meetings of which something waits to be said, by thread. */
  readonly open: ReadonlyMap<string, StoredItem>;
  readonly waiting: ReadonlyMap<string, StoredMeeting>;
  readonly directory: Directory;
  /** The one folder that is looked into; `null` where all are. */
  readonly folder: OnFolder | null;
}

function lookAt(
  ctx: Context,
  reader: Reader,
  messages: readonly StoredMessage[],
  rest: Pick<Look, 'open' | 'waiting' | 'folder'>,
): Look {
  const ids = messages.map((m) => m.id);
  const read = ids.length === 0 ? new Set<number>() : readOf(ctx.db, ctx.viewer.id, Math.min(...ids), Math.max(...ids));
  return { ctx, reader, read, directory: new Directory(ctx.db), ...rest };
}

function threadWire(look: Look, key: string, messages: readonly StoredMessage[]): ThreadWire | null {
  const newestFirst = messages.slice(0, MOST_IN_THREAD);
  return key.startsWith('meeting ') ? meetingThread(look, key, newestFirst) : mailThread(look, newestFirst);
}

/**
 * The meeting a thread is about, whatever of the thread is on a page: of several in one, the whole rather than one of its occurrences. One that
 * is in another calendar of the owner's is found by what was said of it.
 */
function meetingOf(look: Look, key: string, messages: readonly StoredMessage[]): StoredMeeting | null {
  const { db } = look.ctx;
  const here = meetingsByUid(db, look.reader.decided.calendar.id, uidOf(key))[0];
  if (here) return here;
  const ids = [...new Set(messages.flatMap((m) => m.meetingId ?? []))];
  const all = ids.flatMap((id) => meetingById(db, id) ?? []);
  const found = all.find((m) => m.recurrence === null) ?? all[0] ?? null;
  if (found) return found;
  const item = look.open.get(key);
  return (item && meetingOfItem(db, item.id)) ?? look.waiting.get(key) ?? null;
}

/** The item a thread is about, where one stands or stood. */
function itemOf(look: Look, key: string, meeting: StoredMeeting | null): StoredItem | null {
  const open = look.open.get(key);
  if (open && (meeting === null || meeting.itemId === open.id)) return open;
  return meeting?.itemId == null ? null : itemById(look.ctx.db, meeting.itemId);
}

function meetingThread(look: Look, key: string, all: readonly StoredMessage[]): ThreadWire | null {
  const { ctx, reader } = look;
  const { decided, own } = reader;
  const { rights } = decided.decision;
  const meeting = meetingOf(look, key, all);
  const seen = seenOf(look, all);
  const messages = seen.map(({ m }) => m);
  // A message about an item in another calendar of the owner's is for whoever sees that calendar; here only the owner reads it.
  if (meeting && meeting.calendarId !== decided.calendar.id && !own) return null;
  const item = itemOf(look, key, meeting);
  const view = own || !item ? null : viewFor(ctx, decided, item, item, look.directory);
  const full = view !== null && 'notes' in view;
  const byFolder = seen.some(({ view }) => view.sight === 'full');
  const readable = own || (item ? full : (rights.speaks || byFolder) && (messages.length > 0 || all.length === 0));
  // Of a folder that shows no more than who, to whom and when, no more is said of what it is about.
  if (messages.length > 0 && !byFolder && !own) return bareThread(look, seen);
  if (!reader.meetings && messages.length === 0) return null;
  const at = messages[0]?.at ?? item?.createdAt ?? ctx.now;
  const base = { key: messages[0]?.key ?? item?.key ?? key, kind: 'meeting' as const, at: instantText(at) };
  if (!readable) {
    // Whoever sees the calendar sees that the time is taken and no more. A thread about an item they don't see at all isn't listed.
    if (!view || !item || item.removedAt !== null) return null;
    const { start, end, allDay } = view;
    return {
      ...base,
      ...NOTHING_SAID,
      key: view.id,
      withheld: true,
      waiting: [],
      messages: [],
      when: { start, end, allDay },
    };
  }
  const waiting = meeting ? sendingWireOf(ctx, decided, reader.owner, meeting) : [];
  const answered = meeting ? answeredOf(ctx, meeting) : null;
  const gone = !item || item.removedAt !== null;
  const mayAnswer = !gone && !item.cancelled && item.ownerInvited && mayOn(ctx, decided.decision, item).answer;
  const over = item ? item.end < ctx.now && item.rule === null : true;
  const wires = seen.map((one) => messageWire(look, one)).reverse();
  const latest = messages.find((m) => m.facts.title !== undefined)?.facts;
  const state = meeting?.part === 'organiser' ? meeting.state : null;
  const needs: ThreadWire['needs'] =
    mayAnswer && item.ownerAnswer === 'needs-action' && !over && answered === null
      ? 'answer'
      : state && state.counters.length > 0 && !gone
        ? 'counter'
        : waiting.some((s) => s.leaves === null)
          ? 'say'
          : wires.some((m) => m.pending)
            ? 'question'
            : meeting && !gone && [...mailAbout(ctx.db, meeting.id).values()].includes('failed')
              ? 'mail'
              : null;
  const organiser = item?.organiser ?? (meeting?.part === 'organiser' ? null : box(messages.at(-1)));
  return {
    ...base,
    ...NOTHING_SAID,
    withheld: false,
    title: item?.title ?? latest?.title ?? null,
    when: item ? timesOfItem(item) : latest?.time ? timesOf(ctx.db, latest.time) : null,
    place: item ? item.place : (latest?.place ?? null),
    item: gone ? null : item.key,
    part: meeting?.part ?? (item?.ownerInvited ? 'attendee' : null),
    organiser,
    needs,
    answered: answered && { ...answered, at: instantText(answered.at) },
    cancelled: item?.cancelled === true || state?.state === 'cancelled',
    repeats: item?.rule != null,
    mayAnswer,
    unread: wires.filter((m) => m.unread).length,
    waiting,
    messages: wires,
  };
}

/** A thread of which nothing is said yet. */
const NOTHING_SAID = {
  title: null,
  place: null,
  item: null,
  part: null,
  organiser: null,
  needs: null,
  answered: null,
  cancelled: false,
  repeats: false,
  mayAnswer: false,
  unread: 0,
} as const;

const box = (m: StoredMessage | undefined) => (m ? { name: m.fromName, address: m.fromAddress } : null);

function timesOfItem(item: StoredItem) {
  const { start, end, allDay } = item;
  const text = (ms: number) => (allDay ? instantText(ms).slice(0, 10) : instantText(ms));
  return { start: text(start), end: text(end), allDay };
}

/** A mail and what answers it, as far as its folder shows it. Their calendar alone opens nobody's mail. */
function mailThread(look: Look, messages: readonly StoredMessage[]): ThreadWire | null {
  const seen = seenOf(look, messages);
  return seen.length === 0 ? null : bareThread(look, seen);
}

/** A thread of which no more is said than its messages say, the newest first. */
function bareThread(look: Look, seen: readonly SeenMessage[]): ThreadWire | null {
  const [last] = seen;
  const first = seen.at(-1);
  if (!last || !first) return null;
  const wires = seen.map((one) => messageWire(look, one)).reverse();
  return {
    ...NOTHING_SAID,
    key: last.view.id,
    kind: 'mail',
    withheld: false,
    title: first.m.subject || first.m.facts.title || null,
    when: null,
    unread: wires.filter((m) => m.unread).length,
    at: instantText(last.m.at),
    waiting: [],
    messages: wires,
  };
}

/** Messages that the one who asks sees, each as they see it. */
const seenOf = ({ ctx, reader, directory }: Look, messages: readonly StoredMessage[]): SeenMessage[] =>
  messages.flatMap((m) => {
    const view = messageSeen(ctx, reader, m, directory);
    return view ? [{ m, view }] : [];
  });

function messageWire({ ctx, reader, read }: Look, { m, view }: SeenMessage): MessageWire {
  // What one of ours wrote was sent, wherever it was filed since.
  const sent = m.actorId !== null;
  const on = reader.folders.get(m.collectionId);
  const full = view.sight === 'full';
  // What isn't seen says nothing.
  const facts: MessageFacts = full ? m.facts : {};
  return {
    key: view.id,
    at: instantText(m.at),
    kind: m.kind,
    sent,
    from: { name: m.fromName, address: m.fromAddress },
    by: m.byAddress === null ? null : { name: m.byName, address: m.byAddress },
    to: m.recipients.slice(0, 50).map(({ name, address }) => ({ name, address })),
    subject: m.subject,
    says: view.text ?? '',
    when: facts.time ? timesOf(ctx.db, facts.time) : null,
    answer: facts.answer ?? null,
    why: facts.why ?? null,
    attendee: facts.attendee ?? null,
    checked: facts.checked ?? null,
    mark: facts.automatic ? 'automatic' : (facts.mark ?? null),
    leftOut: facts.leftOut ?? 0,
    sentInstead: facts.sentInstead ?? null,
    files: (facts.files ?? []).map(({ name, bytes, digest }, i) => ({ key: digest ? String(i) : null, name, bytes })),
    sight: view.sight,
    firstLine: view.firstLine ?? (view.text === null ? null : firstLineOf(view.text)),
    attached: view.attached ?? (full ? (facts.files?.length ?? 0) > 0 : null),
    folder: on?.list.key ?? null,
    flagged: m.flagged,
    private: facts.private === true,
    may: view.may,
    unread: !sent && !read.has(m.id),
    pending: facts.pending !== undefined,
  };
}

/** Marks messages as read, or as not read, by the one who reads them and for nobody else. */
export function readMessages(
  ctx: Context,
  handle: string,
  body: { readonly messages: readonly string[]; readonly unread: boolean },
): Result<{ done: true }> {
  const reader = findReader(ctx, handle);
  if (isRefusal(reader)) return reader;
  const ids = seenByIds(ctx, reader, body.messages).map(({ m }) => m.id);
  ctx.db.write(() => (body.unread ? markUnread : markRead)(ctx.db, ctx.viewer.id, ids));
  return ok({ done: true });
}

/** Lets a message whose sender nobody vouches for do what it says, because somebody who may speak says so. */
export function takeMessage(ctx: Context, key: string): Result<{ done: true }> {
  const message = messageByKey(ctx.db, key);
  const owner = message && folderOwner(ctx.db, message.collectionId);
  if (!message || !owner) return refuse('notFound');
  const reader = findReader(ctx, owner);
  if (isRefusal(reader)) return reader;
  const { pending } = message.facts;
  if (!pending || !speaksOn(reader.decided) || message.removedAt !== null) return refuse('notFound');
  const look = lookAt(ctx, reader, [message], { open: new Map(), waiting: new Map(), folder: null });
  const thread = meetingThread(look, message.thread, [message]);
  if (!thread || thread.withheld) return refuse('notFound');
  return ctx.db.write(() => {
    const { pending: _taken, ...facts } = message.facts;
    saveFacts(ctx.db, message.id, { ...facts, why: 'taken' });
    // It stays what it is: mail from outside that nobody vouches for.
    const { messageId, inReplyTo, refs, fromName, body } = message;
    // Who says so makes it count, whoever sent it and whomever it names.
    receive(ctx, { ...pending, authorised: true }, reader.owner, {
      checked: false,
      messageId,
      inReplyTo,
      refs,
      fromName,
      body,
      files: facts.files,
    });
    return ok({ done: true as const });
  });
}

/** How many messages one hasn't read among those one is told of: one's own, and those of whom one gets copies for. */
export function unreadFor(ctx: Context, owner: Person, decided: Decided): number {
  const arrived = findFolder(ctx.db, owner.id, 'arrived');
  if (arrived === null) return 0;
  return countUnread(ctx.db, arrived.id, ctx.viewer.id, decided.decision.owner, decided.decision.rights.private);
}
