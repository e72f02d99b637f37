import type { TaskWrittenAnswer } from '@/contract/tasks.ts';
import type { StoredTask } from '../../repositories/tasks.ts';
import { ok, type Result } from '../../result.ts';
import { type Context, type DecidedList, TaskReading } from '../deciding/index.ts';

/** What an act wrote, as the one who did it sees it now. */
export function answerOf(
  ctx: Context,
  decided: DecidedList,
  task: StoredTask | null,
  undo: string,
): Result<TaskWrittenAnswer> {
  return ok({ task: task && task.removedAt === null ? new TaskReading(ctx, decided).view(task) : null, undo });
}
