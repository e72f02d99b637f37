'use client';
import { useTranslations } from 'use-intl';
import blockCss from '../views/block.module.css';
import legendCss from './legend.module.css';

const SHAPES = ['busy', 'tentative', 'away', 'reachable', 'free', 'hold', 'withheld', 'clash'] as const;

/** Each shape with its word. */
export function Legend() {
  const t = useTranslations();
  return (
    <div className={legendCss.legend} role="note" aria-label={t('board.legend')}>
      {SHAPES.map((shape) => (
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
