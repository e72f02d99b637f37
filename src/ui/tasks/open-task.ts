import type { TaskListWire, TaskWire } from '@/contract/tasks.ts';

/** A task that is looked at, and what the screen does when something becomes of it. */
export interface OpenTask {
  readonly task: TaskWire;
  readonly list: TaskListWire;
  readonly lists: readonly TaskListWire[];
  readonly onClose: () => void;
  /** `moved` names the list it went into. */
  readonly onSaved: (text: string, undo: string, moved?: string) => Promise<void>;
  /** Somebody else changed it meanwhile: what is shown is to be read again. */
  readonly onStale: () => Promise<unknown>;
}
