'use client';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import blockCss from '../views/block.module.css';
import legendCss from './legend.module.css';

const SHAPES = ['busy', 'tentative', 'away', 'reachable', 'free', 'hold', 'withheld', 'clash'] as const;

/** Each shape with its word; the rarest only where it is among the items that are given. */
export function Legend({ items }: { items?: readonly ItemWire[] }) {
  const t = useTranslations();
  const rare = !items || items.some(({ shows }) => shows === 'reachable');
  return (
    <div className={legendCss.legend} role="note" aria-label={t('board.legend')}>
      {SHAPES.filter((shape) => rare || shape !== 'reachable').map((shape) => (
        <span key={shape}>
          <i className={`${blockCss.block} ${legendCss.block} ${blockCss[shape] ?? ''} placed`} />{' '}
          {t(`shapes.${shape}`)}
          {shape === 'clash' && (
            <>
              {' '}
              <kbd title={t('board.clashKey')}>C</kbd>
            </>
          )}
        </span>
      ))}
    </div>
  );
}
