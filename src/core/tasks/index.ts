export { type Due, dueDay, dueEnds, dueLater, dueText, isWithin, nextDue, tiedDue } from './due.ts';
export { type Task, TIES, type Tie } from './task.ts';
export {
  newTaskFields,
  SEARCHED_TASK_FIELDS,
  sentTaskFields,
  type TaskFieldSeenAt,
  taskFields,
  taskSights,
  WRITTEN_TASK_FIELDS,
  type WrittenTask,
} from './task-fields.ts';
