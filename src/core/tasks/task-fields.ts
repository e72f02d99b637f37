import { fieldsOf, type SeenAt, type WrittenOf } from '../fields/index.ts';
import { TASK_FIELDS } from './task-table.ts';

/*
 * What is made of the table of a task's fields.
 */

export type TaskFieldSeenAt<S> = SeenAt<typeof TASK_FIELDS, S>;
export type WrittenTask = WrittenOf<typeof TASK_FIELDS>;

export const {
  written: WRITTEN_TASK_FIELDS,
  searched: SEARCHED_TASK_FIELDS,
  sights: taskSights,
  schemas: taskFields,
  fresh: newTaskFields,
  sent: sentTaskFields,
} = fieldsOf(TASK_FIELDS);
