'use client';
import { createContext, useContext, useMemo, useState } from 'react';
import type { ItemWire } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import { MOST_AT_ONCE } from '@/contract/mosts.ts';
import { DAY, MINUTE } from '../../common/times.ts';
import type { WriteSeveral } from './item-writes.ts';

/** Items and days of a board that were picked to be acted on together. */
export interface Picks {
  readonly items: ReadonlyMap<string, ItemWire>;
  readonly days: readonly string[];
  /** Picks an item, or leaves it again; what one may neither change nor remove can’t be picked. */
  readonly toggle: (item: ItemWire) => void;
  readonly toggleDay: (day: string) => void;
  /** After they were written: as they are now, those that are gone left. */
  readonly replace: (items: readonly ItemWire[]) => void;
  readonly clear: () => void;
}

const NONE: Picks = {
  items: new Map(),
  days: [],
  toggle: () => undefined,
  toggleDay: () => undefined,
  replace: () => undefined,
  clear: () => undefined,
};
const PicksContext = createContext<Picks>(NONE);
export const PicksProvider = PicksContext.Provider;
export const usePicks = (): Picks => useContext(PicksContext);

const mayPick = (item: ItemWire): boolean =>
  item.version !== undefined && (item.may?.change === true || item.may?.remove === true);

/** Whether a click picks instead of opening. */
export const picksWith = (event: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }): boolean =>
  event.ctrlKey || event.metaKey || event.shiftKey;

/**
 * What is picked on a board. Of what the board shows it is always as it is now, whoever changed it or took a change back; what went on to other
 * days is as it was left.
 */
export function usePicking(shown: readonly ItemWire[]): Picks {
  const [picked, setItems] = useState<ReadonlyMap<string, ItemWire>>(NONE.items);
  const [days, setDays] = useState<readonly string[]>(NONE.days);
  const items = useMemo(() => {
    if (picked.size === 0) return picked;
    const now = new Map(picked);
    for (const item of shown)
      if ((item.version ?? 0) > (now.get(item.id)?.version ?? Number.MAX_VALUE)) now.set(item.id, item);
    return now;
  }, [picked, shown]);
  return useMemo(
    (): Picks => ({
      items,
      days,
      toggle: (item) =>
        setItems((was) => {
          const next = new Map(was);
          if (!next.delete(item.id) && mayPick(item) && next.size < MOST_AT_ONCE) next.set(item.id, item);
          return next;
        }),
      toggleDay: (day) =>
        setDays((was) =>
          was.includes(day) ? was.filter((one) => one !== day) : [...was, day].sort().slice(0, MOST_AT_ONCE),
        ),
      replace: (now) => setItems(new Map(now.filter(mayPick).map((item) => [item.id, item]))),
      clear: () => {
        setItems(NONE.items);
        setDays(NONE.days);
      },
    }),
    [items, days],
  );
}

/**
 * Moves all that is picked along with one of it; `null` where that one isn't picked with others, or was stretched. `by` and `endBy` are
 * how far its start and its end were moved, in milliseconds.
 */
export function movePicked(
  picks: Picks,
  several: WriteSeveral,
  item: ItemWire,
  by: number,
  endBy: number,
): Promise<SeveralAnswer> | null {
  if (!picks.items.has(item.id) || picks.items.size < 2 || endBy !== by) return null;
  return several([...picks.items.values()], { kind: 'shift', ...stepOf(by) }).then((answer) => {
    picks.replace(answer.items);
    return answer;
  });
}

/** So many milliseconds as whole days, and minutes after them. */
export function stepOf(by: number): { days: number; minutes: number } {
  const days = Math.floor(by / DAY);
  return { days, minutes: (by - days * DAY) / MINUTE };
}
