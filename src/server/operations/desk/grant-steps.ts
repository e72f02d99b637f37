import type { DeskDone } from '@/contract/desk.ts';
import type { AudienceWire } from '@/contract/sharing/sharing.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { type Calendar, calendarById } from '../../repositories/calendars.ts';
import { grantByKey, grantsOn, type StoredGrant } from '../../repositories/grants.ts';
import { personById } from '../../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { audienceOf, type Context, isRefusal, sameAudience } from '../deciding/index.ts';
import { giveAccess, takeAccess } from '../sharing/index.ts';

/** What a step on access is undone by: the same row, taken back. */
const SAID: DeskDone = { undo: null, sendings: [], said: true };

interface FoundGrant {
  readonly grant: StoredGrant;
  readonly calendar: Calendar;
  readonly audience: AudienceWire;
  /** Whose calendar it is counts the days. */
  readonly zone: string;
}

function findGrant(ctx: Context, key: string): FoundGrant | Refusal {
  const grant = grantByKey(ctx.db, key);
  const calendar = grant && calendarById(ctx.db, grant.collectionId);
  const audience = grant && audienceOf(ctx, grant)?.wire;
  const owner = calendar && personById(ctx.db, calendar.ownerId);
  return grant && calendar && audience && owner ? { grant, calendar, audience, zone: owner.zone } : refuse('deskGone');
}

/** The days of a grant that ends at an instant, the last one included; `null` where it has none. */
function spanOf({ grant, zone }: FoundGrant, ends: number | null) {
  const day = (at: number | null) => (at === null ? null : dateText(toWall(zone, at)));
  return grant.starts === null && ends === null
    ? null
    : { from: day(grant.starts), until: day(ends === null ? null : ends - 1), zone };
}

/** Gives access for as long again as it was given for, or takes it away. */
export function onGrant(ctx: Context, key: string, act: 'extend' | 'takeAccess'): Result<DeskDone> {
  const found = findGrant(ctx, key);
  if (isRefusal(found)) return found;
  const { grant, calendar, audience } = found;
  if (act === 'takeAccess') {
    const taken = takeAccess(ctx, calendar.key, { audience, seen: key });
    return taken.ok ? ok(SAID) : taken;
  }
  if (grant.ends === null) return refuse('deskGone');
  const ends = grant.ends + (grant.ends - (grant.starts ?? grant.recordedFrom));
  const given = giveAccess(ctx, calendar.key, { audience, rights: grant.rights, seen: key, span: spanOf(found, ends) });
  return given.ok ? ok(SAID) : given;
}

/** Gives access back as it was before it was changed or taken away at an instant. */
export function giveBack(ctx: Context, key: string, at: number): Result<unknown> {
  const found = findGrant(ctx, key);
  if (isRefusal(found)) return found;
  const { grant, calendar, audience } = found;
  const now = grantsOn(ctx.db, calendar.id).find(
    (one) => one.recordedFrom === at && sameAudience(one.audience, grant.audience),
  );
  const span = spanOf(found, grant.ends);
  return giveAccess(ctx, calendar.key, { audience, rights: grant.rights, seen: now?.key ?? null, span });
}
