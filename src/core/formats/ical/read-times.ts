import type ICAL from 'ical.js';
import type { Length } from '../../recurrence/index.ts';
import { fromWallLenient, inBounds, parseWall, toWall, wallText } from '../../time/index.ts';
import type { Property } from './property.ts';
import { Unreadable } from './unreadable.ts';

export function titleOf(text: string): string | null {
  const found = /^SUMMARY(?:;[^:\r\n]*)?:(.*)$/im.exec(text)?.[1]?.trim();
  return found ? found.replace(/\\([,;\\])/g, '$1').slice(0, 120) : null;
}

/** A time as a file has it. `clock` is the zone its wall time is on; `tzid` what the file calls that. */
export interface ReadTime {
  readonly wall: number;
  readonly clock: string;
  readonly tzid: string | null;
  readonly isDate: boolean;
}

export const instantOf = (t: ReadTime): number =>
  t.isDate || t.clock === 'UTC' ? t.wall : fromWallLenient(t.clock, t.wall);

export function bounded(wall: number, fact: string): number {
  if (!inBounds(wall)) throw new Unreadable('outOfBounds', fact);
  return wall;
}

/** A time as wall-clock text in an item's zone; of its own clock, the text it came as. */
export function inZone(time: ReadTime, start: ReadTime, zone: string): string {
  return wallText(time.clock === start.clock ? time.wall : toWall(zone, instantOf(time)));
}

/** A DURATION's days and exact rest; `null` for what is none or runs backwards. */
export function durationOf(text: string): Length | null {
  const m = /^\+?P(?:(\d{1,5})W)?(?:(\d{1,5})D)?(?:T(?:(\d{1,6})H)?(?:(\d{1,7})M)?(?:(\d{1,9})S)?)?$/i.exec(
    text.trim(),
  );
  if (!m || m.slice(1).every((part) => part === undefined)) return null;
  const [weeks, days, hours, minutes, seconds] = m.slice(1).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  return { days: weeks * 7 + days, ms: ((hours * 60 + minutes) * 60 + seconds) * 1000 };
}

export function stampOf(properties: readonly Property[]): number {
  for (const name of ['DTSTAMP', 'LAST-MODIFIED']) {
    const m = /^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})/.exec(properties.find((p) => p.name === name)?.value ?? '');
    const at = m && parseWall(`${m[1]}-${m[2]}-${m[3]}T${m[4]}:${m[5]}:${m[6]}`);
    if (at) return at;
  }
  return 0;
}

/** A property's values as texts, before the parser makes anything of them; a period is a pair. */
export function rawValues(property: ICAL.Property): unknown[] {
  return (property.toJSON() as unknown[]).slice(3);
}

/** FNV-1a over UTF-16 units; names an item without a UID, nothing more. */
export function hash(text: string): string {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return (h >>> 0).toString(36);
}
