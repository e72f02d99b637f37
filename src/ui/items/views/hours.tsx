'use client';
import { DndContext, type DragEndEvent, type DragMoveEvent } from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import { isTaken } from '@/core/calendar/index.ts';
import { fromWallLenient, toWall } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { useMinute } from '../../common/minute.ts';
import { clock, DAY, dayName, hoursText, MINUTE, wallsOf, zonePlace } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import { isRest } from '../board/ribbon.tsx';
import { AllDay } from './all-day.tsx';
import { DayLane } from './day-lane.tsx';
import { useDrawing } from './drawing.ts';
import { type Place, useGlide } from './glide.ts';
import hoursCss from './hours.module.css';
import { LaneHead } from './lane-head.tsx';
import { HOUR_PX, type Layout, layOut, type WhoseOf } from './layout.ts';
import { type Goal, type PutDown, STEP, useMoving, useMovingSensors, type Walked } from './moving.ts';
import { PreferenceBands } from './preference-bands.tsx';
import { WorkHours } from './work-hours.tsx';

/**
 * The hours of some days, one calendar or several as lanes within each day: items side by side where they overlap, whereabouts at the
 * edge, all-day items above; drawn on, moved and stretched, into another lane too.
 */
export function Hours(
  props: {
    lanes: readonly BoardLane[];
    first: number;
    count: number;
    selected: string | null;
    walked?: Walked | null;
    owner: string;
    /** Whose colour an item has, where several lie over each other. */
    colourOf?: (item: ItemWire) => string;
    /** Whose an item is, there. */
    whoseOf?: WhoseOf;
    onOpen: (item: ItemWire) => void;
    onDraw: (lane: BoardLane, start: number, end: number) => void;
  } & PutDown,
) {
  const { lanes, first, count, selected, walked, whoseOf, onOpen, onDraw } = props;
  const colourOf = props.colourOf ?? plain;
  const n = lanes.length;
  const t = useTranslations('board');
  const { frame, style, now } = useFrame();
  const second = frame.me.secondZone === style.zone ? null : frame.me.secondZone;
  const { data: ways } = useQuery({
    queryKey: KEYS.journeys,
    queryFn: () => call('listJourneys', {}),
    // Whoever isn't signed in knows of none.
    enabled: frame.me.inside,
    staleTime: 300_000,
    retry: false,
  });
  const journeys = ways?.journeys ?? NO_JOURNEYS;
  const scroll = useRef<HTMLDivElement>(null);
  const columns = useRef<(HTMLDivElement | null)[]>([]);
  const [barWidth, setBarWidth] = useState(0);
  const layouts = useMemo(
    () => lanes.map((lane) => layOut(lane.items, first, count, style.zone, whoseOf)),
    [lanes, first, count, style.zone, whoseOf],
  );
  const bars = layouts.flatMap((layout, l) => layout.bars.map((bar) => ({ ...bar, lane: l })));
  const today = toWall(style.zone, useMinute(now));
  const todayIndex = Math.floor((today - first) / DAY);

  useLayoutEffect(() => {
    const box = scroll.current;
    if (!box) return;
    box.scrollTop = 7.85 * HOUR_PX;
    setBarWidth(box.offsetWidth - box.clientWidth);
  }, []);

  const days = Array.from({ length: count }, (_, i) => first + i * DAY);
  const cols = days
    .map((day, i) => {
      if (count === 1 || !isRest(day)) return 'minmax(0, 1fr)';
      const on = layouts.some((layout) => layout.days[i]?.length || layout.rails[i]?.length);
      return on ? 'minmax(0, 0.55fr)' : 'minmax(0, 0.32fr)';
    })
    .join(' ');

  const sensors = useMovingSensors((event, { currentCoordinates: c, context }) => {
    const step = (HOUR_PX * STEP) / 60;
    if (event.code === 'ArrowDown') return { ...c, y: c.y + step };
    if (event.code === 'ArrowUp') return { ...c, y: c.y - step };
    const rects = columns.current.slice(0, count * n).map((el) => el?.getBoundingClientRect());
    const at = rects.findIndex((r) => r && c.x >= r.left - 1 && c.x < r.right);
    // To the next gap in which it fits, or the next thing it would lie over: from its place on, in its own lane.
    if (event.code === 'KeyG' || event.code === 'KeyC') {
      const item = context.active?.data.current?.item as ItemWire | undefined;
      const to = item && moving.jump(item, event.code === 'KeyG');
      if (!to) return undefined;
      const [here, there] = [rects[at], rects[Math.floor((to.start - first) / DAY) * n + to.lane]];
      const minutes = ((to.start % DAY) - (to.was % DAY)) / MINUTE;
      return here && there && { x: c.x + (there.left - here.left), y: c.y + (minutes / 60) * HOUR_PX };
    }
    const next = event.code === 'ArrowRight' ? at + 1 : event.code === 'ArrowLeft' ? at - 1 : -1;
    const [here, there] = [rects[at], rects[next]];
    return here && there ? { ...c, x: c.x + (there.left - here.left) } : undefined;
  });

  const goalOf = (event: DragMoveEvent | DragEndEvent, from: number): Goal | null => {
    const { item, kind } = event.active.data.current as { item: ItemWire; kind: 'move' | 'size' };
    const { start, end } = wallsOf(item, style.zone);
    const minutes = Math.round(((event.delta.y / HOUR_PX) * 60) / STEP) * STEP * MINUTE;
    if (kind === 'size') return { item, lane: from, start, end: Math.max(start + STEP * MINUTE, end + minutes) };
    const fromDay = Math.max(0, Math.floor((start - first) / DAY));
    const rects = columns.current.slice(0, count * n).map((el) => el?.getBoundingClientRect());
    const origin = event.active.rect.current.initial;
    const x = (origin ? origin.left : 0) + 8 + event.delta.x;
    const column = rects.findIndex((r) => r && x >= r.left && x < r.right);
    const toDay = column < 0 ? fromDay : Math.floor(column / n);
    const shift = (toDay - fromDay) * DAY + minutes;
    const lane = column < 0 ? from : column % n;
    return { item, lane, start: start + shift, end: end + shift };
  };
  const moving = useMoving({ lanes, first, count, walked: walked ?? null }, goalOf, props);

  const places = useMemo(() => placesOf(layouts), [layouts]);
  const within = useRef<HTMLDivElement>(null);
  useGlide(
    places,
    `${first} ${count} ${lanes.map(({ key }) => key).join(' ')}`,
    (place) => {
      const box = columns.current[place.lane]?.getBoundingClientRect();
      return box ? { x: box.x, y: (place.along / 60) * HOUR_PX } : null;
    },
    within,
    moving.carried,
  );

  const drawing = useDrawing({ lanes, first, columns, moving, onDraw });

  return (
    <DndContext sensors={sensors} {...moving.context}>
      <div
        className={hoursCss.days}
        style={{ '--cols': cols, '--hour': `${HOUR_PX}px`, '--bar': `${barWidth}px` } as React.CSSProperties}
      >
        <div className={hoursCss['day-heads']}>
          <div className={hoursCss.gutter} title={second ?? undefined}>
            {second && <span className={hoursCss.second}>{zonePlace(second)}</span>}
          </div>
          {days.map((day, i) => {
            // The hours of several people together say nothing of any of them.
            const booked = whoseOf ? 0 : bookedMinutes(layouts[0]?.days[i] ?? []);
            return (
              <div
                key={day}
                className={`${i === todayIndex ? hoursCss.today : ''}${count > 1 && isRest(day) ? ` ${hoursCss['rest-head']}` : ''}`}
              >
                {dayName(day)}{' '}
                <span className={hoursCss.load}>
                  {i === todayIndex && `${t('todayWord')}${n === 1 && booked ? ' · ' : ''}`}
                  {n === 1 && booked > 0 && (count === 1 || !isRest(day)) && hoursText(booked)}
                </span>
                {n > 1 && (
                  <span className={hoursCss['lane-heads']}>
                    {lanes.map((lane) => (
                      <LaneHead key={lane.key} lane={lane} short={count > 1} />
                    ))}
                  </span>
                )}
              </div>
            );
          })}
        </div>
        {bars.length > 0 && (
          <AllDay
            bars={bars}
            days={days}
            selected={selected}
            colourOf={(bar) => colourOf(bar.item) || (n > 1 ? `who-${lanes[bar.lane]?.colour ?? 0}` : '')}
            onOpen={onOpen}
          />
        )}
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard */}
        <section className={hoursCss.scroll} ref={scroll} aria-label={props.owner} tabIndex={0}>
          <div className={hoursCss.hours} ref={within} data-to-scale>
            <div className={hoursCss.gutter} aria-hidden="true">
              {Array.from({ length: 23 }, (_, h) => {
                const hour = h + 1;
                const near = todayIndex >= 0 && todayIndex < count && Math.abs((today % DAY) / 3_600_000 - hour) < 0.3;
                return (
                  <span key={hour} style={{ top: `calc(${hour} * var(--hour))` }}>
                    {near ? '' : clock(hour * 3_600_000, style.hours)}
                    {second && !near && (
                      <span className={hoursCss.second}>
                        {clock(toWall(second, fromWallLenient(style.zone, first + hour * 3_600_000)), style.hours)}
                      </span>
                    )}
                  </span>
                );
              })}
              {todayIndex >= 0 && todayIndex < count && (
                <span className={hoursCss.now} style={{ top: `calc(${(today % DAY) / 3_600_000} * var(--hour))` }}>
                  {clock(today, style.hours)}
                </span>
              )}
            </div>
            {days.map((day, i) => (
              <div key={day} className={`${hoursCss.day}${isRest(day) ? ` ${hoursCss.rest}` : ''}`} data-day={i}>
                {n === 1 && <WorkHours lane={lanes[0]} day={day} zone={style.zone} />}
                {n === 1 && <PreferenceBands lane={lanes[0]} day={day} zone={style.zone} />}
                {i === todayIndex && (
                  <div
                    className={hoursCss.past}
                    style={{ height: `calc(${(today % DAY) / 3_600_000} * var(--hour))` }}
                  />
                )}
                {lanes.map((lane, l) => {
                  const layout = layouts[l];
                  if (!layout) return null;
                  return (
                    <DayLane
                      key={lane.key}
                      lane={lane}
                      layout={layout}
                      day={day}
                      index={i}
                      at={l}
                      of={n}
                      selected={isIn(layout, i, selected) ? selected : null}
                      ghosts={moving.ghosts}
                      journeys={journeys}
                      colourOf={colourOf}
                      whoseOf={whoseOf}
                      column={i * n + l}
                      columns={columns}
                      drawing={drawing}
                      onOpen={onOpen}
                    />
                  );
                })}
              </div>
            ))}
          </div>
        </section>
      </div>
    </DndContext>
  );
}

const plain = () => '';
const NO_JOURNEYS: readonly (readonly [string, string, number])[] = [];

/** Where each item begins, by its column and its minute of the day. */
function placesOf(layouts: readonly Layout[]): ReadonlyMap<string, Place> {
  const places = new Map<string, Place>();
  for (const [l, { days }] of layouts.entries())
    for (const [i, list] of days.entries())
      for (const { item, top } of list)
        if (!places.has(item.id)) places.set(item.id, { lane: i * layouts.length + l, along: top });
  return places;
}

/** Whether an item is drawn in the hours of a day. */
const isIn = (layout: Layout, day: number, id: string | null): boolean =>
  id !== null && (layout.days[day] ?? []).some(({ item }) => item.id === id);

function bookedMinutes(list: Layout['days'][number]): number {
  let until = 0;
  let sum = 0;
  for (const p of [...list].sort((a, b) => a.top - b.top)) {
    if (!isTaken(p.item.shows)) continue;
    sum += Math.max(0, p.top + p.height - Math.max(p.top, until));
    until = Math.max(until, p.top + p.height);
  }
  return sum;
}
