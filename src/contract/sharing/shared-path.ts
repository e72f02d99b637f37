import type { CollectionKind } from '@/core/collection/index.ts';

/**
 * Where a calendar, list, address book or folder is opened in the window of `at`. `of` is whose it is, `null` where the window is theirs;
 * `one` is `null` for a main calendar.
 */
export function sharedPath(
  at: string,
  of: string | null,
  one: { readonly key: string; readonly kind: CollectionKind } | null,
): string {
  if (one?.kind === 'folder') return `/for/${at}/messages?folder=${one.key}`;
  if (one && one.kind !== 'calendar') return `/for/${at}/${one.kind}?list=${one.key}`;
  return `/for/${at}/calendar?${new URLSearchParams({ ...(of ? { of } : {}), ...(one?.key ? { c: one.key } : {}) })}`;
}
