import { writingIsFree } from '../../db/gate.ts';
import { again } from '../../operations/deciding/context/again.ts';
import type { Context } from '../../operations/deciding/context/context.ts';
import type { Result } from '../../result.ts';

/** Does a write in one transaction, in which the viewer is read once more. */
export async function writing<T>(ctx: Context, work: (ctx: Context) => Result<T>): Promise<Result<T>> {
  await writingIsFree();
  return ctx.db.write(() => {
    const now = again(ctx);
    return 'ok' in now ? now : work(now);
  });
}
