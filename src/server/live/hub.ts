/**
 * What a window is told: that a calendar changed, that its access to one did, that a notice came, or that it hears nothing more from
 * now on. Never what.
 */
export type LiveMessage =
  | { readonly kind: 'changed' | 'access'; readonly calendar: string }
  | { readonly kind: 'told' | 'over' };

/** Who listens: a person by row number, or whoever holds a link. */
export type Listener = number | `link:${string}`;

/** An open window: how it is written to, whether it may still be, and how it is ended. */
export interface Window {
  readonly session: string | null;
  send(message: LiveMessage): void;
  close(): void;
}

const COALESCE_MS = 25;
/** Streams of one listener, and of all of them. */
const MOST_EACH = 20;
const MOST_IN_ALL = 5000;

/** The open windows of this process, by who listens. Messages of one kind about one calendar are sent once a moment. */
class Hub {
  private readonly windows = new Map<Listener, Set<Window>>();
  private readonly waiting = new Map<string, NodeJS.Timeout>();
  private count = 0;

  /** Adds a window; the answer takes it away again. `null` where there are as many as may be. */
  join(listener: Listener, window: Window): (() => void) | null {
    const set = this.windows.get(listener) ?? new Set();
    if (set.size >= MOST_EACH || this.count >= MOST_IN_ALL) return null;
    set.add(window);
    this.count++;
    this.windows.set(listener, set);
    return () => {
      if (set.delete(window)) this.count--;
      if (set.size === 0) this.windows.delete(listener);
    };
  }

  listeners(): Listener[] {
    return [...this.windows.keys()];
  }

  /** Ends the windows of a session that was withdrawn, or with `null` all of a person's. */
  end(listener: Listener, session: string | null): void {
    for (const window of [...(this.windows.get(listener) ?? [])])
      if (session === null || window.session === session) window.close();
  }

  tell(listener: Listener, message: LiveMessage): void {
    const key = `${listener} ${JSON.stringify(message)}`;
    if (this.waiting.has(key)) return;
    this.waiting.set(
      key,
      setTimeout(() => {
        this.waiting.delete(key);
        for (const window of [...(this.windows.get(listener) ?? [])]) window.send(message);
      }, COALESCE_MS),
    );
  }
}

const holder = globalThis as { paramoHub?: Hub };

/** The hub of this process. */
export function hub(): Hub {
  holder.paramoHub ??= new Hub();
  return holder.paramoHub;
}
