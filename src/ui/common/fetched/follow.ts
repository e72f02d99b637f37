import type { Query, QueryClient } from '@tanstack/react-query';
import type { ItemsAnswer, LoadAnswer } from '@/contract/items/items.ts';
import type { ChangedMessage } from '@/contract/items/live.ts';
import type { LinkItemsAnswer } from '@/contract/sharing/links.ts';
import type { Version } from '@/contract/version.ts';
import { type Dates, putDays, putInto, standingOf } from './live-items.ts';
import { refetchOnce } from './refetch-once.ts';

/** What a query's answer is made of, so that a change can be put into it. Without one, a change is asked for. */
type Follows = { readonly as: 'items' | 'load'; readonly dates: Dates };

declare module '@tanstack/react-query' {
  interface Register {
    queryMeta: { readonly follows?: Follows; readonly item?: string };
  }
}

/** Messages kept for answers that are on their way; the oldest go first, and then there is a gap. */
const MOST_KEPT = 200;

type Held = { readonly version: Version | null };

/**
 * Applies the messages a window gets to the answers it holds: each message to every answer that follows it, in order, including answers
 * still on their way once they arrive. Asks again only where it can't: after a gap, or where a change doesn't say everything.
 */
export class Follower {
  private held: { readonly message: ChangedMessage; readonly n: number }[] = [];
  private heard = 0;
  /** The last message there was when a query was asked for again: its answer has all up to that. */
  private readonly fetchedFor = new WeakMap<Query, number>();
  constructor(
    private readonly client: QueryClient,
    private readonly queryKey: (calendar: string) => readonly unknown[],
  ) {}

  /** Catches up with answers as they come; the answer stops that. */
  begin(): () => void {
    return this.client.getQueryCache().subscribe((event) => {
      if (event.type !== 'updated' || event.action.type !== 'success' || event.action.manual) return;
      const { query } = event;
      if (!query.meta?.follows) return;
      for (const { message, n } of this.held)
        if (n > (this.fetchedFor.get(query) ?? 0) && this.isOf(query, message) && !this.put(query, message)) break;
    });
  }

  /** Forgets what was told before: everything is asked for again anyway. */
  forget(): void {
    this.held = [];
  }

  hear(message: ChangedMessage): void {
    this.held.push({ message, n: ++this.heard });
    if (this.held.length > MOST_KEPT) this.held.shift();
    for (const query of this.client.getQueryCache().findAll({ queryKey: this.queryKey(message.calendar) })) {
      if (query.meta?.follows && query.state.data !== undefined) {
        // What is being asked for anyway catches up when it is there.
        if (query.state.fetchStatus !== 'fetching') this.put(query, message);
      } else if (!query.meta?.follows && concerns(query, message)) void this.refetch(query);
    }
  }

  private refetch(query: Query): Promise<void> {
    this.fetchedFor.set(query, this.heard);
    return refetchOnce(this.client, { queryKey: query.queryKey, exact: true });
  }

  private isOf(query: Query, message: ChangedMessage): boolean {
    return this.queryKey(message.calendar).every((part, i) => query.queryKey[i] === part);
  }

  /** Whether the query has the change now; where it couldn't be put in, it is asked for. */
  private put(query: Query, message: ChangedMessage): boolean {
    const standing = standingOf((query.state.data as Held).version, message);
    if (standing === 'known') return true;
    const next = standing === 'next' ? putOne(query, message) : null;
    if (next === null) void this.refetch(query);
    else this.client.setQueryData(query.queryKey, next);
    return next !== null;
  }
}

function putOne(query: Query, message: ChangedMessage): Held | null {
  const { as, dates } = (query.meta as { follows: Follows }).follows;
  if (as === 'items') return putInto(query.state.data as ItemsAnswer | LinkItemsAnswer, message, dates);
  return putDays(query.state.data as LoadAnswer, message, dates);
}

/** Whether what a query shows may be another after a change: what is about one item only where that is named. */
function concerns(query: Query, { seen }: ChangedMessage): boolean {
  const about = query.meta?.item;
  if (about === undefined || seen === null || seen.within !== null) return true;
  return seen.gone.includes(about) || seen.shown.some((item) => item.id === about);
}
