'use client';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Fragment, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { TimeField } from '../common/fields/time-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import daysCss from './days.module.css';

interface Times {
  readonly morning: string;
  readonly evening: string;
}
/** When they come where nothing else is said. */
const USUAL = { morning: '07:00', evening: '17:30' };

/** At what time one is sent the morning and the evening as letters; saved where it is changed. */
export function LettersOfDay() {
  const t = useTranslations('days');
  const { toast } = useFrame();
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEYS.dayLetters, queryFn: () => call('readDayLetters', {}), retry: false });
  const { data } = query;
  // What is typed, until it is saved; then what is saved.
  const [typed, setTyped] = useState<Times | null>(null);
  const times: Times = typed ?? { morning: data?.morning ?? '', evening: data?.evening ?? '' };
  const { attempt, refused, fields } = useActing(['morning', 'evening']);
  const save = async (next: Times) => {
    const body = { morning: next.morning || null, evening: next.evening || null };
    setTyped(next);
    if (data && body.morning === data.morning && body.evening === data.evening) return;
    const saved = await attempt(() => call('saveDayLetters', { body }));
    if (!saved) return;
    toast({ text: t('saved') });
    await client.invalidateQueries({ queryKey: KEYS.dayLetters });
    setTyped(null);
  };
  return (
    <section className={daysCss.letters} aria-label={t('letters')}>
      <h2>{t('letters')}</h2>
      <p className="small soft">{data && !data.mail ? t('lettersNoMail') : t('lettersHelp')}</p>
      {!data && <QueryState query={query} />}
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      {data &&
        (['morning', 'evening'] as const).map((part) => (
          <Fragment key={part}>
            <FormControlLabel
              label={t(`${part}.title`)}
              control={
                <Switch
                  size="small"
                  checked={times[part] !== ''}
                  onChange={(_, on) => void save({ ...times, [part]: on ? USUAL[part] : '' })}
                />
              }
            />
            {times[part] === '' ? (
              <span />
            ) : (
              <TimeField
                label={t('at')}
                value={times[part]}
                error={fields[part]}
                onChange={(value) => setTyped({ ...times, [part]: value })}
                onLeave={(_, is) => void save({ ...times, [part]: is })}
              />
            )}
          </Fragment>
        ))}
    </section>
  );
}
