import { instantText } from '@/core/time/index.ts';
import { deskKey } from '../../ids.ts';
import { type DeskWordRow, latestDeskWords } from '../../repositories/desk.ts';
import { personById } from '../../repositories/people.ts';
import { type Result, refuse } from '../../result.ts';
import type { ActedFor, Context } from '../deciding/index.ts';

/** Words in which one is looked for by the key of its row. */
const MOST_WORDS = 500;
export const lastWord = (
  ctx: Context,
  whom: readonly ActedFor[],
  key: string,
  mine: boolean,
): DeskWordRow | undefined =>
  latestDeskWords(
    ctx.db,
    whom.map(({ person }) => person.id),
    MOST_WORDS,
  ).find((one) => (!mine || one.byId === ctx.viewer.id) && deskKey(one.cause) === key);

/**
 * A row that isn't there: who decided it and when, where it was decided from a Desk. Whoever knows its key had the row: no answer names keys of rows that
 * its reader doesn't have.
 */
export function gone(ctx: Context, whom: readonly ActedFor[], key: string): Result<never> {
  const last = lastWord(ctx, whom, key, false);
  if (!last || last.what === 'later') return refuse('deskGone');
  const by = personById(ctx.db, last.byId)?.name ?? '';
  const at = instantText(last.at);
  return refuse('deskDecided', { facts: { name: by }, data: { by, at, act: last.act ?? last.what } });
}
