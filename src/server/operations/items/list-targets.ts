import { MOST_TARGETS, type Target } from '@/contract/items/targets.ts';
import { calendarsOf } from '../../repositories/calendars.ts';
import { calendarsNaming } from '../../repositories/grants.ts';
import { type Context, Directory, decideOnSeveral, principalsOf } from '../deciding/index.ts';

/**
 * The calendars the asker may add to: main ones first, in the order of the band, then further ones by owner and name. At most
 * `MOST_TARGETS`, said when it cuts.
 */
export function listTargets(ctx: Context): { calendars: Target[]; cutShort: boolean } {
  const me = ctx.viewer;
  const directory = new Directory(ctx.db);
  const band = principalsOf(ctx).map(({ person }) => person.id);
  const ids = new Set([...calendarsNaming(ctx.db, me.id), ...calendarsOf(ctx.db, me.id).map((one) => one.id)]);
  const found = decideOnSeveral(ctx, [...ids]).flatMap(({ calendar, decision }) => {
    const owner = decision.rights.add ? directory.person(calendar.ownerId) : null;
    return owner && owner.leftAt === null ? [{ calendar, owner }] : [];
  });
  const rank = (id: number) => (band.includes(id) ? band.indexOf(id) : band.length);
  found.sort(
    (a, b) =>
      Number(b.calendar.main) - Number(a.calendar.main) ||
      rank(a.owner.id) - rank(b.owner.id) ||
      a.owner.name.localeCompare(b.owner.name) ||
      a.calendar.name.localeCompare(b.calendar.name),
  );
  const calendars = found.slice(0, MOST_TARGETS).map(({ calendar: { key, name, main }, owner }) => {
    const { handle, colour } = owner;
    return { key, name, main, owner: { handle, name: owner.name, colour, own: owner.id === me.id } };
  });
  return { calendars, cutShort: found.length > MOST_TARGETS };
}
