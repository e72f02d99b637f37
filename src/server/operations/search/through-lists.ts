import { type ListKind, listsOf, type SharedList } from '../../repositories/lists.ts';
import { type Context, type DecidedList, Directory, decideOnAll } from '../deciding/index.ts';
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

/** Lists of a kind of which the viewer sees the same: what words are looked for in, and which are shown, is one for all of them. */
export type Alike<K extends ListKind> = readonly [SeenList<K>, ...SeenList<K>[]];
export type SeenList<K extends ListKind> = Pick<DecidedList<K>, 'list' | 'decision'>;

/**
 * Looks through the lists of a kind that the viewer sees anything of: their own, then those they were given, those alike at once. `find`
 * answers what some of them hold, each with the list it is in, at most `most`.
 */
export function throughLists<K extends ListKind, F>(
  ctx: Context,
  kind: K,
  find: (alike: Alike<K>, most: number, directory: Directory) => readonly (readonly [SeenList<K>, F])[],
): { readonly found: readonly (F & { readonly owner: Owner })[]; readonly cut: boolean } {
  const directory = new Directory(ctx.db);
  const lists = [...listsOf(ctx.db, kind, ctx.viewer.id), ...sharedWith(ctx, kind).slice(0, MOST_LISTS)];
  const found: (F & { readonly owner: Owner })[] = [];
  for (const alike of alikes(ctx, lists)) {
    if (found.length > MOST) break;
    for (const [{ list }, one] of find(alike, MOST + 1, directory)) {
      const { handle = '', name = '', colour = 0 } = directory.person(list.ownerId) ?? {};
      found.push({ ...one, owner: { handle, name, colour: colour % 6 } });
    }
  }
  return { found: found.slice(0, MOST), cut: found.length > MOST };
}

function alikes<K extends ListKind>(ctx: Context, lists: readonly SharedList<K>[]): Iterable<Alike<K>> {
  const groups = new Map<string, [SeenList<K>, ...SeenList<K>[]]>();
  for (const { shared: list, decision } of decideOnAll(ctx, lists)) {
    const { owner, rights, ceiling } = decision;
    if (rights.sight === 'nothing') continue;
    const key = JSON.stringify([owner, rights, ceiling]);
    const group = groups.get(key);
    if (group) group.push({ list, decision });
    else groups.set(key, [{ list, decision }]);
  }
  return groups.values();
}

/** Of lists that are alike, the one that something is in. */
export const inList = <K extends ListKind>(alike: Alike<K>, listId: number): SeenList<K> =>
  alike.find(({ list }) => list.id === listId) ?? alike[0];
