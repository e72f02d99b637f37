'use client';
import { useTranslations } from 'use-intl';
import { callingOf, reachOf } from '@/contract/sharing/reach.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';

const EXTRAS = ['suggest', 'private', 'speaks', 'copies', 'shares', 'absence'] as const;

/** What a level is called: by its preset where it has one, else how much is seen and what may be done; and every extra that isn't in that name. */
export function useLevelName(): (rights: RightsWire) => string {
  const t = useTranslations();
  return (rights) => {
    const sight = t(`sights.${rights.sight}`);
    const preset = callingOf(rights);
    const reach = reachOf(rights);
    const does =
      reach === 'look'
        ? []
        : reach === 'words'
          ? [
              ...(rights.add ? [t('lines.addRight')] : []),
              ...(['change', 'remove'] as const)
                .filter((right) => rights[right] !== 'none')
                .map(
                  (right) =>
                    `${t(right === 'change' ? 'lines.change' : 'lines.removeRight')} ${t(`scopes.${rights[right]}`)}`,
                ),
            ]
          : [t(`reaches.${reach}`)];
    // A preset lets into nothing private and tells of nothing by itself; the away notice comes with acting for somebody.
    const extras = EXTRAS.filter(
      (extra) => rights[extra] && (!preset || extra === 'private' || extra === 'copies'),
    ).map((extra) => t(`extras.${extra}`));
    const parts = [...(preset ? [] : does), ...extras].map((part) => part.charAt(0).toLowerCase() + part.slice(1));
    return [preset ? t(`presets.${preset}`) : sight, ...parts].join(', ');
  };
}
