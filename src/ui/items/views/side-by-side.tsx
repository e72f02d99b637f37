'use client';
import { DndContext, type DragEndEvent, type DragMoveEvent } from '@dnd-kit/core';
import { useCallback, useLayoutEffect, useMemo, useRef } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import { toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { useMinute } from '../../common/minute.ts';
import { clock, DAY, dayName, MINUTE, wallsOf } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import { type Place, useGlide } from './glide.ts';
import lanesCss from './lanes.module.css';
import { type Goal, type PutDown, STEP, useMoving, useMovingSensors, type Walked } from './moving.ts';
import { HOUR_PX, SideRow } from './side-row.tsx';

/** A row a calendar, time across: names and hours stay while one scrolls, whichever way. What isn't seen is hatched. */
export function SideBySide(
  props: {
    lanes: readonly BoardLane[];
    first: number;
    count: number;
    selected: string | null;
    walked: Walked | null;
    onOpen: (item: ItemWire) => void;
    onDraw: (lane: BoardLane, start: number, end: number) => void;
  } & PutDown,
) {
  const { lanes, first, count, selected, walked, onOpen, onDraw } = props;
  const t = useTranslations();
  const { style, now } = useFrame();
  const scroll = useRef<HTMLDivElement>(null);
  const rows = useRef<(HTMLDivElement | null)[]>([]);
  const today = toWall(style.zone, useMinute(now));
  const width = count * 24 * HOUR_PX;
  const at = useCallback((wall: number) => ((wall - first) / 3_600_000) * HOUR_PX, [first]);
  const days = useMemo(() => Array.from({ length: count }, (_, i) => first + i * DAY), [first, count]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: not each time the clock moves on
  useLayoutEffect(() => {
    const box = scroll.current;
    if (!box) return;
    const day = today >= first && today < first + count * DAY ? Math.floor((today - first) / DAY) : 0;
    box.scrollLeft = (day * 24 + 7.6) * HOUR_PX;
    // Where one looks is where one begins, each time other days are shown.
  }, [first, count]);

  // Moved along a row it is another time, over another row another calendar.
  const goalOf = (event: DragMoveEvent | DragEndEvent, from: number): Goal | null => {
    const { item, kind } = event.active.data.current as { item: ItemWire; kind: 'move' | 'size' };
    const { start, end } = wallsOf(item, style.zone);
    const shift = Math.round(((event.delta.x / HOUR_PX) * 60) / STEP) * STEP * MINUTE;
    if (kind === 'size') return { item, lane: from, start, end: Math.max(start + STEP * MINUTE, end + shift) };
    const top = (event.active.rect.current.initial?.top ?? 0) + 8 + event.delta.y;
    const over = laneAt(top);
    return { item, lane: over < 0 ? from : over, start: start + shift, end: end + shift };
  };
  const rects = () => rows.current.slice(0, lanes.length).map((el) => el?.getBoundingClientRect());
  const laneAt = (y: number) => rects().findIndex((r) => r && y >= r.top - 1 && y < r.bottom);
  const moving = useMoving({ lanes, first, count, walked }, goalOf, props);
  const places = useMemo(() => {
    const all = new Map<string, Place>();
    for (const [lane, { items }] of lanes.entries())
      for (const item of items) if (!item.allDay) all.set(item.id, { lane, along: wallsOf(item, style.zone).start });
    return all;
  }, [lanes, style.zone]);
  useGlide(
    places,
    `${first} ${count} ${lanes.map(({ key }) => key).join(' ')}`,
    ({ lane, along }) => {
      const box = rows.current[lane]?.getBoundingClientRect();
      return box ? { x: at(along), y: box.y } : null;
    },
    scroll,
    moving.carried,
  );
  const sensors = useMovingSensors((event, { currentCoordinates: c, context }) => {
    const step = (HOUR_PX * STEP) / 60;
    if (event.code === 'ArrowRight') return { ...c, x: c.x + step };
    if (event.code === 'ArrowLeft') return { ...c, x: c.x - step };
    if (event.code === 'KeyG' || event.code === 'KeyC') {
      const item = context.active?.data.current?.item as ItemWire | undefined;
      const to = item && moving.jump(item, event.code === 'KeyG');
      return to ? { ...c, x: c.x + at(to.start) - at(to.was) } : undefined;
    }
    const here = laneAt(c.y + 8);
    const next = event.code === 'ArrowDown' ? here + 1 : event.code === 'ArrowUp' ? here - 1 : -1;
    const [from, to] = [rects()[here], rects()[next]];
    return from && to ? { ...c, y: c.y + (to.top - from.top) } : undefined;
  });

  return (
    <DndContext sensors={sensors} {...moving.context}>
      <section
        ref={scroll}
        data-across
        data-to-scale
        className={lanesCss.side}
        aria-label={t('lanes.sideBySide')}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
        tabIndex={0}
      >
        <div className={lanesCss.sheet}>
          <div className={lanesCss.corner} />
          <div className={lanesCss.times} style={{ width }} aria-hidden="true">
            {days.map((day) => (
              <span key={day} className={lanesCss.day} style={{ left: at(day), width: 24 * HOUR_PX }}>
                <b>{dayName(day)}</b>
              </span>
            ))}
            {days.flatMap((day) =>
              [6, 8, 10, 12, 14, 16, 18, 20, 22].map((h) => (
                <span key={day + h} className={lanesCss.hour} style={{ left: at(day + h * 3_600_000) }}>
                  {clock(h * 3_600_000, style.hours)}
                </span>
              )),
            )}
          </div>
          {lanes.map((lane, l) => (
            <SideRow
              key={lane.key}
              lane={lane}
              index={l}
              ghosts={moving.ghosts}
              rows={rows}
              days={days}
              width={width}
              at={at}
              now={today}
              selected={lane.items.some(({ id }) => id === selected) ? selected : null}
              onOpen={onOpen}
              onDraw={onDraw}
            />
          ))}
        </div>
      </section>
    </DndContext>
  );
}
