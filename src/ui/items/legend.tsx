'use client';
import { useTranslations } from 'use-intl';

const SHAPES = ['busy', 'tentative', 'away', 'free', 'hold', 'withheld', 'clash'] as const;

/** Each shape with its word. */
export function Legend() {
  const t = useTranslations();
  return (
    <div className="legend" role="note" aria-label={t('board.legend')}>
      {SHAPES.map((shape) => (
        <span key={shape}>
          <i className={`block ${shape === 'clash' ? 'busy clash' : shape}`} style={{ position: 'relative' }} />{' '}
          {t(`shapes.${shape}`)}
        </span>
      ))}
    </div>
  );
}
