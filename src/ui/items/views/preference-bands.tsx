'use client';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { fromWallLenient, toWall } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { DAY, MINUTE } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import hoursCss from './hours.module.css';

/** The hours that an owner wishes kept, as faint bands on one day, for them and who arranges for them. They are on the owner's own clock. */
export function PreferenceBands({ lane, day, zone }: { lane: BoardLane | undefined; day: number; zone: string }) {
  const t = useTranslations('keeps');
  const head = lane?.head;
  const arranges = head?.calendar.main === true && !head.as && head.may.arrange;
  const { data } = useQuery({
    queryKey: KEYS.calendar(head?.calendar.key, 'keeps'),
    queryFn: () => call('readTimePreferences', { params: { calendar: head?.calendar.key ?? '' } }),
    enabled: arranges,
    staleTime: 300_000,
    retry: false,
  });
  if (!arranges || !data) return null;
  const at = (date: number, text: string) => {
    const minutes = Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));
    return (toWall(zone, fromWallLenient(data.zone, date + minutes * MINUTE)) - day) / MINUTE;
  };
  const bands = [-1, 0, 1].flatMap((d) => {
    const date = day + d * DAY;
    const weekday = ((Math.floor(date / DAY) + 3) % 7) + 1;
    return data.keeps.flatMap((preference, i) => {
      if (preference.kind !== 'span' && preference.kind !== 'rest') return [];
      if (!preference.days.includes(weekday)) return [];
      const [from, to] = [Math.max(0, at(date, preference.from)), Math.min(24 * 60, at(date, preference.to))];
      return from < to ? [{ key: `${i} ${d}`, from, to, preference }] : [];
    });
  });
  return bands.map(({ key, from, to, preference }) => (
    <div
      key={key}
      className={`${hoursCss.keep}${preference.hard ? ` ${hoursCss.hard}` : ''}`}
      title={t(`kind.${preference.kind}`)}
      style={{ top: `calc(${from / 60} * var(--hour))`, height: `calc(${(to - from) / 60} * var(--hour))` }}
    />
  ));
}
