'use client';
import { ClockIcon } from '@mui/x-date-pickers/icons';
import { lazy } from 'react';
import { useTranslations } from 'use-intl';
import { parseWall, wallText } from '@/core/time/index.ts';
import { useFrame } from '../frame-context.tsx';
import { clock, DAY, MINUTE } from '../times.ts';
import { PickedField } from './picked-field.tsx';
import { readTime } from './read-time.ts';

const Hours = lazy(() => import('./pickers.tsx').then((m) => ({ default: m.HoursOfDay })));
const STEP = 15 * MINUTE;

/** A time of day, typed freely (930, 9:30, 2pm) or picked; kept as `HH:MM`, or as it was typed where it is no time. */
export function TimeField(props: {
  label: string;
  value: string;
  error: string | undefined;
  width?: number;
  onChange: (value: string) => void;
  onLeave?: (was: string, is: string) => void;
}) {
  const t = useTranslations('common');
  const tf = useTranslations('fields');
  const { style } = useFrame();
  const { value } = props;
  const wall = readTime(value) === value ? parseWall(`1970-01-01T${value}`) : null;
  return (
    <PickedField
      {...props}
      size={{ width: 72, height: 232 }}
      onLeave={(was, is) => readTime(was) && props.onLeave?.(was, is)}
      shown={wall === null ? value : clock(wall, style.hours)}
      open={t('chooseTime', { label: props.label })}
      icon={<ClockIcon fontSize="small" />}
      read={readTime}
      unread={wall === null && value !== '' ? tf('time') : null}
      step={(was, by) => {
        const at = parseWall(`1970-01-01T${was}`);
        if (at === null) return null;
        const on = by > 0 ? Math.floor(at / STEP) + 1 : Math.ceil(at / STEP) - 1;
        return wallText((((on * STEP) % DAY) + DAY) % DAY).slice(11, 16);
      }}
      picker={(pick) => <Hours value={wall === null ? '09:00' : value} hours={style.hours} onPick={pick} />}
    />
  );
}
