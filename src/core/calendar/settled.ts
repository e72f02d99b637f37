import type { Kind, Status, Visibility } from './kinds.ts';

interface Settling {
  readonly kind: Kind;
  readonly shows: Status;
  readonly visibility: Visibility;
}

/**
 * What a kind decides of an item, whatever else was written of it: a whereabouts only says where someone is, so it is free, and
 * open to whoever may look at all, where it wasn't made narrower on purpose. `was` is the item before; nothing where it is new.
 */
export function settled<T extends Settling>(item: T, was: Settling | null): T {
  if (item.kind !== 'whereabouts') return item;
  const isNew = was === null || was.kind !== 'whereabouts';
  return { ...item, shows: 'free', visibility: isNew && item.visibility === 'follow' ? 'open' : item.visibility };
}
