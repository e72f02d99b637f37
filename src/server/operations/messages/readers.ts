import { bareIdFor } from '../../ids.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { itemById, itemsByUid } from '../../repositories/items.ts';
import { type Folder, folderIdsOf, listsOf } from '../../repositories/lists.ts';
import { meetingById } from '../../repositories/meetings.ts';
import { isAboutMeeting, type StoredMessage } from '../../repositories/message-row.ts';
import { latestIn, messageByKey } from '../../repositories/messages.ts';
import { type Person, personByHandle } from '../../repositories/people.ts';
import { type Refusal, refuse } from '../../result.ts';
import {
  type Context,
  type Decided,
  type DecidedList,
  Directory,
  decideOn,
  decideOnAll,
  type MessageView,
  mayOnMessage,
  viewFor,
  viewOfMessage,
} from '../deciding/index.ts';
import { speaksOn } from '../meetings/index.ts';

/** How long what was removed can be brought back. */
export const BACK_FOR = 30 * 86_400_000;

/** A folder together with what the viewer may see and do there. */
export type OnFolder = Pick<DecidedList<'folder'>, 'list' | 'decision'>;

/** Whose messages one reads, with what one may see and do there. */
export interface Reader {
  readonly owner: Person;
  /** What one may do on their main calendar. */
  readonly decided: Decided;
  readonly own: boolean;
  /** Says things in their name: by their calendar, or by one of their folders. */
  readonly speaks: boolean;
  /** Reads what is said of their meetings, by what one may do on their calendar. */
  readonly meetings: boolean;
  /** Their folders that one sees by themselves, by row number. */
  readonly folders: ReadonlyMap<number, OnFolder>;
  /** What arrived and was sent: where what is said of meetings stands. */
  readonly plain: readonly number[];
}

/**
 * Whose messages the viewer may read: their own; of whom they speak for or whose copies they get those of their meetings; and what folders
 * they were given show. For everybody else there are none.
 */
export function findReader(ctx: Context, handle: string): Reader | Refusal {
  const owner = personByHandle(ctx.db, handle);
  const calendar = owner && mainCalendarOf(ctx.db, owner.id);
  return owner && calendar ? readerOn(ctx, owner, decideOn(ctx, calendar)) : refuse('notFound');
}

/** The same where what the viewer may do on that one's main calendar is known already. */
export function readerOn(ctx: Context, owner: Person, decided: Decided): Reader | Refusal {
  const { decision } = decided;
  const all = listsOf(ctx.db, 'folder', owner.id);
  const seen = seenAmong(ctx, all);
  const meetings = decision.owner || decision.rights.speaks || decision.rights.copies;
  if (!meetings && seen.length === 0) return refuse('notFound');
  return {
    owner,
    decided,
    own: decision.owner,
    speaks: speaksOn(decided) || seen.some((on) => on.decision.rights.speaks),
    meetings,
    folders: new Map(seen.map((on) => [on.list.id, on])),
    plain: (['arrived', 'sent'] as const).flatMap((role) => all.find((one) => one.role === role)?.id ?? []),
  };
}

/** Those of some folders that the viewer sees anything of. */
const seenAmong = (ctx: Context, all: readonly Folder[]): OnFolder[] =>
  decideOnAll(ctx, all).flatMap(({ shared, decision }) =>
    decision.rights.sight === 'nothing' ? [] : [{ list: shared, decision }],
  );

/** The folders of a person that the viewer sees anything of. */
export const foldersSeen = (ctx: Context, ownerId: number): OnFolder[] =>
  seenAmong(ctx, listsOf(ctx.db, 'folder', ownerId));

/** A folder of that reader's, by its key. */
export const folderIn = (reader: Reader, key: string): OnFolder | null =>
  [...reader.folders.values()].find((on) => on.list.key === key) ?? null;

/** What goes by one UID is one thread. */
export const uidOf = (thread: string): string => thread.slice('meeting '.length);

/**
 * Whether what a message of a meeting is about is the one's to read: its owner's always; others' where they see that in full. That is the item it
 * is kept with; without one, everything in the calendar that goes by the thread's UID. Where nothing of it stands there, what was marked private is
 * for whoever is let into that.
 */
function seesMeetingOf(ctx: Context, { decided, own }: Reader, m: StoredMessage, directory: Directory): boolean {
  if (own) return true;
  const meeting = m.meetingId === null ? null : meetingById(ctx.db, m.meetingId);
  const item = meeting?.itemId == null ? null : itemById(ctx.db, meeting.itemId);
  const about = item ? [item] : itemsByUid(ctx.db, decided.calendar.id, uidOf(m.thread));
  if (about.length === 0) return m.facts.private !== true || decided.decision.rights.private;
  return about.every((one) => {
    const view = viewFor(ctx, decided, one, one, directory);
    return view !== null && 'notes' in view;
  });
}

/**
 * A message as the viewer sees it; `null` where it is left out. Of a meeting: by what it is about, and then by their part in that calendar or by
 * the folder. Plain mail: by its folder alone, and what one wrote oneself while one still speaks.
 */
export function messageSeen(
  ctx: Context,
  reader: Reader,
  m: StoredMessage,
  directory = new Directory(ctx.db),
): MessageView | null {
  const on = reader.folders.get(m.collectionId);
  const aboutMeeting = isAboutMeeting(m);
  if (aboutMeeting && !seesMeetingOf(ctx, reader, m, directory)) return null;
  const inFolder = on ? viewOfMessage(ctx, on.decision, m) : null;
  const whole = aboutMeeting ? reader.meetings : reader.speaks && m.actorId === ctx.viewer.id;
  if (!whole || inFolder?.sight === 'full') return inFolder;
  const may = on ? mayOnMessage(ctx, on.decision, m) : { change: false, remove: false };
  return {
    id: m.key,
    sight: 'full',
    firstLine: null,
    attached: null,
    text: m.body,
    may: { change: may.change, remove: may.remove },
  };
}

/** Whether the viewer reads the whole of a message of somebody's. */
export const mayReadMessage = (ctx: Context, reader: Reader, m: StoredMessage): boolean =>
  messageSeen(ctx, reader, m)?.sight === 'full';

/** A message together with how the viewer sees it. */
export interface SeenMessage {
  readonly m: StoredMessage;
  readonly view: MessageView;
}

/** Of a folder that is seen below full, so much is looked through for ids that lead nowhere. */
const MOST_LOOKED_THROUGH = 2000;

/** Messages of that reader's by the ids under which they are seen, removed ones too; of one folder, or of all. An id that is none of theirs has no part in it. */
export function seenByIds(
  ctx: Context,
  reader: Reader,
  ids: readonly string[],
  folder: number | null = null,
): readonly SeenMessage[] {
  const directory = new Directory(ctx.db);
  const among = new Set(folder === null ? folderIdsOf(ctx.db, reader.owner.id) : [folder]);
  const unknown = new Set(ids);
  const take = (m: StoredMessage | null, id: string): SeenMessage[] => {
    const view = m && unknown.has(id) && among.has(m.collectionId) ? messageSeen(ctx, reader, m, directory) : null;
    if (!m || view?.id !== id) return [];
    unknown.delete(id);
    return [{ m, view }];
  };
  const found = [...unknown].flatMap((id) => take(messageByKey(ctx.db, id), id));
  for (const { list, decision } of reader.folders.values()) {
    if (unknown.size === 0) break;
    if (!among.has(list.id) || decision.rights.sight === 'full') continue;
    for (const m of latestIn(ctx.db, list.id, MOST_LOOKED_THROUGH))
      found.push(...take(m, bareIdFor(ctx.viewer.id, m.key)));
  }
  return found;
}
