'use client';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { KEYS } from './query-keys.ts';

/** How a choice beside some rights is taken: what it comes to is the server's to say, so nothing is chosen before it has. */
export function useChoices(
  rights: RightsWire,
  setRights: (rights: RightsWire) => void,
): (group: 'sight' | 'reach', value: string) => void {
  const choices = useQuery({
    queryKey: KEYS.requestChoices(rights),
    queryFn: () => call('accessRequestChoices', { body: { rights } }),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (group, value) => {
    const found = choices.data?.choices.find((c) => c.group === group && c.value === value);
    if (found && !choices.isPlaceholderData) setRights(found.rights);
  };
}
