'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import { dateText } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { DAY } from '../../common/times.ts';
import { useBoard } from './board-model.ts';
import stepsCss from './first-steps.module.css';

const PUT_AWAY = 'paramo-first-steps';

/** Over one's own calendar while nothing is booked in it yet: what there is to do first, and what of it is done. */
export function FirstSteps({ head }: { head: BoardHead }) {
  const t = useTranslations('firstSteps');
  const { frame, style } = useFrame();
  const { startNew, dispatch, days } = useBoard();
  const [away, setAway] = useState(() => localStorage.getItem(PUT_AWAY) !== null);
  const { me } = frame;
  // An empty week of a full calendar is no beginning: nothing may be booked in the weeks around today.
  const from = dateText(days.today - 4 * 7 * DAY);
  const to = dateText(days.today + 10 * 7 * DAY);
  const load = useQuery({
    queryKey: KEYS.calendar(head.calendar.key, 'load', from, to, style.zone),
    queryFn: () => call('listLoad', { params: { calendar: head.calendar.key }, query: { from, to, zone: style.zone } }),
    meta: { follows: { as: 'load', dates: { from, to, zone: style.zone } } },
    enabled: !away,
  });
  const begins = load.data?.days.every(({ booked }) => booked === 0) === true;
  const people = useQuery({
    queryKey: KEYS.people,
    queryFn: () => call('listPeople', {}),
    staleTime: 60_000,
    enabled: begins && !away && me.administrator,
  });
  const rows = useQuery({
    queryKey: KEYS.calendar(head.calendar.key, 'sightlines'),
    queryFn: () => call('listSightlines', { params: { calendar: head.calendar.key } }),
    enabled: begins && !away,
    retry: false,
  });
  if (away || !begins) return null;
  const steps = [
    ...(me.administrator
      ? [{ step: 'people' as const, href: `/for/${me.handle}/people`, done: (people.data?.people.length ?? 0) > 1 }]
      : []),
    { step: 'hours' as const, href: `/for/${me.handle}/settings`, done: me.workHours !== null },
    {
      step: 'sees' as const,
      href: `/for/${me.handle}/sightlines`,
      done: (rows.data?.rows ?? []).some(({ audience }) => audience.kind !== 'everyone'),
    },
  ];
  return (
    <section className={stepsCss.steps} aria-label={t('title')}>
      <div className="row">
        <h2>{t('title')}</h2>
        <Button
          variant="text"
          className="at-end"
          onClick={() => {
            localStorage.setItem(PUT_AWAY, '1');
            setAway(true);
          }}
        >
          {t('away')}
        </Button>
      </div>
      <ol>
        {steps.map(({ step, href, done }) => (
          <li key={step} className={done ? stepsCss.done : ''}>
            <span aria-hidden="true">{done ? '✓' : '·'}</span>
            <span>
              <Link href={href}>{t(`steps.${step}`)}</Link>{' '}
              <span className="small soft">{done ? t('done') : t(`why.${step}`)}</span>
            </span>
          </li>
        ))}
        <li>
          <span aria-hidden="true">·</span>
          <span className="row">
            {t('steps.item')}
            <Button variant="contained" onClick={() => startNew()}>
              {t('make')}
            </Button>
            <Button variant="outlined" onClick={() => dispatch({ act: 'panel', panel: 'import' })}>
              {t('import')}
            </Button>
          </span>
        </li>
      </ol>
    </section>
  );
}
