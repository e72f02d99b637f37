'use client';
import { type UseQueryResult, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo } from 'react';
import { CallRefused, call } from '@/contract/call.ts';
import type { BoardHead, ItemsAnswer, ItemWire } from '@/contract/items/items.ts';
import type { BoardsAnswer, Lane } from '@/contract/lanes.ts';
import { MOST_ON_BOARD } from '@/contract/mosts.ts';
import type { Dates } from '../../common/fetched/live-items.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';

const NO_LANES: readonly Lane[] = [];
const NO_ITEMS: readonly ItemWire[] = [];

/** How long after something is looked at what lies beside it is asked for. */
const AFTER_MS = 400;

/** One calendar on a board: its head always, its items as far as one sees them. */
export interface BoardLane {
  readonly key: string;
  readonly calendar: string | null;
  /** What it is called here: one's own name for it, or its owner's. */
  readonly name: string;
  readonly handle: string;
  readonly colour: number;
  readonly head: BoardHead | undefined;
  readonly items: readonly ItemWire[];
  /** `unseen` where one sees nothing of it: never shown as empty. */
  readonly state: 'seen' | 'waiting' | 'unseen' | 'failed';
}

/** The lanes one keeps, in their order. */
export function useLanes() {
  const query = useQuery({ queryKey: KEYS.lanes, queryFn: () => call('listLanes', {}), staleTime: 30_000, retry: 1 });
  return { lanes: query.data?.lanes ?? NO_LANES, refetch: query.refetch };
}

/** What the kept lanes that are shown hold in some days, live, and the days beside those in advance. */
export function useLaneItems(lanes: readonly Lane[], dates: Dates, nearby: readonly Dates[]): BoardLane[] {
  const seen = useMemo(() => lanes.filter((lane) => lane.calendar !== null).slice(0, MOST_ON_BOARD), [lanes]);
  // Put together once per answer, so that a board that is drawn again for something else finds the same lanes.
  const combine = useCallback(
    (answers: readonly UseQueryResult<ItemsAnswer>[]) => lanes.map((lane) => laneOf(lane, answers[seen.indexOf(lane)])),
    [lanes, seen],
  );
  usePrefetched(seen.map((lane) => lane.calendar ?? '').join(' '), nearby);
  return useQueries({
    queries: seen.map((lane) => ({
      queryKey: itemsKey(lane.calendar ?? '', dates),
      queryFn: () => itemsTogether(lane.calendar ?? '', dates),
      meta: { follows: { as: 'items' as const, dates } },
      retry: false,
    })),
    combine,
  });
}

function laneOf(lane: Lane, answer: UseQueryResult<ItemsAnswer> | undefined): BoardLane {
  const gone = answer?.error instanceof CallRefused && answer.error.body.code === 'notFound';
  const { key, calendar, owner, of, colour } = lane;
  const name = lane.name ?? (of === null ? owner.name : `${owner.name}, ${of}`);
  const state = !answer || gone ? 'unseen' : answer.data ? 'seen' : answer.isError ? 'failed' : 'waiting';
  const held = state === 'seen' ? answer?.data : undefined;
  return { key, calendar, name, handle: owner.handle, colour, state, head: held?.head, items: held?.items ?? NO_ITEMS };
}

/** Asks for other days of some calendars (keys, with blanks between) once those looked at are there: going there then waits for nothing. */
export function usePrefetched(calendars: string, days: readonly Dates[]): void {
  const client = useQueryClient();
  const wanted = JSON.stringify(days);
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const dates of JSON.parse(wanted) as Dates[])
        for (const calendar of calendars.split(' ').filter(Boolean))
          void client.prefetchQuery({
            queryKey: itemsKey(calendar, dates),
            queryFn: () => itemsTogether(calendar, dates),
            meta: { follows: { as: 'items' as const, dates } },
            staleTime: 30_000,
          });
    }, AFTER_MS);
    return () => clearTimeout(timer);
  }, [calendars, wanted, client]);
}

/** Under what a board's answers are held: the first answer of one's own eyes. */
export const itemsKey = (calendar: string, { from, to, zone }: Dates) =>
  KEYS.calendar(calendar, 'items', from, to, zone, '', 1);

interface Waiting {
  readonly calendar: string;
  readonly dates: Dates;
  readonly done: (answer: ItemsAnswer) => void;
  readonly failed: (error: unknown) => void;
}
let waiting: Waiting[] = [];

/** What happens in a calendar in some days; those that are wanted at the same moment are asked for in one request. */
export function itemsTogether(calendar: string, dates: Dates): Promise<ItemsAnswer> {
  return new Promise((done, failed) => {
    waiting.push({ calendar, dates, done, failed });
    if (waiting.length === 1) setTimeout(fetchWaiting);
  });
}

function fetchWaiting(): void {
  const groups = new Map<string, Waiting[]>();
  for (const one of waiting) {
    const key = JSON.stringify(one.dates);
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  waiting = [];
  for (const group of groups.values())
    for (let i = 0; i < group.length; i += MOST_ON_BOARD) void fetchGroup(group.slice(i, i + MOST_ON_BOARD));
}

async function fetchGroup(group: readonly Waiting[]): Promise<void> {
  const [first] = group;
  if (!first) return;
  try {
    if (group.length === 1) {
      first.done(
        (await call('listItems', { params: { calendar: first.calendar }, query: first.dates })) as ItemsAnswer,
      );
      return;
    }
    const calendars = group.map((one) => one.calendar);
    const { boards } = (await call('listBoards', { body: { ...first.dates, calendars } })) as BoardsAnswer;
    const by = new Map(boards.map((b) => [b.calendar, b.answer]));
    for (const one of group) {
      const answer = by.get(one.calendar);
      if (answer) one.done(answer);
      else one.failed(new CallRefused(404, { code: 'notFound', sentence: '' }));
    }
  } catch (error) {
    for (const one of group) one.failed(error);
  }
}
