import {
  type Announcements,
  type DndContextProps,
  type DragEndEvent,
  type DragMoveEvent,
  type KeyboardCoordinateGetter,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useEffect, useMemo, useRef } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { useStable } from '../../common/stable.ts';
import { clock, DAY, dayName, MINUTE, wallsOf } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import { nextGap, nextTaken, takenBy } from './gaps.ts';
import { type Ghost, type GhostStore, useGhostStore } from './ghost.ts';
import type { Carried } from './glide.ts';
import { useBlockText } from './item-block.tsx';

/** Times are moved and drawn in steps of so many minutes. */
export const STEP = 15;

/** Where something is being moved to: when, and into which lane. */
export interface Goal {
  readonly item: ItemWire;
  readonly lane: number;
  readonly start: number;
  readonly end: number;
}

/** A time that is only walked over, in wall-clock milliseconds: it shows in every lane. */
export interface Walked {
  readonly start: number;
  readonly end: number;
  /** What would be moved for it, by id, and where to: shown there. */
  readonly moves?: readonly { readonly item: string; readonly start: string; readonly end: string }[];
  /** It is shown beside where it stands, not instead. */
  readonly both?: boolean;
}

/** What happens to what is put down. */
export interface PutDown {
  readonly onMove: (item: ItemWire, start: number, end: number) => void | Promise<void>;
  readonly onMoveInto: (item: ItemWire, lane: BoardLane, start: number, end: number) => void;
  /** Put down with Alt held: another like it is begun there, and it stays. */
  readonly onCopy?: (item: ItemWire, lane: BoardLane, start: number, end: number) => void;
}

/** What the pointer and the keys do on a board, however it is drawn. */
export interface BoardActs extends PutDown {
  readonly onOpen: (item: ItemWire) => void;
  readonly onDraw: (lane: BoardLane, start: number, end: number) => void;
  /** A day is looked at by itself. */
  readonly onDay: (day: number) => void;
}

export interface Moving {
  readonly ghosts: GhostStore;
  /** The id of what was put down last, which doesn't glide. */
  readonly carried: Carried;
  readonly laneOf: (item: ItemWire) => number;
  /** What a time in a lane would lie over, by its title as it is seen. */
  readonly clashOf: (item: ItemWire | null, lane: number, start: number, end: number) => string | null;
  /** Where what is moved by the keys goes next: the next gap it fits into as it is, or the next thing it would lie over, in its own lane. */
  readonly jump: (item: ItemWire, gap: boolean) => (Goal & { readonly was: number }) | null;
  readonly context: Pick<
    DndContextProps,
    'accessibility' | 'onDragStart' | 'onDragMove' | 'onDragCancel' | 'onDragEnd'
  >;
}

/** Moving things over a board of lanes, however it is drawn: `goalOf` says what a place under the pointer means. */
export function useMoving(
  board: { lanes: readonly BoardLane[]; first: number; count: number; walked: Walked | null },
  goalOf: (event: DragMoveEvent | DragEndEvent, from: number) => Goal | null,
  put: PutDown,
): Moving {
  const { lanes, first, count, walked } = board;
  const t = useTranslations('board');
  const { style } = useFrame();
  const textOf = useBlockText();
  const ghosts = useGhostStore();
  const last = useRef<(Ghost & { readonly lane: number }) | null>(null);
  useEffect(() => {
    if (walked) ghosts.show({ ...walked, title: '', clashes: null, lane: 'all' });
    return () => ghosts.show(null);
  }, [walked, ghosts]);
  const carried = useRef<string | null>(null);
  const copies = useRef(false);
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      copies.current = event.altKey;
    };
    window.addEventListener('keydown', hear);
    window.addEventListener('keyup', hear);
    return () => {
      window.removeEventListener('keydown', hear);
      window.removeEventListener('keyup', hear);
    };
  }, []);

  const laneOf = (item: ItemWire) => lanes.findIndex((lane) => lane.items.some((one) => one.id === item.id));
  const clashOf = (item: ItemWire | null, lane: number, start: number, end: number): string | null => {
    const hit = lanes[lane]?.items.find((other) => {
      if (other.id === item?.id || other.allDay || !takesTime(other)) return false;
      const at = wallsOf(other, style.zone);
      return at.start < end && at.end > start;
    });
    return hit ? textOf(hit) : null;
  };
  const jump = (item: ItemWire, gap: boolean) => {
    const { start, end } = wallsOf(item, style.zone);
    const now = { start, lane: laneOf(item), ...last.current };
    const lane = lanes[now.lane];
    if (!lane) return null;
    const spans = takenBy(lane.items, style.zone, item.id);
    const here = Math.floor((now.start - first) / DAY);
    for (let day = Math.max(0, here); day < count; day++) {
      const [from, until] = [first + day * DAY, first + (day + 1) * DAY];
      const after = Math.max(from + (day === here ? 0 : 8 * 60 * MINUTE), now.start + STEP * MINUTE);
      const at = gap ? nextGap(spans, after, until, end - start) : nextTaken(spans, after, until);
      if (at !== null) return { item, lane: now.lane, start: at, end: at + end - start, was: now.start };
    }
    return null;
  };
  const whenWords = (wall: number) => `${dayName(wall)}, ${clock(wall, style.hours)}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => t('picked', { title: textOf(active.data.current?.item) }),
    onDragMove: () => {
      const to = last.current;
      return to ? t('over', { title: to.title, when: whenWords(to.start) }) : undefined;
    },
    onDragOver: () => undefined,
    onDragEnd: () => {
      const to = last.current;
      return to ? t('dropped', { title: to.title, when: whenWords(to.start) }) : undefined;
    },
    onDragCancel: ({ active }) => t('leftAlone', { title: textOf(active.data.current?.item) }),
  };
  const goal = (event: DragMoveEvent | DragEndEvent) =>
    goalOf(event, laneOf((event.active.data.current as { item: ItemWire }).item));
  return {
    ghosts,
    carried,
    laneOf,
    clashOf,
    jump,
    context: {
      accessibility: { announcements, screenReaderInstructions: { draggable: t('dragHelp') } },
      onDragStart: () => {
        last.current = null;
      },
      onDragMove: (event) => {
        const to = goal(event);
        if (!to) return;
        const { item, lane, start, end } = to;
        if (last.current?.start === start && last.current.end === end && last.current.lane === lane) return;
        const goes = lane !== laneOf(item) ? (lanes[lane]?.name ?? null) : null;
        last.current = { start, end, lane, title: textOf(item), clashes: clashOf(item, lane, start, end), goes };
        ghosts.show(last.current);
      },
      onDragCancel: () => ghosts.show(null),
      onDragEnd: (event) => {
        const to = goal(event);
        ghosts.show(null);
        if (!to) return;
        const was = wallsOf(to.item, style.zone);
        const lane = lanes[to.lane];
        carried.current = to.item.id;
        if (copies.current && lane && put.onCopy) put.onCopy(to.item, lane, to.start, to.end);
        else if (lane && to.lane !== laneOf(to.item)) put.onMoveInto(to.item, lane, to.start, to.end);
        else if (to.start !== was.start || to.end !== was.end) void put.onMove(to.item, to.start, to.end);
      },
    },
  };
}

// Constants, since new sensor objects would redraw every block of the board.
const BY_POINTER = { activationConstraint: { distance: 5 } };
const BY_KEYS = { keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] } };

/** By pointer, and by the keys: Space picks up and puts down, Escape leaves it; where a key moves it to is said by the board. */
export function useMovingSensors(coordinateGetter: KeyboardCoordinateGetter) {
  const goes = useStable(coordinateGetter);
  return useSensors(
    useSensor(PointerSensor, BY_POINTER),
    useSensor(
      KeyboardSensor,
      useMemo(() => ({ ...BY_KEYS, coordinateGetter: goes }), [goes]),
    ),
  );
}
