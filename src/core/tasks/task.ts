import type { WrittenTask } from './task-fields.ts';

/** A task as the rule of access reads it; `P` is whatever names a person. */
export interface Task<P> extends WrittenTask {
  readonly due: string | null;
  readonly done: boolean;
  readonly belongsTo: string | null;
  readonly repeats: string | null;
  readonly createdBy: P;
}

/** How a task belongs to an item: it is done before it, brought along, or done after it. */
export const TIES = ['prepare', 'bring', 'followUp'] as const;
export type Tie = (typeof TIES)[number];
