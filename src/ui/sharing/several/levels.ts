import type { GrantChange } from '@/contract/sharing/changes.ts';
import type { AudienceWire, SightlineRow } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { NOTHING } from '../../common/requests/plain-rights.ts';
import type { Meant } from './meant.ts';

/** What somebody of a list is to get: rights, or, `back`, none of their own, so that what their groups and everyone get counts for them. */
export type Level = RightsWire | 'back';

/** Levels that have a name, the lowest first. */
export const NAMED = [
  'shutOut',
  'freeBusy',
  'titles',
  'outline',
  'full',
  'helper',
  'booker',
  'arranger',
  'delegate',
  'steward',
] as const;

export const isNone = (level: Level): boolean => level !== 'back' && level.sight === NOTHING.sight;

interface Wanted {
  readonly calendar: string;
  readonly level: Level;
  /** The last day it is given for. */
  readonly until: string;
  readonly zone: string;
  readonly note?: string | null;
}

/** The changes that give somebody a level: one in place of what stands, or one for each of their own grants that goes. */
export function changesFor(
  meant: Meant,
  row: SightlineRow | undefined,
  { calendar, level, until, zone, note }: Wanted,
): GrantChange[] {
  const audience = row?.audience ?? (meant.audience as AudienceWire);
  const told = note === undefined ? {} : { note };
  if (level === 'back')
    return (row?.grants ?? []).map((grant) => ({ calendar, audience, rights: null, seen: grant.key, ...told }));
  if (until !== '') return [{ calendar, audience, rights: level, span: { from: null, until, zone }, ...told }];
  const standing = row?.grants.find((grant) => grant.from === null && grant.until === null);
  return [{ calendar, audience, rights: level, ...(standing ? { seen: standing.key } : {}), ...told }];
}

/**
 * What takes the changes back: what stood, or nothing where nothing did. `null` where that can't be said by what is listed: for somebody who has
 * something for a time, or is given it so.
 */
export function changesBack(
  calendar: string,
  all: readonly { meant: Meant; row: SightlineRow | undefined }[],
  until: string,
): GrantChange[] | null {
  if (until !== '') return null;
  const changes = all.map(({ meant, row }): GrantChange | null => {
    const [grant, ...more] = row?.grants ?? [];
    const audience = row?.audience ?? meant.audience;
    if (!audience || more.length > 0 || (grant && (grant.from !== null || grant.until !== null))) return null;
    return { calendar, audience, rights: grant?.rights ?? null };
  });
  const known = changes.filter((one) => one !== null);
  return known.length === changes.length ? known : null;
}
