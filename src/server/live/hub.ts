/** What a window is told: that a calendar changed, that its access to one did, or that a notice came. Never what. */
export type LiveMessage =
  | { readonly kind: 'changed' | 'access'; readonly calendar: string }
  | { readonly kind: 'told' };

type Send = (message: LiveMessage) => void;

const COALESCE_MS = 25;

/** The open windows of this process, by person. Messages of one kind about one calendar are sent once a moment. */
class Hub {
  private readonly windows = new Map<number, Set<Send>>();
  private readonly waiting = new Map<string, NodeJS.Timeout>();

  /** Adds a window of a person's; the answer takes it away again. */
  join(person: number, send: Send): () => void {
    const set = this.windows.get(person) ?? new Set();
    set.add(send);
    this.windows.set(person, set);
    return () => {
      set.delete(send);
      if (set.size === 0) this.windows.delete(person);
    };
  }

  people(): number[] {
    return [...this.windows.keys()];
  }

  tell(person: number, message: LiveMessage): void {
    const key = `${person} ${JSON.stringify(message)}`;
    if (this.waiting.has(key)) return;
    this.waiting.set(
      key,
      setTimeout(() => {
        this.waiting.delete(key);
        for (const send of this.windows.get(person) ?? []) send(message);
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
