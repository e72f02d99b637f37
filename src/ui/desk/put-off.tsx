import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type FormEvent, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { DeskAnswer, DeskRowWire } from '@/contract/desk.ts';
import { readDate } from '@/core/sentence/index.ts';
import { dateText, fromWallLenient, instantText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { DAY } from '../common/times.ts';
import { shortAt } from './desk-words.ts';

const HOUR = 3_600_000;
/** When a row comes back in the morning, on the clock of whoever put it off. */
const MORNING = 8 * HOUR;
/** How long a row that waits for an answer stays away at the most. */
const LONGEST = 7 * DAY;

/** Until when a row is put off: tomorrow morning, until whoever is silent answers, until it is due, or a day as it is typed. */
export function PutOff(props: {
  row: DeskRowWire;
  wrong: string | null;
  onGo: (until: string, says: string) => void;
  onClose: () => void;
}) {
  const { row, onGo, onClose } = props;
  const t = useTranslations('desk');
  const { style, now } = useFrame();
  const [day, setDay] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const today = dateText(toWall(style.zone, now()));
  const morning = (date: number) => instantText(fromWallLenient(style.zone, date + MORNING));
  const tomorrow = morning((parseDate(today) ?? 0) + DAY);
  const due = row.due !== null && (parseInstant(row.due) ?? 0) > now() ? row.due : null;
  const answers = row.kind === 'silent' || row.kind === 'proposal' || row.kind === 'refused';
  const go = (until: string) => onGo(until, t('done.later', { when: shortAt(until, style) }));
  const typed = (event: FormEvent) => {
    event.preventDefault();
    const read = readDate(day, style.dateOrder, today);
    const at = read === null ? null : parseDate(read);
    if (at === null || at <= (parseDate(today) ?? 0)) return setWrong(t('laterTo.wrong'));
    go(morning(at));
  };
  return (
    <form onSubmit={typed} className="stack">
      <h2>{t('laterTo.title')}</h2>
      <Button variant="outlined" autoFocus onClick={() => go(tomorrow)}>
        {t('laterTo.tomorrow')}
      </Button>
      {answers && (
        <Button variant="outlined" onClick={() => go(due ?? instantText(now() + LONGEST))}>
          {t('laterTo.answer')}
        </Button>
      )}
      {due && (
        <Button variant="outlined" onClick={() => go(due)}>
          {t('laterTo.due')} ({shortAt(due, style)})
        </Button>
      )}
      <TextField
        label={t('laterTo.day')}
        value={day}
        onChange={(event) => {
          setDay(event.target.value);
          setWrong(null);
        }}
        error={wrong !== null || props.wrong !== null}
        helperText={wrong ?? props.wrong}
      />
      <div className="row">
        <Button type="submit" variant="outlined" disabled={day.trim() === ''}>
          {t('laterTo.go')}
        </Button>
        <Button variant="text" onClick={onClose}>
          {t('panel.close')}
        </Button>
      </div>
    </form>
  );
}

/** To whom a row is passed on, with a line. */
export function PassOn(props: {
  acts: DeskAnswer['principals'][number]['acts'];
  wrong: string | null;
  onGo: (to: { readonly handle: string; readonly name: string }, line: string) => void;
  onClose: () => void;
}) {
  const { acts, onGo, onClose } = props;
  const t = useTranslations('desk');
  const [to, setTo] = useState(acts[0]?.handle ?? '');
  const [line, setLine] = useState('');
  const chosen = acts.find(({ handle }) => handle === to);
  return (
    <form
      className="gap-5 stack"
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen) onGo(chosen, line);
      }}
    >
      <h2>{t('pass.title')}</h2>
      {acts.length === 0 && <p className="soft">{t('pass.nobody')}</p>}
      {acts.length > 0 && (
        <>
          <TextField
            select
            label={t('pass.title')}
            value={to}
            onChange={(event) => setTo(event.target.value)}
            error={props.wrong !== null}
            helperText={props.wrong}
          >
            {acts.map(({ handle, name }) => (
              <MenuItem key={handle} value={handle}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label={t('pass.line')}
            value={line}
            autoFocus
            onChange={(event) => setLine(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 500 } }}
          />
        </>
      )}
      <div className="row">
        <Button type="submit" variant="contained" disabled={!chosen}>
          {t('pass.go')}
        </Button>
        <Button variant="text" onClick={onClose}>
          {t('panel.close')}
        </Button>
      </div>
    </form>
  );
}
