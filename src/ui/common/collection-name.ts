import { useTranslations } from 'use-intl';
import type { CollectionKind } from '@/core/collection/index.ts';

const FOLDERS = { Arrived: 'arrived', Sent: 'sent', Drafts: 'drafts', Filed: 'filed' } as const;

/** What a list, an address book or a folder is called where it isn't its owner who named it: in the reader's language. */
export function useCollectionName(): (kind: CollectionKind, name: string) => string {
  const t = useTranslations('lists');
  return (kind, name) => {
    if (kind === 'folder' && name in FOLDERS) return t(FOLDERS[name as keyof typeof FOLDERS]);
    return name || t(kind === 'contacts' ? 'contacts' : kind === 'tasks' ? 'tasks' : 'calendar');
  };
}
