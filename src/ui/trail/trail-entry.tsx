'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { TrailEntryWire } from '@/contract/trail.ts';
import { verbName } from '@/contract/trail-verb.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { useLevelName } from '../common/requests/level-name.ts';
import { atText, clock, dayMonth } from '../common/times.ts';
import trailCss from './trail.module.css';

/** One thing that was done: when, by whom and for whom, what it was about, what was before and is after, and the way back. */
export function TrailEntry(props: {
  entry: TrailEntryWire;
  /** For whom it was done is clear where it stands. */
  forOne?: boolean;
  onUndo: () => void;
}) {
  const { entry, forOne = false, onUndo } = props;
  const t = useTranslations('trail');
  const tp = useTranslations('presets');
  const te = useTranslations('extras');
  const { style } = useFrame();
  const levelName = useLevelName();
  const { actor, hands, principal, items, more, levels } = entry;
  const wall = (instant: string) => toWall(style.zone, parseInstant(instant) ?? 0);
  const shown = (field: string, value: string | null): string => {
    if (value === null) return t('none');
    const isInstant = (field === 'start' || field === 'end') && value.endsWith('Z') && parseInstant(value) !== null;
    return isInstant ? atText(value, style) : `“${value}”`;
  };
  const level = (one: NonNullable<typeof levels>['before']): string => {
    if (one === null) return t('nobody');
    const { preset, rights, until } = one;
    const extras = (['private', 'copies'] as const).filter((extra) => rights[extra]);
    return [
      preset ? tp(preset as 'full') : levelName(rights),
      ...extras.map((extra) => te(extra).toLowerCase()),
      ...(until ? [t('until', { day: dayMonth(wall(until)) })] : []),
    ].join(', ');
  };
  const what =
    entry.who === 'everyone'
      ? t('everyone')
      : (entry.who ??
        items.map((title) => title ?? t('unseen')).join(', ') + (more > 0 ? ` ${t('more', { count: more })}` : ''));
  const key = verbName(entry.verb);
  return (
    <li className={trailCss.entry}>
      <span className="small soft">{clock(wall(entry.at), style.hours)}</span>
      <span>
        <b>
          {t('who', {
            actor: hands === null ? actor : t('hands', { actor, name: hands }),
            principal,
            // Whoever says something of a meeting says it in their own name.
            same: forOne || actor === principal || entry.verb === 'item.said' ? 'yes' : 'no',
          })}
        </b>{' '}
        {t.has(`verbs.${key as 'other'}`) ? t(`verbs.${key as 'other'}`) : t('verbs.other')}
      </span>
      <span>
        {what}
        {entry.calendar && (
          <span className="soft">
            {what ? ' · ' : ''}
            {entry.calendar}
          </span>
        )}
      </span>
      <ul className={`small ${trailCss.changes}`}>
        {entry.forgotten && <li className="soft">{t('forgotten', { day: dayMonth(wall(entry.forgotten)) })}</li>}
        {levels && (
          <li>{t('from', { field: t('fields.access'), before: level(levels.before), after: level(levels.after) })}</li>
        )}
        {entry.changed.map((c) => (
          <li key={c.field}>
            {t('from', {
              field: t(`fields.${c.field as 'title'}`),
              before: shown(c.field, c.before),
              after: shown(c.field, c.after),
            })}
          </li>
        ))}
      </ul>
      <span className={trailCss.act}>
        {entry.undo && (
          <Button variant="text" onClick={onUndo} className="slim">
            {t('undo')}
          </Button>
        )}
      </span>
    </li>
  );
}
