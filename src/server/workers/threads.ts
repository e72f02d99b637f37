import { closeForOthers } from '../db/gate.ts';
import { hub } from '../live/hub.ts';
import type { FromThread, Job, ToThread } from './port.ts';
import { type Ended, Lane, Thread } from './thread.ts';
import { Turns, type Who } from './turns.ts';

interface Hooks {
  progress?: ((done: number, of: number) => void) | undefined;
  over?: (() => void) | undefined;
}

/** A thread that does jobs, says how far it is, can be stopped, and asks to write alone. */
class JobThread extends Thread<Job> {
  private readonly hooks = new Map<number, Hooks>();

  constructor(megabytes: number) {
    super('heavy-worker', megabytes);
  }

  override run(job: Job, longestMs: number, progress?: Hooks['progress']): { id: number; answer: Promise<unknown> } {
    const { id, answer } = super.run(job, longestMs);
    this.hooks.set(id, { progress });
    return { id, answer: answer.finally(() => this.hooks.delete(id)) };
  }

  /** Asks a job to end early. */
  stop(id: number): void {
    this.say({ id, stop: true } satisfies ToThread);
  }

  protected override hear(message: FromThread | Ended): void {
    if ('result' in message || 'failed' in message) super.hear(message);
    else if ('progress' in message) this.hooks.get(message.id)?.progress?.(...message.progress);
    else if ('wantsAlone' in message) void this.letAlone(message.id);
    else this.letOthers(this.hooks.get(message.id));
  }

  private async letAlone(id: number): Promise<void> {
    const over = await closeForOthers();
    const job = this.hooks.get(id);
    // It may have ended while it waited for its turn.
    if (!job || this.ended) return over();
    job.over = over;
    this.say({ id, go: hub().listeners() } satisfies ToThread);
  }

  protected override fail(error: Error): void {
    if (this.ended) return;
    for (const job of this.hooks.values()) this.letOthers(job);
    super.fail(error);
  }

  /** Once: the way may be closed for somebody else by then. */
  private letOthers(job: Hooks | undefined): void {
    job?.over?.();
    if (job) job.over = undefined;
  }
}

const LONGEST_READING = 30_000;
const LONGEST_WRITING = 60_000;
const LONGEST_BRINGING = 10 * 60_000;
type LaneName = 'reading' | 'writing';
const holder = globalThis as { paramoLanes?: Record<LaneName, Lane<Job>>; paramoTurns?: Turns };

/** What waits for its turn at a thread: of one person or link, and in all. */
const MOST_WAITING_READS = [30, 500] as const;

function lane(name: LaneName): Lane<Job> {
  const of = (longestMs: number) => new Lane(() => new JobThread(1024), longestMs, new Turns(1, ...MOST_WAITING_READS));
  holder.paramoLanes ??= { reading: of(LONGEST_READING), writing: of(LONGEST_WRITING) };
  return holder.paramoLanes[name];
}

/**
 * Reads on a worker thread, one reading after the other, on a thread that stays; `who` is whose turn it takes. Throws `TookTooLong`, and
 * `TooManyWaiting` where as many wait as may.
 */
export const readInWorker = (job: Job, who: Who): Promise<unknown> => lane('reading').run(job, who);

/** The same for what writes, on another thread: nobody who reads waits for it, and whoever writes on this one waits no longer than its closing act. */
export const writeInWorker = (job: Job, who: Who): Promise<unknown> => lane('writing').run(job, who);

/** Files that are read or brought in at one time; so many of one person's, and in all, wait for their turn. */
const AT_ONCE = 2;
const MOST_WAITING_EACH = 3;
const MOST_WAITING = 20;

/**
 * Does a long work on a thread of its own, which ends with it, when it is its turn. `begun` is given the way to stop it, also while it
 * waits. Throws `TooManyWaiting`, `GaveUp` and `TookTooLong`.
 */
export async function workInWorker(
  job: Job,
  hooks: { longestMs?: number; progress?: (done: number, of: number) => void; begun?: (stop: () => void) => void },
): Promise<unknown> {
  holder.paramoTurns ??= new Turns(AT_ONCE, MOST_WAITING_EACH, MOST_WAITING);
  const end = await holder.paramoTurns.take(job.viewer ?? 0, hooks.begun);
  const thread = new JobThread(2048);
  try {
    const { id, answer } = thread.run(job, hooks.longestMs ?? LONGEST_BRINGING, hooks.progress);
    hooks.begun?.(() => thread.stop(id));
    return await answer;
  } finally {
    thread.end();
    end();
  }
}
