'use client';
import { useTranslations } from 'use-intl';
import type { RightsWire } from '@/contract/sharing/sight.ts';

/** What rights let somebody do that takes full trust, wherever they are chosen; nothing where they don't. */
export function Caution({ who, owner, rights }: { who: string; owner: string; rights: RightsWire }) {
  const t = useTranslations('lines');
  const cautions = (['speaks', 'shares', 'private'] as const)
    .filter((extra) => rights[extra])
    .map((extra) => t(`caution.${extra}`, { owner }));
  return cautions.length > 0 ? (
    <p className="small wrong">{t('cautionHead', { who, list: cautions.join('; ') })}</p>
  ) : null;
}
