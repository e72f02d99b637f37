import { keepPreviousData, type QueryKey, type UseQueryResult, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused } from '@/contract/call.ts';
import { type Said, said } from './refusal.ts';

/** A value once it has stood still for some milliseconds: what is typed is asked about when typing pauses, and not at every stroke. */
export function usePaused<T>(value: T, pause: number): T {
  const [paused, setPaused] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setPaused(value), pause);
    return () => clearTimeout(timer);
  }, [value, pause]);
  return paused;
}

/** What the server says of something before it is done. */
export interface Preview<T> {
  /** Its answer; while the one for what is asked now is on its way, the one before it. */
  readonly answer: T | undefined;
  /** The answer is the one for what is asked now. */
  readonly settled: boolean;
  readonly why: Said | null;
  readonly query: Pick<UseQueryResult, 'isPending' | 'isError' | 'error' | 'refetch'>;
}

/** Asks the server what something would come to. `key` must name all of what is asked; nothing is asked where `read` is null. */
export function usePreview<T>(key: QueryKey, read: (() => Promise<T>) | null): Preview<T> {
  const t = useTranslations('common');
  const query = useQuery({
    queryKey: key,
    queryFn: () => (read ? read() : Promise.reject(new Error('nothing to ask'))),
    enabled: read !== null,
    placeholderData: keepPreviousData,
    retry: (tries, error) => !(error instanceof CallRefused) && tries < 1,
  });
  return {
    answer: query.data,
    settled: query.data !== undefined && !query.isPlaceholderData,
    why: query.error ? said(query.error, t('unreachable')) : null,
    query,
  };
}
