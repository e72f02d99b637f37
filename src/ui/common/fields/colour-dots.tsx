import { useTranslations } from 'use-intl';
import css from './colour-dots.module.css';

const COLOURS = [0, 1, 2, 3, 4, 5];

/** One of the colours that people and lanes have. */
export function ColourDots(props: { label: string; value: number; onChange: (colour: number) => void }) {
  const { label, value, onChange } = props;
  const t = useTranslations('lanes');
  return (
    <fieldset className={css.dots} aria-label={label}>
      {COLOURS.map((c) => (
        <button
          type="button"
          key={c}
          className={`plain who-${c}`}
          aria-pressed={c === value}
          aria-label={t('colourOf', { n: c + 1 })}
          onClick={() => onChange(c)}
        />
      ))}
    </fieldset>
  );
}
