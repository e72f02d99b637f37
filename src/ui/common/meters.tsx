'use client';
import { useTranslations } from 'use-intl';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import metersCss from './meters.module.css';

/** Four bars: how much someone sees. */
export function SightMeter({ sight }: { sight: RightsWire['sight'] }) {
  const t = useTranslations();
  const filled = SIGHTS.indexOf(sight);
  return (
    <span className={metersCss.meter} role="img" aria-label={`${t('lines.sees')}: ${t(`sightWords.${sight}`)}`}>
      {[1, 2, 3, 4].map((n) => (
        <i key={n} className={n <= filled ? metersCss.on : ''} />
      ))}
    </span>
  );
}

/** Three dots: how much someone may do; a hollow first dot means suggestions only. */
export function ReachMeter({ rights }: { rights: RightsWire }) {
  const t = useTranslations();
  const reach = reachOf(rights);
  const dots = { look: 0, add: 1, words: 2, arrange: 3 }[reach];
  const hollow = dots === 0 && rights.suggest;
  return (
    <span
      className={`${metersCss.meter} ${metersCss.reach}`}
      role="img"
      aria-label={`${t('lines.mayDo')}: ${t(`reaches.${reach}`)}`}
    >
      {[1, 2, 3].map((n) => (
        <i key={n} className={n <= dots ? metersCss.on : hollow && n === 1 ? metersCss.hollow : ''} />
      ))}
    </span>
  );
}
