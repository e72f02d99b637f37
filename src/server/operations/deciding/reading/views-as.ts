import type { Decision } from '@/core/access/index.ts';
import type { FoundAudience } from '../access/audience.ts';
import type { Decided } from '../access/deciding.ts';
import type { Context } from '../context/context.ts';
import { Directory } from '../context/directory.ts';
import { type Range, type Views, viewsThrough } from './views.ts';

/** An audience's views under a decision, with nothing in them that the one who looks doesn't see too. */
export function viewsAs(
  ctx: Context,
  { calendar, decision: mine }: Decided,
  range: Range,
  audience: Pick<FoundAudience, 'person'>,
  theirs: Decision,
  after = 0,
): Views {
  const target = { person: audience.person, decision: theirs, ownersIds: mine.owner };
  const looker = mine.owner ? null : { person: ctx.viewer, decision: mine };
  return viewsThrough(ctx.db, new Directory(ctx.db), calendar, range, target, looker, after);
}
