import { fromWallLenient, toWall } from '@/core/time/index.ts';
import { operatorOfSession, recentOperators } from '../../../repositories/operators.ts';
import { tokenByKey } from '../../../repositories/tokens.ts';
import type { Context } from './context.ts';

const DAY = 86_400_000;

/** When the day of the viewer began, on their own clock. */
const dayBegan = ({ now, viewer }: Pick<Context, 'now' | 'viewer'>): number =>
  fromWallLenient(viewer.zone, Math.floor(toWall(viewer.zone, now) / DAY) * DAY);

/** Who is behind a role account's window today, as they said; `null` where nobody did yet, and for an account that is one person's. */
export function operatorOf(ctx: Pick<Context, 'db' | 'now' | 'viewer' | 'session' | 'token'>): string | null {
  if (ctx.viewer.kind !== 'role') return null;
  // A program's operator is the name its token was given.
  if (ctx.token) return tokenByKey(ctx.db, ctx.token.key)?.name ?? null;
  if (!ctx.session) return null;
  return operatorOfSession(ctx.db, ctx.viewer.id, ctx.session, dayBegan(ctx));
}

/** Whether whoever is behind a window has to be said before anything is done in it. */
export const isOperatorUnknown = (ctx: Pick<Context, 'db' | 'now' | 'viewer' | 'session'>): boolean =>
  ctx.viewer.kind === 'role' && !!ctx.session && operatorOf(ctx) === null;

const LATE = 30 * DAY;
const MOST_NAMES = 6;

/** What a window of a role account says of who is behind it: whether that has to be said, who it is, and who said so of late. */
export function operatorHere(ctx: Context): { asks: boolean; name: string | null; before: string[] } | null {
  if (ctx.viewer.kind !== 'role') return null;
  return {
    asks: isOperatorUnknown(ctx),
    name: operatorOf(ctx),
    before: recentOperators(ctx.db, ctx.viewer.id, ctx.now - LATE, MOST_NAMES),
  };
}
