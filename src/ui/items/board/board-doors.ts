'use client';
import { useSearchParams } from 'next/navigation';
import { useEffect, useRef } from 'react';
import { CallRefused, call } from '@/contract/call.ts';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { takeDraft } from '../../common/fetched/saved-drafts.ts';
import { dayOf } from '../../common/times.ts';
import type { FormDraft } from '../form/item-values.ts';

/**
 * What an address asks of a board beside its days: something new, the away notice, a file to import, an item opened, or a draft continued. Each is done once and then removed
 * from the address. `onKept` gets the draft and the item it is about, or `'gone'` where that no longer exists.
 */
export function useBoardDoors(
  head: BoardHead | undefined,
  items: readonly ItemWire[] | undefined,
  zone: string,
  on: {
    onNew: () => void;
    onAway: () => void;
    onPanel: (panel: 'import') => void;
    onItem: (id: string) => void;
    /** What the address leads to isn't there any more, or isn't the viewer's to see. */
    onItemGone: () => void;
    onSavedDraft: (savedDraft: FormDraft, item: ItemWire | null | 'gone', head: BoardHead) => void;
  },
) {
  const search = useSearchParams();
  // What was done already, while it still stands in the address.
  const done = useRef('');
  useEffect(() => {
    const door = (['new', 'away', 'panel', 'item', 'kept'] as const).find((name) => search.get(name) !== null);
    if (!door) done.current = '';
    if (!door || !head || (door === 'item' && !items)) return;
    const value = search.get(door) ?? '';
    if (done.current === `${door} ${value}`) return;
    done.current = `${door} ${value}`;
    const next = new URLSearchParams(search);
    next.delete(door);
    window.history.replaceState(null, '', `?${next}`);
    if (door === 'new') {
      if (value === '1') on.onNew();
    } else if (door === 'away') on.onAway();
    else if (door === 'panel') {
      if (value === 'import' && head.may.import) on.onPanel(value);
    } else if (door === 'item') {
      if (items?.some((item) => item.id === value)) on.onItem(value);
      else
        call('readItem', { params: { item: value } })
          .then((item) => {
            // Moved since the address was made: one goes to where it is.
            const week = dayOf(item, zone);
            if (search.get('week') === week) return on.onItemGone();
            window.history.replaceState(
              null,
              '',
              `?${new URLSearchParams({ ...Object.fromEntries(next), week, item: value })}`,
            );
          })
          // Only what was answered is known to be gone: without a connection nothing is said of it.
          .catch((error) => error instanceof CallRefused && on.onItemGone());
    } else {
      const savedDraft = takeDraft(value)?.data as FormDraft | undefined;
      if (!savedDraft) return;
      const shown = items?.find((item) => item.id === savedDraft.item);
      if (savedDraft.item === null || shown) on.onSavedDraft(savedDraft, shown ?? null, head);
      else
        call('readItem', { params: { item: savedDraft.item } })
          .then((item) => on.onSavedDraft(savedDraft, item, head))
          .catch(() => on.onSavedDraft(savedDraft, 'gone', head));
    }
  });
}
