import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { DeskRowWire } from '@/contract/desk.ts';
import { dateText, parseInstant, toWall } from '@/core/time/index.ts';
import { usePaused } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { bodyOf, plainRequest, requestAbout } from '../items/times/times-request.ts';

/** Openings that are offered beside a row. */
const OFFERED = 4;

/** How long a row is looked at before anything is looked up for it: keys that walk past it ask for nothing. */
const SETTLES_MS = 200;

/**
 * Times that would mend a row, the best first: for the occurrence its step moves, of a length and with the people it has. Only where the row has such a
 * step, and it isn't all-day.
 */
export function useOpenings(row: DeskRowWire | undefined) {
  const { style, now } = useFrame();
  const id = row?.steps.find(({ act }) => act === 'another')?.item;
  const item = row?.items.find((one) => one.id === id);
  const zone = style.zone;
  const body =
    item && !item.allDay
      ? bodyOf({ ...plainRequest(dateText(toWall(zone, now()))), ...requestAbout(item, zone) }, zone, false)
      : null;
  const settled = usePaused(row?.key, SETTLES_MS) === row?.key;
  const query = useQuery({
    queryKey: KEYS.calendar(row?.calendar, 'openings', 'desk', JSON.stringify(body)),
    queryFn: () =>
      call('findTimes', { params: { calendar: row?.calendar ?? '' }, body: body as NonNullable<typeof body> }),
    enabled: body !== null && settled,
    staleTime: 30_000,
    retry: false,
  });
  const starts = (query.data?.runs ?? [])
    .map(({ from }) => from)
    .filter((from) => from !== item?.start && (parseInstant(from) ?? 0) > now())
    .slice(0, OFFERED);
  return { item, starts, seeking: body !== null && query.isPending, none: query.isSuccess && starts.length === 0 };
}
