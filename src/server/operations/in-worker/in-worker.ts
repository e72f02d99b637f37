import type { ItemsAnswer, LoadAnswer } from '@/contract/items/items.ts';
import type { BoardsAnswer } from '@/contract/lanes.ts';
import type { LinkItemsAnswer } from '@/contract/sharing/links.ts';
import type { CardVersion } from '@/core/contacts/index.ts';
import { writingIsFree } from '../../db/gate.ts';
import { type Connection, isOwn } from '../../db/index.ts';
import { hub, tellFrom } from '../../live/hub.ts';
import { calendarByKey } from '../../repositories/calendars.ts';
import type { Delivery } from '../../repositories/deliveries.ts';
import { itemByKey } from '../../repositories/items.ts';
import { personById } from '../../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import type { JobName, Port } from '../../workers/port.ts';
import { hasThreads } from '../../workers/thread.ts';
import { readInWorker, workInWorker, writeInWorker } from '../../workers/threads.ts';
import { failedSo } from '../../workers/turns.ts';
import { isLongObject } from '../dav/index.ts';
import { type Context, isHeavy, isRefusal, readRange } from '../deciding/index.ts';
import { withWhoIsThere } from '../desk/index.ts';
import { deliver, deliverInTurn } from '../meetings/index.ts';
import {
  admitToLink,
  changeGrants,
  comingRange,
  type LinkQueries,
  type LinkReadings,
  noteFindings,
  type OpenLink,
  readLink,
} from '../sharing/index.ts';
import { JOBS, type JobAnswer, type JobArgs, jobFor, type LinkRead, type Written } from './jobs.ts';

type ReadingName = Exclude<JobName, WorkName | WriteName | 'readLink'>;
type WorkName = 'readFile' | 'bringIn' | 'takeBatchBack' | 'changeGrants';
type WriteName =
  | 'changeSeveral'
  | 'createMeeting'
  | 'changeMeeting'
  | 'putObject'
  | 'deleteObject'
  | 'moveObject'
  | 'deliver'
  | 'importTasks'
  | 'importContacts'
  | 'undoListed';

/** Whether there is a thread over the same file; none when run from source, or over a file of a test's own. */
const hasThread = (db: Connection): boolean => isOwn(db) && hasThreads();

/** Reads that are quick on the request's thread are done there; those that would make others wait, beside it. */
async function read<N extends ReadingName>(
  ctx: Context,
  name: N,
  args: JobArgs<N>,
  heavy: boolean,
): Promise<JobAnswer<N>> {
  const here = () => (JOBS[name] as (ctx: Context, args: JobArgs<N>) => JobAnswer<N>)(ctx, args);
  if (!heavy || !hasThread(ctx.db)) return here();
  return refusing(() => readInWorker(jobFor(ctx, name, args), ctx.viewer.id)) as Promise<JobAnswer<N>>;
}

/** What a thread answers; a refusal where it took too long, or too much waits there already. */
async function refusing(work: () => Promise<unknown>): Promise<unknown> {
  try {
    return await work();
  } catch (error) {
    if (failedSo(error, 'TookTooLong')) return refuse('tooSlow');
    if (failedSo(error, 'TooManyWaiting')) return refuse('tooManyAtOnce');
    throw error;
  }
}

/** Writes on a worker thread, and tells here what was told there. Where there are no threads it is written in place. */
async function write<T>(ctx: Context, name: WriteName, args: JobArgs<WriteName>): Promise<T | Refusal> {
  if (!hasThread(ctx.db)) {
    await writingIsFree();
    const job = JOBS[name] as (ctx: Context, args: JobArgs<WriteName>, port: Port) => Promise<Written<T>>;
    return (await job(ctx, args, portHere())).answer;
  }
  const written = await refusing(() => writeInWorker(jobFor(ctx, name, args), ctx.viewer.id));
  if (isRefusal(written as Refusal)) return written as Refusal;
  const { answer, told } = written as Written<T>;
  tellFrom(told);
  return answer;
}

/** Whether a rule may have many occurrences a day: its series is written for all the years the index holds. */
const isDense = (rule: string | null | undefined): boolean =>
  /FREQ=(HOURLY|MINUTELY|SECONDLY)|BY(HOUR|MINUTE|SECOND)=/i.test(rule ?? '');

/** Adds an item on a worker thread where it takes long to write; `null` where it doesn't, or where there are no threads. */
export const createMeetingInWorker = (ctx: Context, key: string, body: JobArgs<'createMeeting'>['body']) =>
  isDense(body.repeat?.rule) && hasThread(ctx.db)
    ? write<JobAnswer<'createMeeting'>['answer']>(ctx, 'createMeeting', { key, body })
    : null;

/** The same for a change of an item. */
export function changeMeetingInWorker(ctx: Context, id: string, body: JobArgs<'changeMeeting'>['body']) {
  const rule = body.repeat ? body.repeat.rule : itemByKey(ctx.db, id.split('~')[0] ?? '')?.rule;
  return isDense(rule) && hasThread(ctx.db)
    ? write<JobAnswer<'changeMeeting'>['answer']>(ctx, 'changeMeeting', { id, body })
    : null;
}

/** As many items as are changed at once on the request's thread. */
const FEW_ITEMS = 8;

/** The same for a change of several items. */
export const changeSeveralInWorker = (ctx: Context, body: JobArgs<'changeSeveral'>['body']) =>
  body.items.length > FEW_ITEMS && hasThread(ctx.db)
    ? write<JobAnswer<'changeSeveral'>['answer']>(ctx, 'changeSeveral', { body })
    : null;

/** Whether some people can come: on a worker thread where they are many, or the time is days. */
export function whoCanComeInWorker(ctx: Context, key: string, body: JobArgs<'whoCanCome'>['body']) {
  const days = (Date.parse(body.when.end) - Date.parse(body.when.start)) / 86_400_000;
  return read(ctx, 'whoCanCome', { key, body }, body.people.length > 10 || days > 2);
}

/** One thing of a calendar, as a program reads it: on a worker thread where much of it was changed by itself. */
export const readObjectInWorker = (ctx: Context, key: string, name: string) =>
  read(ctx, 'readObject', { key, name }, isLongObject(ctx, key, name));

export const putObjectInWorker = (ctx: Context, args: JobArgs<'putObject'>) =>
  write<JobAnswer<'putObject'>['answer']>(ctx, 'putObject', args);
export const moveObjectInWorker = (ctx: Context, args: JobArgs<'moveObject'>) =>
  write<JobAnswer<'moveObject'>['answer']>(ctx, 'moveObject', args);
/** Brings tasks of a file in, and writes a list as a file: both hold more than anybody should wait for. */
export const importTasksInWorker = (ctx: Context, key: string, text: string) =>
  write<JobAnswer<'importTasks'>['answer']>(ctx, 'importTasks', { key, text });
export const importContactsInWorker = (ctx: Context, key: string, text: string) =>
  write<JobAnswer<'importContacts'>['answer']>(ctx, 'importContacts', { key, text });
export const undoListedInWorker = (ctx: Context, key: string) =>
  write<JobAnswer<'undoListed'>['answer']>(ctx, 'undoListed', { key });
export const exportContactsInWorker = (ctx: Context, key: string, version: CardVersion) =>
  read(ctx, 'exportContacts', { key, version }, true);
export const listAroundContactInWorker = (ctx: Context, key: string) => read(ctx, 'listAroundContact', { key }, true);
export const listAlikeContactsInWorker = (ctx: Context, key: string) => read(ctx, 'listAlikeContacts', { key }, true);
export const exportTasksInWorker = (ctx: Context, key: string) => read(ctx, 'exportTasks', { key }, true);
export const deleteObjectInWorker = (ctx: Context, args: JobArgs<'deleteObject'>) =>
  write<JobAnswer<'deleteObject'>['answer']>(ctx, 'deleteObject', args);
/** Makes what is on its way into people's calendars, in the order it was said; what takes long on another thread. */
export const deliverAll = (db: Connection, now: number, others: () => Promise<void>): Promise<number> =>
  deliverInTurn(db, now, (delivery) => deliverInWorker(db, delivery), others);

/** Makes a delivery that takes long. Throws where it can't be made. */
async function deliverInWorker(db: Connection, delivery: Delivery): Promise<void> {
  const viewer = personById(db, delivery.actorId);
  if (!viewer || !hasThreads()) {
    deliver(db, delivery.id);
    return;
  }
  const made = await write<boolean>({ db, now: delivery.at, viewer }, 'deliver', { id: delivery.id });
  if (typeof made !== 'boolean') throw new Error(made.code);
}

/** Reads what a link shows, for whoever holds it, on a worker thread. */
export async function readLinkInWorker<K extends keyof LinkReadings>(
  as: K,
  secret: string,
  headers: Headers,
  query: LinkQueries[K],
): Promise<Result<LinkReadings[K]>> {
  const open = admitToLink(secret, headers);
  return isRefusal(open) ? open : readOpen(open, secret, as, query);
}

async function readOpen<K extends keyof LinkReadings>(
  { db, at, link }: OpenLink,
  secret: string,
  as: K,
  query: LinkQueries[K],
): Promise<Result<LinkReadings[K]>> {
  if (!hasThread(db)) return readLink(db, at, secret, as, query);
  const args: LinkRead<K> = { secret, as, query };
  const job = {
    name: 'readLink' as const,
    viewer: null,
    session: null,
    token: null,
    confirmFirst: false,
    now: at,
    args,
  };
  return (await refusing(() => readInWorker(job, `link:${link.key}`))) as Result<LinkReadings[K]>;
}

/** The same for its page, which follows what changes: as of which version it is told. */
export async function listLinkItemsInWorker(
  secret: string,
  headers: Headers,
  query: LinkQueries['items'],
): Promise<Result<LinkItemsAnswer>> {
  const open = admitToLink(secret, headers);
  if (isRefusal(open)) return open;
  const version = hub().versionOf(`link:${open.link.key}`, open.calendar.key);
  const answer = await readOpen(open, secret, 'items', query);
  return answer.ok ? ok({ ...answer.value, version }) : answer;
}

/** Whether a calendar's range is heavy to read. A calendar that isn't there is light, and answers as it does. */
function weighs(ctx: Context, key: string, query: { from: string; to: string; zone: string } | null): boolean {
  const calendar = calendarByKey(ctx.db, key);
  if (!calendar) return false;
  const range = query === null ? comingRange(ctx) : readRange(query);
  return !isRefusal(range) && isHeavy(ctx.db, calendar, range);
}

/**
 * An answer whose reader can follow what changes from then on. The version is that of before the reading: what is told meanwhile may be
 * in it already, and comes out the same when it is told again.
 */
async function followed<A extends ItemsAnswer | LoadAnswer>(
  ctx: Context,
  key: string,
  reading: () => Promise<Result<A>>,
): Promise<Result<A>> {
  const version = hub().versionOf(ctx.viewer.id, key);
  const answer = await reading();
  return answer.ok ? ok({ ...answer.value, version }) : answer;
}

export const listItemsInWorker = (ctx: Context, key: string, query: JobArgs<'listItems'>['query']) => {
  const reading = () => read(ctx, 'listItems', { key, query }, weighs(ctx, key, query));
  // Through another's eyes there is nothing to follow: one is told what one sees oneself.
  return query.as === undefined ? followed(ctx, key, reading) : reading();
};
/** Several calendars in one answer: each read as it is alone, and those that are heavy on a worker thread. */
export async function listBoardsInWorker(
  ctx: Context,
  { calendars, ...query }: { readonly calendars: readonly string[] } & JobArgs<'listItems'>['query'],
): Promise<Result<BoardsAnswer>> {
  const boards: BoardsAnswer['boards'][number][] = [];
  for (const calendar of new Set(calendars)) {
    const answer = await listItemsInWorker(ctx, calendar, query);
    if (!answer.ok && answer.code !== 'notFound') return answer;
    boards.push({ calendar, answer: answer.ok ? answer.value : null });
  }
  return ok({ boards });
}
/** The Desk reads weeks of everybody one acts for: on a worker thread. Who has which row open is known here alone. */
export async function readDeskInWorker(ctx: Context, whom: string) {
  const answer = await read(ctx, 'readDesk', { whom }, true);
  return answer.ok ? ok(withWhoIsThere(ctx, answer.value)) : answer;
}
export const readDayInWorker = (ctx: Context, of: JobArgs<'readDay'>['of'], whom: string) =>
  read(ctx, 'readDay', { of, whom }, true);
/** The words of somebody's letter of the day, as they see it now. */
export const dayLetterInWorker = (ctx: Context, of: JobArgs<'dayLetter'>['of']) => read(ctx, 'dayLetter', { of }, true);
export const readTimeUseInWorker = (ctx: Context, handle: string, query: JobArgs<'readTimeUse'>['query']) =>
  read(ctx, 'readTimeUse', { handle, query }, true);
export const timeUseFileInWorker = (ctx: Context, handle: string, query: JobArgs<'timeUseFile'>['query']) =>
  read(ctx, 'timeUseFile', { handle, query }, true);
export const listTrailInWorker = (ctx: Context, query: JobArgs<'listTrail'>['query']) =>
  read(ctx, 'listTrail', { query }, true);
export const trailFileInWorker = (ctx: Context, query: JobArgs<'trailFile'>['query']) =>
  read(ctx, 'trailFile', { query }, true);
export const listLoadInWorker = (ctx: Context, key: string, query: JobArgs<'listLoad'>['query']) =>
  followed(ctx, key, () => read(ctx, 'listLoad', { key, query }, weighs(ctx, key, query)));
export const previewAccessInWorker = (ctx: Context, key: string, body: JobArgs<'previewAccess'>['body']) =>
  read(ctx, 'previewAccess', { key, body }, weighs(ctx, key, body.range) || weighs(ctx, key, null));
/** The findings of a calendar where nobody is shown them, as when they are counted: nothing is noted as seen. */
export const readFindingsUnseen = (ctx: Context, key: string) =>
  read(ctx, 'readFindings', { key }, weighs(ctx, key, null));
export async function readFindingsInWorker(ctx: Context, key: string) {
  const answer = await readFindingsUnseen(ctx, key);
  if (answer.ok) noteFindings(ctx, key, answer.value);
  return answer;
}
export const listSightlinesInWorker = (ctx: Context, key: string) =>
  read(ctx, 'listSightlines', { key }, weighs(ctx, key, null));
export const suggestLevelInWorker = (ctx: Context, key: string, body: JobArgs<'suggestLevel'>['body']) =>
  read(ctx, 'suggestLevel', { key, body }, weighs(ctx, key, null));
/** Looking everywhere may look at thousands of items for the few that may be seen. */
export const searchInWorker = (ctx: Context, query: JobArgs<'search'>['query']) =>
  read(ctx, 'search', { query }, query.everywhere !== undefined);
export const findDaysInWorker = (ctx: Context, key: string, query: JobArgs<'findDays'>['query']) =>
  read(ctx, 'findDays', { key, query }, weighs(ctx, key, query));
/** A search for times reads weeks of everybody who comes. */
export const findTimesInWorker = (ctx: Context, key: string, body: JobArgs<'findTimes'>['body']) =>
  read(ctx, 'findTimes', { key, body }, body.people.length * body.days > 14 || body.room !== null);

export const readTimesDayInWorker = (ctx: Context, key: string, body: JobArgs<'readTimesDay'>['body']) =>
  read(ctx, 'readTimesDay', { key, body }, body.people.length > 10);

export const findRoundInWorker = (ctx: Context, key: string, body: JobArgs<'findRound'>['body']) =>
  read(ctx, 'findRound', { key, body }, true);

export const findSeriesTimesInWorker = (ctx: Context, key: string, body: JobArgs<'findSeriesTimes'>['body']) =>
  read(ctx, 'findSeriesTimes', { key, body }, true);
/** Making room tries many places. */
export const findRoomInWorker = (ctx: Context, key: string, body: JobArgs<'findRoom'>['body']) =>
  read(ctx, 'findRoom', { key, body }, true);
/** A fortnight of one calendar is light, that of everybody who comes isn't. */
export const checkTimeInWorker = (ctx: Context, key: string, body: JobArgs<'checkTime'>['body']) =>
  read(ctx, 'checkTime', { key, body }, body.people.length > 2);
/** A program may ask for all there is, with its texts: always on a worker thread, but for a few by their names. */
export const listObjectsInWorker = (ctx: Context, key: string, wanted: JobArgs<'listObjects'>['wanted']) =>
  read(ctx, 'listObjects', { key, wanted }, (wanted.names?.length ?? MANY_NAMES) >= MANY_NAMES || !!wanted.expand);
const MANY_NAMES = 10;
/** Of many people, each with all their weeks. */
export const requestFreeBusyInWorker = (ctx: Context, args: JobArgs<'requestFreeBusy'>) =>
  read(ctx, 'requestFreeBusy', args, true);
export const listInboxInWorker = (ctx: Context) => read(ctx, 'listInbox', {}, true);
export const queryFreeBusyInWorker = (ctx: Context, key: string, instants: JobArgs<'queryFreeBusy'>['instants']) =>
  read(ctx, 'queryFreeBusy', { key, instants }, true);
/** Taking a calendar out reads all of it: always on a worker thread. */
export const exportFileInWorker = (ctx: Context, key: string) => read(ctx, 'exportFile', { key }, true);

/** As many changes of access as are made on the request's thread; more are made beside it, on the thread that stays. */
const FEW_CHANGES = 20;

/** Changes access on many calendars, all or none. */
export async function changeGrantsAside(
  ctx: Context,
  body: JobArgs<'changeGrants'>['body'],
): Promise<JobAnswer<'changeGrants'>> {
  if (body.changes.length <= FEW_CHANGES || !hasThread(ctx.db)) return changeGrants(ctx, body);
  return refusing(() => writeInWorker(jobFor(ctx, 'changeGrants', { body }), ctx.viewer.id)) as Promise<
    JobAnswer<'changeGrants'>
  >;
}

/** What a work has where there are no threads: it is done here, in slices that let others through. */
const portHere = (progress?: (done: number, of: number) => void, stopped = () => false): Port => ({
  progress: (done, of) => progress?.(done, of),
  stopped,
  others: () => new Promise((go) => setImmediate(go)),
  alone: async (work) => work(hub().listeners()),
});

/** How work on files fails, and what its asker is told. */
const FILE_FAILURES = [
  ['TookTooLong', 'fileTookTooLong'],
  ['TooManyWaiting', 'tooManyFiles'],
  ['GaveUp', 'stopped'],
] as const;

/** Does a long work on worker threads. `begun` is given the way to stop it. Answers a refusal where it takes too long, or too much waits. */
export async function work<N extends Exclude<WorkName, 'changeGrants'>>(
  ctx: Context,
  name: N,
  args: JobArgs<N>,
  hooks: Parameters<typeof workInWorker>[1] = {},
): Promise<JobAnswer<N>> {
  if (!hasThread(ctx.db)) {
    let stop = false;
    hooks.begun?.(() => {
      stop = true;
    });
    const job = JOBS[name] as (ctx: Context, args: JobArgs<N>, port: Port) => Promise<JobAnswer<N>>;
    return job(
      ctx,
      args,
      portHere(hooks.progress, () => stop),
    );
  }
  try {
    return (await workInWorker(jobFor(ctx, name, args), hooks)) as JobAnswer<N>;
  } catch (error) {
    const known = FILE_FAILURES.find(([failure]) => failedSo(error, failure));
    if (known) return refuse(known[1]) as Result<never> as JobAnswer<N>;
    throw error;
  }
}
