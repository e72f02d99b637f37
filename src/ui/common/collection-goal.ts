'use client';
import { sharedPath } from '@/contract/sharing/shared-path.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { useFrame } from './frame-context.tsx';

/** Where somebody's calendar, list, address book or folder is opened; `null` is their main calendar. */
export function useCollectionGoal(): (
  owner: string,
  one: { readonly key: string; readonly kind: CollectionKind } | null,
) => string {
  const { frame } = useFrame();
  return (owner, one) => {
    const acted = frame.principals.some((p) => p.handle === owner);
    return acted ? sharedPath(owner, null, one) : sharedPath(frame.me.handle, owner, one);
  };
}
