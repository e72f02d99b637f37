import { type DragEvent, useEffect } from 'react';
import { useStable } from '../../common/stable.ts';
import type { BoardLane } from '../board/board-lanes.ts';

/*
 * A task that is taken from the panel beside a board and let go over its hours. The panel it was taken from hears where.
 */
const TYPE = 'application/x-paramo-task';

/** Where a task was let go: its key, the lane, and the wall-clock time there. */
export interface TaskDrop {
  readonly task: string;
  readonly lane: BoardLane;
  readonly start: number;
}

let hears: ((drop: TaskDrop) => void) | null = null;

/** Begins to drag a task. */
export function takeTask(event: DragEvent, task: string): void {
  event.dataTransfer.setData(TYPE, task);
  event.dataTransfer.effectAllowed = 'copy';
}

/** Whether it is a task that is dragged; it may be let go here then. */
export function acceptTask(event: DragEvent): void {
  if (event.dataTransfer.types.includes(TYPE)) event.preventDefault();
}

/** Says that a task was let go over a lane. */
export function letTaskGo(event: DragEvent, lane: BoardLane, start: number): void {
  const task = event.dataTransfer.getData(TYPE);
  if (!task) return;
  event.preventDefault();
  hears?.({ task, lane, start });
}

/** Hears of tasks that are let go, for as long as the panel stands. */
export function useTaskDrops(hear: (drop: TaskDrop) => void): void {
  const stable = useStable(hear);
  useEffect(() => {
    hears = stable;
    return () => {
      hears = null;
    };
  }, [stable]);
}
