import { useInfiniteQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { MessagesAnswer } from '@/contract/messages.ts';
import { KEYS } from '../common/fetched/query-keys.ts';

/** Of whose messages what is listed: without a folder all that was said of their meetings and to them; of one, what is there or was removed. */
interface Of {
  readonly folder?: string;
  readonly removed?: boolean;
}

/** Threads of somebody's, a page at a time, each once. */
export function useThreads(who: string, enabled: boolean, { folder, removed = false }: Of = {}) {
  const query = useInfiniteQuery({
    queryKey: folder === undefined ? KEYS.messages(who) : KEYS.folderMessages(who, folder, removed),
    queryFn: ({ pageParam }) =>
      call('listMessages', {
        params: { person: who },
        query: {
          ...(folder === undefined ? {} : { folder }),
          ...(removed ? { removed: 'yes' as const } : {}),
          ...(pageParam === null ? {} : { before: pageParam }),
        },
      }),
    enabled,
    initialPageParam: null as string | null,
    getNextPageParam: (last: MessagesAnswer) => last.more,
    retry: false,
  });
  const seen = new Set<string>();
  const threads = (query.data?.pages ?? [])
    .flatMap((page) => page.threads)
    .filter((thread) => !seen.has(thread.key) && seen.add(thread.key));
  return { query, first: query.data?.pages[0] ?? null, threads };
}
export type Threads = ReturnType<typeof useThreads>;
