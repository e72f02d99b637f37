export { addTask, changeTask, removeTask } from './change-task.ts';
export { type DueTask, tasksDue } from './due-tasks.ts';
export { answerTask } from './give-task.ts';
export { listItemTasks } from './item-tasks.ts';
export { listTasks } from './list-tasks.ts';
export { listTaskLists } from './lists.ts';
export { addReadTask, exportTasks, importTasks } from './task-file.ts';
export { setTaskTime } from './task-time.ts';
export { undoTask } from './undo-task.ts';
