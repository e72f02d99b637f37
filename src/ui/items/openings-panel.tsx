'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items.ts';
import type { SeveralAnswer } from '@/contract/items-several.ts';
import type { TimesAnswer } from '@/contract/openings.ts';
import { dateText, parseInstant, toWall } from '@/core/time/index.ts';
import { Asked as Asking } from '../common/asked.tsx';
import boardsCss from '../common/boards.module.css';
import { useFrame } from '../common/frame-context.tsx';
import { clock, dayName, MINUTE } from '../common/times.ts';
import type { Asked } from '../meetings/heard.ts';
import { PeopleField } from '../meetings/people-field.tsx';
import { ChosenTimes } from './chosen-times.tsx';
import { MakeRoom } from './make-room.tsx';
import { PanelHead } from './panel-head.tsx';
import { RunList } from './run-list.tsx';

const PAUSE_MS = 250;
const LENGTHS = [15, 30, 45, 60, 90, 120, 180] as const;
const SPANS = [5, 7, 14, 28, 56] as const;
const WISHES = ['sooner', 'kinder', 'more'] as const;

/** The search for times that work, beside the board: who comes, how long, when; each run with its reasons, and a press fills the item in. */
export function OpeningsPanel(props: {
  head: BoardHead;
  day: number;
  onClose: () => void;
  onTake: (start: number, end: number, people: readonly Asked[], place: string) => void;
  /** The time that is walked over, in wall-clock milliseconds: the board shows it in everybody's lane. */
  onWalk: (time: { start: number; end: number } | null) => void;
  onHeld: (answer: SeveralAnswer) => void;
  onMoved: (answer: SeveralAnswer) => void;
}) {
  const { head, day, onClose, onTake, onWalk, onHeld, onMoved } = props;
  const t = useTranslations('openings');
  const { style, frame } = useFrame();
  // From the day it was opened on, wherever the board goes while the times are walked.
  const [first] = useState(day);
  const [picked, setChosen] = useState<readonly string[]>([]);
  const [people, setPeople] = useState<readonly Asked[]>([]);
  const [length, setLength] = useState(60);
  const [days, setDays] = useState(14);
  const [place, setPlace] = useState('');
  const [anyTime, setAnyTime] = useState(false);
  const [over, setOver] = useState(false);
  const [wishes, setWishes] = useState<readonly (typeof WISHES)[number][]>([]);
  const body = JSON.stringify({
    people: people.map(({ address, role }) => ({ address, must: role === 'must' })),
    length,
    from: dateText(first),
    days,
    zone: style.zone,
    within: anyTime ? 'any' : 'hours',
    tentative: over ? 'counts' : 'blocks',
    place: place.trim() || null,
    wishes,
  });
  const [settled, setSettled] = useState(body);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(body), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [body]);
  const query = useQuery({
    queryKey: ['calendar', head.calendar.key, 'openings', settled],
    queryFn: () => call('findTimes', { params: { calendar: head.calendar.key }, body: JSON.parse(settled) }),
    placeholderData: (before) => before,
    retry: false,
  });
  const data = query.data as TimesAnswer | undefined;
  // What else is asked for now may rule out what was chosen before.
  const chosen = picked.filter((from) => data?.runs.some((run) => run.from === from));
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  const owner = frame.principals.find((p) => p.handle === head.owner.handle);
  const take = (from: string) => onTake(wall(from), wall(from) + length * MINUTE, people, place.trim());
  return (
    <aside className={boardsCss.panel} aria-label={t('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('title')}</h2>
      <PeopleField
        calendar={head.calendar.key}
        owner={owner?.own ? frame.me.address : ''}
        people={people}
        when={null}
        item={null}
        disabled={false}
        onChange={setPeople}
      />
      <span className="row">
        <TextField select label={t('length')} value={length} onChange={(e) => setLength(Number(e.target.value))}>
          {LENGTHS.map((m) => (
            <MenuItem key={m} value={m}>
              {t('minutes', { count: m })}
            </MenuItem>
          ))}
        </TextField>
        <TextField select label={t('within')} value={days} onChange={(e) => setDays(Number(e.target.value))}>
          {SPANS.map((d) => (
            <MenuItem key={d} value={d}>
              {t('days', { count: d })}
            </MenuItem>
          ))}
        </TextField>
      </span>
      <TextField
        label={t('place')}
        value={place}
        onChange={(e) => setPlace(e.target.value)}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
      />
      <span style={{ display: 'grid' }}>
        <FormControlLabel
          control={<Checkbox size="small" checked={anyTime} onChange={(e) => setAnyTime(e.target.checked)} />}
          label={t('anyTime')}
          slotProps={{ typography: { variant: 'body2' } }}
        />
        <FormControlLabel
          control={<Checkbox size="small" checked={over} onChange={(e) => setOver(e.target.checked)} />}
          label={t('over')}
          slotProps={{ typography: { variant: 'body2' } }}
        />
      </span>
      <fieldset
        className="row"
        style={{ flexWrap: 'wrap', gap: 4, border: 0, padding: 0, margin: 0 }}
        aria-label={t('wishes')}
      >
        {WISHES.map((w) => (
          <Button
            key={w}
            variant={wishes.includes(w) ? 'contained' : 'outlined'}
            aria-pressed={wishes.includes(w)}
            onClick={() => setWishes(wishes.includes(w) ? wishes.filter((one) => one !== w) : [...wishes, w])}
            sx={{ minHeight: 26, px: 1 }}
          >
            {t(`wish.${w}`)}
          </Button>
        ))}
      </fieldset>
      <Asking query={query} />
      {data && data.unknown.length > 0 && (
        <p className="small soft">
          {t('unknown', { count: data.unknown.length, names: data.unknown.slice(0, 4).join(', ') })}
        </p>
      )}
      {chosen.length > 0 && (
        <ChosenTimes
          head={head}
          starts={chosen}
          length={length}
          place={place.trim()}
          people={people}
          onLeave={() => setChosen([])}
          onHeld={(answer) => {
            setChosen([]);
            onHeld(answer);
          }}
        />
      )}
      {data && data.runs.length > 0 && (
        <RunList
          runs={data.runs}
          chosen={chosen}
          onChoose={(from) =>
            setChosen((was) => (was.includes(from) ? was.filter((one) => one !== from) : [...was, from]))
          }
          onWalk={(run) => onWalk(run && { start: wall(run.from), end: wall(run.end) })}
          onTake={(run) => take(run.from)}
        />
      )}
      {data && data.runs.length === 0 && (
        <section>
          <p>{t('nothing')}</p>
          {data.gives.map((g) => (
            <p key={`${g.what} ${g.who}`} className="small">
              {t(`give.${g.what}`, {
                who: g.who ?? '',
                count: g.count,
                first: `${dayName(wall(g.first))}, ${clock(wall(g.first), style.hours)}`,
              })}
            </p>
          ))}
          <MakeRoom
            calendar={head.calendar.key}
            body={settled}
            onMade={(answer, plan) => {
              onMoved(answer);
              take(plan.start);
            }}
            onWalk={(plan) => onWalk(plan && { start: wall(plan.start), end: wall(plan.end) })}
          />
        </section>
      )}
      {data?.cut && <p className="small soft">{t('cut')}</p>}
    </aside>
  );
}
