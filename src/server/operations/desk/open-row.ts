import type { DeskAnswer } from '@/contract/desk.ts';
import { presence } from '../../live/presence.ts';
import { ok, type Result } from '../../result.ts';
import { type Context, Directory, tell } from '../deciding/index.ts';
import { deskPrincipals, findDeskRow } from './desk.ts';
import { gone } from './gone.ts';

/** The same answer with who else has each row open. */
export function withWhoIsThere(ctx: Context, answer: DeskAnswer): DeskAnswer {
  const directory = new Directory(ctx.db);
  const rows = answer.rows.map((row) => {
    const there = presence().others(`desk ${row.key}`, ctx.viewer.id, ctx.now);
    return there.length === 0 ? row : { ...row, open: there.map(({ person }) => directory.name(person)) };
  });
  return { ...answer, rows };
}

/** Says that one has a row open, or no longer, and answers who else has: for those who have the row, and of those who act for the same person. */
export function openDeskRow(
  ctx: Context,
  key: string,
  open: boolean,
  whose = '',
): Result<{ others: DeskAnswer['rows'][number]['open'] }> {
  const whom = deskPrincipals(ctx);
  const found = findDeskRow(ctx, whom, key, whose);
  if (!found) return open ? gone(ctx, whom, key) : ok({ others: [] });
  const name = `desk ${key}`;
  const { one, acts } = found.gathered;
  const allowed = new Set([one.person.id, ...acts.map(({ id }) => id)]);
  const others = presence()
    .others(name, ctx.viewer.id, ctx.now)
    .filter(({ person }) => allowed.has(person));
  if (presence().say(name, ctx.viewer.id, open ? 'looks' : null, ctx.now))
    tell(
      ctx.db,
      [...allowed].filter((id) => id !== ctx.viewer.id),
      { kind: 'desk', for: one.person.handle },
    );
  const directory = new Directory(ctx.db);
  return ok({ others: others.map(({ person }) => directory.name(person)) });
}
