import { newKey } from '../ids.ts';
import { hub } from '../live/hub.ts';
import type { Calendar } from '../repositories/calendars.ts';
import { grantsOn } from '../repositories/grants.ts';
import { membersOf } from '../repositories/groups.ts';
import { insertNotice, type Notice } from '../repositories/notices.ts';
import { insertOutgoing } from '../repositories/outbox.ts';
import { personById } from '../repositories/people.ts';
import { ok, type Result, refuse } from '../result.ts';
import { audienceOf, type FoundAudience } from './audience.ts';
import type { Context } from './context.ts';
import { isRefusal } from './deciding.ts';
import { findShared } from './sightlines.ts';

/**
 * Tells the people of an audience of a grant, in the transaction that writes it; who is outside gets a letter too, sent from
 * the outbox afterwards. Everyone inside is never told one by one, nor is a link.
 */
export function tellOf(
  ctx: Context,
  calendar: Calendar,
  audience: Pick<FoundAudience, 'stored'>,
  grantId: number | null,
  kind: Notice['kind'],
  note: string,
): void {
  const { stored } = audience;
  const people =
    stored.kind === 'person' ? [stored.personId] : stored.kind === 'group' ? membersOf(ctx.db, stored.groupId) : [];
  for (const personId of people) {
    if (personId === calendar.ownerId || personId === ctx.viewer.id) continue;
    put(ctx, calendar, personId, grantId, kind, note.trim());
    if (personById(ctx.db, personId)?.inside === false)
      insertOutgoing(ctx.db, {
        key: newKey(),
        at: ctx.now,
        personId,
        kind,
        calendarId: calendar.id,
        grantId,
        byId: ctx.viewer.id,
        note: note.trim(),
      });
  }
}

/** Tells the owner that somebody else gave, changed or took away access to their calendar. `grantId` is the grant it was or is. */
export function tellOwner(
  ctx: Context,
  calendar: Calendar,
  audience: Pick<FoundAudience, 'stored'>,
  grantId: number | null,
  kind: Notice['kind'],
): void {
  const { stored } = audience;
  const themselves = stored.kind === 'person' && stored.personId === calendar.ownerId;
  if (ctx.viewer.id === calendar.ownerId || themselves) return;
  put(ctx, calendar, calendar.ownerId, grantId, kind, '');
}

function put(
  ctx: Context,
  calendar: Calendar,
  personId: number,
  grantId: number | null,
  kind: Notice['kind'],
  note: string,
): void {
  insertNotice(ctx.db, {
    key: newKey(),
    personId,
    at: ctx.now,
    kind,
    calendarId: calendar.id,
    grantId,
    byId: ctx.viewer.id,
    note,
  });
  hub().tell(personId, { kind: 'told' });
}

/** Tells an audience afterwards of what it was given quietly. */
export function tellAfterwards(
  ctx: Context,
  key: string,
  body: { seen: string; note: string },
): Result<{ done: true }> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const grant = grantsOn(ctx.db, decided.calendar.id).find((g) => g.key === body.seen);
  const audience = grant && audienceOf(ctx, grant);
  if (!grant || !audience) return refuse('changedMeanwhile');
  ctx.db.write(() => tellOf(ctx, decided.calendar, audience, grant.id, 'given', body.note));
  return ok({ done: true });
}
