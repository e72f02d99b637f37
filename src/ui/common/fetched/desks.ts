'use client';
import { useQueries } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { DeskAnswer, DeskRowWire } from '@/contract/desk.ts';
import { compareRows } from '@/core/desk/index.ts';
import { parseInstant } from '@/core/time/index.ts';
import { KEYS } from './query-keys.ts';

const MINUTE = 60_000;

/** The rows of some people together, in their order, and what else is known of each. */
export interface Desks {
  readonly rows: readonly DeskRowWire[];
  readonly principals: readonly DeskAnswer['principals'][number][];
  readonly later: number;
  readonly cut: boolean;
  readonly pending: boolean;
  readonly failed: Error | null;
  /** How many rows each has, by handle, as far as they have come. */
  readonly counts: ReadonlyMap<string, number>;
  readonly again: () => void;
}

const due = (row: DeskRowWire) => ({ ...row, due: row.due === null ? null : parseInstant(row.due) });

/** Two Desks are fetched at a time: whoever acts for forty waits for their board no longer than others. */
const lanes: Promise<unknown>[] = [Promise.resolve(), Promise.resolve()];
let taken = 0;
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const lane = taken++ % lanes.length;
  const next = (lanes[lane] ?? Promise.resolve()).then(work);
  lanes[lane] = next.catch(() => {});
  return next;
}

/**
 * What needs deciding for some people, in the order of the band. Each is asked for by itself, so that a change asks for theirs alone. `watched`: it
 * is looked at, and asked for each minute, since rows come nearer and go as time goes on.
 */
export function useDesks(handles: readonly string[], watched = false): Desks {
  const queries = useQueries({
    queries: handles.map((handle) => ({
      queryKey: KEYS.desk(handle),
      queryFn: () => inTurn(() => call('readDesk', { query: { for: handle } })),
      staleTime: 30_000,
      refetchInterval: watched ? MINUTE : (false as const),
      retry: false,
    })),
  });
  const answers = queries.flatMap(({ data }) => data ?? []);
  const rows = answers
    .flatMap((answer, band) => answer.rows.map((row, i) => ({ row, of: due(row), band, i })))
    .sort((a, b) => compareRows(a.of, b.of) || a.band - b.band || a.i - b.i)
    .map(({ row }) => row);
  return {
    rows,
    principals: answers.flatMap(({ principals }) => principals),
    later: answers.reduce((sum, { later }) => sum + later, 0),
    cut: answers.some(({ cut }) => cut),
    pending: queries.some(({ isPending }) => isPending),
    failed: queries.find(({ error, data }) => error && !data)?.error ?? null,
    counts: new Map(answers.flatMap(({ principals }) => principals.map((p) => [p.handle, p.rows] as const))),
    again: () => {
      for (const { refetch } of queries) void refetch();
    },
  };
}
