'use client';
import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { OwnAsk } from '@/contract/sharing/access-requests.ts';
import { KEYS } from '../fetched/query-keys.ts';

/** What somebody asks for and is asked; heard anew when anything becomes of it. */
export const useAsks = (enabled = true) =>
  useQuery({ queryKey: KEYS.asks, queryFn: () => call('listAccessRequests', {}), staleTime: 30_000, enabled });

/** One's ask to a person about a calendar (`null`: their main one), among one's own. */
export const askTo = (own: readonly OwnAsk[], handle: string, calendar: string | null): OwnAsk | undefined =>
  own.find((ask) => ask.to.handle === handle && (ask.further?.key ?? null) === calendar);
