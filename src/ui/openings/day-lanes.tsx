'use client';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TimesDayAnswer } from '@/contract/openings/openings.ts';
import { isTaken } from '@/core/calendar/index.ts';
import { dateText, fromWallLenient, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState as Asking } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { clock, DAY, fullDay, MINUTE, zonePlace } from '../common/times.ts';
import css from './openings.module.css';

type Lane = TimesDayAnswer['lanes'][number];
const HOUR = 60 * MINUTE;

/** A day of everybody who is asked, as far as one sees it, with the time that is walked in all of them. */
export function DayLanes(props: {
  calendar: string;
  body: string;
  day: number;
  walked: { start: number; end: number } | null;
  /** Other times that stand beside the one that is walked. */
  also?: readonly { start: number; end: number }[];
  hours: readonly [number, number];
}) {
  const { calendar, body, day, walked, also = [], hours } = props;
  const t = useTranslations('openings');
  const { style } = useFrame();
  const dayBody = JSON.stringify({ ...JSON.parse(body), from: dateText(day), days: 1, sheet: false });
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'openings', 'day', dayBody),
    queryFn: () => call('readTimesDay', { params: { calendar }, body: JSON.parse(dayBody) }),
    placeholderData: (before) => before,
    retry: false,
  });
  const data = query.data as TimesDayAnswer | undefined;
  const lanes = data?.lanes ?? [];
  const [first, last] = hours;
  const at = (wall: number) => `${Math.min(100, Math.max(0, (((wall - day) / HOUR - first) / (last - first)) * 100))}%`;
  const others = [...new Set(lanes.map((lane) => lane.zone).filter((zone) => zone !== style.zone))];
  return (
    <section aria-label={t('dayOf', { day: fullDay(day) })} className={css.lanes}>
      <h2>
        {fullDay(day)}{' '}
        <span className="small soft">
          {t('asSeen')}
          {walked &&
            others
              .slice(0, 3)
              .map(
                (zone) =>
                  ` · ${t('there2', { time: clock(localOf(zone, walked.start, style.zone), style.hours), place: zonePlace(zone) })}`,
              )}
        </span>
      </h2>
      <Asking query={query} />
      <ul>
        {lanes.map((lane) => (
          <li key={`${lane.address} ${lane.name}`} className={`who-${lane.colour}`}>
            <span className={css.laneName}>
              <b>{lane.name}</b>{' '}
              <span className="soft">
                {lane.must ? '' : `${t('may')} · `}
                {lane.sight === 'nothing' ? t('notKnown') : t('sees', { sight: lane.sight })}
              </span>
            </span>
            <span className={`${css.track}${lane.sight === 'nothing' ? ` ${css.unseen}` : ''}`}>
              {lane.items.map((item, i) => {
                const [start, end] = spanOf(item, lane.zone, style.zone);
                if (end <= day + first * HOUR || start >= day + last * HOUR) return null;
                return (
                  <i
                    // biome-ignore lint/suspicious/noArrayIndexKey: what is hidden has nothing else to be told by
                    key={i}
                    className={
                      item.whereabouts
                        ? css.place
                        : !isTaken(item.shows)
                          ? css.free
                          : item.shows === 'tentative'
                            ? css.tentative
                            : css.busy
                    }
                    style={{ left: at(start), width: `calc(${at(end)} - ${at(start)})` }}
                    title={item.title ?? undefined}
                  >
                    {item.title ?? (item.withheld ? t('private') : t('taken', { shows: item.shows }))}
                  </i>
                );
              })}
              {also
                .filter((one) => one.start !== walked?.start && dayOfWall(one.start) === day)
                .map((one) => (
                  <i
                    key={one.start}
                    className={css.also}
                    style={{ left: at(one.start), width: `calc(${at(one.end)} - ${at(one.start)})` }}
                  />
                ))}
              {walked && (
                <i
                  className={css.ghost}
                  style={{ left: at(walked.start), width: `calc(${at(walked.end)} - ${at(walked.start)})` }}
                />
              )}
            </span>
          </li>
        ))}
      </ul>
      {data?.cut && <p className="small soft">{t('dayCut')}</p>}
    </section>
  );
}

/** A time of one's own clock on another zone's. */
const localOf = (zone: string, wall: number, own: string): number => toWall(zone, fromWallLenient(own, wall));

/** When an item is, on one's own clock; one by date from midnight to midnight where its person is. */
function spanOf(item: Lane['items'][number], zone: string, own: string): [number, number] {
  const at = (text: string) => {
    const date = parseDate(text);
    return toWall(own, date === null ? (parseInstant(text) ?? 0) : fromWallLenient(zone, date));
  };
  return [at(item.start), Math.max(at(item.end), at(item.start) + 5 * MINUTE)].map((n) =>
    Math.min(Math.max(n, 0), 8.64e15),
  ) as [number, number];
}

export const dayOfWall = (wall: number): number => Math.floor(wall / DAY) * DAY;
