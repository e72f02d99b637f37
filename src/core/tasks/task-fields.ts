import type { z } from 'zod';
import { freshOf, sentSchema, type WrittenValue, writtenSchema } from '../fields/index.ts';
import { TASK_FIELDS, type TaskFieldSpec } from './task-table.ts';

/*
 * What is made of the table of a task's fields.
 */

type Table = typeof TASK_FIELDS;
export type TaskField = keyof Table;
type NamesWith<Trait> = { [K in TaskField]: Table[K] extends Trait ? K : never }[TaskField];
/** A field as somebody writes it. */
export type WrittenTaskField = Exclude<TaskField, NamesWith<{ type: 'made' }>>;
export type TaskFieldSeenAt<S> = NamesWith<{ sight: S }>;
export type WrittenTask = { readonly [K in WrittenTaskField]: WrittenValue<Table[K]> };

const taskSpec = (name: TaskField): TaskFieldSpec => TASK_FIELDS[name];

function namesWith<K extends TaskField>(has: (spec: TaskFieldSpec) => boolean): readonly K[] {
  return (Object.entries(TASK_FIELDS) as [TaskField, TaskFieldSpec][])
    .filter(([, spec]) => has(spec))
    .map(([name]) => name as K);
}

export const WRITTEN_TASK_FIELDS = namesWith<WrittenTaskField>((spec) => spec.type !== 'made');
/** Fields whose words a search finds. */
export const SEARCHED_TASK_FIELDS = namesWith<NamesWith<{ searched: true }>>((spec) => spec.searched === true);

/** From which sight on each field is sent. */
export const taskSights = Object.fromEntries(Object.entries(TASK_FIELDS).map(([name, { sight }]) => [name, sight])) as {
  readonly [K in TaskField]: Table[K]['sight'];
};

type Schema<T> = z.ZodType<T, T>;
type Written = { readonly [K in WrittenTaskField]: Schema<WrittenTask[K]> };
type Fresh = {
  readonly [K in WrittenTaskField]: Table[K] extends { required: true }
    ? Schema<WrittenTask[K]>
    : z.ZodDefault<Schema<WrittenTask[K]>>;
};
type Sent = { readonly [K in WrittenTaskField]: Schema<WrittenTask[K]> };
const each = (schema: (name: WrittenTaskField, spec: TaskFieldSpec) => z.ZodType) =>
  Object.fromEntries(WRITTEN_TASK_FIELDS.map((name) => [name, schema(name, taskSpec(name))]));

/** Every field of a task as a person writes it, with its limits. */
export const taskFields = each(writtenSchema) as Written;
/** The same of a new task: what isn't said is as it is to begin with. */
export const newTaskFields = each((name, spec) => {
  const fresh = freshOf(spec);
  return fresh === undefined ? writtenSchema(name, spec) : writtenSchema(name, spec).default(fresh);
}) as Fresh;
/** Every written field as it is sent: empty is only what may be. */
export const sentTaskFields = each((_, spec) => sentSchema(spec, freshOf(spec) !== null)) as Sent;
