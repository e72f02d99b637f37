'use client';
import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { ItemsAnswer } from '@/contract/items/items.ts';
import type { PersonWire } from '@/contract/people/people.ts';
import { dateText } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { DAY } from '../../common/times.ts';

const BACK_DAYS = 28;
const MOST = 6;

/**
 * Whom of the house somebody met most in the four weeks before a day, as far as one sees who came; whoever was met most first. `null` while it is
 * being fetched.
 */
export function useMetMost(
  calendar: string,
  owner: string,
  today: number,
  enabled: boolean,
): readonly PersonWire[] | null {
  const { style } = useFrame();
  const query = { from: dateText(today - BACK_DAYS * DAY), to: dateText(today + DAY), zone: style.zone };
  const items = useQuery({
    queryKey: KEYS.calendar(calendar, 'met', query.from),
    queryFn: () => call('listItems', { params: { calendar }, query }) as Promise<ItemsAnswer>,
    staleTime: 300_000,
    retry: false,
    enabled,
  });
  const directory = useQuery({
    queryKey: KEYS.people,
    queryFn: () => call('listPeople', {}),
    staleTime: 60_000,
    enabled,
    retry: false,
  });
  if (items.isPending || directory.isPending) return null;
  const times = new Map<string, number>();
  for (const { attendees, organiser } of items.data?.items ?? []) {
    const met = [...(attendees ?? []), ...(organiser ? [organiser] : [])].map(({ address }) => address.toLowerCase());
    for (const address of new Set(met)) times.set(address, (times.get(address) ?? 0) + 1);
  }
  const count = (person: PersonWire) => times.get(person.address.toLowerCase()) ?? 0;
  return (directory.data?.people ?? [])
    .filter((person) => person.handle !== owner && !person.resource && count(person) > 0)
    .sort((a, b) => count(b) - count(a))
    .slice(0, MOST);
}
