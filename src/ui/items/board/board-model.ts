'use client';
import { useRouter } from 'next/navigation';
import { createContext, useCallback, useContext, useEffect, useMemo, useReducer } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { Lane } from '@/contract/lanes.ts';
import { toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { useStable } from '../../common/stable.ts';
import { DAY, MINUTE } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { type FormDraft, isForward } from '../form/item-values.ts';
import { useSought } from '../panels/sought.ts';
import type { Walked } from '../views/moving.ts';
import { useBoardDays } from './board-days.ts';
import { useBoardDoors } from './board-doors.ts';
import { useBoardItems } from './board-items.ts';
import { type BoardLane, useLaneItems, useLanes, usePrefetched } from './board-lanes.ts';
import { boardAfter, EMPTY_BOARD, type FormPanel } from './board-state.ts';
import { type Home, useItemWrites } from './item-writes.ts';
import { usePicking } from './picks.tsx';

const NO_LANES: readonly Lane[] = [];
const NO_ITEMS: readonly ItemWire[] = [];

/** Everything about a board: the days it shows, its calendars (including moves in progress), what stands beside them, and the acts. */
export function useBoardModel(calendar: string, name: string) {
  const t = useTranslations();
  const { frame, style, now } = useFrame();
  const router = useRouter();
  const days = useBoardDays();
  const { first, count, as, looking } = days;
  const [state, dispatch] = useReducer(boardAfter, EMPTY_BOARD);
  const [sought, seek] = useSought();
  const notify = useCallback((sentence: string) => dispatch({ act: 'notice', sentence }), []);

  const loaded = useBoardItems(calendar, days.dates, as, notify);
  const { data, head, lastKnown, gone } = loaded;
  const saved = useLanes();
  const otherLanes = useMemo(() => {
    if (as !== undefined) return NO_LANES;
    const all = saved.lanes.filter((lane) => lane.calendar !== calendar);
    const shown = all.filter((lane) => lane.shown);
    // Side by side there is something to compare from the beginning.
    return days.view === 'side' && shown.length === 0 ? all : shown;
  }, [saved.lanes, as, calendar, days.view]);
  const others = useLaneItems(otherLanes, days.dates, as === undefined ? days.around : []);
  usePrefetched(calendar, as === undefined ? days.around : []);

  const homeOf = useCallback(
    (item: ItemWire): Home | undefined => {
      const other = others.find((lane) => lane.items.some((one) => one.id === item.id));
      if (other?.head && other.calendar) return { calendar: other.calendar, head: other.head };
      return head && { calendar, head };
    },
    [others, calendar, head],
  );
  const writes = useItemWrites(homeOf, notify, (was, now) => dispatch({ act: 'replaced', was, now }));

  const own = saved.lanes.find((lane) => lane.calendar === calendar);
  const lanes = useMemo((): readonly BoardLane[] => {
    const main: BoardLane = {
      key: 'main',
      calendar,
      name: own?.name ?? head?.owner.name ?? name,
      handle: head?.owner.handle ?? '',
      // One's own colour for it, wherever it is looked at.
      colour: own?.colour ?? (head?.owner.colour ?? 0) % 6,
      head,
      items: data?.items ?? NO_ITEMS,
      state: 'seen',
    };
    return [main, ...others].map((lane) => {
      const items = asTheyWouldBe(lane.items, writes.moving, state.walked);
      return items === lane.items ? lane : { ...lane, items };
    });
  }, [calendar, own?.name, own?.colour, name, head, data?.items, others, writes.moving, state.walked]);
  const items = lanes[0]?.items ?? NO_ITEMS;
  const shown = useMemo(() => lanes.flatMap((lane) => lane.items), [lanes]);
  const picks = usePicking(shown);
  const selected = shown.find((item) => item.id === state.selected) ?? null;

  const openForm = useStable((form: Omit<FormPanel, 'kind' | 'id'>) =>
    dispatch({ act: 'form', form: { ...form, id: Date.now() } }),
  );
  /** The form of something new in a calendar, from a start that is given or from where it is likeliest wanted. */
  const begin = useStable((head: BoardHead, start?: number, end?: number, savedDraft: FormDraft | null = null) => {
    const from = start ?? firstGuess(toWall(style.zone, now()), first, count);
    openForm({ draft: { kind: 'new', start: from, end: end ?? from + 60 * MINUTE }, head, savedDraft });
  });
  // A new item is for the person the band names. Only drawing on this board, or asking for something new on it, makes it for the board's
  // owner.
  const startNew = useStable((start?: number, end?: number) => {
    const base = head ?? lastKnown();
    if (looking && !base?.may.add) router.push(`/for/${frame.me.handle}/calendar?new=1`);
    if (base?.may.add) begin(base, start, end);
  });
  /** The same at once, before it is known whether the viewer may add: then the form opens as soon as it is, in this calendar only. */
  const startNewSoon = useStable(() => ((head ?? lastKnown()) ? startNew() : dispatch({ act: 'newIn', calendar })));
  useEffect(() => {
    if (state.newIn === null || (state.newIn === calendar && !head)) return;
    dispatch({ act: 'newIn', calendar: null });
    if (state.newIn === calendar) startNew();
  }, [state.newIn, calendar, head, startNew]);
  useBoardDoors(head, data?.items, style.zone, {
    onNew: startNew,
    onAway: () => dispatch({ act: 'panel', panel: 'absence' }),
    onPanel: (panel) => dispatch({ act: 'panel', panel }),
    onItem: (item) => dispatch({ act: 'open', item }),
    onItemGone: () => notify(t('board.itemGone')),
    onSavedDraft: (savedDraft, item, head) => {
      if (item === 'gone') notify(t('form.keptGone'));
      if (item !== null && item !== 'gone') openForm({ draft: { kind: 'change', item }, head, savedDraft });
      else begin(head, savedDraft.start || undefined, savedDraft.end || undefined, savedDraft);
    },
  });

  const wroteSeveral = (answer: SeveralAnswer, text: string) =>
    writes.wroteMany(answer, text, [...new Set(lanes.flatMap((lane) => lane.calendar ?? []))]);
  const form = state.sidePanel?.kind === 'form' ? state.sidePanel : null;
  return {
    calendar,
    name: head?.owner.name ?? name,
    owner: firstName(head?.owner.name ?? name),
    days,
    loaded,
    head,
    savedLanes: saved.lanes,
    lanes,
    items,
    state,
    dispatch,
    selected,
    picks,
    sought,
    seek,
    homeOf,
    writes,
    wroteSeveral,
    openForm,
    begin,
    startNew,
    startNewSoon,
    /** Whether what is typed in the form can't be saved any more. */
    formGone: form !== null && (gone || (head !== undefined && !mayStillSave(form, head))),
  };
}

export type BoardModel = ReturnType<typeof useBoardModel>;

const BoardContext = createContext<BoardModel | null>(null);
export const BoardProvider = BoardContext.Provider;

/** The board one stands on. */
export function useBoard(): BoardModel {
  const board = useContext(BoardContext);
  if (!board) throw new Error('outside a board');
  return board;
}

/** The items of a calendar with moves in progress and previewed times applied. The same list where there are none. */
function asTheyWouldBe(
  items: readonly ItemWire[],
  moving: ReadonlyMap<string, { readonly start: string; readonly end: string }>,
  walked: Walked | null,
): readonly ItemWire[] {
  if (moving.size === 0 && !walked?.moves) return items;
  return items.flatMap((item) => {
    const moved = moving.get(item.id);
    if (moved) return [{ ...item, ...moved }];
    const would = walked?.moves?.find((one) => one.item === item.id);
    if (!would) return [item];
    const { start, end } = would;
    // Beside where it stands it is a block of its own, which leads nowhere.
    return walked?.both
      ? [item, { ...item, id: `${item.id} there`, title: `→ ${item.title ?? ''}`, start, end }]
      : [{ ...item, start, end }];
  });
}

function mayStillSave({ draft, head: begun }: FormPanel, head: BoardHead): boolean {
  if (isForward(draft, begun)) return head.rights.suggest;
  return draft.kind === 'change' ? head.rights.change !== 'none' : head.may.add;
}

/** Where a new item is likeliest wanted: the next half hour of the working day, or nine in the morning. */
function firstGuess(nowWall: number, first: number, count: number): number {
  const nine = 9 * 60 * MINUTE;
  if (nowWall < first || nowWall >= first + count * DAY) return first + nine;
  const today = Math.floor(nowWall / DAY) * DAY;
  const soon = Math.ceil(nowWall / (30 * MINUTE)) * 30 * MINUTE;
  if (soon < today + nine) return today + nine;
  return soon <= today + 18 * 60 * MINUTE ? soon : today + DAY + nine;
}
