'use client';
import { useTranslations } from 'use-intl';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';

/** What a level is called: how much is seen, and what may be done where that is more than looking. */
export function useLevelName(): (rights: RightsWire) => string {
  const t = useTranslations();
  return (rights) => {
    const reach = reachOf(rights);
    const sight = t(`sights.${rights.sight}`);
    return reach === 'look' ? sight : `${sight}, ${t(`reaches.${reach}`).toLowerCase()}`;
  };
}
