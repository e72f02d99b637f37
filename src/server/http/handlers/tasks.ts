import type { RouteName } from '@/contract/routes.ts';
import { exportTasksInWorker, importTasksInWorker } from '../../operations/in-worker/in-worker.ts';
import {
  addTask,
  addTaskList,
  answerTask,
  bringTaskListBack,
  changeTask,
  changeTaskList,
  listItemTasks,
  listTaskLists,
  listTasks,
  removeTask,
  removeTaskList,
  setTaskTime,
} from '../../operations/tasks/index.ts';
import { refuse } from '../../result.ts';
import { utf8 } from '../body.ts';
import { calendarFile } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const tasksHandlers = {
  listTaskLists: ({ ctx, params }) => listTaskLists(ctx, params.person),
  addTaskList: ({ ctx, params, body }) => addTaskList(ctx, params.person, body),
  changeTaskList: ({ ctx, params, body }) => changeTaskList(ctx, params.list, body),
  removeTaskList: ({ ctx, params }) => removeTaskList(ctx, params.list),
  bringTaskListBack: ({ ctx, params }) => bringTaskListBack(ctx, params.list),
  listTasks: ({ ctx, params, query }) => listTasks(ctx, params.list, query),
  listItemTasks: ({ ctx, params }) => listItemTasks(ctx, params.item),
  addTask: ({ ctx, params, body }) => addTask(ctx, params.list, body),
  changeTask: ({ ctx, params, body }) => changeTask(ctx, params.task, body),
  removeTask: ({ ctx, params, query }) => removeTask(ctx, params.task, query),
  exportTasks: {
    slow: async ({ ctx, params }) => {
      const result = await exportTasksInWorker(ctx, params.list);
      return result.ok ? calendarFile(result.value.name, result.value.text) : result;
    },
  },
  importTasks: {
    slow: async ({ ctx, params, bytes }) => {
      const text = utf8(bytes);
      return text === null ? refuse('wrongEncoding') : importTasksInWorker(ctx, params.list, text);
    },
  },
  setTaskTime: ({ ctx, params, body }) => setTaskTime(ctx, params.task, body),
  answerTask: ({ ctx, params, body }) => answerTask(ctx, params.task, body),
} satisfies Partial<HandlersOf<RouteName>>;
