'use client';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { dateText, parseDate, weekStart } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { DAY, dayMonth, dayName, fullDay, hoursText, type TimeStyle } from '../../common/times.ts';
import type { Sought } from '../panels/sought.ts';
import { picksWith, usePicks } from './picks.tsx';
import ribbonCss from './ribbon.module.css';

const WEEKS = 12;
const FULL_DAY = 9 * 60;

/** Twelve weeks, each day a bar of its booked hours: full and open weeks at a glance, and one press goes there. */
export function Ribbon(props: {
  calendar: string;
  /** The day one is at. */
  day: number;
  week: number;
  /** Only the days of this week, where there is no room for more. */
  oneWeek: boolean;
  style: TimeStyle;
  /** What is looked for: the days that hold it are marked. */
  sought: Sought | null;
  onGo: (day: number) => void;
}) {
  const { calendar, day, week, oneWeek, style, sought, onGo } = props;
  const picks = usePicks();
  const t = useTranslations('board');
  const anchor = weekStart(week, style.weekFirst);
  // The strip moves in steps of four weeks, so that going to the next week doesn't shift it under the pointer.
  const step = Math.floor(anchor / (28 * DAY)) * 28 * DAY;
  const first = weekStart(step, style.weekFirst) - 4 * 7 * DAY;
  const from = dateText(first);
  const to = dateText(first + WEEKS * 7 * DAY);
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'load', from, to, style.zone),
    queryFn: () => call('listLoad', { params: { calendar }, query: { from, to, zone: style.zone } }),
    placeholderData: (before) => before,
    meta: { follows: { as: 'load', dates: { from, to, zone: style.zone } } },
  });
  const words = sought?.words.trim() ?? '';
  const kind = sought?.kind ? { kind: sought.kind } : {};
  const found = useQuery({
    queryKey: KEYS.calendar(calendar, 'found days', from, to, style.zone, words, sought?.kind ?? null),
    queryFn: () => call('findDays', { params: { calendar }, query: { from, to, zone: style.zone, words, ...kind } }),
    enabled: words.length >= 2,
    placeholderData: (before) => before,
    retry: false,
  });
  const marked = new Map(words.length >= 2 ? found.data?.days.map((d) => [d.date, d.count]) : []);
  const days = new Map(data?.days.map((d) => [d.date, d]));
  if (oneWeek)
    return (
      <nav className={`${ribbonCss.ribbon} ${ribbonCss['one-week']}`} aria-label={t('ribbonDays')}>
        {Array.from({ length: 7 }, (_, d) => {
          const at = anchor + d * DAY;
          const load = days.get(dateText(at));
          const booked = load?.booked ?? 0;
          return (
            <button
              type="button"
              key={at}
              className={`plain ${ribbonCss['ribbon-week']}`}
              aria-current={at === day ? 'date' : undefined}
              aria-label={t('ribbonDay', { date: fullDay(at), hours: hoursText(booked) })}
              onClick={() => onGo(at)}
            >
              <span className={ribbonCss.bars} aria-hidden="true">
                <i className={marked.has(dateText(at)) ? ribbonCss.found : ''}>
                  <b
                    className={load?.clashes ? ribbonCss.clash : ''}
                    style={{ height: `${Math.min(100, (booked / FULL_DAY) * 100)}%` }}
                  />
                </i>
              </span>
              <span className={ribbonCss.when}>{dayName(at)}</span>
            </button>
          );
        })}
      </nav>
    );
  return (
    <nav className={ribbonCss.ribbon} aria-label={t('ribbon')}>
      {Array.from({ length: WEEKS }, (_, w) => {
        const start = first + w * 7 * DAY;
        const list = Array.from({ length: 7 }, (_, d) => days.get(dateText(start + d * DAY)));
        const dates = list.map((_, d) => dateText(start + d * DAY));
        const matches = dates.reduce((sum, date) => sum + (marked.get(date) ?? 0), 0);
        const total = list.reduce((sum, d) => sum + (d?.booked ?? 0), 0);
        return (
          <button
            type="button"
            key={start}
            className={`plain ${ribbonCss['ribbon-week']}`}
            aria-current={start === anchor ? 'date' : undefined}
            aria-label={[
              t('ribbonWeek', { date: dayMonth(start), hours: hoursText(total) }),
              matches > 0 ? t('ribbonFound', { count: matches }) : '',
            ]
              .filter(Boolean)
              .join(', ')}
            onClick={(event) => {
              const bar = (event.target as HTMLElement).closest('i');
              const date = dates[[...(bar?.parentElement?.children ?? [])].indexOf(bar as HTMLElement)];
              if (date && picksWith(event)) picks.toggleDay(date);
              else onGo(start);
            }}
          >
            <span className={ribbonCss.bars} aria-hidden="true">
              {list.map((d, i) => (
                <i
                  // biome-ignore lint/suspicious/noArrayIndexKey: the index is the day
                  key={i}
                  className={[
                    isRest(start + i * DAY) && ribbonCss.rest,
                    marked.has(dates[i] ?? '') && ribbonCss.found,
                    picks.days.includes(dates[i] ?? '') && ribbonCss.picked,
                  ]
                    .filter(Boolean)
                    .join(' ')}
                >
                  {data === undefined ? (
                    <b className={ribbonCss.waits} />
                  ) : (
                    <b
                      className={d?.clashes ? ribbonCss.clash : ''}
                      style={{ height: `${Math.min(100, ((d?.booked ?? 0) / FULL_DAY) * 100)}%` }}
                    />
                  )}
                </i>
              ))}
            </span>
            <span className={ribbonCss.when}>{dayMonth(start)}</span>
          </button>
        );
      })}
    </nav>
  );
}

/** Saturday and Sunday. */
export const isRest = (wall: number): boolean => [6, 0].includes((Math.floor(wall / DAY) + 4) % 7);

/** The start of the week a date text falls in, or of the given day where there is none. */
export function weekOf(text: string | null, otherwise: number, first: number): number {
  return weekStart((text && parseDate(text)) || otherwise, first);
}
