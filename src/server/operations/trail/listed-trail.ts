import type { TrailEntryWire } from '@/contract/trail.ts';
import { UNDOABLE_ON_CONTACTS, UNDOABLE_ON_TASKS } from '../deciding/index.ts';
import { textOf } from './item-trail.ts';

/** What is told of what an entry changed. */
export type Told = Pick<TrailEntryWire, 'items' | 'more' | 'changed' | 'undo'>;
export const NOTHING_TOLD: Told = { items: [], more: 0, changed: [], undo: false };
/** Things of one entry that are told by title. */
export const TITLES = 3;
export const UNDOABLE_IN_LISTS: ReadonlySet<string> = new Set([...UNDOABLE_ON_TASKS, ...UNDOABLE_ON_CONTACTS]);

/** Ways to reach somebody as their addresses and numbers alone. */
const plainly = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map((one) => (typeof one === 'object' && one !== null && 'value' in one ? one.value : one))
    : value;

function differing<V>(field: keyof V & string, was: V, is: V): TrailEntryWire['changed'] {
  const [before, after] = [textOf(plainly(was[field])), textOf(plainly(is[field]))];
  return before === after ? [] : [{ field, before, after }];
}

/** What is told of a write in a list: what its reader sees of each state, where they see it as it is now too. */
export function toldOfListed<
  S extends { readonly id: number; readonly version: number },
  V extends { readonly version?: number | undefined },
>(
  verb: string,
  mayUndo: boolean,
  { before, after }: { readonly before: readonly (S | null)[]; readonly after: readonly S[] },
  of: {
    readonly current: (id: number) => S | null;
    readonly view: (state: S) => V | null;
    readonly title: (view: V) => string;
    readonly told: readonly (keyof V & string)[];
  },
): Told {
  if (after.length === 0) return NOTHING_TOLD;
  const now = after.slice(0, TITLES).map((state) => of.current(state.id));
  const look = (state: S | null | undefined, today: S | null | undefined) =>
    state && (!today || of.view(today)) ? of.view(state) : null;
  const views = after.slice(0, TITLES).map((state, i) => look(state, now[i]));
  const [is, was] = [views[0], look(before[0], now[0])];
  const full = after.length === 1 && is?.version !== undefined && was?.version !== undefined;
  return {
    items: views.map((view) => view && of.title(view)),
    more: after.length - views.length,
    changed: full ? of.told.flatMap((field) => differing(field, was, is)) : [],
    undo: UNDOABLE_IN_LISTS.has(verb) && now[0]?.version === after[0]?.version && mayUndo,
  };
}
