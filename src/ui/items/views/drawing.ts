import { type DragEvent, type MouseEvent, type PointerEvent, type RefObject, useMemo, useRef } from 'react';
import { useStable } from '../../common/stable.ts';
import { DAY, MINUTE } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import { HOUR_PX } from './layout.ts';
import { type Moving, STEP } from './moving.ts';
import { letTaskGo } from './task-drop.ts';

/** What the pointer draws on the hours of a board, by column: something new, from where it is pressed to where it is let go. */
export interface Drawing {
  readonly begin: (column: number, event: PointerEvent<HTMLDivElement>) => void;
  readonly keepOn: (event: PointerEvent<HTMLDivElement>) => void;
  readonly end: () => void;
  /** An hour from the half hour that was pressed twice. */
  readonly hour: (column: number, event: MouseEvent) => void;
  /** A task is let go. */
  readonly drop: (column: number, event: DragEvent) => void;
}

/** A column is a lane within a day: the lanes of the first day, then those of the second. */
export function useDrawing(board: {
  lanes: readonly BoardLane[];
  first: number;
  columns: RefObject<(HTMLDivElement | null)[]>;
  moving: Moving;
  onDraw: (lane: BoardLane, start: number, end: number) => void;
}): Drawing {
  const { lanes, first, columns, moving, onDraw } = board;
  const drawing = useRef<{ column: number; from: number; to: number } | null>(null);
  const laneOf = (column: number) => lanes[column % lanes.length];
  const dayOf = (column: number) => first + Math.floor(column / lanes.length) * DAY;
  const minuteAt = (column: number, y: number): number => {
    const rect = columns.current[column]?.getBoundingClientRect();
    return rect ? Math.max(0, Math.min(24 * 60, Math.round((((y - rect.top) / HOUR_PX) * 60) / STEP) * STEP)) : 0;
  };
  const halfHourAt = (column: number, y: number) => Math.floor(minuteAt(column, y) / 30) * 30;
  const mayDraw = (column: number, event: MouseEvent) => {
    const may = laneOf(column)?.head?.may;
    return (may?.add || may?.suggest) && !(event.target as HTMLElement).closest('[data-block]');
  };
  const drawn = () => {
    const d = drawing.current;
    const lane = d && laneOf(d.column);
    if (!d || !lane) return null;
    const day = dayOf(d.column);
    const start = day + Math.min(d.from, d.to) * MINUTE;
    return { lane, start, end: Math.max(start + STEP * MINUTE, day + Math.max(d.from, d.to) * MINUTE) };
  };
  const begin = useStable((column: number, event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0 || event.pointerType === 'touch' || !mayDraw(column, event)) return;
    const from = halfHourAt(column, event.clientY);
    drawing.current = { column, from, to: from };
    event.currentTarget.setPointerCapture(event.pointerId);
  });
  const keepOn = useStable((event: PointerEvent<HTMLDivElement>) => {
    if (!drawing.current) return;
    drawing.current.to = minuteAt(drawing.current.column, event.clientY);
    const time = drawn();
    if (!time || drawing.current.to === drawing.current.from) return;
    const lane = lanes.indexOf(time.lane);
    const clashes = moving.clashOf(null, lane, time.start, time.end);
    moving.ghosts.show({ start: time.start, end: time.end, lane, title: '', clashes });
  });
  const end = useStable(() => {
    const time = drawn();
    const moved = drawing.current && drawing.current.to !== drawing.current.from;
    drawing.current = null;
    moving.ghosts.show(null);
    if (time && moved) onDraw(time.lane, time.start, time.end);
  });
  const hour = useStable((column: number, event: MouseEvent) => {
    const lane = laneOf(column);
    if (!lane || !mayDraw(column, event)) return;
    const start = dayOf(column) + halfHourAt(column, event.clientY) * MINUTE;
    onDraw(lane, start, start + 60 * MINUTE);
  });
  const drop = useStable((column: number, event: DragEvent) => {
    const lane = laneOf(column);
    if (lane) letTaskGo(event, lane, dayOf(column) + minuteAt(column, event.clientY) * MINUTE);
  });
  return useMemo(() => ({ begin, keepOn, end, hour, drop }), [begin, keepOn, end, hour, drop]);
}
