import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useRef } from 'react';

/** A long list of which only what is seen is drawn. The arrows go from row to row, past what is none. */
export function useRows(props: {
  count: number;
  height: (index: number) => number;
  keyOf: (index: number) => string | number;
  /** Whether a row can be gone to. */
  isRow?: (index: number) => boolean;
  more: boolean;
  /** The end of what is there was reached. */
  onEnd: () => void;
}) {
  const { count, height, keyOf, isRow = () => true, more, onEnd } = props;
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => box.current,
    estimateSize: height,
    overscan: 12,
    getItemKey: keyOf,
  });
  const shown = virtual.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && last >= count - 5) onEnd();
  });
  const move = (event: KeyboardEvent, index: number) => {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    let next = index + by;
    while (next >= 0 && next < count && !isRow(next)) next += by;
    if (next < 0 || next >= count) return;
    virtual.scrollToIndex(next);
    requestAnimationFrame(() =>
      box.current?.querySelector<HTMLButtonElement>(`[data-index="${next}"] button[data-title]`)?.focus(),
    );
  };
  return { box, virtual, shown, move };
}
