'use client';
import { useTranslations } from 'use-intl';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { rightsSentence } from '@/messages/rights-sentence.ts';

/** What a set of rights lets somebody see and do, and what it doesn't, in words. */
export function useSentence(): (
  rights: RightsWire,
  owner: string,
  toOwner?: boolean,
  kind?: CollectionKind,
) => { does: string; cannot: string } {
  const t = useTranslations('sentence');
  return (rights, owner, toOwner = true, kind = 'calendar') => rightsSentence(t, rights, owner, toOwner, kind);
}
