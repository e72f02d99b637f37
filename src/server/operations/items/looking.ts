import type { LookingAnswer, LookingBody } from '@/contract/items/looking.ts';
import { presence } from '../../live/presence.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { ok, type Result } from '../../result.ts';
import { type Context, findItem, isRefusal, tell } from '../deciding/index.ts';

/**
 * Says what one does with an item that is open, and answers who else has it open. It is for those who may change it, and tells of those
 * alone, as they may now: that somebody merely reads it is nobody's to know, nor that they can.
 */
export function sayLooking(ctx: Context, id: string, { doing }: LookingBody): Result<LookingAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  if (!found.may.change) return ok({ others: [] });
  const { key } = found.item;
  const others = presence()
    .others(key, ctx.viewer.id, ctx.now)
    .flatMap(({ person: other, doing: does }) => {
      const person = personById(ctx.db, other);
      return person && mayChange(ctx, key, person) ? [{ person, does }] : [];
    });
  if (presence().say(key, ctx.viewer.id, doing === 'gone' ? null : doing, ctx.now))
    tell(
      ctx.db,
      others.map(({ person }) => person.id),
      { kind: 'looking', item: key },
    );
  return ok({
    others: others.map(({ person: { name, colour }, does }) => ({ name, colour: colour % 6, types: does === 'types' })),
  });
}

function mayChange(ctx: Context, key: string, viewer: Person): boolean {
  const found = findItem({ db: ctx.db, now: ctx.now, viewer }, key);
  return !isRefusal(found) && found.may.change;
}
