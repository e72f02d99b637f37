'use client';
import { CalendarIcon } from '@mui/x-date-pickers/icons';
import { lazy } from 'react';
import { useTranslations } from 'use-intl';
import { readDate } from '@/core/sentence/index.ts';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import { useFrame } from '../frame-context.tsx';
import { DAY } from '../times.ts';
import { dateWords } from './date-words.ts';
import { PickedField } from './picked-field.tsx';

const Days = lazy(() => import('./pickers.tsx').then((m) => ({ default: m.Days })));

/**
 * A date, typed as one likes in one's own order (2/3, 2 mar, fri) or picked; kept as `YYYY-MM-DD`, as it was typed where it is no date,
 * or empty.
 */
export function DateField(props: {
  label: string;
  value: string;
  error: string | undefined;
  help?: string | undefined;
  width?: number;
  onChange: (value: string) => void;
  /** What it was when it was come to, and what it is now that it is left. */
  onLeave?: (was: string, is: string) => void;
}) {
  const t = useTranslations('common');
  const tf = useTranslations('fields');
  const { style, now } = useFrame();
  const today = dateText(Math.floor(toWall(style.zone, now()) / DAY) * DAY);
  const { value } = props;
  return (
    <PickedField
      {...props}
      size={{ width: 320, height: 336 }}
      shown={dateWords(value, style.dateOrder)}
      open={t('chooseDay', { label: props.label })}
      icon={<CalendarIcon fontSize="small" />}
      read={(text) => (text.trim() === '' ? '' : readDate(text, style.dateOrder, today))}
      unread={value !== '' && parseDate(value) === null ? tf('date') : null}
      step={(was, by) => {
        const at = parseDate(was === '' ? today : was);
        return at === null ? null : dateText(was === '' ? at : at + by * DAY);
      }}
      picker={(pick) => (
        <Days value={parseDate(value) === null ? today : value} first={style.weekFirst} onPick={pick} />
      )}
    />
  );
}
