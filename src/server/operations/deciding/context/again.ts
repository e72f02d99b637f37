import { sessionHolds } from '../../../auth/sessions.ts';
import { now } from '../../../clock.ts';
import { personById } from '../../../repositories/people.ts';
import { tokenStands } from '../../../repositories/tokens.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from './context.ts';
import { isOperatorUnknown } from './operator.ts';

/**
 * Reads the asker once more, for the transaction that writes: since the request began they may have been signed out, have left, or have
 * lost their administrator's rights. Commands and jobs have no session to check.
 */
export function again(ctx: Context): Context | Refusal {
  const viewer = personById(ctx.db, ctx.viewer.id);
  if (!viewer) return refuse('signedOut');
  if (ctx.token && (viewer.account === null || !tokenStands(ctx.db, ctx.token.key, now()))) return refuse('signedOut');
  if (ctx.session && (viewer.account === null || !sessionHolds(ctx.session))) return refuse('signedOut');
  const here = { ...ctx, viewer };
  return isOperatorUnknown({ ...here, now: now() }) ? refuse('handsFirst') : here;
}
