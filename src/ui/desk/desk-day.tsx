import { useQuery } from '@tanstack/react-query';
import { Fragment } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { DeskRowWire } from '@/contract/desk.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import { dateText, instantText, parseDate, parseInstant } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { clock, DAY, fullDay, wallsOf } from '../common/times.ts';
import deskCss from './desk.module.css';
import { useDeskWords } from './desk-words.ts';

const MINUTE = 60_000;
/** Occurrences of a day that are drawn. */
const MOST = 14;

/** What a step would do to an occurrence: it gets another time, stays, or goes. */
export interface After {
  readonly item: string;
  readonly start: string | null;
  readonly gone: boolean;
}

/** The day around a row as it would be after a step: what there is, what would be there, and the time between. */
export function DeskDay({ row, after }: { row: DeskRowWire; after: After | null }) {
  const t = useTranslations('desk');
  const { style } = useFrame();
  const { titleOf } = useDeskWords();
  const changed = row.items.find(({ id }) => id === after?.item);
  const moved = changed && after?.start ? movedTo(changed, after.start) : changed;
  const around = moved ?? row.items.find((item) => !item.allDay) ?? row.items[0];
  const date = row.about?.of === 'wish' ? row.about.day : around ? dateText(wallsOf(around, style.zone).start) : null;
  const day = date === null ? null : parseDate(date);
  const range = { from: date ?? '', to: day === null ? '' : dateText(day + DAY), zone: style.zone };
  const query = useQuery({
    queryKey: KEYS.calendar(row.calendar, 'items', 'desk', range.from),
    queryFn: () => call('listItems', { params: { calendar: row.calendar }, query: range }),
    enabled: day !== null,
    staleTime: 30_000,
    retry: false,
  });
  if (day === null || date === null) return null;
  const known = new Set(row.items.map(({ id }) => id));
  const there = [...(query.data?.items ?? []).filter(({ id }) => !known.has(id)), ...row.items].filter(
    (item) => item.kind !== 'whereabouts' && item.id !== (after?.start ? changed?.id : undefined),
  );
  const all = (after?.start && moved ? [...there, moved] : there)
    .map((item) => ({ item, ...wallsOf(item, style.zone) }))
    .filter(({ start, end }) => start < day + DAY && end > day)
    .sort((a, b) => Number(b.item.allDay) - Number(a.item.allDay) || a.start - b.start);
  let last = Number.NaN;
  return (
    <section aria-label={t('panel.day', { date: fullDay(day) })}>
      <p className="small soft below-2">{t('panel.day', { date: fullDay(day) })}</p>
      <div className={deskCss.day}>
        {all.slice(0, MOST).map(({ item, start, end }) => {
          const gap = (start - last) / MINUTE;
          last = item.allDay ? last : Math.max(Number.isNaN(last) ? end : last, end);
          const isAfter = item.id === changed?.id && !after?.gone;
          return (
            <Fragment key={item.id}>
              {gap > 0 && gap < 24 * 60 && (
                <>
                  <time />
                  <span data-gap>{t('gap', { minutes: gap })}</span>
                </>
              )}
              <time>{item.allDay ? '' : clock(start, style.hours)}</time>
              <span
                data-after={isAfter || undefined}
                data-gone={(after?.gone && item.id === changed?.id) || undefined}
                className={known.has(item.id) && !isAfter ? 'strong' : ''}
              >
                {titleOf(item)}
                {item.place ? `, ${item.place}` : ''}
              </span>
            </Fragment>
          );
        })}
        {all.length === 0 && <span data-gap>{t('panel.nothing')}</span>}
      </div>
    </section>
  );
}

function movedTo(item: ItemWire, start: string): ItemWire {
  const length = (parseInstant(item.end) ?? 0) - (parseInstant(item.start) ?? 0);
  return { ...item, start, end: instantText((parseInstant(start) ?? 0) + length) };
}
