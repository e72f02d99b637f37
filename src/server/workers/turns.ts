/* Errors are told apart by their names: several bundles of one server share the threads, each with classes of its own. */

/** There are as many waiting as may be, of one person or in all. */
export class TooManyWaiting extends Error {
  override readonly name = 'TooManyWaiting';
}
/** Whoever waited for a turn gave it up. */
export class GaveUp extends Error {
  override readonly name = 'GaveUp';
}
/** The thread took longer than it may, or was ended. */
export class TookTooLong extends Error {
  override readonly name = 'TookTooLong';
}

/** Whether something failed so. */
export const failedSo = (error: unknown, name: 'TooManyWaiting' | 'GaveUp' | 'TookTooLong'): boolean =>
  error instanceof Error && error.name === name;

/** Whose turn it is: a person by row number, or a link. */
export type Who = number | string;

interface Turn {
  readonly who: Who;
  begin(): void;
}

/**
 * Turns at something that few may do at one time, and each person only once: whoever asks for much waits for themself, not others for
 * them.
 */
export class Turns {
  private readonly running = new Set<Turn>();
  private readonly waiting: Turn[] = [];

  constructor(
    private readonly atOnce: number,
    private readonly mostEach: number,
    private readonly mostInAll: number,
  ) {}

  /**
   * Waits for a turn; the answer ends it. `begun` is given, at once, the way to give up waiting, which ends in `GaveUp`. Throws
   * `TooManyWaiting` where no more may wait.
   */
  async take(who: Who, begun: (giveUp: () => void) => void = () => {}): Promise<() => void> {
    const own = this.waiting.filter((turn) => turn.who === who).length;
    if (own >= this.mostEach || this.waiting.length >= this.mostInAll) throw new TooManyWaiting();
    return new Promise((resolve, reject) => {
      const turn: Turn = {
        who,
        begin: () =>
          resolve(() => {
            this.running.delete(turn);
            this.next();
          }),
      };
      this.waiting.push(turn);
      begun(() => {
        const at = this.waiting.indexOf(turn);
        if (at < 0) return;
        this.waiting.splice(at, 1);
        reject(new GaveUp());
      });
      this.next();
    });
  }

  private next(): void {
    while (this.running.size < this.atOnce) {
      const busy = new Set([...this.running].map((turn) => turn.who));
      const at = this.waiting.findIndex((turn) => !busy.has(turn.who));
      const [turn] = at < 0 ? [] : this.waiting.splice(at, 1);
      if (!turn) return;
      this.running.add(turn);
      turn.begin();
    }
  }
}
