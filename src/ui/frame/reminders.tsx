'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { RemindersAnswer } from '@/contract/reminders.ts';
import { parseInstant } from '@/core/time/index.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { dayOf, whenText } from '../common/times.ts';
import frameCss from './frame.module.css';

const SHOWN = 3;
const AGAIN_MS = 60_000;

/** What is about to happen, for whom, until it is said to be done: above whatever else is on the screen, and over nothing of it. */
export function Reminders() {
  const { attempt } = useActingWithToast();
  const tr = useTranslations('reminders');
  const { frame, style, now } = useFrame();
  const query = useQuery({
    queryKey: KEYS.reminders('due'),
    queryFn: () => call('listReminders', {}),
    refetchInterval: AGAIN_MS,
    retry: false,
  });
  const due = query.data?.due ?? [];
  if (due.length === 0) return null;
  const settle = async (reminder: string, act: 'done' | 'later') => {
    await attempt(async () => {
      await call('settleReminder', { params: { reminder }, body: { act } });
    });
    await query.refetch();
  };
  const placeOf = (one: RemindersAnswer['due'][number]) =>
    new URLSearchParams({
      week: dayOf(one, style.zone),
      item: one.item,
      ...(one.calendar === null ? {} : { c: one.calendar }),
    });
  return (
    <section className={frameCss.reminders} aria-label={tr('due')}>
      {due.slice(0, SHOWN).map((one) => {
        const minutes = one.allDay ? 0 : Math.max(0, Math.round(((parseInstant(one.start) ?? 0) - now()) / 60_000));
        return (
          <article
            key={one.key}
            className={`who-${(frame.principals.find((p) => p.handle === one.owner.handle)?.colour ?? 0) % 6}`}
          >
            <span className="small">
              {tr('in', { own: one.owner.own ? 'yes' : 'no', owner: one.owner.name, minutes })}
            </span>
            <Link href={`/for/${one.owner.handle}/calendar?${placeOf(one)}`}>{one.title ?? tr('untitled')}</Link>
            <span className="small">{[whenText(one, style), one.place].filter(Boolean).join(' · ')}</span>
            <span className="row">
              {one.link && (
                <Button component="a" href={one.link} target="_blank" rel="noreferrer noopener" variant="outlined">
                  {tr('join')}
                </Button>
              )}
              <Button variant="outlined" onClick={() => void settle(one.key, 'done')}>
                {tr('done')}
              </Button>
              <Button variant="text" onClick={() => void settle(one.key, 'later')}>
                {tr('later')}
              </Button>
            </span>
          </article>
        );
      })}
      {due.length > SHOWN && <p className="small soft">{tr('more', { count: due.length - SHOWN })}</p>}
    </section>
  );
}
