import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ThreadWire } from '@/contract/messages.ts';
import { dateText } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { clock, DAY, dayMonth, wallsOf, weekday } from '../common/times.ts';
import messagesCss from './messages.module.css';

const HOUR = 3_600_000;
/** The hours that are drawn, and days of one thread. */
const FROM = 7;
const UNTIL = 20;
const MOST_DAYS = 3;

/** The days a thread is about, hour by hour as one sees them: the time it has, and the times that are proposed. */
export function DaysConcerned({ thread, calendar }: { thread: ThreadWire; calendar: string }) {
  const t = useTranslations('folders');
  const { style } = useFrame();
  const proposed = thread.messages.filter((m) => m.kind === 'counter' && m.when).map((m) => m.when);
  const all = [thread.when, ...(thread.needs === 'counter' ? proposed : [])].flatMap((when) =>
    when && !when.allDay ? [{ ...wallsOf(when, style.zone), isProposed: when !== thread.when }] : [],
  );
  const days = [...new Set(all.map(({ start }) => Math.floor(start / DAY) * DAY))].sort().slice(0, MOST_DAYS);
  if (days.length === 0) return null;
  return (
    <section className={messagesCss.days} aria-label={t('days')}>
      {days.map((day) => (
        <OneDay
          key={day}
          day={day}
          calendar={calendar}
          item={thread.item}
          times={all.filter(({ start }) => Math.floor(start / DAY) * DAY === day)}
        />
      ))}
    </section>
  );
}

interface Time {
  readonly start: number;
  readonly end: number;
  readonly isProposed: boolean;
}

function OneDay(props: { day: number; calendar: string; item: string | null; times: readonly Time[] }) {
  const { day, calendar, item, times } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const range = { from: dateText(day), to: dateText(day + DAY), zone: style.zone };
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'items', 'concerned', range.from),
    queryFn: () => call('listItems', { params: { calendar }, query: range }),
    staleTime: 30_000,
    retry: false,
  });
  const at = (wall: number) => {
    const share = ((wall - day) / HOUR - FROM) / (UNTIL - FROM);
    return Math.min(1, Math.max(0, share)) * 100;
  };
  const place = ({ start, end }: { start: number; end: number }) => {
    const left = at(start);
    return { left: `${left}%`, width: `${Math.max(1.2, at(end) - left)}%` };
  };
  const there = (query.data?.items ?? [])
    .filter((one) => !one.allDay && one.kind !== 'whereabouts' && one.id !== item)
    .map((one) => ({ id: one.id, title: one.title ?? t('board.private'), ...wallsOf(one, style.zone) }));
  const said = (time: { start: number; end: number }) =>
    `${clock(time.start, style.hours)}–${clock(time.end, style.hours)}`;
  return (
    <div className={messagesCss.day}>
      <span className="small">
        {weekday(day)} {dayMonth(day)}
      </span>
      <div className={messagesCss.bar}>
        {there.map((one) => (
          <span key={one.id} style={place(one)} title={`${one.title}, ${said(one)}`}>
            {one.title}
          </span>
        ))}
        {times.map((time) => (
          <span
            key={`${time.start} ${time.isProposed}`}
            style={place(time)}
            data-this={time.isProposed ? undefined : ''}
            data-asked={time.isProposed ? '' : undefined}
            title={said(time)}
          >
            {time.isProposed ? clock(time.start, style.hours) : t('folders.this')}
          </span>
        ))}
      </div>
    </div>
  );
}
