import type { Connection } from '../../db/index.ts';
import { personById } from '../../repositories/people.ts';
import type { Job, JobName, Port } from '../../workers/port.ts';
import { listObjects, queryFreeBusy } from '../dav/index.ts';
import type { Context } from '../deciding/index.ts';
import { bringInSteps, exportFile, listItems, listLoad, readFile, takeBatchBack } from '../items/index.ts';
import { checkTime, findRoom, findRound, findSeriesTimes, findTimes, readTimesDay } from '../openings/index.ts';
import { findDays, search } from '../search/index.ts';
import { changeGrantsAlone, listSightlines, previewAccess, readFindings, suggestLevel } from '../sharing/index.ts';

/** What can be done beside requests: by name, as the same operation, with its arguments as plain data. */
export const JOBS = {
  listItems: (ctx: Context, args: { key: string; query: Parameters<typeof listItems>[2] }) =>
    listItems(ctx, args.key, args.query),
  listObjects: (ctx: Context, args: { key: string; wanted: Parameters<typeof listObjects>[2] }) =>
    listObjects(ctx, args.key, args.wanted),
  queryFreeBusy: (ctx: Context, args: { key: string; instants: Parameters<typeof queryFreeBusy>[2] }) =>
    queryFreeBusy(ctx, args.key, args.instants),
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
} satisfies Record<JobName, (ctx: Context, args: never, port: Port) => unknown>;

export type JobArgs<N extends JobName> = Parameters<(typeof JOBS)[N]>[1];
export type JobAnswer<N extends JobName> = Awaited<ReturnType<(typeof JOBS)[N]>>;

/** Does a job that was sent to a thread, for whoever asked, over the thread's own connection. */
export async function doJob(
  db: Connection,
  { name, viewer, session, token, now, args }: Job,
  port: Port,
): Promise<unknown> {
  const person = personById(db, viewer);
  if (!person) throw new Error('nobody asked for this');
  return JOBS[name]({ db, now, viewer: person, session, token }, args as never, port);
}

/** A job as it is sent to a thread. */
export const jobFor = <N extends JobName>(ctx: Context, name: N, args: JobArgs<N>): Job => ({
  name,
  viewer: ctx.viewer.id,
  session: ctx.session ?? null,
  token: ctx.token ?? null,
  now: ctx.now,
  args,
});
