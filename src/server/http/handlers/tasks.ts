import type { RouteName } from '@/contract/routes.ts';
import { exportTasksInWorker, importTasksInWorker } from '../../operations/in-worker/in-worker.ts';
import { addList, bringListBack, changeList, removeList } from '../../operations/lists/index.ts';
import {
  addTask,
  answerTask,
  changeTask,
  listItemTasks,
  listTaskLists,
  listTasks,
  removeTask,
  setTaskTime,
} from '../../operations/tasks/index.ts';
import { refuse } from '../../result.ts';
import { utf8 } from '../body.ts';
import { calendarFile } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const tasksHandlers = {
  listTaskLists: ({ ctx, params }) => listTaskLists(ctx, params.person),
  addTaskList: ({ ctx, params, body }) => addList(ctx, 'tasks', params.person, body),
  changeTaskList: ({ ctx, params, body }) => changeList(ctx, params.list, body),
  removeTaskList: ({ ctx, params }) => removeList(ctx, params.list),
  bringTaskListBack: ({ ctx, params }) => bringListBack(ctx, params.list),
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
