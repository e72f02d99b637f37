'use client';
import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { OwnAccessRequest } from '@/contract/sharing/access-requests.ts';
import type { FirstCollection } from '@/core/collection/index.ts';
import { KEYS } from '../fetched/query-keys.ts';

/** What somebody asks for and is asked; heard anew when anything becomes of it. */
export const useAccessRequests = (enabled = true) =>
  useQuery({
    queryKey: KEYS.accessRequests,
    queryFn: () => call('listAccessRequests', {}),
    staleTime: 30_000,
    enabled,
  });

/** One's ask to a person about what they began with, or about a further one by its key, among one's own. */
export const requestTo = (
  own: readonly OwnAccessRequest[],
  handle: string,
  what: FirstCollection,
  key: string | null = null,
): OwnAccessRequest | undefined =>
  own.find(({ to, further }) => {
    if (to.handle !== handle) return false;
    return key === null ? (further === null ? 'calendar' : further.what) === what : further?.key === key;
  });
