import type { FrameAnswer } from '@/contract/frame.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import { dayOf, type TimeStyle } from '../../common/times.ts';
import { type Sought, soughtParams } from './sought.ts';

/** An item with whose it is and in which calendar; `of` names that one where it isn't the owner's main one. */
interface Found {
  readonly owner: { readonly handle: string };
  readonly calendar: string;
  readonly of: string | null;
  readonly item: Pick<ItemWire, 'id' | 'start' | 'allDay'>;
}

/** Where something that was found stands: on its calendar's board, in the week it is in, opened; with the search that found it going on. */
export function foundAt(
  { owner, calendar, of, item }: Found,
  frame: FrameAnswer,
  style: TimeStyle,
  sought: Sought | null = null,
): string {
  const runs = frame.principals.some((p) => p.handle === owner.handle);
  const week = dayOf(item, style.zone);
  const to = new URLSearchParams({ week, item: item.id, ...(of === null ? {} : { c: calendar }) });
  if (!runs) to.set('of', owner.handle);
  for (const [name, value] of soughtParams(sought)) to.set(name, value);
  return `/for/${runs ? owner.handle : frame.me.handle}/calendar?${to}`;
}
