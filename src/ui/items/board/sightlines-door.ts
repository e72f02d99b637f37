import type { BoardHead } from '@/contract/items/items.ts';

/** Where a board's Sightlines are, at a row where one is meant, and there at an item of a day. */
export function sightlinesDoor(
  head: BoardHead,
  me: string,
  principal: string | null,
  who?: string,
  item?: { readonly id: string; readonly day: string },
): string {
  const here = head.owner.handle === principal;
  const to = new URLSearchParams({
    ...(here ? {} : { of: head.owner.handle }),
    ...(head.calendar.main ? {} : { c: head.calendar.key }),
    ...(who === undefined ? {} : { who }),
    ...(item === undefined ? {} : { item: item.id, day: item.day }),
  }).toString();
  return `/for/${here ? principal : me}/sightlines${to ? `?${to}` : ''}`;
}
