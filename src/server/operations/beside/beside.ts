import type { ItemsAnswer, LoadAnswer } from '@/contract/items.ts';
import type { BoardsAnswer } from '@/contract/lanes.ts';
import { isOwn } from '../../db/index.ts';
import { hub } from '../../live/hub.ts';
import { calendarByKey } from '../../repositories/calendars.ts';
import { ok, type Result, refuse } from '../../result.ts';
import type { JobName, Port } from '../../workers/port.ts';
import { hasThreads, readBeside, TookTooLong, workBeside } from '../../workers/threads.ts';
import { GaveUp, TooManyWaiting } from '../../workers/turns.ts';
import { type Context, isHeavy, isRefusal, readRange } from '../deciding/index.ts';
import { changeGrants, comingRange, noteFindings } from '../sharing/index.ts';
import { JOBS, type JobAnswer, type JobArgs, jobFor } from './jobs-beside.ts';

type ReadingName = Exclude<JobName, WorkName>;
type WorkName = 'readFile' | 'bringIn' | 'takeBatchBack' | 'changeGrants';

/** Reads that are quick on the request's thread are done there; those that would make others wait, beside it. */
async function read<N extends ReadingName>(
  ctx: Context,
  name: N,
  args: JobArgs<N>,
  heavy: boolean,
): Promise<JobAnswer<N>> {
  const here = () => (JOBS[name] as (ctx: Context, args: JobArgs<N>) => JobAnswer<N>)(ctx, args);
  if (!heavy || !isOwn(ctx.db) || !hasThreads()) return here();
  try {
    return (await readBeside(jobFor(ctx, name, args))) as JobAnswer<N>;
  } catch (error) {
    if (error instanceof TookTooLong) return refuse('tooSlow') as JobAnswer<N>;
    throw error;
  }
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

export const listItemsBeside = (ctx: Context, key: string, query: JobArgs<'listItems'>['query']) => {
  const reading = () => read(ctx, 'listItems', { key, query }, weighs(ctx, key, query));
  // Through another's eyes there is nothing to follow: one is told what one sees oneself.
  return query.as === undefined ? followed(ctx, key, reading) : reading();
};
/** Several calendars in one answer: each read as it is alone, and those that are heavy beside the requests. */
export async function listBoardsBeside(
  ctx: Context,
  { calendars, ...query }: { readonly calendars: readonly string[] } & JobArgs<'listItems'>['query'],
): Promise<Result<BoardsAnswer>> {
  const boards: BoardsAnswer['boards'][number][] = [];
  for (const calendar of new Set(calendars)) {
    const answer = await listItemsBeside(ctx, calendar, query);
    if (!answer.ok && answer.code !== 'notFound') return answer;
    boards.push({ calendar, answer: answer.ok ? answer.value : null });
  }
  return ok({ boards });
}
export const listLoadBeside = (ctx: Context, key: string, query: JobArgs<'listLoad'>['query']) =>
  followed(ctx, key, () => read(ctx, 'listLoad', { key, query }, weighs(ctx, key, query)));
export const previewAccessBeside = (ctx: Context, key: string, body: JobArgs<'previewAccess'>['body']) =>
  read(ctx, 'previewAccess', { key, body }, weighs(ctx, key, body.range) || weighs(ctx, key, null));
/** What is found on a calendar where nobody is shown it. */
export const readFindingsUnseen = (ctx: Context, key: string) =>
  read(ctx, 'readFindings', { key }, weighs(ctx, key, null));
export async function readFindingsBeside(ctx: Context, key: string) {
  const answer = await readFindingsUnseen(ctx, key);
  if (answer.ok) noteFindings(ctx, key, answer.value);
  return answer;
}
export const listSightlinesBeside = (ctx: Context, key: string) =>
  read(ctx, 'listSightlines', { key }, weighs(ctx, key, null));
export const suggestLevelBeside = (ctx: Context, key: string, body: JobArgs<'suggestLevel'>['body']) =>
  read(ctx, 'suggestLevel', { key, body }, weighs(ctx, key, null));
/** Looking everywhere may look at thousands of items for the few that may be seen. */
export const searchBeside = (ctx: Context, query: JobArgs<'search'>['query']) =>
  read(ctx, 'search', { query }, query.everywhere !== undefined);
export const findDaysBeside = (ctx: Context, key: string, query: JobArgs<'findDays'>['query']) =>
  read(ctx, 'findDays', { key, query }, weighs(ctx, key, query));
/** A search for times reads weeks of everybody who comes. */
export const findTimesBeside = (ctx: Context, key: string, body: JobArgs<'findTimes'>['body']) =>
  read(ctx, 'findTimes', { key, body }, body.people.length * body.days > 14 || body.room !== null);

export const readTimesDayBeside = (ctx: Context, key: string, body: JobArgs<'readTimesDay'>['body']) =>
  read(ctx, 'readTimesDay', { key, body }, body.people.length > 10);

export const findRoundBeside = (ctx: Context, key: string, body: JobArgs<'findRound'>['body']) =>
  read(ctx, 'findRound', { key, body }, true);

export const findSeriesTimesBeside = (ctx: Context, key: string, body: JobArgs<'findSeriesTimes'>['body']) =>
  read(ctx, 'findSeriesTimes', { key, body }, true);
/** Making room tries many places. */
export const findRoomBeside = (ctx: Context, key: string, body: JobArgs<'findRoom'>['body']) =>
  read(ctx, 'findRoom', { key, body }, true);
/** A fortnight of one calendar is light, that of everybody who comes isn't. */
export const checkTimeBeside = (ctx: Context, key: string, body: JobArgs<'checkTime'>['body']) =>
  read(ctx, 'checkTime', { key, body }, body.people.length > 2);
/** A program may ask for all there is, with its texts: always beside the requests, but for a few by their names. */
export const listObjectsBeside = (ctx: Context, key: string, wanted: JobArgs<'listObjects'>['wanted']) =>
  read(ctx, 'listObjects', { key, wanted }, (wanted.names?.length ?? MANY_NAMES) >= MANY_NAMES || !!wanted.expand);
const MANY_NAMES = 10;
export const queryFreeBusyBeside = (ctx: Context, key: string, instants: JobArgs<'queryFreeBusy'>['instants']) =>
  read(ctx, 'queryFreeBusy', { key, instants }, true);
/** Taking a calendar out reads all of it: always beside the requests. */
export const exportFileBeside = (ctx: Context, key: string) => read(ctx, 'exportFile', { key }, true);

/** As many changes of access as are made on the request's thread; more are made beside it, on the thread that stays. */
const FEW_CHANGES = 20;

/** Changes access on many calendars, all or none. */
export async function changeGrantsAside(
  ctx: Context,
  body: JobArgs<'changeGrants'>['body'],
): Promise<JobAnswer<'changeGrants'>> {
  if (body.changes.length <= FEW_CHANGES || !isOwn(ctx.db) || !hasThreads()) return changeGrants(ctx, body);
  try {
    return (await readBeside(jobFor(ctx, 'changeGrants', { body }))) as JobAnswer<'changeGrants'>;
  } catch (error) {
    if (error instanceof TookTooLong) return refuse('tooSlow');
    throw error;
  }
}

/** What a work has where there are no threads: it is done here, in slices that let others through. */
const portHere = (progress?: (done: number, of: number) => void, stopped = () => false): Port => ({
  progress: (done, of) => progress?.(done, of),
  stopped,
  others: () => new Promise((go) => setImmediate(go)),
  alone: async (work) => work(hub().listeners()),
});

/** Does a long work beside requests. `begun` is given the way to stop it. Answers a refusal where it takes too long, or too much waits. */
export async function work<N extends Exclude<WorkName, 'changeGrants'>>(
  ctx: Context,
  name: N,
  args: JobArgs<N>,
  hooks: Parameters<typeof workBeside>[1] = {},
): Promise<JobAnswer<N>> {
  if (!isOwn(ctx.db) || !hasThreads()) {
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
    return (await workBeside(jobFor(ctx, name, args), hooks)) as JobAnswer<N>;
  } catch (error) {
    const code =
      error instanceof TookTooLong
        ? 'fileTookTooLong'
        : error instanceof TooManyWaiting
          ? 'tooManyFiles'
          : error instanceof GaveUp
            ? 'stopped'
            : null;
    if (code) return refuse(code) as Result<never> as JobAnswer<N>;
    throw error;
  }
}
