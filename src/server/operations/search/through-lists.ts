import { type ListKind, listsOf } from '../../repositories/lists.ts';
import { type Context, type DecidedList, Directory, decideOnList } from '../deciding/index.ts';
import { sharedWith } from '../lists/index.ts';

/** Things of one kind that are answered, and lists of others that are looked through for them. */
const MOST = 20;
const MOST_LISTS = 200;

/** Whose list something was found in, as it is shown. */
interface Owner {
  readonly handle: string;
  readonly name: string;
  readonly colour: number;
}

/**
 * Looks through the lists of a kind that the one who asks sees anything of: their own, then those they were given. `find` answers what one of them
 * holds, at most `most`.
 */
export function throughLists<K extends ListKind, F>(
  ctx: Context,
  kind: K,
  find: (on: DecidedList<K>, most: number, directory: Directory) => readonly F[],
): { readonly found: readonly (F & { readonly owner: Owner })[]; readonly cut: boolean } {
  const directory = new Directory(ctx.db);
  const found: (F & { readonly owner: Owner })[] = [];
  for (const list of [...listsOf(ctx.db, kind, ctx.viewer.id), ...sharedWith(ctx, kind).slice(0, MOST_LISTS)]) {
    if (found.length > MOST) break;
    const on = decideOnList(ctx, list);
    if (on.decision.rights.sight === 'nothing') continue;
    const { handle = '', name = '', colour = 0 } = directory.person(list.ownerId) ?? {};
    const owner = { handle, name, colour: colour % 6 };
    for (const one of find(on, MOST + 1, directory)) found.push({ ...one, owner });
  }
  return { found: found.slice(0, MOST), cut: found.length > MOST };
}
