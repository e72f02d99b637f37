'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { toWall } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { said } from '../../common/fetched/refusal.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { later } from '../../common/later.tsx';
import { useStable } from '../../common/stable.ts';
import { DAY, MINUTE, wallsOf } from '../../common/times.ts';
import { WhereNow } from '../../common/where-now.tsx';
import { copyOf } from '../form/item-values.ts';
import { nextGap, takenBy } from '../views/gaps.ts';
import { layOut } from '../views/layout.ts';
import { closedIn } from '../views/work-hours.tsx';
import boardCss from './board.module.css';
import { BoardBar } from './board-bar.tsx';
import { useBoardKeys } from './board-keys.ts';
import type { BoardLane } from './board-lanes.ts';
import { type BoardModel, BoardProvider, useBoard, useBoardModel } from './board-model.ts';
import { BoardNotices } from './board-notices.tsx';
import { BoardPicks } from './board-picks.tsx';
import { BoardSidePanel } from './board-side-panel.tsx';
import { BoardView } from './board-view.tsx';
import { GoesIntoBar } from './goes-into.tsx';
import { Legend } from './legend.tsx';
import { movePicked, PicksProvider } from './picks.tsx';
import { Ribbon } from './ribbon.tsx';
import { useSwipe } from './swipe.ts';

const FirstSteps = later(() => import('./first-steps.tsx').then((m) => m.FirstSteps));
const SideOffer = later(() => import('./side-offer.tsx').then((m) => m.SideOffer));

/** A calendar's week (or day, on a narrow screen), live, with the panel in which its items are read and changed. */
export function Board({ calendar, name }: { calendar: string; name: string }) {
  const board = useBoardModel(calendar, name);
  const { head, picks } = board;
  useKeysOf(board);
  const { narrow, span, go } = board.days;
  const swipe = useSwipe(narrow ? { back: () => go(span.before), on: () => go(span.after) } : null);
  return (
    <BoardProvider value={board}>
      <PicksProvider value={picks}>
        <div className={`${boardsCss.board}${head ? ` who-${board.lanes[0]?.colour ?? head.owner.colour % 6}` : ''}`}>
          <BoardBar />
          <div className={boardsCss['board-main']} {...swipe}>
            <BoardNotices />
            {head && <Shown head={head} />}
          </div>
          <BoardSidePanel />
        </div>
      </PicksProvider>
    </BoardProvider>
  );
}

/** The calendar itself, between what is said over it and what its shapes mean. */
function Shown({ head }: { head: BoardHead }) {
  const { calendar, days, loaded, lanes, state, dispatch, sought, writes } = useBoard();
  const { query, data, showMore } = loaded;
  const { view, over, first, count, span, narrow } = days;
  const t = useTranslations('board');
  const { style } = useFrame();
  const acts = useActsOn();
  if (!data) return null;
  const nothing = lanes.every((lane) => lane.items.length === 0) && !query.isFetching;
  return (
    <>
      {days.as === undefined && (
        <Ribbon
          calendar={calendar}
          day={days.day}
          week={first}
          oneWeek={narrow && view === 'day'}
          style={style}
          sought={sought}
          onGo={(day) => days.go(day)}
        />
      )}
      {data.cutShort && <p className={boardsCss.notice}>{t('cutShort')}</p>}
      {data.more !== null && (
        <p className={boardsCss.notice} role="status">
          {t('more2')}
          <Button className={boardsCss.push} variant="text" onClick={() => showMore()}>
            {t('moreShow')}
          </Button>
        </p>
      )}
      {nothing && head.own && head.calendar.main && !head.as && <FirstSteps head={head} />}
      {nothing && (
        <p className={`${boardsCss.notice} soft`} role="status">
          {t(head.may.add && !narrow ? 'emptyNew' : 'empty', { view })}
        </p>
      )}
      <BoardPicks head={head} />
      {state.goesInto && (
        <GoesIntoBar goes={state.goesInto} {...writes} onDone={() => dispatch({ act: 'goesInto', goes: null })} />
      )}
      {view === 'side' && lanes.length === 1 && <SideOffer head={head} today={days.today} />}
      <BoardView
        {...{ view, lanes, over, first, count, acts }}
        month={span.month}
        selected={state.selected}
        walked={state.walked}
        owner={head.owner.name}
      />
      <Foot head={head} />
    </>
  );
}

/** Under the calendar: where whoever it is of is now, and what its shapes mean. */
function Foot({ head }: { head: BoardHead }) {
  const { days, lanes } = useBoard();
  const t = useTranslations('keys');
  const { principal, help } = useFrame();
  const { narrow, view, looking } = days;
  const where = principal && !looking && head.calendar.main && !head.as ? principal.handle : null;
  const legend = !narrow && view !== 'list' && view !== 'month';
  const about = head.calendar.main ? '' : head.calendar.description;
  if (where === null && about === '' && !legend) return null;
  return (
    <footer className={boardCss.foot}>
      <div className={boardCss.where} title={about || undefined}>
        {where === null ? about : <WhereNow handle={where} />}
      </div>
      {legend && <Legend items={lanes.flatMap((lane) => lane.items)} />}
      {!narrow && help && (
        <button type="button" className={`plain ${boardCss.help}`} onClick={help}>
          {t('open')}
        </button>
      )}
    </footer>
  );
}

/** What the pointer and the keys do on the calendar: the same functions for as long as it stands. */
function useActsOn() {
  const { days, dispatch, picks, homeOf, writes, wroteSeveral, begin } = useBoard();
  const t = useTranslations();
  const { style } = useFrame();
  const onOpen = useStable((item: ItemWire) => dispatch({ act: 'open', item: item.id }));
  const onDraw = useStable((lane: BoardLane, start: number, end: number) => {
    if (lane.head) begin(lane.head, start, end);
  });
  const onMove = useStable((item: ItemWire, start: number, end: number) => {
    const was = wallsOf(item, style.zone);
    const together = movePicked(picks, writes.several, item, start - was.start, end - was.end);
    if (!together) return writes.move(item, start, end);
    return together
      .then((answer) => wroteSeveral(answer, t('picked.done.shift', { count: answer.written })))
      .catch((error: unknown) => dispatch({ act: 'notice', sentence: said(error, t('common.unreachable')).sentence }));
  });
  const onMoveInto = useStable((item: ItemWire, into: BoardLane, start: number, end: number) => {
    const home = homeOf(item);
    if (!home) return;
    const several = (picks.items.has(item.id) ? [...picks.items.values()] : []).flatMap((one) => {
      const from = homeOf(one)?.head;
      return from ? [{ item: one, from }] : [];
    });
    dispatch({ act: 'goesInto', goes: { item, from: home.head, into, start, end, several } });
  });
  const onCopy = useStable((item: ItemWire, { head }: BoardLane, start: number, end: number) => {
    if (head?.may.add && item.title !== undefined) begin(head, start, end, copyOf(item, start, end, null));
  });
  const onDay = useStable((day: number) => days.go(day, 'day'));
  return useMemo(
    () => ({ onOpen, onDraw, onMove, onMoveInto, onCopy, onDay }),
    [onOpen, onDraw, onMove, onMoveInto, onCopy, onDay],
  );
}

/** The single keys of a board: N something new, F in the next free gap, C to the next clash, X picks; Escape leaves what stands beside. */
function useKeysOf(board: BoardModel) {
  const { days, head, items, selected, state, dispatch, picks, writes, startNew, startNewSoon } = board;
  const { first, count } = days;
  const t = useTranslations('board');
  const { style, now, toast } = useFrame();
  const { zone } = style;
  const draft = state.sidePanel?.kind === 'form' ? state.sidePanel.draft : null;
  // The next clash of the days that are shown, after the one that is selected; from the last on to the first again.
  const nextClash = () => {
    const clashes = layOut(items, first, count, zone).days.flatMap((list) => list.filter((p) => p.clash));
    const at = clashes.findIndex((p) => p.item.id === state.selected);
    const next = clashes[(at + 1) % Math.max(1, clashes.length)];
    if (next) dispatch({ act: 'point', item: next.item.id });
    else toast({ text: t('noClash') });
  };
  // Something new in the next gap of the working hours: after the one that is being made, after what is selected, or from now on.
  const nextFree = () => {
    const after = draft?.kind === 'new' ? draft.end : selected ? wallsOf(selected, zone).end : toWall(zone, now());
    const shown = Array.from({ length: count }, (_, i) => first + i * DAY);
    const taken = [...takenBy(items, zone), ...closedIn(head, shown, zone)];
    const start = nextGap(taken, Math.max(first, after), first + count * DAY, 30 * MINUTE);
    if (start === null) toast({ text: t('noGap') });
    else startNew(start, start + 30 * MINUTE);
  };
  useBoardKeys(
    {
      n: startNewSoon,
      c: nextClash,
      ...(head?.may.add ? { f: nextFree } : {}),
      ...(selected ? { x: () => picks.toggle(selected) } : {}),
    },
    draft
      ? null
      : () => {
          if (picks.items.size + picks.days.length > 0) return picks.clear();
          dispatch({ act: 'settle', item: null });
          dispatch({ act: 'goesInto', goes: null });
        },
    writes.step,
  );
}
