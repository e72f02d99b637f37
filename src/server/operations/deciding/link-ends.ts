import { fromWallLenient, toWall } from '@/core/time/index.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import type { Link } from '../../repositories/links.ts';

const DAY = 86_400_000;

/** On whose clock a link's days are: its own, or its calendar's. */
export const linkZone = (link: Pick<Link, 'zone'>, calendar: Pick<Calendar, 'zone'>): string =>
  link.zone ?? calendar.zone;

/** The first day of which a link shows nothing any more, on its clock: milliseconds as if UTC, at midnight. */
export const linkEnds = ({ ahead }: Pick<Link, 'ahead'>, zone: string, at: number): number =>
  Math.floor(toWall(zone, at) / DAY) * DAY + (ahead + 1) * DAY;

/** The instant from which a link shows nothing any more. */
export const linkEndsAt = (
  link: Pick<Link, 'ahead' | 'zone'>,
  calendar: Pick<Calendar, 'zone'>,
  at: number,
): number => {
  const zone = linkZone(link, calendar);
  return fromWallLenient(zone, linkEnds(link, zone, at));
};
