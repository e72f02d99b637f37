'use client';
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
    const at = acted ? owner : frame.me.handle;
    if (one?.kind === 'folder') return `/for/${at}/messages?folder=${one.key}`;
    if (one && one.kind !== 'calendar') return `/for/${at}/${one.kind}?list=${one.key}`;
    return `/for/${at}/calendar?${new URLSearchParams({ ...(acted ? {} : { of: owner }), ...(one?.key ? { c: one.key } : {}) })}`;
  };
}
