import type { CollectionKind } from '@/core/collection/index.ts';

/** How the keys of texts end that speak of what a collection holds. */
export const OF_KIND = {
  calendar: '',
  tasks: 'Tasks',
  contacts: 'Contacts',
  folder: 'Folder',
} as const satisfies Record<CollectionKind, string>;
