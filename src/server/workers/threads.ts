import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import { closeForOthers } from '../db/gate.ts';
import { hub } from '../live/hub.ts';
import type { FromThread, Job, ToThread } from './port.ts';
import { TookTooLong, Turns, type Who } from './turns.ts';

/** A job under way: how far it is, and a way to stop it. */
interface UnderWay {
  readonly answer: Promise<unknown>;
  stop(): void;
}

interface Waiting {
  resolve(result: unknown): void;
  reject(error: Error): void;
  progress?: ((done: number, of: number) => void) | undefined;
  over?: () => void;
}

const script = (): string => join(process.cwd(), 'dist/workers/heavy-worker.mjs');

/** Whether there are threads to work beside this one: run from source (development, tests) there are none. */
export const hasThreads = (): boolean => process.env.NODE_ENV === 'production' && existsSync(script());

/** One thread, and what is asked of it. It ends with its first failure; the next job begins another. */
class Thread {
  private readonly worker: Worker;
  private readonly waiting = new Map<number, Waiting>();
  private next = 1;
  ended = false;

  constructor(megabytes: number) {
    // Asked of the process, so that no bundler takes the script for a module of its own.
    const { Worker } = process.getBuiltinModule('node:worker_threads');
    this.worker = new Worker(script(), { resourceLimits: { maxOldGenerationSizeMb: megabytes } });
    this.worker.unref();
    this.worker.on('message', (message: FromThread) => void this.hear(message));
    this.worker.on('error', (error: NodeJS.ErrnoException) =>
      this.fail(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new TookTooLong() : error),
    );
    this.worker.on('exit', () => this.fail(new TookTooLong()));
  }

  run(job: Job, longestMs: number, progress?: Waiting['progress']): UnderWay {
    const id = this.next++;
    const timer = setTimeout(() => this.end(), longestMs);
    const answer = new Promise<unknown>((resolve, reject) => {
      this.waiting.set(id, { resolve, reject, progress });
      this.say({ id, job });
    }).finally(() => clearTimeout(timer));
    return { answer, stop: () => this.say({ id, stop: true }) };
  }

  end(): void {
    void this.worker.terminate();
  }

  private say(message: ToThread): void {
    this.worker.postMessage(message);
  }

  private async hear(message: FromThread): Promise<void> {
    const job = this.waiting.get(message.id);
    if (!job) return;
    if ('progress' in message) job.progress?.(...message.progress);
    else if ('wantsAlone' in message) {
      job.over = await closeForOthers();
      // It may have ended while it waited for its turn.
      if (this.ended) job.over();
      else this.say({ id: message.id, go: hub().listeners() });
    } else if ('isOver' in message) job.over?.();
    else {
      this.waiting.delete(message.id);
      if ('result' in message) job.resolve(message.result);
      else job.reject(new Error(message.failed));
    }
  }

  private fail(error: Error): void {
    if (this.ended) return;
    this.ended = true;
    for (const job of this.waiting.values()) {
      job.over?.();
      job.reject(error);
    }
    this.waiting.clear();
  }
}

const LONGEST_READING = 30_000;
const LONGEST_WRITING = 60_000;
const LONGEST_BRINGING = 10 * 60_000;
const holder = globalThis as { paramoLanes?: Record<LaneName, Lane>; paramoTurns?: Turns };

/** What waits for its turn at a thread: of one person or link, and in all. */
const MOST_WAITING_READS = [30, 500] as const;

/** A thread that stays, with a queue in which people take turns: whoever asks for much waits for their own work, not others for it. */
class Lane {
  private thread: Thread | null = null;
  private readonly turns = new Turns(1, ...MOST_WAITING_READS);

  constructor(private readonly longestMs: number) {}

  async run(job: Job, who: Who): Promise<unknown> {
    const end = await this.turns.take(who);
    try {
      if (!this.thread || this.thread.ended) this.thread = new Thread(1024);
      return await this.thread.run(job, this.longestMs).answer;
    } finally {
      end();
    }
  }
}

type LaneName = 'reading' | 'writing';
function lane(name: LaneName): Lane {
  holder.paramoLanes ??= { reading: new Lane(LONGEST_READING), writing: new Lane(LONGEST_WRITING) };
  return holder.paramoLanes[name];
}

/**
 * Reads beside requests, one reading after the other, on a thread that stays; `who` is whose turn it takes. Throws `TookTooLong`, and
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
  const thread = new Thread(2048);
  try {
    const { answer, stop } = thread.run(job, hooks.longestMs ?? LONGEST_BRINGING, hooks.progress);
    hooks.begun?.(stop);
    return await answer;
  } finally {
    thread.end();
    end();
  }
}
