import { sessionHolds } from '../../../auth/sessions.ts';
import { now } from '../../../clock.ts';
import { personById } from '../../../repositories/people.ts';
import { tokenStands } from '../../../repositories/tokens.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from './context.ts';
import { handsUnsaid } from './operator.ts';

/**
 * Who asks, read once more: for the transaction that writes, since between a request's beginning and that they may have been signed
 * out, have left, or be an administrator no longer. Where something else than a window asks there is no session to hold.
 */
export function again(ctx: Context): Context | Refusal {
  const viewer = personById(ctx.db, ctx.viewer.id);
  if (!viewer) return refuse('signedOut');
  if (ctx.token && (viewer.account === null || !tokenStands(ctx.db, ctx.token.key, now()))) return refuse('signedOut');
  if (ctx.session && (viewer.account === null || !sessionHolds(ctx.session))) return refuse('signedOut');
  const here = { ...ctx, viewer };
  return handsUnsaid({ ...here, now: now() }) ? refuse('handsFirst') : here;
}
