'use client';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { VISIBILITIES, type Visibility } from '@/core/calendar/index.ts';
import segCss from '../../common/fields/seg.module.css';

/** Who else sees the item: one press, saved at once. */
export function VisibilityChoice(props: {
  value: Visibility;
  /** Of a series it is said, and chosen, how far it goes. */
  series: boolean;
  onChange: (value: Visibility, scope: 'one' | 'all') => void;
  warn: boolean;
  name: string;
}) {
  const { value, series, onChange, warn, name } = props;
  const t = useTranslations();
  const [scope, setScope] = useState<'one' | 'all'>('one');
  return (
    <div>
      <h3 id="visibility-head" className="below-2">
        {t('panel.seenAs')} <span className="soft small">{t(`visibilityHelp.${value}`)}</span>
      </h3>
      {series && (
        <ToggleButtonGroup
          exclusive
          value={scope}
          className={`${segCss.seg} below-3`}
          aria-label={t('panel.scopeLabel')}
          onChange={(_, next: 'one' | 'all' | null) => next && setScope(next)}
        >
          <ToggleButton value="one">{t('panel.scopeOne')}</ToggleButton>
          <ToggleButton value="all">{t('panel.scopeAll')}</ToggleButton>
        </ToggleButtonGroup>
      )}
      <ToggleButtonGroup
        exclusive
        value={value}
        className={`${segCss.seg} ${segCss.sight}`}
        aria-labelledby="visibility-head"
        onChange={(_, next: Visibility | null) => next && next !== value && onChange(next, scope)}
      >
        {VISIBILITIES.map((v) => (
          <ToggleButton key={v} value={v} className="smaller">
            {t(`visibilities.${v}`)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {warn && <p className="small soft above-3">{t('form.privateWarning', { name })}</p>}
    </div>
  );
}
