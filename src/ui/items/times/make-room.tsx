'use client';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { RoomAnswer } from '@/contract/openings/openings.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, dayName } from '../../common/times.ts';
import runListCss from './run-list.module.css';

type Plan = NonNullable<RoomAnswer['plan']>;
const SHOWN = ['before', 'both', 'after'] as const;
type Shown = (typeof SHOWN)[number];

/**
 * Where nothing fits: the least that would have to move, each before and after, and who would be told of it; moved in one act, which is taken
 * back as one, and the meeting begun in the room that made.
 */
export function MakeRoom(props: {
  calendar: string;
  /** What is asked for, as a search's body. */
  body: string;
  onMade: (answer: SeveralAnswer, plan: Plan) => void;
  /** Shows the meeting where it would be; what moves where it is, where it would be, or both side by side. */
  onWalk: (plan: Plan | null, shown: Shown) => void;
}) {
  const { calendar, body, onMade, onWalk } = props;
  const t = useTranslations('openings.room');
  const { style } = useFrame();
  const [shownFor, setShownFor] = useState<string | null>(null);
  const [shown, setShown] = useState<Shown | null>(null);
  const { attempt, busy, refused } = useActing();
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'room', body),
    queryFn: () => call('findRoom', { params: { calendar }, body: JSON.parse(body) }),
    enabled: shownFor === body,
    retry: false,
    gcTime: 0,
  });
  if (shownFor !== body)
    return (
      <Button variant="outlined" onClick={() => setShownFor(body)}>
        {t('open')}
      </Button>
    );
  const plan = query.data?.plan;
  const at = (text: string) => {
    const wall = toWall(style.zone, parseInstant(text) ?? 0);
    return `${dayName(wall)}, ${clock(wall, style.hours)}`;
  };
  const make = async (plan: Plan) => {
    await attempt(async () => {
      const items = plan.moves.map(({ item, version, to }) => ({ item, version, at: to }));
      onMade(await call('changeSeveral', { body: { items, change: { kind: 'times' } } }), plan);
    });
  };
  return (
    <section aria-label={t('title')}>
      <h3>{t('title')}</h3>
      <QueryState query={query} />
      {query.data && !plan && <p className="small">{t('none', { count: query.data.movable })}</p>}
      {plan && plan.moves.length > 0 && (
        <>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={shown}
            aria-label={t('onBoard')}
            onChange={(_, now: Shown | null) => {
              setShown(now);
              onWalk(now === null ? null : plan, now ?? 'before');
            }}
          >
            {SHOWN.map((one) => (
              <ToggleButton key={one} value={one} className="roomy">
                {t(one)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <p className="small">{t('begins', { time: at(plan.start), count: plan.moves.length })}</p>
          <ul className={runListCss.moves}>
            {plan.moves.map((move) => (
              <li key={move.item}>
                <b>{move.title}</b> <span className="small soft">{move.owner}</span>
                <span className="small block">{t('fromTo', { from: at(move.from), to: at(move.to) })}</span>
                <span className="small soft block">
                  {t('told', { count: move.told.length, names: move.told.slice(0, 4).join(', ') })}
                </span>
              </li>
            ))}
          </ul>
          <Button variant="contained" loading={busy} onClick={() => void make(plan)}>
            {t('make', { count: plan.moves.length, time: at(plan.start) })}
          </Button>
        </>
      )}
      {query.data?.cut && <p className="small soft">{t('cut')}</p>}
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
    </section>
  );
}
