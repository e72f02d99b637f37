import type { DayPart } from '@/contract/days.ts';
import type { TimeUseQuery } from '@/contract/time-use.ts';
import type { TrailQuery } from '@/contract/trail.ts';
import type { CardVersion } from '@/core/contacts/index.ts';
import type { Connection } from '../../db/index.ts';
import { HubElsewhere, hub, type ToldElsewhere } from '../../live/hub.ts';
import { personById } from '../../repositories/people.ts';
import type { Result } from '../../result.ts';
import { ok } from '../../result.ts';
import type { Job, JobName, Port } from '../../workers/port.ts';
import { exportContacts, importContacts, listAlikeContacts, listAroundContact } from '../contacts/index.ts';
import {
  deleteObject,
  listInbox,
  listObjects,
  moveObject,
  type ObjectMove,
  putObject,
  queryFreeBusy,
  readObject,
  requestFreeBusy,
} from '../dav/index.ts';
import { dayLetter, readDay } from '../days/index.ts';
import { again, type Context, everythingTold, isRefusal, noteTokenAct } from '../deciding/index.ts';
import { readDesk } from '../desk/index.ts';
import { bringInSteps, exportFile, listItems, listLoad, readFile, takeBatchBack } from '../items/index.ts';
import { changeMeeting, changeSeveral, createMeeting, deliver, unlessItLeaves, whoCanCome } from '../meetings/index.ts';
import { checkTime, findRoom, findRound, findSeriesTimes, findTimes, readTimesDay } from '../openings/index.ts';
import { findDays, search } from '../search/index.ts';
import {
  changeGrantsAlone,
  type LinkQueries,
  type LinkReadings,
  listSightlines,
  previewAccess,
  readFindings,
  readLink,
  suggestLevel,
} from '../sharing/index.ts';
import { exportTasks, importTasks } from '../tasks/index.ts';
import { readTimeUse, timeUseFile } from '../time-use/index.ts';
import { listTrail, trailFile } from '../trail/index.ts';
import { undoListed } from './undo-listed.ts';

/** What was written on a worker thread, and what is to be told of it on the thread that has the windows. */
export interface Written<T> {
  readonly answer: T;
  readonly told: readonly ToldElsewhere[];
}

/** Writes while nobody else does, and waits until all of it was told. */
async function alone<T>(port: Port, work: () => T): Promise<Written<T>> {
  const here = hub();
  const elsewhere = here instanceof HubElsewhere ? here : null;
  const answer = await port.alone((listeners) => {
    elsewhere?.hearing(listeners);
    return work();
  });
  await everythingTold();
  return { answer, told: elsewhere?.take() ?? [] };
}

/** Writes in one transaction, in which the viewer is read once more. */
const inTransaction = <T>(ctx: Context, work: (ctx: Context) => Result<T>): Result<T> =>
  ctx.db.write(() => {
    const now = again(ctx);
    return isRefusal(now) ? now : work(now);
  });

/** The same for what no route notes among the acts of a token. */
const noted = <T>(
  ctx: Context,
  act: string,
  where: Parameters<typeof noteTokenAct>[2],
  work: (ctx: Context) => Result<T>,
): Result<T> =>
  inTransaction(ctx, (now) => {
    const done = work(now);
    if (done.ok) noteTokenAct(ctx, act, where);
    return unlessItLeaves(now, done);
  });

/** What can be done on a worker thread: by name, as the same operation, with its arguments as plain data. */
export const JOBS = {
  listItems: (ctx: Context, args: { key: string; query: Parameters<typeof listItems>[2] }) =>
    listItems(ctx, args.key, args.query),
  listObjects: (ctx: Context, args: { key: string; wanted: Parameters<typeof listObjects>[2] }) =>
    listObjects(ctx, args.key, args.wanted),
  queryFreeBusy: (ctx: Context, args: { key: string; instants: Parameters<typeof queryFreeBusy>[2] }) =>
    queryFreeBusy(ctx, args.key, args.instants),
  requestFreeBusy: (ctx: Context, args: FreeBusyRequest) =>
    requestFreeBusy(ctx, args.addresses, args.instants, args.uid),
  listInbox: (ctx: Context, _args: Record<never, never>) => listInbox(ctx),
  createMeeting: (ctx: Context, args: { key: string; body: Parameters<typeof createMeeting>[2] }, port: Port) =>
    alone(port, () =>
      noted(ctx, 'createItem', { calendar: args.key }, (now) => createMeeting(now, args.key, args.body)),
    ),
  changeMeeting: (ctx: Context, args: { id: string; body: Parameters<typeof changeMeeting>[2] }, port: Port) =>
    alone(port, () => noted(ctx, 'changeItem', { item: args.id }, (now) => changeMeeting(now, args.id, args.body))),
  changeSeveral: (ctx: Context, args: { body: Parameters<typeof changeSeveral>[1] }, port: Port) =>
    alone(port, () => noted(ctx, 'changeSeveral', {}, (now) => changeSeveral(now, args.body))),
  whoCanCome: (ctx: Context, args: { key: string; body: Parameters<typeof whoCanCome>[2] }) =>
    whoCanCome(ctx, args.key, args.body),
  readObject: (ctx: Context, args: { key: string; name: string }) => readObject(ctx, args.key, args.name),
  putObject: (ctx: Context, args: ObjectPut, port: Port) =>
    alone(port, () =>
      noted(ctx, 'putObject', { calendar: args.key }, (now) =>
        putObject(now, args.key, args.name, args.text, args.seen),
      ),
    ),
  deleteObject: (ctx: Context, args: Omit<ObjectPut, 'text'> & { readonly quietly: boolean }, port: Port) =>
    alone(port, () =>
      noted(ctx, 'deleteObject', { calendar: args.key }, (now) =>
        deleteObject(now, args.key, args.name, args.seen, args.quietly),
      ),
    ),
  moveObject: (ctx: Context, args: ObjectMove, port: Port) =>
    alone(port, () => noted(ctx, 'moveObject', { calendar: args.from.key }, (now) => moveObject(now, args))),
  importTasks: (ctx: Context, args: { key: string; text: string }, port: Port) =>
    alone(port, () => inTransaction(ctx, (now) => importTasks(now, args.key, args.text))),
  importContacts: (ctx: Context, args: { key: string; text: string }, port: Port) =>
    alone(port, () => inTransaction(ctx, (now) => importContacts(now, args.key, args.text))),
  undoListed: (ctx: Context, args: { key: string }, port: Port) =>
    alone(port, () => inTransaction(ctx, (now) => undoListed(now, args.key))),
  exportContacts: (ctx: Context, args: { key: string; version: CardVersion }) =>
    exportContacts(ctx, args.key, args.version),
  listAroundContact: (ctx: Context, args: { key: string }) => listAroundContact(ctx, args.key),
  listAlikeContacts: (ctx: Context, args: { key: string }) => listAlikeContacts(ctx, args.key),
  exportTasks: (ctx: Context, args: { key: string }) => exportTasks(ctx, args.key),
  deliver: (ctx: Context, args: { id: number }, port: Port) => alone(port, () => deliver(ctx.db, args.id)),
  readDay: (ctx: Context, args: { of: DayPart; whom: string }) => readDay(ctx, args.of, args.whom),
  dayLetter: (ctx: Context, args: { of: DayPart }) => ok(dayLetter(ctx, args.of)),
  readTimeUse: (ctx: Context, { handle, query }: { handle: string; query: TimeUseQuery }) =>
    readTimeUse(ctx, handle, query),
  timeUseFile: (ctx: Context, { handle, query }: { handle: string; query: TimeUseQuery }) =>
    timeUseFile(ctx, handle, query),
  listTrail: (ctx: Context, args: { query: TrailQuery }) => listTrail(ctx, args.query),
  trailFile: (ctx: Context, args: { query: TrailQuery }) => trailFile(ctx, args.query),
  readDesk: (ctx: Context, args: { whom: string }) => readDesk(ctx, args.whom),
  listLoad: (ctx: Context, args: { key: string; query: Parameters<typeof listLoad>[2] }) =>
    listLoad(ctx, args.key, args.query),
  previewAccess: (ctx: Context, args: { key: string; body: Parameters<typeof previewAccess>[2] }) =>
    previewAccess(ctx, args.key, args.body),
  readFindings: (ctx: Context, args: { key: string }) => readFindings(ctx, args.key),
  listSightlines: (ctx: Context, args: { key: string }) => listSightlines(ctx, args.key),
  suggestLevel: (ctx: Context, args: { key: string; body: Parameters<typeof suggestLevel>[2] }) =>
    suggestLevel(ctx, args.key, args.body),
  findDays: (ctx: Context, args: { key: string; query: Parameters<typeof findDays>[2] }) =>
    findDays(ctx, args.key, args.query),
  search: (ctx: Context, args: { query: Parameters<typeof search>[1] }) => search(ctx, args.query),
  checkTime: (ctx: Context, args: { key: string; body: Parameters<typeof checkTime>[2] }) =>
    checkTime(ctx, args.key, args.body),
  findTimes: (ctx: Context, args: { key: string; body: Parameters<typeof findTimes>[2] }) =>
    findTimes(ctx, args.key, args.body),
  readTimesDay: (ctx: Context, args: { key: string; body: Parameters<typeof readTimesDay>[2] }) =>
    readTimesDay(ctx, args.key, args.body),
  findRound: (ctx: Context, args: { key: string; body: Parameters<typeof findRound>[2] }) =>
    findRound(ctx, args.key, args.body),
  findSeriesTimes: (ctx: Context, args: { key: string; body: Parameters<typeof findSeriesTimes>[2] }) =>
    findSeriesTimes(ctx, args.key, args.body),
  findRoom: (ctx: Context, args: { key: string; body: Parameters<typeof findRoom>[2] }) =>
    findRoom(ctx, args.key, args.body),
  exportFile: (ctx: Context, args: { key: string }) => exportFile(ctx, args.key),
  readFile: (ctx: Context, args: Parameters<typeof readFile>[1], port: Port) => readFile(ctx, args, port),
  bringIn: (ctx: Context, args: Parameters<typeof bringInSteps>[1], port: Port) => bringInSteps(ctx, args, port),
  takeBatchBack: (ctx: Context, args: Parameters<typeof takeBatchBack>[1], port: Port) =>
    takeBatchBack(ctx, args, port),
  changeGrants: (ctx: Context, args: Parameters<typeof changeGrantsAlone>[1], port: Port) =>
    changeGrantsAlone(ctx, args, port),
} satisfies Record<Exclude<JobName, 'readLink'>, (ctx: Context, args: never, port: Port) => unknown>;

/** When others are free, as a program asks. */
interface FreeBusyRequest {
  readonly addresses: readonly string[];
  readonly instants: Parameters<typeof requestFreeBusy>[2];
  readonly uid: string;
}
/** One thing of a calendar, as a program sends it. */
interface ObjectPut {
  readonly key: string;
  readonly name: string;
  readonly text: string;
  readonly seen: Parameters<typeof putObject>[4];
}
/** A reading of a link, by its secret. */
export interface LinkRead<K extends keyof LinkReadings = keyof LinkReadings> {
  readonly secret: string;
  readonly as: K;
  readonly query: LinkQueries[K];
}

export type JobArgs<N extends keyof typeof JOBS> = Parameters<(typeof JOBS)[N]>[1];
export type JobAnswer<N extends keyof typeof JOBS> = Awaited<ReturnType<(typeof JOBS)[N]>>;

/** Does a job that was sent to a thread, for whoever asked, over the thread's own connection. */
export async function doJob(
  db: Connection,
  { name, viewer, session, token, confirmFirst, now, args }: Job,
  port: Port,
): Promise<unknown> {
  if (name === 'readLink') {
    const { secret, as, query } = args as LinkRead;
    return readLink(db, now, secret, as, query);
  }
  const person = viewer === null ? null : personById(db, viewer);
  if (!person) throw new Error('nobody asked for this');
  return JOBS[name](
    { db, now, viewer: person, session, token, leaving: confirmFirst ? new Map() : null },
    args as never,
    port,
  );
}

/** A job as it is sent to a thread. */
export const jobFor = <N extends keyof typeof JOBS>(ctx: Context, name: N, args: JobArgs<N>): Job => ({
  name,
  viewer: ctx.viewer.id,
  session: ctx.session ?? null,
  token: ctx.token ?? null,
  confirmFirst: Boolean(ctx.leaving),
  now: ctx.now,
  args,
});
