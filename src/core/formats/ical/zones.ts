import ICAL from 'ical.js';
import { isZone, offsetAt, wallText } from '../../time/index.ts';

/** How a zone named in a file was understood. */
export type ZoneMatch =
  | { readonly kind: 'zone'; readonly zone: string; readonly how: 'name' | 'offsets' }
  | { readonly kind: 'unknown' };

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** Finds a zone of the time zone database in a TZID: the name itself, or its last two or three path parts. */
export function zoneByName(tzid: string): string | null {
  const name = tzid.trim();
  if (isZone(name)) return name;
  const parts = name.split('/').filter(Boolean);
  for (const n of [3, 2]) {
    const tail = parts.slice(-n).join('/');
    if (parts.length > n && tail.includes('/') && isZone(tail)) return tail;
  }
  return null;
}

/**
 * Matches a file's VTIMEZONE (RFC 5545 3.6.5) to a zone: by name, then by comparing its offsets with those of each
 * candidate through the years `around` and the two after, at every change and between. The first candidate that agrees
 * everywhere wins, so give the likeliest first.
 */
export function matchZone(
  tzid: string,
  definition: string | null,
  candidates: readonly string[],
  around: number,
): ZoneMatch {
  const byName = zoneByName(tzid);
  if (byName) return { kind: 'zone', zone: byName, how: 'name' };
  if (definition === null) return { kind: 'unknown' };
  let samples: [number, number][];
  try {
    samples = sampleOffsets(definition, around);
  } catch {
    return { kind: 'unknown' };
  }
  if (samples.length === 0) return { kind: 'unknown' };
  for (const zone of candidates)
    if (samples.every(([instant, offset]) => offsetAt(zone, instant) === offset))
      return { kind: 'zone', zone, how: 'offsets' };
  return { kind: 'unknown' };
}

function sampleOffsets(definition: string, around: number): [number, number][] {
  const component = new ICAL.Component(
    ICAL.parse(`BEGIN:VCALENDAR\r\n${definition}\r\nEND:VCALENDAR`) as never,
  ).getFirstSubcomponent('vtimezone');
  if (!component) return [];
  const zone = new ICAL.Timezone({ component });
  const offset = (instant: number) => {
    // The observance in force is looked up by local time: the offset that reproduces the instant is the one.
    for (const guess of [
      zone.utcOffset(time(instant)),
      zone.utcOffset(time(instant - DAY)),
      zone.utcOffset(time(instant + DAY)),
    ])
      if (zone.utcOffset(time(instant + guess * 1000)) === guess) return guess * 1000;
    return null;
  };
  const samples: [number, number][] = [];
  const from = around - (around % DAY);
  let last: number | null = null;
  for (let day = 0; day <= 3 * 366; day += 3) {
    const at = from + day * DAY + 12 * HOUR;
    const here = offset(at);
    if (here === null) continue;
    if (last !== null && last !== here) {
      // Between two samples lies a change: noon of each of the days pins it.
      for (const back of [1, 2]) {
        const near = offset(at - back * DAY);
        if (near !== null) samples.push([at - back * DAY, near]);
      }
    }
    last = here;
    samples.push([at, here]);
  }
  return samples;
}

function time(instant: number): ICAL.Time {
  return ICAL.Time.fromDateTimeString(wallText(instant));
}
