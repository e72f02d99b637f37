import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import { TookTooLong, type Turns, type Who } from './turns.ts';

/** What is asked of a thread, and how it ends; a script that says more than this has a class of its own here. */
export type QueuedJob<Work> = { readonly id: number; readonly work: Work };
export type Ended =
  | { readonly id: number; readonly result: unknown }
  | { readonly id: number; readonly failed: string };

const pathOf = (script: string): string => join(process.cwd(), `dist/workers/${script}.cjs`);

/** Whether there are threads to work beside this one: run from source (development, tests) there are none. */
export const hasThreads = (): boolean =>
  process.env.NODE_ENV === 'production' && existsSync(pathOf('heavy-worker')) && existsSync(pathOf('mail-worker'));

/** One thread, and what is asked of it. It ends with its first failure (time, memory, a throw of its own); the next work begins another. */
export class Thread<Work> {
  private readonly worker: Worker;
  private readonly waiting = new Map<number, { resolve(result: unknown): void; reject(error: Error): void }>();
  private next = 1;
  ended = false;

  constructor(script: string, megabytes: number) {
    // Asked of the process, so that no bundler takes the script for a module of its own.
    const { Worker } = process.getBuiltinModule('node:worker_threads');
    this.worker = new Worker(join(process.cwd(), 'scripts/thread.mjs'), {
      workerData: pathOf(script),
      resourceLimits: { maxOldGenerationSizeMb: megabytes },
    });
    this.worker.unref();
    this.worker.on('message', (message: Ended) => this.hear(message));
    this.worker.on('error', (error: NodeJS.ErrnoException) =>
      this.fail(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new TookTooLong() : error),
    );
    this.worker.on('exit', () => this.fail(new TookTooLong()));
  }

  /** Does a work within a time; throws `TookTooLong` beyond it. */
  run(work: Work, longestMs: number): { id: number; answer: Promise<unknown> } {
    const id = this.next++;
    const timer = setTimeout(() => this.end(), longestMs);
    const answer = new Promise<unknown>((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.say({ id, work } satisfies QueuedJob<Work>);
    }).finally(() => clearTimeout(timer));
    return { id, answer };
  }

  end(): void {
    void this.worker.terminate();
  }

  protected say(message: unknown): void {
    this.worker.postMessage(message);
  }

  protected hear(message: Ended): void {
    const work = this.waiting.get(message.id);
    this.waiting.delete(message.id);
    if ('result' in message) work?.resolve(message.result);
    else work?.reject(new Error(message.failed));
  }

  protected fail(error: Error): void {
    if (this.ended) return;
    this.ended = true;
    for (const work of this.waiting.values()) work.reject(error);
    this.waiting.clear();
  }
}

/** A thread that stays, with a queue in which people take turns: whoever asks for much waits for their own work, not others for it. */
export class Lane<Work> {
  private thread: Thread<Work> | null = null;

  constructor(
    private readonly begin: () => Thread<Work>,
    private readonly longestMs: number,
    private readonly turns: Turns,
  ) {}

  /** Throws what the work throws, `TookTooLong`, and `TooManyWaiting` where as many wait as may. */
  async run(work: Work, who: Who): Promise<unknown> {
    const end = await this.turns.take(who);
    try {
      if (!this.thread || this.thread.ended) this.thread = this.begin();
      return await this.thread.run(work, this.longestMs).answer;
    } finally {
      end();
    }
  }
}
