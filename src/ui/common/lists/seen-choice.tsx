import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useId } from 'react';
import { useTranslations } from 'use-intl';
import { VISIBILITIES, type Visibility } from '@/core/calendar/index.ts';
import segCss from '../fields/seg.module.css';
import type { ListsOf } from './list-nav.tsx';

/** Who else sees one thing of a list, with what that means. */
export function SeenChoice(props: { of: ListsOf; value: Visibility; onChange: (value: Visibility) => void }) {
  const { of, value, onChange } = props;
  const t = useTranslations(of);
  const tv = useTranslations('visibilities');
  const id = useId();
  return (
    <div>
      <h3 id={id}>{t('seenAs')}</h3>
      <ToggleButtonGroup
        exclusive
        value={value}
        className={`${segCss.seg} ${segCss.sight}`}
        aria-labelledby={id}
        onChange={(_, next: Visibility | null) => next && onChange(next)}
      >
        {VISIBILITIES.map((one) => (
          <ToggleButton key={one} value={one} className="smaller">
            {tv(one)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <p className="small soft">{t(`seen.${value}`)}</p>
    </div>
  );
}
