'use client';
import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, WrittenAnswer } from '@/contract/items/items.ts';
import { dateText, parseDate } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { readTime } from '../../common/fields/read-time.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { fullDay } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { PanelHead } from '../details/panel-head.tsx';

const WEEKDAYS = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA'];

/** Says where somebody is: a place, a day, hours, weekly if wished. It takes none of their time and is open to whoever may look at all. */
export function AtPanel(props: {
  head: BoardHead;
  day: number;
  /** Places of what is on the board already. */
  places: readonly string[];
  onClose: () => void;
  onSaved: (answer: WrittenAnswer) => void;
}) {
  const { head, day, places, onClose, onSaved } = props;
  const t = useTranslations();
  const ta = useTranslations('at');
  const tf = useTranslations('fields');
  const { style } = useFrame();
  const [place, setPlace] = useState('');
  const [date, setDate] = useState(dateText(day));
  const [from, setFrom] = useState('09:00');
  const [to, setTo] = useState('18:00');
  const [weekly, setWeekly] = useState(false);
  const { attempt, busy, refused, setRefused } = useActing();
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const journeys = useQuery({
    queryKey: KEYS.journeys,
    queryFn: () => call('listJourneys', {}),
    staleTime: 60_000,
    retry: false,
  });
  const ways = journeys.data?.journeys ?? [];
  const known = [...new Set([...ways.map(([a]) => a), ...ways.map(([, b]) => b), ...places])].sort();
  const name = firstName(head.owner.name);
  const at = parseDate(date);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const [a, b] = [readTime(from), readTime(to)];
    const found: Record<string, string> = {
      ...(place.trim() === '' ? { place: ta('placeMissing') } : {}),
      ...(at === null ? { date: tf('date') } : {}),
      ...(a ? {} : { from: tf('time') }),
      ...(b ? (a && b <= a ? { to: tf('endBeforeStart') } : {}) : { to: tf('time') }),
    };
    setWrong(found);
    setRefused(null);
    if (Object.keys(found).length > 0 || at === null || !a || !b) return;
    await attempt(
      async () => {
        const answer = await call('createItem', {
          params: { calendar: head.calendar.key },
          body: {
            when: { start: `${date}T${a}`, end: `${date}T${b}`, allDay: false, zone: style.zone },
            title: ta('itemTitle', { place: place.trim() }),
            place: place.trim(),
            kind: 'whereabouts',
            shows: 'free',
            visibility: 'open',
            ...(weekly ? { repeat: { rule: `FREQ=WEEKLY;BYDAY=${WEEKDAYS[new Date(at).getUTCDay()]}` } } : {}),
          },
        });
        onSaved(answer);
      },
      (answer) => {
        setRefused(answer.sentence);
        setWrong(answer.fields);
      },
    );
  };
  return (
    <aside className={boardsCss.panel} aria-label={ta('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{head.own ? ta('mine') : ta('of', { name })}</h2>
      <p className="small soft">{ta('help')}</p>
      {refused && <Alert severity="error">{refused}</Alert>}
      <form onSubmit={save} noValidate>
        <Autocomplete
          freeSolo
          options={known}
          inputValue={place}
          onInputChange={(_, text) => setPlace(text)}
          renderInput={(params) => (
            <TextField
              {...params}
              autoFocus
              label={ta('place')}
              error={wrong.place !== undefined}
              helperText={wrong.place}
              slotProps={{ ...params.slotProps, inputLabel: { ...params.slotProps.inputLabel, shrink: true } }}
            />
          )}
        />
        <DateField label={t('form.day')} value={date} error={wrong.date} onChange={setDate} />
        <span className="row">
          <TextField
            label={t('form.from')}
            value={from}
            error={wrong.from !== undefined}
            helperText={wrong.from}
            onChange={(e) => setFrom(e.target.value)}
            onBlur={() => setFrom(readTime(from) ?? from)}
          />
          <TextField
            label={t('form.to')}
            value={to}
            error={wrong.to !== undefined}
            helperText={wrong.to}
            onChange={(e) => setTo(e.target.value)}
            onBlur={() => setTo(readTime(to) ?? to)}
          />
        </span>
        <FormControlLabel
          control={<Checkbox size="small" checked={weekly} onChange={(e) => setWeekly(e.target.checked)} />}
          label={ta('weekly', { day: at === null ? '' : (fullDay(at).split(' ')[0] ?? '') })}
          slotProps={{ typography: { variant: 'body1' } }}
        />
        <div className={`row ${boardsCss['save-row']}`}>
          <Button type="submit" variant="contained" loading={busy}>
            {head.own ? ta('saveMine') : ta('save', { name })}
          </Button>
          <Button variant="outlined" onClick={onClose}>
            {t('form.cancel')}
          </Button>
        </div>
      </form>
    </aside>
  );
}
