'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { SeveralAnswer, SeveralBody } from '@/contract/items/several.ts';
import { MOST_AT_ONCE } from '@/contract/mosts.ts';
import { VISIBILITIES } from '@/core/calendar/index.ts';
import { parseDate } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { sentenceOf } from '../../common/fetched/refusal.ts';
import { isSpokenFor } from '../../common/keys.ts';
import { dayMonth } from '../../common/times.ts';
import { useBlockText } from '../views/item-block.tsx';
import type { WriteSeveral } from './item-writes.ts';
import { usePicks } from './picks.tsx';

type Change = Exclude<SeveralBody['change'], { kind: 'into' }>;
const DAY_STEPS = [
  { key: 'dayBack', days: -1, minutes: 0, arrow: 'ArrowLeft' },
  { key: 'dayOn', days: 1, minutes: 0, arrow: 'ArrowRight' },
  { key: 'weekOn', days: 7, minutes: 0, arrow: '' },
  { key: 'quarterBack', days: 0, minutes: -15, arrow: 'ArrowUp' },
  { key: 'quarterOn', days: 0, minutes: 15, arrow: 'ArrowDown' },
] as const;

/**
 * What is picked, in whose calendars, and what can be done with all of it at once: moved, also with Shift and the arrows, seen otherwise, or
 * removed. Where one of them is refused nothing is done, and which one it was is said.
 */
export function PickedBar(props: {
  /** Whose calendars they are in, by first name. */
  names: readonly string[];
  several: WriteSeveral;
  onWritten: (answer: SeveralAnswer, kind: Change['kind']) => void;
}) {
  const { names, several, onWritten } = props;
  const picks = usePicks();
  const t = useTranslations();
  const textOf = useBlockText();
  const { attempt, busy, refused, setRefused } = useActing();
  const items = [...picks.items.values()];
  const act = async (change: Change) => {
    if (busy) return;
    setRefused(null);
    await attempt(
      async () => {
        const answer = await several(items, change);
        picks.replace(change.kind === 'remove' ? [] : answer.items);
        onWritten(answer, change.kind);
      },
      (answer) => {
        const which = picks.items.get((answer.data as { item?: string } | undefined)?.item ?? '');
        const sentence = sentenceOf(answer);
        setRefused(which ? t('picked.refusedOne', { title: textOf(which), sentence }) : sentence);
      },
    );
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isSpokenFor(event)) return;
      const step = DAY_STEPS.find(({ arrow }) => arrow === event.key);
      if (event.shiftKey && step) {
        event.preventDefault();
        const { days, minutes } = step;
        void act({ kind: 'shift', days, minutes });
      } else if (event.key === 'Delete') {
        event.preventDefault();
        void act({ kind: 'remove' });
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  const mayAll = (what: 'change' | 'remove') => items.every((item) => item.may?.[what] === true);
  const change = mayAll('change');
  return (
    <section className={boardsCss.notice} aria-label={t('picked.title')}>
      <div className="gap-2 stack whole">
        {refused && (
          <p className="wrong" role="alert">
            {refused}
          </p>
        )}
        <div className="row gap-3">
          <strong role="status" title={items.map(textOf).join(' · ')}>
            {t('picked.count', { count: items.length, names: names.join(', ') })}
          </strong>
          {DAY_STEPS.map(({ key, days, minutes }) => (
            <Button
              key={key}
              variant="outlined"
              disabled={busy || !change}
              onClick={() => void act({ kind: 'shift', days, minutes })}
            >
              {t(`picked.${key}`)}
            </Button>
          ))}
          <TextField
            select
            label={t('form.visibility')}
            value=""
            fullWidth={false}
            className="field-1"
            disabled={busy || !change}
            onChange={(e) =>
              void act({ kind: 'visibility', visibility: e.target.value as NonNullable<ItemWire['visibility']> })
            }
          >
            {VISIBILITIES.map((v) => (
              <MenuItem key={v} value={v}>
                {t(`visibilities.${v}`)}
              </MenuItem>
            ))}
          </TextField>
          <Button variant="outlined" disabled={busy || !mayAll('remove')} onClick={() => void act({ kind: 'remove' })}>
            {t('picked.remove')}
          </Button>
          <Button variant="text" onClick={picks.clear}>
            {t('picked.leave')}
          </Button>
        </div>
        {!change && <p className="small soft">{t('picked.mayNot')}</p>}
        {items.length >= MOST_AT_ONCE && <p className="small soft">{t('picked.full', { most: MOST_AT_ONCE })}</p>}
      </div>
    </section>
  );
}

/** Days that were picked: something new on all of them, the selected item on each, or the days added to a series of picked days. */
export function PickedDaysBar(props: {
  mayAdd: boolean;
  name: string;
  /** What is selected, where it may be put on other days. */
  selected: ItemWire | null;
  onNew: (days: readonly string[]) => void;
  onWritten: (answer: SeveralAnswer) => void;
  onJoined: (item: ItemWire, days: readonly string[]) => Promise<void>;
}) {
  const { mayAdd, name, selected, onNew, onWritten, onJoined } = props;
  const picks = usePicks();
  const t = useTranslations();
  const textOf = useBlockText();
  const { attempt, busy, refused } = useActing();
  const doing = async (work: () => Promise<void>) => {
    await attempt(async () => {
      await work();
      picks.clear();
    });
  };
  const series = selected?.repeats != null && selected.repeats.rule === null && selected.may?.change === true;
  const title = selected ? textOf(selected) : '';
  return (
    <section className={boardsCss.notice} aria-label={t('picked.daysTitle')}>
      <div className="gap-3 stack whole">
        <div className="row">
          <strong role="status">{t('picked.days', { count: picks.days.length })}</strong>
          <span className="small soft">
            {picks.days
              .slice(0, 8)
              .map((day) => dayMonth(parseDate(day) ?? 0))
              .join(' · ')}
            {picks.days.length > 8 && ' …'}
          </span>
          {mayAdd && (
            <Button variant="contained" disabled={busy} onClick={() => onNew(picks.days)}>
              {t('picked.newOn', { count: picks.days.length, name })}
            </Button>
          )}
          {mayAdd && selected && selected.title !== undefined && (
            <Button
              variant="outlined"
              disabled={busy}
              onClick={() =>
                void doing(async () => {
                  const body = { dates: [...picks.days] };
                  onWritten(await call('copyItem', { params: { item: selected.id }, body }));
                })
              }
            >
              {t('picked.copyOn', { count: picks.days.length, title })}
            </Button>
          )}
          {series && selected && (
            <Button variant="outlined" disabled={busy} onClick={() => void doing(() => onJoined(selected, picks.days))}>
              {t('picked.join', { title })}
            </Button>
          )}
          <Button variant="text" onClick={picks.clear}>
            {t('picked.leave')}
          </Button>
        </div>
        {picks.days.length >= MOST_AT_ONCE && <p className="small soft">{t('picked.full', { most: MOST_AT_ONCE })}</p>}
        {refused && (
          <p className="wrong" role="alert">
            {refused}
          </p>
        )}
      </div>
    </section>
  );
}
