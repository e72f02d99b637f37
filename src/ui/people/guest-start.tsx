'use client';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { SightMeter } from '../common/meters.tsx';
import pageCss from '../common/page.module.css';
import { dayMonth } from '../common/times.ts';
import { Token } from '../common/token.tsx';

/** What somebody from outside was given: whose calendars, how much of them, until when. */
export function GuestStart() {
  const t = useTranslations();
  const { frame, style } = useFrame();
  const query = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}) });
  return (
    <div className={`${pageCss.page} page-middle`}>
      <h1 className="below-6">{t('guest.startTitle')}</h1>
      <QueryState query={query} />
      {query.data?.people.length === 0 && <p className="soft">{t('guest.startNone')}</p>}
      {query.data?.people.map((p) => (
        <article key={p.handle} className={`${pageCss.card} row who-${p.colour % 6} below-5`}>
          <Token name={p.name} colour={p.colour} />
          <span className="grow">
            <b>{p.name}</b>
            <span className="small soft row">
              <SightMeter sight={p.rights.sight} />
              {t('guest.sees', { sight: t(`sightWords.${p.rights.sight}`) })}{' '}
              {p.until && t('people.until', { date: dayMonth(toWall(style.zone, (parseInstant(p.until) ?? 0) - 1)) })}
            </span>
          </span>
          {p.rights.sight !== 'nothing' && (
            <Link
              href={`/for/${frame.me.handle}/calendar?of=${p.handle}`}
              aria-label={`${t('guest.startOpen')}: ${p.name}`}
            >
              {t('guest.startOpen')}
            </Link>
          )}
          {p.further.map((c) => (
            <Link key={c.key} href={`/for/${frame.me.handle}/calendar?of=${p.handle}&c=${c.key}`}>
              {c.name}
            </Link>
          ))}
        </article>
      ))}
    </div>
  );
}
