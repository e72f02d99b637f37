import type { MessagesAnswer, MessageWire, ThreadWire } from '@/contract/messages.ts';
import { instantText } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { countForNobody } from '../../repositories/inbound.ts';
import { itemById, itemsByUid, unansweredIn } from '../../repositories/items.ts';
import { meetingById, meetingOfItem, meetingsByUid, type StoredMeeting } from '../../repositories/meetings.ts';
import {
  countUnread,
  findFolder,
  folderOwner,
  markRead,
  messageByKey,
  messagesOfThread,
  pageOf,
  readOf,
  type StoredMessage,
  saveFacts,
} from '../../repositories/messages.ts';
import { mailAbout } from '../../repositories/outgoing-mail.ts';
import { type Person, personByHandle } from '../../repositories/people.ts';
import { sendingsOn } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, type Decided, Directory, decideOn, isRefusal, mayOn, viewFor } from '../deciding/index.ts';
import { answeredOf, receive, sendingWireOf, speaksOn, threadOf, timesOf } from '../meetings/index.ts';

const MOST_MESSAGES = 300;
/** Threads in one answer; behind them it is asked on. */
const MOST_THREADS = 50;
const MOST_IN_THREAD = 60;
const MOST_OPEN = 100;

/** Whose messages one reads, with what one may see and do there. */
export interface Reader {
  readonly owner: Person;
  readonly decided: Decided;
  readonly own: boolean;
  readonly speaks: boolean;
}

/**
 * Whose messages the one who asks may read: their own, and of whom they speak for or whose copies they get those of their meetings. For
 * everybody else there are none.
 */
export function findReader(ctx: Context, handle: string): Reader | Refusal {
  const owner = personByHandle(ctx.db, handle);
  const calendar = owner && mainCalendarOf(ctx.db, owner.id);
  return owner && calendar ? readerOn(owner, decideOn(ctx, calendar)) : refuse('notFound');
}

/** The same where what the one who asks may do on that one's main calendar is known already. */
export function readerOn(owner: Person, decided: Decided): Reader | Refusal {
  const { decision } = decided;
  if (!decision.owner && !decision.rights.speaks && !decision.rights.copies) return refuse('notFound');
  return { owner, decided, own: decision.owner, speaks: speaksOn(decided) };
}

/** The messages of a person by thread: what needs something first, then the latest. */
export function listMessages(ctx: Context, handle: string, before: number | null): Result<MessagesAnswer> {
  const reader = findReader(ctx, handle);
  if (isRefusal(reader)) return reader;
  const { owner, decided } = reader;
  const { db } = ctx;
  const folders = foldersOf(db, owner.id);
  const page = pageOf(db, folders, { messages: MOST_MESSAGES, threads: MOST_THREADS }, before);
  const order = new Map<string, StoredMessage[]>();
  for (const message of page.messages) {
    const there = order.get(message.thread);
    if (there) there.push(message);
    else order.set(message.thread, [message]);
  }
  // What waits is there however long ago it came.
  const open = new Map(unansweredIn(db, decided.calendar.id, ctx.now, MOST_OPEN).map((i) => [threadOf(i.uid), i]));
  const waiting = new Map<string, StoredMeeting>();
  for (const s of sendingsOn(db, decided.calendar.id, MOST_OPEN)) {
    const meeting = meetingById(db, s.meetingId);
    if (meeting) waiting.set(threadOf(meeting.uid), meeting);
  }
  if (before === null) for (const key of [...open.keys(), ...waiting.keys()]) if (!order.has(key)) order.set(key, []);
  const { messages } = page;
  const read = readOf(db, ctx.viewer.id, messages.at(-1)?.id ?? 0, messages[0]?.id ?? 0);
  const look: Look = { ctx, reader, folders, read, open, waiting, directory: new Directory(db) };
  const threads = [...order].flatMap(([key, messages]) => threadWire(look, key, messages) ?? []);
  const rank = (thread: ThreadWire) => (thread.needs === null ? NEEDS.length : NEEDS.indexOf(thread.needs));
  // Of what is to be answered the soonest is first, of the rest what moved last.
  const when = (thread: ThreadWire) => (thread.needs === 'answer' ? (thread.when?.start ?? '') : '');
  threads.sort((a, b) => rank(a) - rank(b) || when(a).localeCompare(when(b)) || b.at.localeCompare(a.at));
  const { handle: h, name, address, colour } = owner;
  return ok({
    owner: { handle: h, name, address, colour },
    own: reader.own,
    maySpeak: reader.speaks,
    threads,
    forNobody: reader.own && ctx.viewer.administrator ? countForNobody(db) : 0,
    more: page.more,
  });
}

/** What a thread may need of somebody, what can't wait first. */
const NEEDS = ['answer', 'counter', 'say', 'question', 'mail'] as const;

export const foldersOf = (db: Connection, ownerId: number): number[] =>
  (['Arrived', 'Sent'] as const).map((name) => findFolder(db, ownerId, name) ?? -1);

interface Look {
  readonly ctx: Context;
  readonly reader: Reader;
  readonly folders: readonly number[];
  readonly read: ReadonlySet<number>;
  /** The invitations that wait for an answer, and the meetings of which something waits to be said, by thread. */
  readonly open: ReadonlyMap<string, StoredItem>;
  readonly waiting: ReadonlyMap<string, StoredMeeting>;
  readonly directory: Directory;
}

function threadWire(look: Look, key: string, messages: readonly StoredMessage[]): ThreadWire | null {
  const newestFirst = messages.slice(0, MOST_IN_THREAD);
  return key.startsWith('meeting ') ? meetingThread(look, key, newestFirst) : mailThread(look, key, newestFirst);
}

const uidOf = (thread: string): string => thread.slice('meeting '.length);

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

/**
 * Whether a message of a meeting may be read: by its owner always; by others where they see what it is about in full. That is the item it is
 * kept with; without one, everything in the calendar that goes by the thread's UID. Where nothing of it stands there, what was marked private
 * is for whoever is let into that.
 */
function isReadable({ ctx, reader, directory }: Pick<Look, 'ctx' | 'reader' | 'directory'>, m: StoredMessage): boolean {
  const { decided } = reader;
  if (reader.own) return true;
  const meeting = m.meetingId === null ? null : meetingById(ctx.db, m.meetingId);
  const item = meeting?.itemId == null ? null : itemById(ctx.db, meeting.itemId);
  const about = item ? [item] : itemsByUid(ctx.db, decided.calendar.id, uidOf(m.thread));
  if (about.length === 0) return m.facts.private !== true || decided.decision.rights.private;
  return about.every((one) => {
    const view = viewFor(ctx, decided, one, one, directory);
    return view !== null && 'notes' in view;
  });
}

/** Whether the one who asks may read a message of somebody's folders: of a meeting by what it is about, plain mail as its owner or having written in it. */
export function mayReadMessage(ctx: Context, reader: Reader, folders: readonly number[], m: StoredMessage): boolean {
  if (reader.own) return true;
  if (m.thread.startsWith('meeting ')) return isReadable({ ctx, reader, directory: new Directory(ctx.db) }, m);
  return messagesOfThread(ctx.db, folders, m.thread, 200).some((one) => one.actorId === ctx.viewer.id);
}

function meetingThread(look: Look, key: string, all: readonly StoredMessage[]): ThreadWire | null {
  const { ctx, reader } = look;
  const { decided, own } = reader;
  const { rights } = decided.decision;
  const meeting = meetingOf(look, key, all);
  const messages = all.filter((m) => isReadable(look, m));
  // A message about an item in another calendar of the owner's is for whoever sees that calendar; here only the owner reads it.
  if (meeting && meeting.calendarId !== decided.calendar.id && !own) return null;
  const item = itemOf(look, key, meeting);
  const view = own || !item ? null : viewFor(ctx, decided, item, item, look.directory);
  const full = view !== null && 'notes' in view;
  const readable = own || (item ? full : rights.speaks && (messages.length > 0 || all.length === 0));
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
  const wires = messages.map((m) => messageWire(look, m)).reverse();
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

/**
 * A mail and what answers it: for its owner, and for whoever wrote in it in the owner's name and still may. Their calendar alone opens
 * nobody's mail.
 */
function mailThread(look: Look, key: string, messages: readonly StoredMessage[]): ThreadWire | null {
  const { ctx, reader } = look;
  if (!reader.own && !(reader.speaks && wroteIn(look, key))) return null;
  const wires = messages.map((m) => messageWire(look, m)).reverse();
  const last = messages[0];
  if (!last) return null;
  return {
    ...NOTHING_SAID,
    key: last.key,
    kind: 'mail',
    withheld: false,
    title: messages.at(-1)?.subject || null,
    when: null,
    unread: wires.filter((m) => m.unread).length,
    at: instantText(last.at ?? ctx.now),
    waiting: [],
    messages: wires,
  };
}

const wroteIn = (look: Look, key: string): boolean =>
  messagesOfThread(look.ctx.db, look.folders, key, 200).some((m) => m.actorId === look.ctx.viewer.id);

function messageWire({ ctx, folders, read }: Look, m: StoredMessage): MessageWire {
  const sent = m.collectionId === folders[1];
  const { facts } = m;
  return {
    key: m.key,
    at: instantText(m.at),
    kind: m.kind,
    sent,
    from: { name: m.fromName, address: m.fromAddress },
    by: m.byAddress === null ? null : { name: m.byName, address: m.byAddress },
    to: m.recipients.slice(0, 50).map(({ name, address }) => ({ name, address })),
    subject: m.subject,
    says: m.body,
    when: facts.time ? timesOf(ctx.db, facts.time) : null,
    answer: facts.answer ?? null,
    why: facts.why ?? null,
    attendee: facts.attendee ?? null,
    checked: facts.checked ?? null,
    mark: facts.automatic ? 'automatic' : (facts.mark ?? null),
    leftOut: facts.leftOut ?? 0,
    sentInstead: facts.sentInstead ?? null,
    files: [...(facts.files ?? [])],
    unread: !sent && !read.has(m.id),
    pending: facts.pending !== undefined,
  };
}

/** Marks messages as read, by the one who reads them and for nobody else. */
export function readMessages(ctx: Context, handle: string, keys: readonly string[]): Result<{ done: true }> {
  const reader = findReader(ctx, handle);
  if (isRefusal(reader)) return reader;
  const folders = foldersOf(ctx.db, reader.owner.id);
  const ids = keys.flatMap((key) => {
    const message = messageByKey(ctx.db, key);
    return message && folders.includes(message.collectionId) ? message.id : [];
  });
  ctx.db.write(() => markRead(ctx.db, ctx.viewer.id, ids));
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
  if (!pending || !reader.speaks) return refuse('notFound');
  const look = {
    ctx,
    reader,
    folders: foldersOf(ctx.db, reader.owner.id),
    read: new Set<number>(),
    open: new Map(),
    waiting: new Map(),
    directory: new Directory(ctx.db),
  };
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
  const arrived = findFolder(ctx.db, owner.id, 'Arrived');
  if (arrived === null) return 0;
  return countUnread(ctx.db, arrived, ctx.viewer.id, decided.decision.owner, decided.decision.rights.private);
}
