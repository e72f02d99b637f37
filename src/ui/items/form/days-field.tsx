'use client';
import Chip from '@mui/material/Chip';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { parseDate } from '@/core/time/index.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { fullDay } from '../../common/times.ts';

/** Days picked one by one, each taken out again by its own press; one more is typed or picked. */
export function DaysField(props: {
  days: readonly string[];
  error: string | undefined;
  onChange: (days: string[]) => void;
}) {
  const { days, error, onChange } = props;
  const t = useTranslations('picked');
  const [typed, setTyped] = useState('');
  const inWords = (day: string) => [fullDay(parseDate(day.slice(0, 10)) ?? 0), day.slice(11, 16)].join(' ').trim();
  const put = (day: string) => {
    if (parseDate(day) === null) return setTyped(day);
    setTyped('');
    onChange([...new Set([...days, day])].sort());
  };
  return (
    <fieldset aria-label={t('daysTitle')} className="bare gap-3 stack">
      <ul className="row plain list gap-2">
        {days.map((day) => (
          <li key={day}>
            <Chip
              size="small"
              label={inWords(day)}
              onDelete={() => onChange(days.filter((one) => one !== day))}
              slotProps={{ root: { 'aria-label': t('takeOut', { day: inWords(day) }) } }}
            />
          </li>
        ))}
      </ul>
      <DateField label={t('oneMore')} value={typed} error={error} onChange={setTyped} onLeave={(_, is) => put(is)} />
    </fieldset>
  );
}
