'use client';
import { memo, type RefObject } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { SightMeter } from '../../common/meters.tsx';
import { RequestMore } from '../../common/requests/request-more.tsx';
import { DAY, MINUTE } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import blockCss from './block.module.css';
import { hueOf } from './day-lane.tsx';
import { type GhostStore, useGhostIn } from './ghost.ts';
import { GhostWords } from './ghost-block.tsx';
import hoursCss from './hours.module.css';
import { useBlockText } from './item-block.tsx';
import lanesCss from './lanes.module.css';
import { layOut, type Placed, shapeOf } from './layout.ts';
import { SideBlock } from './side-block.tsx';
import { closedOn } from './work-hours.tsx';

/** The width of an hour, and the least height of a row. */
export const HOUR_PX = 44;
const ROW_PX = 46;

/** A calendar as a row: its name, and its time across. Drawn again only where something in it is another. */
export const SideRow = memo(function SideRow(props: {
  lane: BoardLane;
  days: readonly number[];
  width: number;
  at: (wall: number) => number;
  now: number;
  selected: string | null;
  ghosts: GhostStore;
  /** Which lane it is, and where the hours of each are drawn. */
  index: number;
  rows: RefObject<(HTMLDivElement | null)[]>;
  onOpen: (item: ItemWire) => void;
  onDraw: (lane: BoardLane, start: number, end: number) => void;
}) {
  const { lane, days, width, at, now, selected, ghosts, index, rows, onOpen, onDraw } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const textOf = useBlockText();
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
  const deepest = Math.max(ROW_PX, deep * 30);
  const block = (placed: Placed, day: number) => {
    const tall = deepest / placed.lanes;
    return (
      <SideBlock
        key={`${placed.item.id} ${day} ${placed.top}`}
        placed={placed}
        whose={lane.name}
        selected={placed.item.id === selected}
        movable={placed.item.may?.change === true}
        style={{
          left: at(day + placed.top * MINUTE) + 1,
          width: (placed.height / 60) * HOUR_PX - 2,
          top: bars + placed.lane * tall + 1,
          height: tall - 2,
        }}
        onOpen={onOpen}
      />
    );
  };
  return (
    <>
      <div className={`${lanesCss.who} who-${lane.colour}`} style={{ minHeight: height }}>
        <span className={`${lanesCss.name} block firm`}>{lane.name}</span>
        {!lane.head?.own && (
          <span className="row small soft gap-2">
            <SightMeter sight={sight} /> {t(`sights.${sight}`)}
            {sight !== 'full' && !lane.head?.as && lane.state !== 'waiting' && (
              <RequestMore
                handle={lane.handle}
                name={lane.head?.owner.name ?? lane.name}
                of={lane.head?.calendar}
                has={lane.head?.rights}
                small
              />
            )}
          </span>
        )}
      </div>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: making something has its keyboard twin in the key N */}
      <div
        ref={(el) => {
          rows.current[index] = el;
        }}
        className={`${lanesCss.row} who-${lane.colour}${lane.state === 'unseen' ? ` ${lanesCss.unseen}` : ''}`}
        style={{ width, height, backgroundSize: `${HOUR_PX}px 100%` }}
        onDoubleClick={draw}
      >
        {lane.state === 'unseen' && (
          <span className={`small soft near ${lanesCss.word}`}>{t('lanes.unseen', { name: lane.name })}</span>
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
          <div className={`${lanesCss.edge} ${lanesCss.now}`} style={{ left: at(now) }} />
        )}
        {layout.bars.map((bar) => (
          <button
            type="button"
            data-block
            key={bar.item.id}
            className={`plain ${blockCss.block} ${lanesCss.bar} ${blockCss[bar.item.kind === 'whereabouts' ? 'free' : shapeOf(bar.item)] ?? ''}`}
            style={{
              left: at(first + bar.from * DAY) + 1,
              width: (bar.to - bar.from) * 24 * HOUR_PX - 2,
            }}
            onClick={() => onOpen(bar.item)}
          >
            <span className={lanesCss.beside}>{textOf(bar.item)}</span>
          </button>
        ))}
        {layout.days.flatMap((list, i) => list.map((placed) => block(placed, days[i] ?? first)))}
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
        <SideGhost ghosts={ghosts} lane={index} first={first} until={first + days.length * DAY} at={at} top={bars} />
      </div>
    </>
  );
});

/** Where something would be, in this row. */
function SideGhost(props: {
  ghosts: GhostStore;
  lane: number;
  first: number;
  until: number;
  at: (wall: number) => number;
  top: number;
}) {
  const { ghosts, lane, first, until, at, top } = props;
  const ghost = useGhostIn(ghosts, lane, first, until);
  if (!ghost) return null;
  return (
    <div
      className={hoursCss.ghost}
      style={{ left: at(ghost.start), right: 'auto', minWidth: at(ghost.end) - at(ghost.start), top, bottom: 0 }}
    >
      <GhostWords ghost={ghost} />
    </div>
  );
}
