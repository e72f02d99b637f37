'use client';
import Button from '@mui/material/Button';
import { useIsFetching, useQueries, useQuery } from '@tanstack/react-query';
import { useParams, useSearchParams } from 'next/navigation';
import { useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import { dueOf, useDueWords } from '../../common/due-words.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { RichText } from '../../common/fields/rich-text.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { clock, DAY, fullDay, MINUTE, wallsOf, weekTitle } from '../../common/times.ts';
import { itemsKey, itemsTogether } from '../board/board-lanes.ts';
import { weekOf } from '../board/ribbon.tsx';
import sheetCss from './day-sheet.module.css';
import { useBlockText } from './item-block.tsx';
import { jointsOf, layOut } from './layout.ts';

/** As many numbers as are asked for at once: the days of one sheet. */
const MOST_PHONES = 500;
/** Lists of tasks that a sheet looks into. */
const MOST_LISTS = 3;

/**
 * A day to print for the principal's folder: what happens, where, with whom, what each answered and where they are called, the ways between, and the briefings.
 * What whoever prints doesn't see isn't there. With `days=7` the week, a page a day.
 */
export function DaySheet({ calendar, name }: { calendar: string; name: string }) {
  const t = useTranslations();
  const ts = useTranslations('sheet');
  const { frame, style, now } = useFrame();
  const search = useSearchParams();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const day = parseDate(search.get('day') ?? '') ?? today;
  const week = search.get('days') === '7';
  const first = week ? weekOf(null, day, style.weekFirst) : day;
  const count = week ? 7 : 1;
  const dates = { from: dateText(first), to: dateText(first + count * DAY), zone: style.zone };
  const query = useQuery({
    queryKey: itemsKey(calendar, dates),
    queryFn: () => itemsTogether(calendar, dates),
    meta: { follows: { as: 'items' as const, dates } },
  });
  const journeys = useQuery({
    queryKey: KEYS.journeys,
    queryFn: () => call('listJourneys', {}),
    enabled: frame.me.inside,
    retry: false,
  });
  const items = query.data?.items ?? [];
  usePrinting(query.isSuccess);
  const { who } = useParams<{ who: string }>();
  const at = (day: number, days: number): string => `/for/${who}/day-sheet?day=${dateText(day)}&days=${days}`;
  const addresses = [
    ...new Set(items.flatMap((item) => item.attendees ?? []).map((a) => a.address.toLowerCase())),
  ].slice(0, MOST_PHONES);
  const numbers = useQuery({
    queryKey: KEYS.phones(addresses),
    queryFn: () => call('readPhones', { body: { addresses } }),
    enabled: addresses.length > 0,
    retry: false,
  });
  const tasks = useTasksOf(query.data?.head.owner.handle);
  const phones = new Map(numbers.data?.phones.map((p) => [p.address, p.phone]));
  const layout = layOut(items, first, count, style.zone);
  const days = Array.from({ length: count }, (_, i) => first + i * DAY);
  return (
    <div className={sheetCss.sheets}>
      <div className={`row ${sheetCss.acts}`}>
        <Button
          variant="text"
          component={Link}
          href={at(first - count * DAY, count)}
          aria-label={ts(week ? 'weekBefore' : 'before')}
        >
          ←
        </Button>
        <b>{week ? weekTitle(first) : fullDay(first)}</b>
        <Button
          variant="text"
          component={Link}
          href={at(first + count * DAY, count)}
          aria-label={ts(week ? 'weekAfter' : 'after')}
        >
          →
        </Button>
        <Button variant="text" component={Link} href={at(today, count)}>
          {ts('today')}
        </Button>
        <Button variant="text" component={Link} href={at(day, week ? 1 : 7)}>
          {ts(week ? 'oneDay' : 'week')}
        </Button>
        <span className={sheetCss.push}>
          <Link href={`/for/${who}/calendar?week=${dateText(first)}`}>{ts('back')}</Link>
          <Button variant="contained" onClick={() => window.print()}>
            {ts('print')}
          </Button>
        </span>
        <span className={`small soft ${sheetCss.help}`}>{ts('help')}</span>
      </div>
      <QueryState query={query} />
      {query.data?.more !== null && query.data && <p className="wrong">{ts('cut')}</p>}
      {days.map((day, i) => {
        const joints = jointsOf(layout.days[i] ?? [], journeys.data?.journeys ?? []);
        const whole = layout.bars.filter((bar) => bar.from <= i && bar.to > i).map((bar) => bar.item);
        const list = [...(layout.rails[i] ?? []), ...(layout.days[i] ?? [])]
          .map(({ item, top }) => ({ item, top }))
          .sort((a, b) => a.top - b.top);
        return (
          <article key={day} className={sheetCss.sheet}>
            <h1>
              {fullDay(day)} <span className="soft">{name}</span>
            </h1>
            {whole.map((item) => (
              <Entry key={item.id} item={item} day={day} phones={phones} />
            ))}
            {list.map(({ item, top }) => {
              const joint = joints.find((j) => j.key.startsWith(`${item.id} `));
              return (
                <div key={`${item.id} ${top}`}>
                  <Entry item={item} day={day} phones={phones} />
                  {joint && (
                    <p className={`small ${joint.minutes > joint.gap ? 'wrong' : 'soft'} ${sheetCss.way}`}>
                      {t('lanes.joint', {
                        minutes: joint.minutes,
                        gap: joint.gap,
                        short: joint.minutes > joint.gap ? 'yes' : 'no',
                      })}
                    </p>
                  )}
                </div>
              );
            })}
            {whole.length + list.length === 0 && query.data && <p className="soft">{ts('empty')}</p>}
            <ToDo {...tasks} day={day} overdue={day === today} />
            <section className={sheetCss.room} aria-label={ts('room')}>
              <span className={sheetCss.time}>{ts('room')}</span>
            </section>
          </article>
        );
      })}
    </div>
  );
}

/** So long nothing may have been on its way any more: what is fetched for what has just come begins a moment later. */
const QUIET_MS = 300;

/** Prints once where the address asks for it, as soon as the sheet has all that is fetched for it. */
function usePrinting(stands: boolean): void {
  const search = useSearchParams();
  const fetching = useIsFetching();
  const wanted = stands && fetching === 0 && search.get('print') === '1';
  useEffect(() => {
    if (!wanted) return;
    const timer = setTimeout(printOnce, QUIET_MS);
    return () => clearTimeout(timer);
  }, [wanted]);
}

function printOnce(): void {
  const next = new URLSearchParams(window.location.search);
  next.delete('print');
  window.history.replaceState(null, '', `?${next}`);
  window.print();
}

/** Open tasks of somebody, as one sees them: of their first lists, the most pressing of each. */
interface Open {
  readonly tasks: readonly TaskWire[];
  /** There are more lists, or more in one of them. */
  readonly cut: boolean;
}

function useTasksOf(person: string | undefined): Open {
  const { frame } = useFrame();
  const sees = frame.principals.some((p) => p.handle === person && p.tasks);
  const lists = useQuery({
    queryKey: KEYS.taskLists(person ?? ''),
    queryFn: () => call('listTaskLists', { params: { person: person ?? '' } }),
    enabled: sees,
    retry: false,
  });
  const queries = useQueries({
    queries: (lists.data?.lists ?? []).slice(0, MOST_LISTS).map(({ key }) => ({
      queryKey: KEYS.tasks(key, false, 'sheet'),
      queryFn: () => call('listTasks', { params: { list: key }, query: {} }),
      retry: false,
    })),
  });
  return {
    tasks: queries.flatMap(({ data }) => data?.tasks ?? []),
    cut: (lists.data?.lists.length ?? 0) > MOST_LISTS || queries.some(({ data }) => data?.more != null),
  };
}

/** What is to be done on a day, and on today's sheet what is overdue too. */
function ToDo({ tasks, cut, day, overdue }: Open & { day: number; overdue: boolean }) {
  const t = useTranslations('days');
  const { style } = useFrame();
  const words = useDueWords();
  const due = tasks.filter((task) => {
    const on = dueOf(task.due, style.zone)?.day;
    return on !== undefined && (on === day || (overdue && on < day));
  });
  if (due.length === 0 && !cut) return null;
  return (
    <section className={sheetCss.entry} aria-label={t('tasks')}>
      <span className={sheetCss.time}>{t('tasks')}</span>
      <ul className={sheetCss.todo}>
        {due.map((task) => (
          <li key={task.id}>
            {task.title} <span className="soft">{[words(task), task.belongsTo].filter(Boolean).join(' · ')}</span>
          </li>
        ))}
        {cut && <li className="soft">{t('tasksCut')}</li>}
      </ul>
    </section>
  );
}

function Entry(props: { item: ItemWire; day: number; phones: ReadonlyMap<string, string> }) {
  const { item, day, phones } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const textOf = useBlockText();
  const { start, end } = wallsOf(item, style.zone);
  const time = item.allDay
    ? t('board.allDay')
    : `${start < day ? '…' : clock(start, style.hours)}–${end > day + DAY + MINUTE ? '…' : clock(end, style.hours)}`;
  const whereabouts = item.kind === 'whereabouts';
  return (
    <section className={`${sheetCss.entry}${whereabouts ? ` ${sheetCss.where}` : ''}`}>
      <span className={sheetCss.time}>{time}</span>
      <div>
        <h2>{textOf(item)}</h2>
        {[item.place, item.shows === 'busy' || whereabouts ? null : t(`statuses.${item.shows}`)]
          .filter(Boolean)
          .join(' · ')}
        {item.link && <p className={sheetCss.small}>{item.link}</p>}
        {item.attendees && item.attendees.length > 0 && (
          <ul className={`${sheetCss.small} ${sheetCss.people}`}>
            {item.attendees.map((a) => (
              <li key={a.address}>
                {a.name ?? a.address} ({t(`meetings.gave.${a.answer}`)}){' '}
                <span className={sheetCss.phone}>{phones.get(a.address.toLowerCase())}</span>
              </li>
            ))}
          </ul>
        )}
        {item.notes && (
          <div className={sheetCss.notes}>
            <RichText text={item.notes} />
          </div>
        )}
        {item.briefing && (
          <p className={sheetCss.briefing}>
            <b>{t('panel.briefing')}</b> {item.briefing}
          </p>
        )}
      </div>
    </section>
  );
}
