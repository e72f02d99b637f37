'use client';
import type { BoardHead } from '@/contract/items/items.ts';
import type { WorkHours as Hours } from '@/contract/people/hours.ts';
import { fromWallLenient, toWall } from '@/core/time/index.ts';
import { DAY, MINUTE } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import hoursCss from './hours.module.css';

/** Shades, on one day, what lies outside the hours that a lane's owner works; they keep those on their own clock. */
export function WorkHours({ lane, day, zone }: { lane: BoardLane | undefined; day: number; zone: string }) {
  const closed = lane?.head ? closedOn(lane.head.hours, lane.head.hoursZone, day, zone) : [];
  return closed.map(([from, to]) => (
    <div
      key={from}
      className={hoursCss.work}
      style={{ top: `calc(${from / 60} * var(--hour))`, height: `calc(${(to - from) / 60} * var(--hour))` }}
    />
  ));
}

/** The time of some days outside a calendar's hours, as spans of milliseconds on the viewer's clock. */
export const closedIn = (head: BoardHead | undefined, days: readonly number[], zone: string) =>
  days.flatMap((day) =>
    closedOn(head?.hours ?? null, head?.hoursZone ?? zone, day, zone).map(
      ([from, to]) => [day + from * MINUTE, day + to * MINUTE] as const,
    ),
  );

/** The minutes of a day on the viewer's clock that lie outside somebody's hours; none where they don't say. */
export function closedOn(hours: Hours, theirs: string, day: number, zone: string): [from: number, to: number][] {
  if (hours === null) return [];
  const open = [-1, 0, 1]
    .flatMap((d) => {
      const date = day + d * DAY;
      const weekday = (Math.floor(date / DAY) + 3) % 7;
      return (hours[weekday] ?? []).map(([from, to]) => {
        const wall = (text: string) => toWall(zone, fromWallLenient(theirs, date + minutes(text) * MINUTE));
        return [(wall(from) - day) / MINUTE, (wall(to) - day) / MINUTE] as const;
      });
    })
    .filter(([from, to]) => to > 0 && from < 24 * 60)
    .sort((a, b) => a[0] - b[0]);
  const closed: [number, number][] = [];
  let until = 0;
  for (const [from, to] of open) {
    if (from > until) closed.push([until, from]);
    until = Math.max(until, to);
  }
  if (until < 24 * 60) closed.push([until, 24 * 60]);
  return closed;
}

const minutes = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));
