import type { WrittenAnswer } from '@/contract/items/items.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { type Result, refuse } from '../../result.ts';
import { undoContact } from '../contacts/index.ts';
import type { Context } from '../deciding/index.ts';
import { undoTask } from '../tasks/index.ts';

/** Takes back one write on tasks or on contacts. */
export function undoListed(ctx: Context, key: string): Result<WrittenAnswer> {
  const entry = trailByKey(ctx.db, key);
  if (entry?.verb.startsWith('task.')) return undoTask(ctx, entry);
  return entry?.verb.startsWith('contact.') ? undoContact(ctx, entry) : refuse('notFound');
}
