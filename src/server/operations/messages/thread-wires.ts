import type { MessageWire, ThreadWire } from '@/contract/messages.ts';
import { firstLineOf } from '@/core/mail/index.ts';
import { instantText } from '@/core/time/index.ts';
import { itemById } from '../../repositories/items.ts';
import { meetingById, meetingOfItem, meetingsByUid, type StoredMeeting } from '../../repositories/meetings.ts';
import type { MessageFacts, StoredMessage } from '../../repositories/message-row.ts';
import { mailAbout } from '../../repositories/outgoing-mail.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { readOf } from '../../repositories/unread-messages.ts';
import { type Context, Directory, mayOn, viewFor } from '../deciding/index.ts';
import { answeredOf, sendingWireOf, timesOf } from '../meetings/index.ts';
import { messageSeen, type Reader, type SeenMessage, uidOf } from './readers.ts';

/** Messages of one thread in an answer: the latest. */
export const MOST_IN_THREAD = 60;

const NOTHING_OPEN = { open: new Map<string, StoredItem>(), waiting: new Map<string, StoredMeeting>() };

interface Look {
  readonly ctx: Context;
  readonly reader: Reader;
  readonly read: ReadonlySet<number>;
  /** The invitations that wait for an answer, and the meetings of which something waits to be said, by thread. */
  readonly open: ReadonlyMap<string, StoredItem>;
  readonly waiting: ReadonlyMap<string, StoredMeeting>;
  readonly directory: Directory;
}

/** Looks at messages as one reader; what is open and what waits is said where more than they is answered. */
export function lookAt(
  ctx: Context,
  reader: Reader,
  messages: readonly StoredMessage[],
  rest: Pick<Look, 'open' | 'waiting'> = NOTHING_OPEN,
): Look {
  const ids = messages.map((m) => m.id);
  const read = ids.length === 0 ? new Set<number>() : readOf(ctx.db, ctx.viewer.id, Math.min(...ids), Math.max(...ids));
  return { ctx, reader, read, directory: new Directory(ctx.db), ...rest };
}

/** A thread as its reader sees it, of its messages the newest first; `null` where nothing of it is shown. */
export function threadWire(look: Look, key: string, messages: readonly StoredMessage[]): ThreadWire | null {
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

/** Messages that the viewer sees, each as they see it. */
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
