'use client';
import { useLayoutEffect, useRef } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items.ts';
import { toWall } from '@/core/time/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { SightMeter } from '../common/meters.tsx';
import { clock, DAY, dayName, MINUTE, whenText } from '../common/times.ts';
import blockCss from './block.module.css';
import type { BoardLane } from './board-lanes.ts';
import { hueOf } from './day-lane.tsx';
import { useBlockText } from './item-block.tsx';
import lanesCss from './lanes.module.css';
import { layOut, type Placed, shapeOf } from './layout.ts';
import { picksWith, usePicks } from './picks.tsx';
import { closedOn } from './work-hours.tsx';

const HOUR_PX = 44;
const ROW_PX = 46;

/** A row a calendar, time across: names and hours stay while one scrolls, whichever way. What isn't seen is hatched. */
export function SideBySide(props: {
  lanes: readonly BoardLane[];
  first: number;
  count: number;
  selected: string | null;
  onOpen: (item: ItemWire) => void;
  onDraw: (lane: BoardLane, start: number, end: number) => void;
}) {
  const { lanes, first, count, selected, onOpen, onDraw } = props;
  const t = useTranslations();
  const { style, now } = useFrame();
  const scroll = useRef<HTMLDivElement>(null);
  const today = toWall(style.zone, now());
  const width = count * 24 * HOUR_PX;
  const at = (wall: number) => ((wall - first) / 3_600_000) * HOUR_PX;
  const days = Array.from({ length: count }, (_, i) => first + i * DAY);

  // biome-ignore lint/correctness/useExhaustiveDependencies: not each time the clock moves on
  useLayoutEffect(() => {
    const box = scroll.current;
    if (!box) return;
    const day = today >= first && today < first + count * DAY ? Math.floor((today - first) / DAY) : 0;
    box.scrollLeft = (day * 24 + 7.6) * HOUR_PX;
    // Where one looks is where one begins, each time other days are shown.
  }, [first, count]);

  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
    <section ref={scroll} className={lanesCss.side} aria-label={t('lanes.sideBySide')} tabIndex={0}>
      <div className={lanesCss.sheet}>
        <div className={lanesCss.corner} />
        <div className={lanesCss.times} style={{ width }} aria-hidden="true">
          {days.map((day) => (
            <span key={day} className={lanesCss.day} style={{ left: at(day) + 6 }}>
              {dayName(day)}
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
        {lanes.map((lane) => (
          <Row
            key={lane.key}
            lane={lane}
            days={days}
            width={width}
            at={at}
            now={today}
            selected={selected}
            onOpen={onOpen}
            onDraw={onDraw}
          />
        ))}
      </div>
    </section>
  );
}

function Row(props: {
  lane: BoardLane;
  days: readonly number[];
  width: number;
  at: (wall: number) => number;
  now: number;
  selected: string | null;
  onOpen: (item: ItemWire) => void;
  onDraw: (lane: BoardLane, start: number, end: number) => void;
}) {
  const { lane, days, width, at, now, selected, onOpen, onDraw } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const textOf = useBlockText();
  const picks = usePicks();
  const first = days[0] ?? 0;
  const layout = layOut(lane.items, first, days.length, style.zone);
  const deep = Math.max(1, ...layout.days.flatMap((day) => day.map((p) => p.lanes)));
  const bars = layout.bars.length > 0 ? 18 : 0;
  const height = bars + Math.max(ROW_PX, deep * 30) + 12;
  const sight = lane.state === 'unseen' ? 'nothing' : (lane.head?.rights.sight ?? 'nothing');
  const may = lane.head?.may;
  const draw = (event: React.MouseEvent) => {
    if (!may?.add && !may?.suggest) return;
    if ((event.target as HTMLElement).closest('[data-block]')) return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const start = first + Math.floor((x / HOUR_PX) * 2) * 30 * MINUTE;
    onDraw(lane, start, start + 60 * MINUTE);
  };
  const block = (placed: Placed, day: number, i: number) => {
    const { item } = placed;
    const tall = Math.max(ROW_PX, deep * 30) / placed.lanes;
    return (
      <button
        type="button"
        data-block
        key={`${item.id} ${i} ${placed.top}`}
        className={`plain ${blockCss.block} ${blockCss[shapeOf(item)] ?? ''}${item.id === selected ? ` ${blockCss.selected}` : ''}${placed.clash ? ` ${blockCss.clash}` : ''}${picks.items.has(item.id) ? ` ${blockCss.picked}` : ''}`}
        style={{
          left: at(day + placed.top * MINUTE) + 1,
          width: (placed.height / 60) * HOUR_PX - 2,
          top: bars + placed.lane * tall + 1,
          height: tall - 2,
          padding: '2px 4px',
          fontSize: 11.5,
          position: 'absolute',
        }}
        aria-pressed={item.id === selected}
        onClick={(event) => (picksWith(event) ? picks.toggle(item) : onOpen(item))}
      >
        <span className={blockCss.t} style={{ WebkitLineClamp: 2 }}>
          {textOf(item)}
        </span>
        <span className="visually-hidden">
          , {lane.name}, {whenText(item, style)}
        </span>
      </button>
    );
  };
  return (
    <>
      <div className={`${lanesCss.who} who-${lane.colour}`} style={{ minHeight: height }}>
        <span className={lanesCss.name} style={{ display: 'block', fontWeight: 560 }}>
          {lane.name}
        </span>
        {!lane.head?.own && (
          <span className="row small soft" style={{ gap: 5 }}>
            <SightMeter sight={sight} /> {t(`sights.${sight}`)}
          </span>
        )}
      </div>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: making something has its keyboard twin in the key N */}
      <div
        className={`${lanesCss.row} who-${lane.colour}${lane.state === 'unseen' ? ` ${lanesCss.unseen}` : ''}`}
        style={{ width, height, backgroundSize: `${HOUR_PX}px 100%` }}
        onDoubleClick={draw}
      >
        {lane.state === 'unseen' && (
          <span
            className="small soft"
            style={{ position: 'sticky', left: 160, background: 'var(--paper)', padding: 4 }}
          >
            {t('lanes.unseen', { name: lane.name })}
          </span>
        )}
        {lane.head &&
          days.flatMap((day) =>
            closedOn(lane.head?.hours ?? null, lane.head?.hoursZone ?? style.zone, day, style.zone).map(
              ([from, to]) => (
                <div
                  key={day + from}
                  className={lanesCss.night}
                  style={{ left: at(day + from * MINUTE), width: ((to - from) / 60) * HOUR_PX }}
                />
              ),
            ),
          )}
        {days.map((day) => (
          <div key={day} className={lanesCss.edge} style={{ left: at(day) }} />
        ))}
        {now >= first && now < first + days.length * DAY && (
          <div className={lanesCss.edge} style={{ left: at(now), background: 'var(--who)', width: 2 }} />
        )}
        {layout.bars.map((bar) => (
          <button
            type="button"
            data-block
            key={bar.item.id}
            className={`plain ${blockCss.block} ${blockCss[bar.item.kind === 'whereabouts' ? 'free' : shapeOf(bar.item)] ?? ''}`}
            style={{
              left: at(first + bar.from * DAY) + 1,
              width: (bar.to - bar.from) * 24 * HOUR_PX - 2,
              top: 1,
              height: 16,
              padding: '0 6px',
              fontSize: 11,
              position: 'absolute',
            }}
            onClick={() => onOpen(bar.item)}
          >
            <span style={{ position: 'sticky', left: 160 }}>{textOf(bar.item)}</span>
          </button>
        ))}
        {layout.days.flatMap((list, i) => list.map((placed) => block(placed, days[i] ?? first, i)))}
        {layout.rails.flatMap((list, i) =>
          list.map((rail) => (
            <button
              type="button"
              data-block
              key={rail.item.id}
              className={`plain ${lanesCss.where}`}
              style={
                {
                  left: at((days[i] ?? first) + rail.top * MINUTE),
                  width: (rail.height / 60) * HOUR_PX,
                  '--rail': hueOf(rail.item),
                } as React.CSSProperties
              }
              onClick={() => onOpen(rail.item)}
            >
              {rail.item.place ?? rail.item.title}
            </button>
          )),
        )}
      </div>
    </>
  );
}
