import { call } from '@/contract/call.ts';
import type { GivenAnswer, GrantWire, SightlineRow } from '@/contract/sharing/sharing.ts';
import { dateText, parseInstant, toWall } from '@/core/time/index.ts';

/** Takes back what was done to a grant. */
export type Undo = () => Promise<unknown>;

/**
 * What takes an act back: the grant as it was in place of the one that was made, or that one away. What had begun on a day that has
 * passed can't be given again as if it began today; for that there is none.
 */
export function undoOf(
  calendar: string,
  row: SightlineRow,
  grant: GrantWire | null,
  given: GivenAnswer | null,
  zone: string,
): Undo | undefined {
  const audience = given?.audience ?? row.audience;
  if (!grant) {
    if (!given || row.audience.kind === 'newLink') return undefined;
    return () => call('takeAccess', { params: { calendar }, body: { audience, seen: given.grant } });
  }
  if (grant.state === 'ended' || grant.from !== null) return undefined;
  const body = { audience, rights: grant.rights, seen: given?.grant ?? null, span: spanOf(grant, zone) };
  return () => call('giveAccess', { params: { calendar }, body });
}

function spanOf(grant: GrantWire, zone: string) {
  const until = grant.until ? dateText(toWall(zone, (parseInstant(grant.until) ?? 0) - 1)) : null;
  return until ? { from: null, until, zone } : null;
}

/** What gives back several grants that were taken away in one act, in one act; none where one of them can't be given again as it was. */
export function undoTakes(
  calendar: string,
  rows: readonly SightlineRow[],
  taken: ReadonlySet<string>,
  zone: string,
): Undo | undefined {
  const grants = rows.flatMap(({ audience, grants }) =>
    grants.filter(({ key }) => taken.has(key)).map((grant) => ({ audience, grant })),
  );
  if (grants.length < taken.size || grants.some(({ grant }) => grant.state === 'ended' || grant.from !== null))
    return undefined;
  const gives = grants.map(({ audience, grant }) => ({
    audience,
    rights: grant.rights,
    seen: null,
    span: spanOf(grant, zone),
  }));
  return () => call('giveSeveral', { params: { calendar }, body: { gives } });
}
