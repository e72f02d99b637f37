'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { type Values, valuesOf } from './item-values.ts';

/** Both versions side by side, field by field: what someone else saved, and what was typed here. */
export function Conflict(props: {
  theirs: ItemWire;
  mine: Values;
  touched: ReadonlySet<string>;
  onKeep: () => void;
  onTake: () => void;
}) {
  const { theirs, mine, touched, onKeep, onTake } = props;
  const t = useTranslations('form');
  const { style } = useFrame();
  const now = valuesOf({ kind: 'change', item: theirs }, style.zone);
  const differing = (Object.keys(now) as (keyof Values)[]).filter(
    (k) => touched.has(k) && String(now[k]) !== String(mine[k]),
  );
  return (
    <div className={`${pageCss.card} ${pageCss['wrong-card']}`} role="alert">
      <p>
        <b>{t('conflict', { name: theirs.asSet?.changed.actor ?? t('someone') })}</b>
      </p>
      {differing.map((k) => (
        <p key={k} className="small">
          {t('conflictField', { value: String(now[k]) || '–' })} <span className="soft">→ {String(mine[k])}</span>
        </p>
      ))}
      <div className="row above-4">
        <Button variant="outlined" onClick={onKeep}>
          {t('keepMine')}
        </Button>
        <Button variant="outlined" onClick={onTake}>
          {t('takeTheirs')}
        </Button>
      </div>
    </div>
  );
}
