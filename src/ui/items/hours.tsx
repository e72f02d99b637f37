'use client';
import {
  type Announcements,
  DndContext,
  type DragEndEvent,
  type DragMoveEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { type PointerEvent, useLayoutEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items.ts';
import { toWall } from '@/core/time/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { clock, DAY, dayName, hoursText, MINUTE, wallsOf } from '../common/times.ts';
import { AllDay } from './all-day.tsx';
import { type Ghost, GhostBlock } from './ghost-block.tsx';
import hoursCss from './hours.module.css';
import { ItemBlock, useBlockText } from './item-block.tsx';
import { HOUR_PX, layOut } from './layout.ts';
import { isRest } from './ribbon.tsx';

const STEP = 15;
const RAILS = ['var(--moss)', 'var(--lake)', 'var(--straw)', 'var(--bark)', 'var(--slate)'];

/** The hours of some days: items in lanes, whereabouts at the edge, all-day items above; drawn on, moved and stretched. */
export function Hours(props: {
  items: readonly ItemWire[];
  first: number;
  count: number;
  selected: string | null;
  canAdd: boolean;
  owner: string;
  onOpen: (item: ItemWire) => void;
  onDraw: (start: number, end: number) => void;
  onMove: (item: ItemWire, start: number, end: number) => void;
}) {
  const { items, first, count, selected, canAdd, onOpen, onDraw, onMove } = props;
  const t = useTranslations('board');
  const textOf = useBlockText();
  const { style, now } = useFrame();
  const scroll = useRef<HTMLDivElement>(null);
  const columns = useRef<(HTMLDivElement | null)[]>([]);
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const [barWidth, setBarWidth] = useState(0);
  const lastGoal = useRef<Ghost | null>(null);
  const drawing = useRef<{ day: number; from: number; to: number } | null>(null);
  const layout = layOut(items, first, count, style.zone);
  const today = toWall(style.zone, now());
  const todayIndex = Math.floor((today - first) / DAY);

  useLayoutEffect(() => {
    const box = scroll.current;
    if (!box) return;
    box.scrollTop = 7.6 * HOUR_PX;
    setBarWidth(box.offsetWidth - box.clientWidth);
  }, []);

  const days = Array.from({ length: count }, (_, i) => first + i * DAY);
  const cols = days
    .map((day, i) => {
      if (count === 1 || !isRest(day)) return 'minmax(0, 1fr)';
      return layout.days[i]?.length || layout.rails[i]?.length ? 'minmax(0, 0.55fr)' : 'minmax(0, 0.32fr)';
    })
    .join(' ');

  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, {
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
      coordinateGetter: (event, { currentCoordinates: c }) => {
        const step = (HOUR_PX * STEP) / 60;
        if (event.code === 'ArrowDown') return { ...c, y: c.y + step };
        if (event.code === 'ArrowUp') return { ...c, y: c.y - step };
        const rects = columns.current.slice(0, count).map((el) => el?.getBoundingClientRect());
        const at = rects.findIndex((r) => r && c.x >= r.left - 1 && c.x < r.right);
        const next = event.code === 'ArrowRight' ? at + 1 : event.code === 'ArrowLeft' ? at - 1 : -1;
        const [here, there] = [rects[at], rects[next]];
        return here && there ? { ...c, x: c.x + (there.left - here.left) } : undefined;
      },
    }),
  );

  const goal = (event: DragMoveEvent | DragEndEvent): { item: ItemWire; start: number; end: number } | null => {
    const { item, kind } = event.active.data.current as { item: ItemWire; kind: 'move' | 'size' };
    const { start, end } = wallsOf(item, style.zone);
    const minutes = Math.round(((event.delta.y / HOUR_PX) * 60) / STEP) * STEP * MINUTE;
    if (kind === 'size') return { item, start, end: Math.max(start + STEP * MINUTE, end + minutes) };
    const fromDay = Math.max(0, Math.floor((start - first) / DAY));
    const rects = columns.current.slice(0, count).map((el) => el?.getBoundingClientRect());
    const origin = event.active.rect.current.initial;
    const x = (origin ? origin.left : 0) + 8 + event.delta.x;
    const toDay = rects.findIndex((r) => r && x >= r.left && x < r.right);
    const shift = (toDay < 0 ? 0 : toDay - fromDay) * DAY + minutes;
    return { item, start: start + shift, end: end + shift };
  };
  const clashOf = (item: ItemWire | null, start: number, end: number): string | null => {
    const hit = items.find((other) => {
      if (other.id === item?.id || other.allDay || other.shows === 'free' || other.kind === 'whereabouts') return false;
      const at = wallsOf(other, style.zone);
      return at.start < end && at.end > start;
    });
    return hit ? textOf(hit) : null;
  };
  const whenWords = (wall: number) => `${dayName(wall)}, ${clock(wall, style.hours)}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => t('picked', { title: textOf(active.data.current?.item) }),
    onDragMove: () => {
      const to = lastGoal.current;
      return to ? t('over', { title: to.title, when: whenWords(to.start) }) : undefined;
    },
    onDragOver: () => undefined,
    onDragEnd: () => {
      const to = lastGoal.current;
      return to ? t('dropped', { title: to.title, when: whenWords(to.start) }) : undefined;
    },
    onDragCancel: ({ active }) => t('leftAlone', { title: textOf(active.data.current?.item) }),
  };

  const minuteAt = (day: number, y: number): number => {
    const rect = columns.current[day]?.getBoundingClientRect();
    return rect ? Math.max(0, Math.min(24 * 60, Math.round((((y - rect.top) / HOUR_PX) * 60) / STEP) * STEP)) : 0;
  };
  const drawn = () => {
    const d = drawing.current;
    if (!d) return null;
    const start = first + d.day * DAY + Math.min(d.from, d.to) * MINUTE;
    return { start, end: Math.max(start + STEP * MINUTE, first + d.day * DAY + Math.max(d.from, d.to) * MINUTE) };
  };
  const beginDraw = (day: number) => (event: PointerEvent<HTMLDivElement>) => {
    if (!canAdd || event.button !== 0 || event.pointerType === 'touch') return;
    if ((event.target as HTMLElement).closest('[data-block]')) return;
    const from = Math.floor(minuteAt(day, event.clientY) / 30) * 30;
    drawing.current = { day, from, to: from };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const keepDrawing = (event: PointerEvent<HTMLDivElement>) => {
    if (!drawing.current) return;
    drawing.current.to = minuteAt(drawing.current.day, event.clientY);
    const time = drawn();
    if (time && drawing.current.to !== drawing.current.from)
      setGhost({ ...time, title: '', clashes: clashOf(null, time.start, time.end) });
  };
  const endDraw = () => {
    const time = drawn();
    const moved = drawing.current && drawing.current.to !== drawing.current.from;
    drawing.current = null;
    setGhost(null);
    if (time && moved) onDraw(time.start, time.end);
  };
  const doubleDraw = (day: number) => (event: React.MouseEvent) => {
    if (!canAdd || (event.target as HTMLElement).closest('[data-block]')) return;
    const start = first + day * DAY + Math.floor(minuteAt(day, event.clientY) / 30) * 30 * MINUTE;
    onDraw(start, start + 60 * MINUTE);
  };

  return (
    <DndContext
      sensors={sensors}
      accessibility={{ announcements, screenReaderInstructions: { draggable: t('dragHelp') } }}
      onDragMove={(event) => {
        const to = goal(event);
        if (!to) return;
        const { item, start, end } = to;
        lastGoal.current = { start, end, title: textOf(item), clashes: clashOf(item, start, end) };
        setGhost(lastGoal.current);
      }}
      onDragCancel={() => setGhost(null)}
      onDragEnd={(event) => {
        const to = goal(event);
        setGhost(null);
        if (!to) return;
        const was = wallsOf(to.item, style.zone);
        if (to.start !== was.start || to.end !== was.end) onMove(to.item, to.start, to.end);
      }}
    >
      <div
        className={hoursCss.days}
        style={{ '--cols': cols, '--hour': `${HOUR_PX}px`, '--bar': `${barWidth}px` } as React.CSSProperties}
      >
        <div className={hoursCss['day-heads']}>
          <div className={hoursCss.gutter} />
          {days.map((day, i) => {
            const booked = bookedMinutes(layout.days[i] ?? []);
            return (
              <div key={day} className={i === todayIndex ? hoursCss.today : ''}>
                {dayName(day)}{' '}
                <span className={hoursCss.load}>
                  {i === todayIndex && `${t('todayWord')}${booked ? ' · ' : ''}`}
                  {booked > 0 && (count === 1 || !isRest(day)) && hoursText(booked)}
                </span>
              </div>
            );
          })}
        </div>
        <AllDay layout={layout} days={days} selected={selected} onOpen={onOpen} />
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard */}
        <section className={hoursCss.scroll} ref={scroll} aria-label={props.owner} tabIndex={0}>
          <div className={hoursCss.hours}>
            <div className={hoursCss.gutter} aria-hidden="true">
              {Array.from({ length: 23 }, (_, h) => {
                const hour = h + 1;
                const near = todayIndex >= 0 && todayIndex < count && Math.abs((today % DAY) / 3_600_000 - hour) < 0.3;
                return (
                  <span key={hour} style={{ top: `calc(${hour} * var(--hour))` }}>
                    {near ? '' : clock(hour * 3_600_000, style.hours)}
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
              // biome-ignore lint/a11y/noStaticElementInteractions: drawing with the pointer has its keyboard twin in the key N
              <div
                key={day}
                ref={(el) => {
                  columns.current[i] = el;
                }}
                className={`${hoursCss.day}${isRest(day) ? ` ${hoursCss.rest}` : ''}`}
                data-day={i}
                onPointerDown={beginDraw(i)}
                onPointerMove={keepDrawing}
                onPointerUp={endDraw}
                onDoubleClick={doubleDraw(i)}
              >
                {i === todayIndex && (
                  <div
                    className={hoursCss.past}
                    style={{ height: `calc(${(today % DAY) / 3_600_000} * var(--hour))` }}
                  />
                )}
                {layout.rails[i]?.map((rail) => (
                  <button
                    type="button"
                    key={rail.item.id}
                    data-block
                    className={`plain ${hoursCss.rail}`}
                    style={
                      {
                        top: `calc(${rail.top / 60} * var(--hour))`,
                        height: `calc(${rail.height / 60} * var(--hour))`,
                        '--rail': RAILS[hueOf(rail.item)],
                      } as React.CSSProperties
                    }
                    onClick={() => onOpen(rail.item)}
                  >
                    {rail.item.place ?? rail.item.title}
                  </button>
                ))}
                <div className={`${hoursCss.lanes}${layout.rails[i]?.length ? '' : ` ${hoursCss.wide}`}`}>
                  {layout.days[i]?.map((placed) => (
                    <ItemBlock
                      key={`${placed.item.id} ${placed.top}`}
                      placed={placed}
                      selected={placed.item.id === selected}
                      onOpen={onOpen}
                      movable={placed.item.may?.change === true}
                    />
                  ))}
                  {ghost && Math.floor((ghost.start - first) / DAY) === i && <GhostBlock ghost={ghost} day={day} />}
                </div>
              </div>
            ))}
          </div>
        </section>
      </div>
    </DndContext>
  );
}

/** One of five tints, always the same for the same place. */
function hueOf(item: ItemWire): number {
  const text = item.place ?? item.title ?? '';
  let h = 0;
  for (const c of text) h = (h * 31 + (c.codePointAt(0) ?? 0)) % 9973;
  return h % RAILS.length;
}

function bookedMinutes(list: ReturnType<typeof layOut>['days'][number]): number {
  let until = 0;
  let sum = 0;
  for (const p of [...list].sort((a, b) => a.top - b.top)) {
    if (p.item.shows === 'free') continue;
    sum += Math.max(0, p.top + p.height - Math.max(p.top, until));
    until = Math.max(until, p.top + p.height);
  }
  return sum;
}
