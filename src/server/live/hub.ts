/** What a window is told: that a calendar changed, that its access to one did, or that a notice came. Never what. */
export type LiveMessage =
  | { readonly kind: 'changed' | 'access'; readonly calendar: string }
  | { readonly kind: 'told' };

/** Who listens: a person by row number, or whoever holds a link. */
export type Listener = number | `link:${string}`;

type Send = (message: LiveMessage) => void;

const COALESCE_MS = 25;

/** The open windows of this process, by who listens. Messages of one kind about one calendar are sent once a moment. */
class Hub {
  private readonly windows = new Map<Listener, Set<Send>>();
  private readonly waiting = new Map<string, NodeJS.Timeout>();

  /** Adds a window; the answer takes it away again. */
  join(listener: Listener, send: Send): () => void {
    const set = this.windows.get(listener) ?? new Set();
    set.add(send);
    this.windows.set(listener, set);
    return () => {
      set.delete(send);
      if (set.size === 0) this.windows.delete(listener);
    };
  }

  listeners(): Listener[] {
    return [...this.windows.keys()];
  }

  tell(listener: Listener, message: LiveMessage): void {
    const key = `${listener} ${JSON.stringify(message)}`;
    if (this.waiting.has(key)) return;
    this.waiting.set(
      key,
      setTimeout(() => {
        this.waiting.delete(key);
        for (const send of this.windows.get(listener) ?? []) send(message);
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
