import { LIMITS } from '@/core/calendar/index.ts';
import { readRule } from '@/core/recurrence/index.ts';
import { fromWall, inBounds, isZone, parseDate, parseWall } from '@/core/time/index.ts';
import { type Refusal, refuse } from '../../result.ts';

interface When {
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly zone: string;
}

/** A time as it is stored: epoch milliseconds, or day starts as if UTC where all day. */
export interface StoredWhen {
  readonly start: number;
  readonly end: number;
  readonly allDay: boolean;
  readonly zone: string;
}

const DAY = 86_400_000;

/** Reads a time as people write it, or names the field that is wrong: an unknown zone, an end before its start, an hour
 * that the clocks leave out. */
export function readWhen(when: When): StoredWhen | Refusal {
  const wrong = (fields: Record<string, string>) => refuse('badInput', { fields });
  if (!isZone(when.zone)) return wrong({ zone: 'zone' });
  const read = (text: string) => (when.allDay ? parseDate(text) : parseWall(text));
  const [startWall, endWall] = [read(when.start), read(when.end)];
  if (startWall === null) return wrong({ start: 'start' });
  if (endWall === null) return wrong({ end: 'end' });
  if (!inBounds(startWall)) return wrong({ start: 'dateBounds' });
  if (!inBounds(endWall)) return wrong({ end: 'dateBounds' });
  if (endWall <= startWall) return wrong({ end: 'endBeforeStart' });
  if (endWall - startWall > LIMITS.days * DAY) return wrong({ end: 'tooManyDays' });
  if (when.allDay) return { start: startWall, end: endWall, allDay: true, zone: when.zone };
  const start = fromWall(when.zone, startWall);
  const end = fromWall(when.zone, endWall);
  if (start === null) return wrong({ start: 'clockGap' });
  if (end === null) return wrong({ end: 'clockGap' });
  return { start, end, allDay: false, zone: when.zone };
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
