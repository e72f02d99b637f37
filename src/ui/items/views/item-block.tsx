'use client';
import { useDraggable } from '@dnd-kit/core';
import { type KeyboardEvent, type MouseEvent, memo } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, wallsOf, whenText } from '../../common/times.ts';
import { picksWith, usePicks } from '../board/picks.tsx';
import blockCss from './block.module.css';
import { HOUR_PX, type Placed, shapeOf } from './layout.ts';

const LINE_PX = 15.5;

const VISIBILITY_MARK = { open: '◇', outline: '◐', private: '▣', follow: '' } as const;

/** What a block says: its title where one is seen, otherwise only that the time is taken. */
export function useBlockText(): (item: ItemWire) => string {
  const t = useTranslations('board');
  return (item) => {
    if (item.withheld) return t('private');
    const title = item.title ?? t('busyWord', { shows: item.shows });
    const hold = item.asSet?.hold;
    return hold ? `${hold.letter} ${hold.number}/${hold.of} · ${title}` : title;
  };
}

/** What moves, picks and opens a block, by mouse and by the keys: for the block itself, and for the grip that stretches it. */
export function useBlockHandlers(
  item: ItemWire,
  movable: boolean,
  selected: boolean,
  onOpen: (item: ItemWire) => void,
) {
  const picks = usePicks();
  const moving = useDraggable({ id: `move:${item.id}`, data: { item, kind: 'move' }, disabled: !movable });
  const sizing = useDraggable({ id: `size:${item.id}`, data: { item, kind: 'size' }, disabled: !movable });
  // An item that can't be moved can still be opened: it isn't disabled.
  const { 'aria-disabled': _unmovable, ...attributes } = moving.attributes;
  const { onKeyDown: dragKey, ...listeners } = moving.listeners ?? {};
  return {
    picked: picks.items.has(item.id),
    dragging: moving.isDragging || sizing.isDragging,
    block: {
      ref: moving.setNodeRef,
      'data-block': item.id,
      ...attributes,
      ...listeners,
      role: 'button',
      tabIndex: 0,
      'aria-pressed': selected,
      'aria-roledescription': movable ? moving.attributes['aria-roledescription'] : undefined,
      onClick: (event: MouseEvent) => (picksWith(event) ? picks.toggle(item) : onOpen(item)),
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key === 'x' && !event.ctrlKey && !event.metaKey && !moving.isDragging) {
          event.stopPropagation();
          picks.toggle(item);
        } else if (event.key === 'Enter' && !moving.isDragging) {
          event.preventDefault();
          onOpen(item);
        } else dragKey?.(event);
      },
    },
    grip: {
      ref: sizing.setNodeRef,
      ...sizing.listeners,
      onClick: (event: MouseEvent) => event.stopPropagation(),
      'aria-hidden': true,
    },
  } as const;
}

/** One item on the hours of a day, drawn again only where it is another. Opens with Enter, moves by mouse or by Space and the arrow keys. */
export const ItemBlock = memo(function ItemBlock(props: {
  placed: Placed;
  selected: boolean;
  onOpen: (item: ItemWire) => void;
  movable: boolean;
  /** Whose colour it has, where that isn't its board's; and whose it is, where several are on the board. */
  colour?: string;
  whose?: string | null;
}) {
  const { placed, selected, onOpen, movable, colour = '', whose = null } = props;
  const { item } = placed;
  const t = useTranslations();
  const { style } = useFrame();
  const text = useBlockText()(item);
  const handlers = useBlockHandlers(item, movable, selected, onOpen);
  const shape = shapeOf(item);
  const { start } = wallsOf(item, style.zone);
  const rest = [
    whose,
    whenText(item, style),
    item.place,
    shape === 'withheld' ? null : t(`shapes.${shape === 'plain-busy' ? 'busy' : shape}`),
    placed.clash ? t('shapes.clash') : null,
    handlers.picked ? t('picked.word') : null,
  ]
    .filter(Boolean)
    .join(', ');
  // Whole lines alone: what has no room for another line shows none of it.
  const rows = Math.max(1, Math.floor(((placed.height / 60) * HOUR_PX - 6) / LINE_PX));
  const underline =
    rows >= 2 ? (item.place ?? (rows >= 3 || placed.height >= 60 ? clock(start, style.hours) : null)) : null;
  const lines = underline ? rows - 1 : rows;
  // A quarter of an hour is lower than a line: its words are small, and all of each letter is there.
  const short = placed.height < 25;
  return (
    <div
      {...handlers.block}
      className={`${colour} ${blockCss.block} ${blockCss[shape] ?? ''}${short ? ` ${blockCss.short}` : ''}${selected ? ` ${blockCss.selected}` : ''}${placed.clash ? ` ${blockCss.clash}` : ''}${handlers.dragging ? ` ${blockCss.dragging}` : ''}${handlers.picked ? ` ${blockCss.picked}` : ''}${item.asSet?.cancelled ? ` ${blockCss.cancelled}` : ''}`}
      style={{
        top: `calc(${placed.top / 60} * var(--hour) + 1px)`,
        height: `calc(${placed.height / 60} * var(--hour) - 2px)`,
        left: `${(placed.lane / placed.lanes) * 100}%`,
        width: `calc(${100 / placed.lanes}% - 2px)`,
      }}
    >
      <span className={blockCss.t} style={{ WebkitLineClamp: lines }}>
        {!placed.starts && <span aria-hidden="true">… </span>}
        {text}
      </span>
      <span className="visually-hidden">, {rest}</span>
      {underline && (
        <span className={blockCss.p} aria-hidden="true">
          {underline}
        </span>
      )}
      {item.visibility && VISIBILITY_MARK[item.visibility] && (
        <span className={blockCss.mark} aria-hidden="true">
          {VISIBILITY_MARK[item.visibility]}
        </span>
      )}
      {movable && placed.height >= 30 && <span className={blockCss.grip} {...handlers.grip} />}
    </div>
  );
});
