import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { CallRefused, call } from '@/contract/call.ts';
import type { DeskRowWire } from '@/contract/desk.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';

/** Why the row that was chosen is gone: who decided it and how; `by` is null where that isn't known, and there is nothing while it is there. */
export function useGone(
  key: string | null,
  is: boolean,
): { readonly by: string | null; readonly act: string } | undefined {
  return useQuery({
    queryKey: KEYS.deskGone(key ?? ''),
    enabled: is && key !== null,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async () => {
      try {
        await call('openDeskRow', { params: { row: key ?? '' }, query: {}, body: { open: true } });
        return { by: null, act: '' };
      } catch (error) {
        const data = error instanceof CallRefused ? error.body.data : undefined;
        return (data as { by: string; act: string } | undefined) ?? { by: null, act: '' };
      }
    },
  }).data;
}

/** So long after one has said it others believe that a row is open. */
const SAYS_MS = 20_000;

/** Says to those who have a row that one has it open, as long as it is. */
export function useSayOpen(row: DeskRowWire | undefined, open: boolean): void {
  const { live } = useFrame();
  const key = open && live.kind === 'live' ? row?.key : undefined;
  const whose = row?.for ?? '';
  useEffect(() => {
    if (key === undefined) return;
    const say = (is: boolean) =>
      call('openDeskRow', { params: { row: key }, query: { for: whose }, body: { open: is } }).catch(() => {});
    void say(true);
    const timer = setInterval(() => void say(true), SAYS_MS);
    return () => {
      clearInterval(timer);
      void say(false);
    };
  }, [key, whose]);
}
