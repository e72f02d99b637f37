import { fromWallLenient, toWall } from '@/core/time/index.ts';
import type { Calendar } from '../../../repositories/calendars.ts';
import type { Link } from '../../../repositories/links.ts';

const DAY = 86_400_000;

/** On whose clock a link's days are: its own, or its calendar's. */
export const linkZone = (link: Pick<Link, 'zone'>, calendar: Pick<Calendar, 'zone'>): string =>
  link.zone ?? calendar.zone;

/** The first day of which a link shows nothing any more, on its clock: milliseconds as if UTC, at midnight. */
export const linkEnds = ({ ahead }: Pick<Link, 'ahead'>, zone: string, at: number): number =>
  Math.floor(toWall(zone, at) / DAY) * DAY + (ahead + 1) * DAY;

/** What a link shows no more: what has hours from an instant on, what is all day from a first day on (milliseconds as if UTC). */
export interface LinkEnds {
  readonly hours: number;
  readonly allDay: number;
}

export function linkEndsAt(link: Pick<Link, 'ahead' | 'zone'>, calendar: Pick<Calendar, 'zone'>, at: number): LinkEnds {
  const zone = linkZone(link, calendar);
  const allDay = linkEnds(link, zone, at);
  return { hours: fromWallLenient(zone, allDay), allDay };
}
