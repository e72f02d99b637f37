'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import { MOST_KEEPS } from '@/contract/mosts.ts';
import type { TimePreferenceWire } from '@/contract/openings/time-preferences.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { TimeField } from '../../common/fields/time-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { DAY, weekday } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { PanelHead } from '../details/panel-head.tsx';
import keepsCss from './preferences-panel.module.css';

const MONDAY = 4 * DAY;
const workdays = () => [1, 2, 3, 4, 5];
/** What people wish most often, to begin from. */
const BEGINNINGS: Record<'lunch' | 'start' | 'friday' | 'work' | 'most' | 'pause', () => TimePreferenceWire> = {
  lunch: () => ({ kind: 'rest', hard: true, days: workdays(), from: '12:00', to: '14:00', minutes: 45 }),
  start: () => ({ kind: 'span', hard: true, days: workdays(), from: '00:00', to: '09:30' }),
  friday: () => ({ kind: 'span', hard: false, days: [5], from: '13:00', to: '24:00' }),
  work: () => ({ kind: 'span', hard: false, days: [3], from: '09:00', to: '11:00' }),
  most: () => ({ kind: 'most', hard: false, minutes: 360 }),
  pause: () => ({ kind: 'pause', hard: false, after: 180, minutes: 15 }),
};

/** What somebody wishes of their days as a rule, set by them or who arranges for them: searches for times hold to it or count it. */
export function PreferencesPanel({ head, onClose }: { head: BoardHead; onClose: () => void }) {
  const query = useQuery({
    queryKey: KEYS.calendar(head.calendar.key, 'keeps'),
    queryFn: () => call('readTimePreferences', { params: { calendar: head.calendar.key } }),
    retry: false,
  });
  const t = useTranslations('keeps');
  const name = firstName(head.owner.name);
  return (
    <aside className={boardsCss.panel} aria-label={t('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('title')}</h2>
      <p className="small soft">{t('help', { own: head.own ? 'yes' : 'no', name })}</p>
      <QueryState query={query} />
      {query.data && <Preferences key={query.data.version} head={head} was={query.data} />}
    </aside>
  );
}

function Preferences({
  head,
  was,
}: {
  head: BoardHead;
  was: { keeps: readonly TimePreferenceWire[]; version: number; zone: string };
}) {
  const t = useTranslations('keeps');
  const client = useQueryClient();
  const { toast } = useFrame();
  const [preferences, setPreferences] = useState<readonly TimePreferenceWire[]>(was.keeps);
  const { attempt, busy, refused } = useActing();
  const put = (i: number, preference: TimePreferenceWire) =>
    setPreferences(preferences.map((one, at) => (at === i ? preference : one)));
  const name = firstName(head.owner.name);
  const save = async () => {
    await attempt(async () => {
      const body = { keeps: [...preferences], version: was.version };
      const now = await call('saveTimePreferences', { params: { calendar: head.calendar.key }, body });
      client.setQueryData(KEYS.calendar(head.calendar.key, 'keeps'), now);
      toast({ text: t('saved') });
    });
  };
  return (
    <>
      <ul className={keepsCss.list}>
        {preferences.map((preference, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a wish has no name but its place
          <li key={i}>
            <OnePreference
              preference={preference}
              onChange={(next) => put(i, next)}
              onGone={() => setPreferences(preferences.filter((_, at) => at !== i))}
            />
          </li>
        ))}
      </ul>
      {preferences.length === 0 && <p className="small soft">{t('none')}</p>}
      {preferences.length < MOST_KEEPS && (
        <fieldset className={keepsCss.add} aria-label={t('add')}>
          {(Object.keys(BEGINNINGS) as (keyof typeof BEGINNINGS)[]).map((b) => (
            <Button
              key={b}
              variant="outlined"
              className="low"
              onClick={() => setPreferences([...preferences, BEGINNINGS[b]()])}
            >
              {t(`begin.${b}`)}
            </Button>
          ))}
        </fieldset>
      )}
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      <Button variant="contained" loading={busy} onClick={() => void save()} className="own-width">
        {t('save', { own: head.own ? 'yes' : 'no', name })}
      </Button>
    </>
  );
}

function OnePreference({
  preference,
  onChange,
  onGone,
}: {
  preference: TimePreferenceWire;
  onChange: (preference: TimePreferenceWire) => void;
  onGone: () => void;
}) {
  const t = useTranslations('keeps');
  const minutes = (label: string, value: number, set: (minutes: number) => TimePreferenceWire) => (
    <TextField
      label={label}
      type="number"
      value={value}
      onChange={(e) => onChange(set(Number(e.target.value)))}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { min: 5, max: 1440, step: 5 } }}
    />
  );
  return (
    <section className={keepsCss.keep} aria-label={t(`kind.${preference.kind}`)}>
      <b>{t(`kind.${preference.kind}`)}</b>
      {'days' in preference && (
        <span className="row gap-2">
          {[1, 2, 3, 4, 5, 6, 7].map((d) => (
            <button
              key={d}
              type="button"
              className={`plain ${keepsCss.day}`}
              aria-pressed={preference.days.includes(d)}
              onClick={() => {
                const days = preference.days.includes(d)
                  ? preference.days.filter((one) => one !== d)
                  : [...preference.days, d].sort();
                onChange({ ...preference, days });
              }}
            >
              {weekday(MONDAY + (d - 1) * DAY)}
            </button>
          ))}
        </span>
      )}
      {'from' in preference && (
        <span className="row gap-3">
          <TimeField
            label={t('from')}
            value={preference.from}
            error={undefined}
            onChange={(from) => onChange({ ...preference, from })}
          />
          <TimeField
            label={t('to')}
            value={preference.to === '24:00' ? '00:00' : preference.to}
            error={undefined}
            onChange={(to) => onChange({ ...preference, to: to === '00:00' ? '24:00' : to })}
          />
        </span>
      )}
      {preference.kind === 'rest' && minutes(t('free'), preference.minutes, (m) => ({ ...preference, minutes: m }))}
      {preference.kind === 'most' &&
        minutes(t('mostMinutes'), preference.minutes, (m) => ({ ...preference, minutes: m }))}
      {preference.kind === 'pause' && (
        <span className="row gap-3">
          {minutes(t('after'), preference.after, (m) => ({ ...preference, after: m }))}
          {minutes(t('pauseMinutes'), preference.minutes, (m) => ({ ...preference, minutes: m }))}
        </span>
      )}
      <span className="row spread">
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={preference.hard}
              onChange={(e) => onChange({ ...preference, hard: e.target.checked })}
            />
          }
          label={t('hard')}
          slotProps={{ typography: { variant: 'body2' } }}
        />
        <Button variant="text" onClick={onGone}>
          {t('remove')}
        </Button>
      </span>
    </section>
  );
}
