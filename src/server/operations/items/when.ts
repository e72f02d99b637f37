import { LIMITS } from '@/core/calendar/index.ts';
import { readRule } from '@/core/recurrence/index.ts';
import {
  dateText,
  fromWall,
  fromWallLenient,
  inBounds,
  isZone,
  parseDate,
  parseWall,
  toWall,
  wallText,
} from '@/core/time/index.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type Refusal, refuse } from '../../result.ts';

interface When {
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly zone: string;
  readonly endZone?: string | null | undefined;
  /** It may be a moment: a program's event without an end ends as it begins (RFC 5545 3.6.1). A window asks for an end. */
  readonly moment?: boolean;
}

/** A time as it is stored: epoch milliseconds, or day starts as if UTC where all day. */
export interface StoredWhen {
  readonly start: number;
  readonly end: number;
  readonly allDay: boolean;
  readonly zone: string;
  /** Where it ends, where that was said: `null` is where it begins. */
  readonly endZone?: string | null;
}

const DAY = 86_400_000;

/** Reads a time as people write it, or names the field that is wrong: an unknown zone, an end before its start, an hour
 * that the clocks leave out. */
export function readWhen(when: When): StoredWhen | Refusal {
  const wrong = (fields: Record<string, string>) => refuse('badInput', { fields });
  if (!isZone(when.zone)) return wrong({ zone: 'zone' });
  if (when.endZone && !isZone(when.endZone)) return wrong({ endZone: 'zone' });
  const read = (text: string) => (when.allDay ? parseDate(text) : parseWall(text));
  const [startWall, endWall] = [read(when.start), read(when.end)];
  if (startWall === null) return wrong({ start: 'start' });
  if (endWall === null) return wrong({ end: 'end' });
  if (!inBounds(startWall)) return wrong({ start: 'dateBounds' });
  if (!inBounds(endWall)) return wrong({ end: 'dateBounds' });
  const elsewhere = when.allDay || when.endZone === when.zone ? null : (when.endZone ?? null);
  // On two clocks an end may read earlier than its start.
  const over = (from: number, to: number) => to < from || (to === from && !(when.moment && !when.allDay));
  if (elsewhere === null && over(startWall, endWall)) return wrong({ end: 'endBeforeStart' });
  if (endWall - startWall > LIMITS.days * DAY) return wrong({ end: 'tooManyDays' });
  if (when.allDay) return { start: startWall, end: endWall, allDay: true, zone: when.zone, endZone: null };
  const start = fromWall(when.zone, startWall);
  const end = fromWall(elsewhere ?? when.zone, endWall);
  if (start === null) return wrong({ start: 'clockGap' });
  if (end === null) return wrong({ end: 'clockGap' });
  if (over(start, end)) return wrong({ end: 'endBeforeStart' });
  const said = when.endZone === undefined ? {} : { endZone: elsewhere };
  return { start, end, allDay: false, zone: when.zone, ...said };
}

/** Reads a rule for a time (`zone` is `null` where all day), or says at the field why it can't be kept. `null` stays no rule. */
export function readRepeat(
  rule: string | null,
  startWall: number,
  zone: string | null,
): { rule: string | null } | Refusal {
  if (rule === null || rule.trim() === '') return { rule: null };
  const read = readRule(rule, startWall, zone);
  return read.kind === 'rule' ? { rule: read.text } : refuse('badInput', { fields: { repeat: read.code } });
}

type Dated = Pick<StoredItem, 'start' | 'end' | 'allDay' | 'zone' | 'wall' | 'rule' | 'left'>;

/**
 * What days picked by hand make of a time, each at its hour unless it has one of its own: with a rule they are added to it; without one they are all there is, from the earliest on, and a
 * start that isn't among them is left out. Answers what is stored.
 */
export function pickedDays(
  item: Dated,
  days: readonly string[],
): Pick<StoredItem, 'start' | 'end' | 'wall' | 'added' | 'left'> | Refusal {
  const { start, end, wall, left } = item;
  if (days.length === 0) return { start, end, wall, added: [], left };
  const startWall = wall ?? (item.allDay ? start : toWall(item.zone, start));
  const first = Math.floor(startWall / DAY) * DAY;
  const found = new Set<number>();
  for (const day of days) {
    const ownHour = day.includes('T') && !item.allDay;
    const on = ownHour ? parseWall(day) : parseDate(day.slice(0, 10));
    if (on === null || !inBounds(on)) return refuse('badInput', { fields: { dates: 'dateBounds' } });
    found.add(ownHour ? on : on + startWall - first);
  }
  const walls = [...found].sort((a, b) => a - b);
  const text = (ms: number) => (item.allDay ? dateText(ms) : wallText(ms));
  if (item.rule !== null) {
    if ((walls[0] as number) < startWall) return refuse('badInput', { fields: { dates: 'dayBeforeStart' } });
    const added = walls.filter((w) => w !== startWall).map(text);
    return { start, end, wall, added, left: left.filter((one) => !added.includes(one)) };
  }
  const earliest = walls[0] as number;
  if (earliest >= startWall) {
    const added = walls.filter((w) => w !== startWall).map(text);
    return { start, end, wall, added, left: earliest === startWall ? [] : [text(startWall)] };
  }
  const at = item.allDay ? earliest : fromWallLenient(item.zone, earliest);
  return { start: at, end: at + (end - start), wall: null, added: walls.slice(1).map(text), left: [] };
}
