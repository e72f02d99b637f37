import { z } from 'zod';
import {
  newTaskFields,
  sentTaskFields,
  type TaskFieldSeenAt,
  TIES,
  taskFields,
  taskSights,
} from '@/core/tasks/index.ts';
import { when } from './items/items.ts';
import { authorship, broughtIn, list, listName, listsAnswerOf } from './lists.ts';
import { at, done, type Routes } from './route.ts';

const named = z.strictObject({ handle: z.string(), name: z.string() });

/** Every field as it is sent: the written ones by the table of fields, the others as they are made. */
const sent = {
  ...sentTaskFields,
  due: z.string().nullable(),
  done: z.boolean(),
  belongsTo: z.string().nullable(),
  repeats: z.string().nullable(),
  createdBy: z.strictObject({ name: z.string().nullable(), address: z.string() }).nullable(),
};
type Sent = typeof sent;
const sentAt = <S extends 'title' | 'outline' | 'full'>(sight: S) =>
  Object.fromEntries(Object.entries(sent).filter(([name]) => taskSights[name as keyof Sent] === sight)) as {
    [K in TaskFieldSeenAt<S>]: Sent[K];
  };
const id = { id: z.string(), list: z.string() };
const title = { ...id, ...sentAt('title') };
const outline = { ...title, ...sentAt('outline') };
/** Beside the fields, for whoever sees all of them. */
const around = {
  version: z.number(),
  may: z.strictObject({ change: z.boolean(), remove: z.boolean() }),
  zone: z.string(),
  /** What it belongs to: how, how many days before or after it is due, and which occurrence that is where one sees it in full. */
  tie: z
    .strictObject({
      as: z.enum(TIES),
      days: z.number(),
      item: z.string().nullable(),
      /** Where that is: its calendar, and whether it is its owner's main one. */
      at: z
        .strictObject({ start: z.string(), allDay: z.boolean(), calendar: z.string(), main: z.boolean() })
        .nullable(),
    })
    .nullable(),
  /** The time that was set aside for it, where one sees when that is. */
  time: z.strictObject({ item: z.string().nullable(), start: z.string(), end: z.string() }).nullable(),
  /** To whom it was given, and what they said. */
  given: z.strictObject({ to: named, state: z.enum(['asked', 'yes', 'no']), note: z.string().nullable() }).nullable(),
  /** By whom, for whom, it was given to the list's owner; and whether that one said yes. */
  from: z.strictObject({ by: z.string(), for: z.string(), said: z.enum(['asked', 'yes']) }).nullable(),
  created: authorship,
  changed: authorship,
};
const full = { ...outline, ...sentAt('full'), ...around };
const removal = { mayRemove: z.literal(true).optional() };

/** A task as one viewer gets it. Strict: a key that the sight doesn't have fails. */
const taskUnion = z.union([
  z.strictObject({ ...title, ...removal }),
  z.strictObject({ ...outline, ...removal }),
  z.strictObject(full),
]);
/** The same, read without knowing how it is seen. */
const anyTask = z.strictObject({
  ...title,
  ...removal,
  ...z.strictObject(full).partial().omit({ id: true, list: true, title: true, due: true, done: true }).shape,
});
export type TaskWire = z.infer<typeof anyTask>;
export const taskWire = taskUnion as unknown as z.ZodType<TaskWire>;

/** A list of tasks, with what one may do in it. */
const taskList = list({
  /** How many are open; `null` where there are more than are counted. */
  open: z.number().nullable(),
});
export type TaskListWire = z.infer<typeof taskList>;

const listsAnswer = listsAnswerOf(taskList);
export type TaskListsAnswer = z.infer<typeof listsAnswer>;

const tasksQuery = z.strictObject({
  /** Those that are done, the latest first, in place of those that are open. */
  done: z.literal('1').optional(),
  /** Go on behind this one. */
  after: z.string().max(64).optional(),
});
const tasksAnswer = z.strictObject({
  list: taskList,
  tasks: z.array(taskWire),
  /** Behind which to go on; `null`: these are all. */
  more: z.string().nullable(),
});
export interface TasksAnswer {
  readonly list: TaskListWire;
  readonly tasks: readonly TaskWire[];
  readonly more: string | null;
}

const itemTasks = z.strictObject({
  tasks: z.array(taskWire),
  /** There are more than these. */
  cut: z.boolean(),
  /** Lists of the item's owner that one may add to; an empty name is the one they began with. */
  lists: z.array(z.strictObject({ key: z.string(), name: z.string() })),
});
export interface ItemTasksAnswer {
  readonly tasks: readonly TaskWire[];
  readonly cut: boolean;
  readonly lists: readonly { readonly key: string; readonly name: string }[];
}

/** When it is due: a date, or a wall-clock time in a zone; `null` for no time. */
const due = z.strictObject({ at: z.string().max(20), zone: z.string().max(64, 'zone') }).nullable();
/** What it belongs to: an item by any id one was given, how, and so many days before or after. */
const tie = z
  .strictObject({
    item: z.string().max(128),
    as: z.enum(TIES),
    days: z.number('daysWhole').int('daysWhole').min(0, 'daysWhole').max(365, 'daysMost:365'),
  })
  .nullable();

const newTask = z.strictObject({
  ...newTaskFields,
  due: due.default(null),
  repeats: z.string().max(500).nullable().default(null),
  tie: tie.default(null),
});
export type NewTask = z.infer<typeof newTask>;

/** The touched fields and the version seen. */
const taskPatch = z.strictObject({
  version: z.number().int(),
  fields: z.strictObject(taskFields).partial().default({}),
  due: due.optional(),
  repeats: z.string().max(500).nullable().optional(),
  tie: tie.optional(),
  done: z.boolean().optional(),
  /** Into which of the same owner's lists it goes. */
  list: z.string().max(64).optional(),
  /** To whom it is given to do, by handle; `null`: back to whose it is. */
  give: z.string().max(64).nullable().optional(),
});
export type TaskPatch = z.infer<typeof taskPatch>;

const timeBody = z.strictObject({
  version: z.number().int(),
  /** In which calendar of the same owner’s, by key; `null` for their main one. */
  calendar: z.string().max(64).nullable().default(null),
  /** `null`: it is taken out again. */
  when: when.nullable(),
});
export type TaskTimeBody = z.infer<typeof timeBody>;

const written = z.strictObject({ task: taskWire.nullable(), undo: z.string() });
export interface TaskWrittenAnswer {
  readonly task: TaskWire | null;
  readonly undo: string;
}

/** Something to be done, for oneself or somebody whose list one may open. */
export const taskRoutes = {
  listTaskLists: {
    ...at('listTaskLists'),
    who: 'person',
    summary: 'Somebody’s lists of tasks that one sees',
    answer: listsAnswer,
  },
  addTaskList: {
    ...at('addTaskList'),
    who: 'person',
    summary: 'Begin a further list of one’s own',
    body: listName,
    answer: z.strictObject({ list: z.string() }),
  },
  changeTaskList: {
    ...at('changeTaskList'),
    who: 'person',
    summary: 'Name one’s own list otherwise',
    body: listName,
    answer: done,
  },
  removeTaskList: {
    ...at('removeTaskList'),
    who: 'person',
    summary: 'Take one’s own further list away; for thirty days it can be brought back',
    answer: done,
  },
  bringTaskListBack: {
    ...at('bringTaskListBack'),
    who: 'person',
    summary: 'Bring back a list one took away',
    answer: done,
  },
  listTasks: {
    ...at('listTasks'),
    who: 'person',
    summary: 'The tasks of a list, as one sees them: what is due first first',
    query: tasksQuery,
    answer: tasksAnswer,
  },
  listItemTasks: {
    ...at('listItemTasks'),
    who: 'person',
    summary: 'The tasks that belong to an item, as one sees them, and the lists one may add such tasks to',
    answer: itemTasks,
  },
  addTask: {
    ...at('addTask'),
    who: 'person',
    summary: 'Add a task in the owner’s name',
    body: newTask,
    answer: written,
  },
  changeTask: {
    ...at('changeTask'),
    who: 'person',
    summary: 'Change the touched fields of a task',
    body: taskPatch,
    answer: written,
  },
  removeTask: {
    ...at('removeTask'),
    who: 'person',
    summary: 'Remove a task',
    query: z.strictObject({ version: z.coerce.number().int().optional() }),
    answer: written,
  },
  answerTask: {
    ...at('answerTask'),
    who: 'person',
    summary: 'Say yes or no to a task that was given to the list’s owner',
    body: z.strictObject({ yes: z.boolean(), note: z.string().trim().max(1000, 'tooLong:1000').default('') }),
    answer: written,
  },
  exportTasks: {
    ...at('exportTasks'),
    who: 'person',
    summary: 'A list as a file of tasks (iCalendar, VTODO), for whoever may have all of it',
    rawAnswer: 'text/calendar',
  },
  importTasks: {
    ...at('importTasks'),
    who: 'person',
    summary: 'Bring the tasks of a calendar file into a list',
    rawBody: 'text/calendar',
    answer: broughtIn,
  },
  setTaskTime: {
    ...at('setTaskTime'),
    who: 'person',
    summary: 'Set time aside for a task in its owner’s calendar, move it, or take it out again',
    body: timeBody,
    answer: written,
  },
} as const satisfies Routes;
