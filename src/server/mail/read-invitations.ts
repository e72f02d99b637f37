import { type FileZone, type ReadMessage, readMessage } from '@/core/formats/index.ts';
import { nameZone } from '../zone-name.ts';

/** Items in all calendar parts of one mail, and time zones one part may define; what goes beyond is left out, and said. */
export const MOST_ITEMS_IN_MAIL = 50;
const MOST_ZONES_IN_PART = 20;
const MOST_LINES_IN_ITEM = 3000;
/** Meetings one mail may speak of, each with as many of its occurrences as the items allow. */
export const MOST_MEETINGS_IN_MAIL = 10;
/** Clocks on which a mail's floating times are read: whoever is on another one reads them on the first. */
const MOST_CLOCKS = 5;

/** The scheduling messages of a mail on one clock, the zones they define, and how many items were left out. */
export interface Invitations {
  readonly messages: readonly ReadMessage[];
  readonly zones: readonly FileZone[];
  readonly leftOut: number;
}

const countOf = (text: string, component: string): number =>
  text.match(new RegExp(`^BEGIN:\\s*${component}\\s*$`, 'gim'))?.length ?? 0;

/**
 * Reads the calendar parts of a mail into scheduling messages, once for each clock of `clocks` that floating times may be on. The same in two
 * parts is one. Never throws; work is bounded by the limits above, whatever the parts hold.
 */
export function readInvitations(
  parts: readonly string[],
  sender: string,
  clocks: readonly string[],
): Record<string, Invitations> {
  let room = MOST_ITEMS_IN_MAIL;
  let skipped = 0;
  const taken = parts.filter((text) => {
    const items = countOf(text, 'VEVENT');
    if (items <= room && countOf(text, 'VTIMEZONE') <= MOST_ZONES_IN_PART) {
      room -= items;
      return true;
    }
    skipped += Math.max(1, items);
    return false;
  });
  return Object.fromEntries(
    [...new Set(clocks)].slice(0, MOST_CLOCKS).map((clock) => [clock, onClock(taken, sender, clock, skipped)]),
  );
}

function onClock(parts: readonly string[], sender: string, zone: string, skipped: number): Invitations {
  const known = new Set<string>();
  const meetings = new Set<string>();
  const zones: FileZone[] = [];
  let leftOut = skipped;
  const messages = parts.flatMap((text) => {
    const read = readMessage(text, sender, [], {
      zone,
      candidates: [zone],
      nameZone,
      mostZones: MOST_ZONES_IN_PART,
      mostLines: MOST_LINES_IN_ITEM,
    });
    if (read.kind !== 'messages') return [];
    zones.push(...read.zones);
    return read.messages.filter((message) => {
      const print = JSON.stringify(message);
      if (known.has(print)) return false;
      known.add(print);
      if (!meetings.has(message.uid) && meetings.size >= MOST_MEETINGS_IN_MAIL) {
        leftOut++;
        return false;
      }
      meetings.add(message.uid);
      return true;
    });
  });
  return { messages, zones, leftOut };
}
