import type { Kind, Status } from './kinds.ts';

/** What is seen of an item, as far as it says whether it takes somebody's time. */
interface Timed {
  readonly shows: Status;
  readonly kind?: Kind | null | undefined;
  /** Beside a view: whether it was called off. */
  readonly asSet?: { readonly cancelled: boolean } | undefined;
}

/** Whether an item takes its owner's time, as far as one sees: what is free, called off, or only says where someone is doesn't. */
export const takesTime = ({ shows, kind, asSet }: Timed): boolean =>
  shows !== 'free' && kind !== 'whereabouts' && asSet?.cancelled !== true;
