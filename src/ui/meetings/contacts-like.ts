import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import { usePaused } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { holdsWords } from '../common/fields/people-options.tsx';

/** So long after the last stroke whom one knows is asked. */
const PAUSE_MS = 250;

/** Contacts that hold what is typed, asked once typing pauses. */
export function useContactsLike(typed: string) {
  const words = typed.trim();
  const settled = usePaused(words, PAUSE_MS);
  const query = useQuery({
    queryKey: KEYS.contactsLike(settled),
    queryFn: () => call('findContacts', { query: { words: settled } }),
    enabled: settled.length >= 2,
    placeholderData: (before) => before,
    retry: false,
  });
  if (words.length < 2) return [];
  // Until those for the words of now are there, of those of before only who fits.
  return (query.data?.contacts ?? []).filter((c) => settled === words || holdsWords(`${c.name} ${c.address}`, words));
}
