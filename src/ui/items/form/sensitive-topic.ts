import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import { type TOPICS, topicOf } from '@/core/review/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';

/** What looks sensitive in what is typed, where many read titles: by the lists that come with Paramo and, for the owner, by their own words. */
export function useSensitiveTopic(head: BoardHead): (text: string) => (typeof TOPICS)[number] | null {
  const calendar = head.calendar.key;
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'findings'),
    queryFn: () => call('readFindings', { params: { calendar } }),
    enabled: head.own && head.widelyRead,
    staleTime: 300_000,
    retry: false,
  });
  return (text) => (head.widelyRead ? topicOf(text, data?.words) : null);
}
