'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import { parseDate, parseWall } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { clock, fullDay, whenText } from '../../common/times.ts';

const FEW = 6;

/** What of a series isn’t as its rule says, each with the press that makes it so again; or, of an occurrence that stands by itself, that press. */
export function SeriesApart(props: { item: ItemWire; calendar: string; onWrote: (answer: WrittenAnswer) => void }) {
  const { item, calendar, onWrote } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const { attempt, busy, refused } = useActing();
  const [all, setAll] = useState(false);
  const series = item.repeats != null;
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'apart', item.id, item.version),
    queryFn: () => call('listApart', { params: { item: item.id } }),
    enabled: series && item.may?.change === true,
    retry: false,
  });
  const doing = async (write: () => Promise<WrittenAnswer>) => {
    await attempt(async () => {
      onWrote(await write());
    });
  };
  const version = item.version ?? 0;
  const rejoin = (one: ItemWire) => () =>
    doing(() => call('rejoinItem', { params: { item: one.id }, body: { version: one.version ?? 0 } }));
  if (!series)
    return item.asSet?.series && item.may?.change ? (
      <div>
        {refused && <p className="wrong">{refused}</p>}
        <Button variant="text" disabled={busy} onClick={() => void rejoin(item)()} className="flush">
          {t('apart.asSeries')}
        </Button>
      </div>
    ) : null;
  if (!data || data.left.length + data.apart.length === 0) return null;
  const left = all ? data.left : data.left.slice(-FEW);
  const words = (text: string) =>
    text.includes('T')
      ? `${fullDay(parseWall(text) ?? 0)}, ${clock(parseWall(text) ?? 0, style.hours)}`
      : fullDay(parseDate(text) ?? 0);
  const back = (date: string) =>
    doing(() =>
      call('changeItem', {
        params: { item: item.id },
        body: { version, scope: 'all', fields: {}, left: (item.repeats?.left ?? []).filter((one) => one !== date) },
      }),
    );
  return (
    <section className={pageCss.card} aria-label={t('apart.title')}>
      <h3>{t('apart.title')}</h3>
      {refused && <p className="wrong">{refused}</p>}
      <ul className="plain list gap-1 stack">
        {left.map((date) => (
          <li key={date} className="row spread">
            <span className="small">{t('apart.left', { day: words(date) })}</span>
            <Button
              variant="text"
              disabled={busy}
              onClick={() => void back(date)}
              aria-label={t('apart.backDay', { day: words(date) })}
            >
              {t('apart.back')}
            </Button>
          </li>
        ))}
        {data.apart.slice(0, all ? data.apart.length : FEW).map((one) => (
          <li key={one.item.id} className="row spread">
            <span className="small">
              {t('apart.otherwise', {
                was: words(one.was),
                title: one.item.title ?? '',
                now: whenText(one.item, style),
              })}
            </span>
            {one.item.may?.change && (
              <Button
                variant="text"
                disabled={busy}
                onClick={() => void rejoin(one.item)()}
                aria-label={t('apart.asSeriesDay', { day: words(one.was) })}
              >
                {t('apart.asSeriesShort')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!all && (data.left.length > FEW || data.apart.length > FEW) && (
        <Button variant="text" onClick={() => setAll(true)}>
          {t('apart.all', { count: data.left.length + data.apart.length })}
        </Button>
      )}
      {data.cut && <p className="small soft">{t('apart.cut')}</p>}
    </section>
  );
}
