'use client';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import blockCss from './block.module.css';
import hoursCss from './hours.module.css';
import { useBlockText } from './item-block.tsx';
import { type Bar, shapeOf } from './layout.ts';

export function AllDay(props: {
  bars: readonly (Bar & { readonly lane: number })[];
  days: readonly number[];
  selected: string | null;
  colourOf: (bar: Bar & { readonly lane: number }) => string;
  onOpen: (item: ItemWire) => void;
}) {
  const { bars, days, selected, colourOf, onOpen } = props;
  const t = useTranslations('board');
  const textOf = useBlockText();
  const rows = Math.max(1, bars.length);
  return (
    <div className={hoursCss['all-day']}>
      <div className={hoursCss.gutter} style={{ gridRow: `1 / span ${rows}`, gridColumn: 1 }}>
        {t('allDay')}
      </div>
      {days.map((day, i) => (
        <div key={day} className={hoursCss.cell} style={{ gridRow: `1 / span ${rows}`, gridColumn: i + 2 }} />
      ))}
      {bars.map((bar, i) => (
        <div
          key={bar.item.id}
          className={hoursCss.holds}
          style={{
            gridRow: i + 1,
            gridColumn: `${bar.from + 2} / ${bar.to + 2}`,
          }}
        >
          <button
            type="button"
            className={`plain ${colourOf(bar)} ${blockCss.block} ${blockCss.bar} ${blockCss[barShape(bar.item)]}${bar.item.id === selected ? ` ${blockCss.selected}` : ''}`}
            data-block
            onClick={() => onOpen(bar.item)}
          >
            <span className={blockCss.t}>
              {textOf(bar.item)}
              {bar.item.place && bar.item.title && bar.item.kind !== 'whereabouts' ? ` · ${bar.item.place}` : ''}
            </span>
          </button>
        </div>
      ))}
    </div>
  );
}

/** An all-day item's shape; one that only says where someone is never looks taken. */
const barShape = (item: ItemWire): string => (item.kind === 'whereabouts' ? 'free' : shapeOf(item));
