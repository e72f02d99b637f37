import type { MessagesAnswer, ThreadAnswer, ThreadWire } from '@/contract/messages.ts';
import { openSealed, sealIds } from '../../ids.ts';
import { countForNobody } from '../../repositories/inbound.ts';
import { unansweredIn } from '../../repositories/items.ts';
import { findFolder, folderIdsOf } from '../../repositories/lists.ts';
import { mailRulesOf } from '../../repositories/mail-rules.ts';
import { meetingById, type StoredMeeting } from '../../repositories/meetings.ts';
import type { StoredMessage } from '../../repositories/message-row.ts';
import {
  folderOwner,
  messageByKey,
  messagesIn,
  messagesOfThread,
  type Page,
  pageOf,
  saveFacts,
} from '../../repositories/messages.ts';
import type { Person } from '../../repositories/people.ts';
import { sendingsOn } from '../../repositories/sendings.ts';
import { countUnread, markRead, markUnread } from '../../repositories/unread-messages.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, type Decided, isRefusal, listReaderFor, noteUse } from '../deciding/index.ts';
import { receive, speaksOn, threadOf } from '../meetings/index.ts';
import { draftOf } from './drafts.ts';
import { BACK_FOR, findReader, folderIn, mayReadMessage, type OnFolder, seenByIds } from './readers.ts';
import { lookAt, MOST_IN_THREAD, threadWire } from './thread-wires.ts';

/** Messages in one answer, by their number and about their size. */
const MOST_IN_FOLDER = 200;
const MOST_BYTES = 1_000_000;
const MOST_MESSAGES = 300;
/** Threads in one answer; behind them it is asked on. */
const MOST_THREADS = 50;
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
  const look = lookAt(ctx, reader, page.messages, { open, waiting });
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
  const look = lookAt(ctx, reader, all);
  const thread = threadWire(look, message.thread, all);
  if (!thread || thread.withheld) return refuse('notFound');
  return ok({ thread, draft: isDraft ? draftOf(ctx.db, message) : null });
}

/** What a thread may need of somebody, what can't wait first. */
const NEEDS = ['answer', 'counter', 'say', 'question', 'mail'] as const;

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
  const look = lookAt(ctx, reader, [message]);
  const thread = threadWire(look, message.thread, [message]);
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
