'use client';
import { memo, type RefObject } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import type { Drawing } from './drawing.ts';
import type { GhostStore } from './ghost.ts';
import { GhostBlock } from './ghost-block.tsx';
import hoursCss from './hours.module.css';
import { ItemBlock } from './item-block.tsx';
import { jointsOf, type Layout, type WhoseOf } from './layout.ts';
import { acceptTask } from './task-drop.ts';

const RAILS = ['var(--moss)', 'var(--lake)', 'var(--straw)', 'var(--bark)', 'var(--slate)'];

/**
 * One lane on one day of the hours: where somebody is at its edge, what they have beside it, hatched where one sees nothing. Drawn again only
 * where something in it is another.
 */
export const DayLane = memo(function DayLane(props: {
  lane: BoardLane;
  layout: Layout;
  day: number;
  index: number;
  /** Where it stands within its day, and how many there are. */
  at: number;
  of: number;
  selected: string | null;
  ghosts: GhostStore;
  journeys: readonly (readonly [string, string, number])[];
  colourOf: (item: ItemWire) => string;
  /** Whose each is, where several people's lie over each other. */
  whoseOf: WhoseOf | undefined;
  /** Which column of the board it is, where that is drawn, and what the pointer draws in it. */
  column: number;
  columns: RefObject<(HTMLDivElement | null)[]>;
  drawing: Drawing;
  onOpen: (item: ItemWire) => void;
}) {
  const {
    lane,
    layout,
    day,
    index,
    at,
    of,
    selected,
    ghosts,
    journeys,
    colourOf,
    whoseOf,
    column,
    columns,
    drawing,
    onOpen,
  } = props;
  const t = useTranslations('lanes');
  const rails = layout.rails[index] ?? [];
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: drawing with the pointer has its keyboard twin in the key N
    <div
      ref={(el) => {
        columns.current[column] = el;
      }}
      className={`${hoursCss.lane}${of > 1 ? ` ${hoursCss.one} who-${lane.colour}` : ''}${lane.state === 'unseen' ? ` ${hoursCss.unseen}` : ''}`}
      style={{ left: `${(at / of) * 100}%`, width: `${100 / of}%` }}
      title={lane.state === 'unseen' ? t('unseen', { name: lane.name }) : undefined}
      onPointerDown={(event) => drawing.begin(column, event)}
      onPointerMove={drawing.keepOn}
      onPointerUp={drawing.end}
      onDoubleClick={(event) => drawing.hour(column, event)}
      onDragOver={acceptTask}
      onDrop={(event) => drawing.drop(column, event)}
    >
      {rails.map((rail) => (
        <button
          type="button"
          key={rail.item.id}
          data-block
          className={`plain ${hoursCss.rail}`}
          style={
            {
              top: `calc(${rail.top / 60} * var(--hour))`,
              height: `calc(${rail.height / 60} * var(--hour))`,
              '--rail': hueOf(rail.item),
            } as React.CSSProperties
          }
          onClick={() => onOpen(rail.item)}
        >
          {rail.item.place ?? rail.item.title}
        </button>
      ))}
      <div className={`${hoursCss.lanes}${rails.length ? '' : ` ${hoursCss.wide}`}`}>
        {layout.days[index]?.map((placed) => (
          <ItemBlock
            key={`${placed.item.id} ${placed.top}`}
            placed={placed}
            selected={placed.item.id === selected}
            onOpen={onOpen}
            movable={placed.item.may?.change === true}
            colour={colourOf(placed.item)}
            whose={whoseOf ? whoseOf(placed.item) : of > 1 ? lane.name : null}
          />
        ))}
        {/* Nobody goes from where one is to where another is. */}
        {(whoseOf ? [] : jointsOf(layout.days[index] ?? [], journeys)).map((joint) => (
          <span
            key={joint.key}
            className={`${hoursCss.joint}${joint.minutes > joint.gap ? ` ${hoursCss.short}` : ''}`}
            style={{
              top: `calc(${joint.top / 60} * var(--hour))`,
              height: `calc(${Math.max(Math.min(joint.gap, joint.minutes), 12) / 60} * var(--hour))`,
            }}
          >
            {t('joint', { minutes: joint.minutes, gap: joint.gap, short: joint.minutes > joint.gap ? 'yes' : 'no' })}
          </span>
        ))}
        <GhostBlock ghosts={ghosts} lane={at} day={day} />
      </div>
    </div>
  );
});

/** One of five tints, always the same for the same place. */
export function hueOf(item: ItemWire): string {
  const text = item.place ?? item.title ?? '';
  let h = 0;
  for (const c of text) h = (h * 31 + (c.codePointAt(0) ?? 0)) % 9973;
  return RAILS[h % RAILS.length] ?? '';
}
