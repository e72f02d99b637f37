import type { Kind, Status } from './kinds.ts';

/** What is seen of an item, as far as it says whether it takes somebody's time. */
interface Timed {
  readonly shows: Status;
  readonly kind?: Kind | null | undefined;
  /** Beside a view: whether it was called off. */
  readonly asSet?: { readonly cancelled: boolean } | undefined;
}

/** Whether a status takes time: what is free doesn't, nor does being away where one can be reached. */
export const isTaken = (shows: Status): boolean => shows !== 'free' && shows !== 'reachable';

/** Whether an item takes its owner's time, as far as one sees: what is free, called off, or only says where someone is doesn't. */
export const takesTime = ({ shows, kind, asSet }: Timed): boolean =>
  isTaken(shows) && kind !== 'whereabouts' && asSet?.cancelled !== true;
