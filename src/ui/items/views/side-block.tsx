'use client';
import type { CSSProperties } from 'react';
import type { ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { whenText } from '../../common/times.ts';
import blockCss from './block.module.css';
import { useBlockHandlers, useBlockText } from './item-block.tsx';
import lanesCss from './lanes.module.css';
import { type Placed, shapeOf } from './layout.ts';

/** One item in a row of side by side. Opens with Enter, moves by mouse or by Space and the arrow keys, along its row or into another. */
export function SideBlock(props: {
  placed: Placed;
  whose: string;
  selected: boolean;
  movable: boolean;
  style: CSSProperties;
  onOpen: (item: ItemWire) => void;
}) {
  const { placed, whose, selected, movable, onOpen } = props;
  const { item } = placed;
  const { style } = useFrame();
  const textOf = useBlockText();
  const handlers = useBlockHandlers(item, movable, selected, onOpen);
  const classes = [
    blockCss.block,
    lanesCss.item,
    blockCss[shapeOf(item)],
    selected && blockCss.selected,
    placed.clash && blockCss.clash,
    handlers.picked && blockCss.picked,
    handlers.dragging && blockCss.dragging,
    item.asSet?.cancelled && blockCss.cancelled,
  ];
  return (
    <div {...handlers.block} className={classes.filter(Boolean).join(' ')} style={props.style}>
      <span className={blockCss.t} style={{ WebkitLineClamp: Number(props.style.height) < 34 ? 1 : 2 }}>
        {textOf(item)}
      </span>
      <span className="visually-hidden">
        , {whose}, {whenText(item, style)}
      </span>
      {movable && <span className={lanesCss.grip} {...handlers.grip} />}
    </div>
  );
}
