'use client';
import type { ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../common/frame-context.tsx';
import { DAY, weekday } from '../common/times.ts';
import blockCss from '../items/views/block.module.css';
import { useBlockText } from '../items/views/item-block.tsx';
import { layOut, shapeOf } from '../items/views/layout.ts';
import miniWeekCss from './mini-week.module.css';

const FROM = 7;
const TO = 21;
/** Heights of a day, and of a line: only whole lines are shown. */
const HIGH_PX = 250;
const LOW_PX = 150;
const LINE_PX = 10;

/** A week as somebody gets it, small: the same blocks the board draws, from the same answer. */
export function MiniWeek(props: {
  items: readonly ItemWire[];
  first: number;
  selected: string | null;
  onPick: ((item: ItemWire) => void) | null;
  low?: boolean;
}) {
  const { items, first, selected, onPick, low = false } = props;
  const { style } = useFrame();
  const textOf = useBlockText();
  const layout = layOut(items, first, 7, style.zone);
  const bars = Math.min(3, layout.bars.length);
  const percent = (minutes: number) => `${Math.max(0, Math.min(100, ((minutes / 60 - FROM) / (TO - FROM)) * 100))}%`;
  return (
    <div className={low ? `${miniWeekCss.mini} ${miniWeekCss.low}` : miniWeekCss.mini}>
      {layout.days.map((list, day) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the index is the day
        <div className={miniWeekCss.d} data-to-scale key={first + day * DAY}>
          <div className={miniWeekCss.dh}>{weekday(first + day * DAY)}</div>
          <div className={miniWeekCss['bars-all']} style={{ height: `${4 + bars * 14}px` }}>
            {layout.bars
              .filter((b) => b.from <= day && day < b.to)
              .slice(0, 3)
              .map((b) => (
                <Piece
                  key={b.item.id}
                  item={b.item}
                  className={`${blockCss.bar} ${miniWeekCss.bar}`}
                  text={textOf(b.item)}
                  lines={1}
                  selected={b.item.id === selected}
                  onPick={onPick}
                />
              ))}
          </div>
          <div className={miniWeekCss.dayspace}>
            {[
              ...(layout.rails[day] ?? []).map((r) => ({ ...r, lane: 0, lanes: 1, rail: true })),
              ...list.map((p) => ({ ...p, rail: false })),
            ].map((p) => (
              <Piece
                key={`${p.item.id}${p.top}`}
                item={p.item}
                text={textOf(p.item)}
                lines={Math.floor(((p.height / 60 / (TO - FROM)) * (low ? LOW_PX : HIGH_PX) - 1) / LINE_PX)}
                selected={p.item.id === selected}
                onPick={onPick}
                className={p.rail ? `${blockCss.free} ${miniWeekCss.rail}` : ''}
                style={{
                  top: percent(p.top),
                  height: `calc(${percent(p.top + p.height)} - ${percent(p.top)} - 1px)`,
                  left: `${(p.lane / p.lanes) * 100}%`,
                  width: p.rail ? '100%' : `calc(${100 / p.lanes}% - 1px)`,
                }}
              />
            ))}
          </div>
        </div>
      ))}
    </div>
  );
}

function Piece(props: {
  item: ItemWire;
  text: string;
  lines: number;
  className: string;
  selected: boolean;
  onPick: ((item: ItemWire) => void) | null;
  style?: React.CSSProperties;
}) {
  const { item, text, lines, className, selected, onPick, style } = props;
  const shape = blockCss[shapeOf(item)] ?? '';
  const classes = `${blockCss.block} ${miniWeekCss.block} ${className} ${shape}${selected ? ` ${blockCss.selected}` : ''}`;
  const label = [text, item.place].filter(Boolean).join(', ');
  const words =
    lines < 1 ? (
      <span className="visually-hidden">{text}</span>
    ) : (
      <span className={`${blockCss.t} ${miniWeekCss.t}`} style={{ maxHeight: lines * LINE_PX }}>
        {text}
      </span>
    );
  return onPick ? (
    <button
      type="button"
      data-block
      className={`plain ${classes}`}
      style={style}
      title={label}
      onClick={() => onPick(item)}
    >
      {words}
    </button>
  ) : (
    <div data-block className={classes} style={style} title={label}>
      {words}
    </div>
  );
}
