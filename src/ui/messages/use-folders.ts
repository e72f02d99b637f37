import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { FolderWire } from '@/contract/messages.ts';
import { KEYS } from '../common/fetched/query-keys.ts';

/** A person's folders on top that one sees, with one's own those of others; nothing where one sees none of theirs. */
export function useFolders(who: string) {
  const query = useQuery({
    queryKey: KEYS.folders(who, null),
    queryFn: () => call('listFolders', { params: { person: who }, query: {} }),
    retry: false,
  });
  const lists: readonly FolderWire[] = query.data?.lists ?? [];
  const others: readonly FolderWire[] = query.data?.others ?? [];
  return { lists, others, pending: query.isPending };
}

/** The folders in one, asked for once it is opened. */
export const useInnerFolders = (who: string, folder: FolderWire, open: boolean) =>
  useQuery({
    queryKey: KEYS.folders(who, folder.key),
    queryFn: () => call('listFolders', { params: { person: who }, query: { in: folder.key } }),
    enabled: open && folder.inner,
    retry: false,
  });

/** All folders of a person's that one sees, those of others among them with one's own: asked for where one that isn't on top is wanted. */
export function useAllFolders(who: string, wanted: boolean): readonly FolderWire[] {
  const query = useQuery({
    queryKey: KEYS.folders(who, 'all'),
    queryFn: () => call('listFolders', { params: { person: who }, query: { all: 'yes' } }),
    enabled: wanted,
    retry: false,
  });
  return query.data ? [...query.data.lists, ...query.data.others] : [];
}
