'use client';
import { memo, useMemo } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { DAY } from '../../common/times.ts';
import { Agenda } from '../views/agenda.tsx';
import { Hours } from '../views/hours.tsx';
import { MonthSheet, monthStart, otherMonth } from '../views/month-sheet.tsx';
import type { BoardActs, Walked } from '../views/moving.ts';
import { SideBySide } from '../views/side-by-side.tsx';
import type { BoardLane } from './board-lanes.ts';
import { weekOf } from './ribbon.tsx';

export const VIEWS = ['day', 'week', 'five', 'month', 'list', 'side'] as const;
export type View = (typeof VIEWS)[number];

/** Lanes that stand within each day at most; more turn the board into side by side. */
const MOST_IN_DAY = { day: 8, week: 4, five: 4 } as const;

/** What a view of the calendar shows: from which day, how many days, and where the ones before and after it begin. */
export function spanOf(view: View, day: number, weekFirst: number) {
  if (view === 'month') {
    const { first, month } = monthStart(day, weekFirst);
    return { first, count: 42, month, before: otherMonth(day, -1), after: otherMonth(day, 1) };
  }
  const week = weekOf(null, day, weekFirst);
  if (view === 'day') return { first: day, count: 1, month: day, before: day - DAY, after: day + DAY };
  if (view === 'list') return { first: day, count: 28, month: day, before: day - 28 * DAY, after: day + 28 * DAY };
  // Five days begin with the first that is no rest day of the week.
  const first = view === 'five' ? fiveFrom(week) : week;
  return { first, count: view === 'five' ? 5 : 7, month: day, before: week - 7 * DAY, after: week + 7 * DAY };
}

function fiveFrom(week: number): number {
  for (let d = 0; d < 7; d++) if (new Date(week + d * DAY).getUTCDay() === 1) return week + d * DAY;
  return week;
}

/** The view of the calendar that was chosen, with as many lanes as it holds. Drawn again only where what it shows has changed. */
export const BoardView = memo(function BoardView(props: {
  view: View;
  lanes: readonly BoardLane[];
  /** Whether several lie over each other instead of beside. */
  over: boolean;
  first: number;
  count: number;
  month: number;
  selected: string | null;
  /** A time that is only walked over. */
  walked: Walked | null;
  owner: string;
  acts: BoardActs;
}) {
  const { view, lanes, over, first, count, month, selected, walked, owner, acts } = props;
  const { onOpen, onDay } = acts;
  const t = useTranslations('lanes');
  const one = over && lanes.length > 1 && view !== 'side' && view !== 'month' && view !== 'list';
  const layers = useMemo(() => (one ? overEachOther(lanes) : null), [one, lanes]);
  if (view === 'month') return <MonthSheet {...{ lanes, first, month, selected, onOpen, onDay }} />;
  if (view === 'list') return <Agenda {...{ lanes, first, count, selected, onOpen }} />;
  if (view === 'side' || (!over && lanes.length > MOST_IN_DAY[view]))
    return <SideBySide {...{ lanes, first, count, selected, walked, ...acts }} />;
  const unseen = layers ? lanes.filter((lane) => lane.state === 'unseen') : [];
  return (
    <>
      {unseen.length > 0 && (
        <p className={`${boardsCss.notice} soft`} role="status">
          {unseen.map((lane) => t('unseen', { name: lane.name })).join(' ')}
        </p>
      )}
      <Hours key={count} {...{ first, count, selected, walked, owner, ...acts }} {...(layers ?? { lanes })} />
    </>
  );
});

/** Several calendars as one lane, in which everything keeps its calendar's colour. */
function overEachOther(lanes: readonly BoardLane[]) {
  const [main] = lanes;
  const laneOf = new Map(lanes.flatMap((lane) => lane.items.map((i) => [i.id, lane])));
  return {
    lanes: main ? [{ ...main, items: lanes.flatMap((lane) => lane.items) }] : lanes,
    colourOf: (item: ItemWire) => `who-${laneOf.get(item.id)?.colour ?? 0}`,
    whoseOf: (item: ItemWire) => laneOf.get(item.id)?.name ?? null,
  };
}
