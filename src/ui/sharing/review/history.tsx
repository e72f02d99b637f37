'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { AudienceWire } from '@/contract/sharing/sharing.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { dayMonth } from '../../common/times.ts';
import { audienceParam } from '../audience-param.ts';

const SHOWN = 12;

/** What an audience was given, by whom and when, the newest first; nothing here is ever overwritten. */
export function History({ calendar, audience }: { calendar: string; audience: AudienceWire }) {
  const t = useTranslations();
  const { style } = useFrame();
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'history'),
    queryFn: () => call('readHistory', { params: { calendar } }),
  });
  const [all, setAll] = useState(false);
  const every = (data?.entries ?? []).filter((e) => audienceParam(e.audience) === audienceParam(audience));
  const mine = all ? every : every.slice(0, SHOWN);
  const actedBy = ({ actor, hands }: { actor: string; hands: string | null }) =>
    hands === null ? actor : t('trail.hands', { actor, name: hands });
  const day = (instant: string) => dayMonth(toWall(style.zone, parseInstant(instant) ?? 0));
  return (
    <section className="above-6" aria-label={t('lines.history')}>
      <h3>{t('lines.history')}</h3>
      {data && mine.length === 0 && <p className="small soft">{t('lines.historyNone')}</p>}
      <dl className={`${pageCss.facts} small`}>
        {mine.map((entry) => {
          const what = entry.preset
            ? t(`presets.${entry.preset as 'full'}`)
            : `${t(`sights.${entry.rights.sight}`)}, ${t(`reaches.${reachOf(entry.rights)}`).toLowerCase()}`;
          return (
            <div key={entry.key} className="contents">
              <dt>{day(entry.recorded)}</dt>
              <dd>
                {t('lines.historyGiven', {
                  who: actedBy({ actor: entry.given.actor, hands: entry.hands }),
                  what,
                })}
                {entry.until &&
                  `, ${t('lines.ends', { date: dayMonth(toWall(style.zone, (parseInstant(entry.until) ?? 0) - 1)) })}`}
                {entry.replaced && (
                  <span className="soft">
                    {' · '}
                    {entry.ended
                      ? t('lines.historyEndedBy', { date: day(entry.replaced), who: actedBy(entry.ended) })
                      : t('lines.historyReplaced', { date: day(entry.replaced) })}
                  </span>
                )}
              </dd>
            </div>
          );
        })}
      </dl>
      {every.length > mine.length && (
        <Button variant="text" className="tiny" onClick={() => setAll(true)}>
          {t('ask.allOwn', { count: every.length })}
        </Button>
      )}
    </section>
  );
}
