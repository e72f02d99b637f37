import { newKey } from '../../ids.ts';
import { calendarById } from '../../repositories/calendars.ts';
import type { SharedCollection } from '../../repositories/collections.ts';
import { calendarsOpenTo, grantById, grantsOn } from '../../repositories/grants.ts';
import { groupsAround, membersOf } from '../../repositories/groups.ts';
import { insertNotice, type Notice } from '../../repositories/notices.ts';
import { insertOutgoing, wasToldByLetter } from '../../repositories/outbox.ts';
import { personById } from '../../repositories/people.ts';
import { shareableById } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  audienceOf,
  type Context,
  decideOnShared,
  type FoundAudience,
  findShared,
  isRefusal,
  tellPeople,
} from '../deciding/index.ts';
import { wholeAccess } from './message-text.ts';

/** What somebody is told of: what it is, and whose. */
type Of = Pick<SharedCollection, 'id' | 'ownerId'>;
/** What one is told of access. */
type TellKind = Extract<Notice['kind'], 'given' | 'changed' | 'taken'>;

/**
 * Tells the people of an audience of a grant, in the transaction that writes it; who is outside gets a letter too, sent from
 * the outbox afterwards. Everyone inside is never told one by one, nor is a link.
 */
export function tellOf(
  ctx: Context,
  shared: Of,
  audience: Pick<FoundAudience, 'stored'>,
  grantId: number | null,
  kind: TellKind,
  note: string,
): void {
  const { stored } = audience;
  const people =
    stored.kind === 'person' ? [stored.personId] : stored.kind === 'group' ? membersOf(ctx.db, stored.groupId) : [];
  for (const personId of people) {
    if (personId === shared.ownerId || personId === ctx.viewer.id) continue;
    const outside = personById(ctx.db, personId)?.inside === false;
    if (outside && kind === 'given' && stored.kind === 'group' && !reaches(ctx, shared, personId, grantId)) continue;
    put(ctx, shared, personId, grantId, kind, note.trim());
    if (outside) post(ctx, shared, personId, grantId, kind, note.trim());
  }
}

/** Whether a grant to a group lets one of its members see anything: the house rules may leave nothing of it to somebody outside. */
function reaches(ctx: Context, shared: Of, personId: number, grantId: number | null): boolean {
  const viewer = personById(ctx.db, personId);
  const of = shareableById(ctx.db, shared.id);
  const grant = grantId === null ? null : grantById(ctx.db, grantId);
  return viewer !== null && of !== null && wholeAccess({ ...ctx, viewer }, of, grant) !== null;
}

/** Tells the owner that somebody else gave, changed or took away access to something of theirs. `grantId` is the grant it was or is. */
export function tellOwner(
  ctx: Context,
  shared: Of,
  audience: Pick<FoundAudience, 'stored'>,
  grantId: number | null,
  kind: TellKind,
): void {
  const { stored } = audience;
  const themselves = stored.kind === 'person' && stored.personId === shared.ownerId;
  if (ctx.viewer.id === shared.ownerId || themselves) return;
  put(ctx, shared, shared.ownerId, grantId, kind, '');
}

/** Puts a letter into the outbox. */
function post(ctx: Context, shared: Of, personId: number, grantId: number | null, kind: TellKind, note: string): void {
  const of = { personId, kind, collectionId: shared.id, grantId, byId: ctx.viewer.id, note };
  insertOutgoing(ctx.db, { key: newKey(), at: ctx.now, ...of });
}

function put(
  ctx: Context,
  shared: Of,
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
    collectionId: shared.id,
    ownerId: shared.ownerId,
    grantId,
    byId: ctx.viewer.id,
    note,
  });
  tellPeople(ctx.db, [personId]);
}

/** What people get of something, as texts to compare; where one sees nothing it is the same as no rights. */
export function rightsOf(ctx: Context, people: Iterable<number>, id: number): Map<number, string> {
  const shared = shareableById(ctx.db, id);
  const found = new Map<number, string>();
  if (!shared) return found;
  for (const one of people) {
    const person = personById(ctx.db, one);
    if (person) found.set(one, JSON.stringify(decideOnShared({ ...ctx, viewer: person }, shared).decision.rights));
  }
  return found;
}

/** As many are told of one act on a group, or on all sharing of something. */
export const MOST_TOLD = 300;

/**
 * Tells people that what they get of something has changed, or that they have nothing of their own there any more, by an act that named none of
 * them: on a group they are in, or on all sharing of it. Somebody outside gets a letter too, if they ever came in or
 * were written to about it. Answers how many.
 */
export function tellConcerned(
  ctx: Context,
  shared: Of,
  people: Iterable<number>,
  kind: Extract<TellKind, 'changed' | 'taken'>,
): number {
  let told = 0;
  for (const personId of new Set(people)) {
    if (personId === shared.ownerId || personId === ctx.viewer.id) continue;
    put(ctx, shared, personId, null, kind, '');
    const person = personById(ctx.db, personId);
    if (person?.inside === false && (person.account !== null || wasToldByLetter(ctx.db, shared.id, personId)))
      post(ctx, shared, personId, null, kind, '');
    if (++told >= MOST_TOLD) break;
  }
  return told;
}

/** Tells somebody that a further calendar was made for them, and what its maker keeps of it. */
export function tellOfCalendar(ctx: Context, calendarId: number, ownerId: number, grantId: number): void {
  const calendar = calendarById(ctx.db, calendarId);
  if (calendar) put(ctx, calendar, ownerId, grantId, 'begun', '');
}

/**
 * Tells the owners of what a group opens that somebody came into it: who, and into which group, never what it opens. Themselves they
 * aren't told of what they did.
 */
export function tellOfJoining(ctx: Context, groupId: number, who: string): void {
  const told = new Set<number>();
  for (const around of [groupId, ...groupsAround(ctx.db, groupId)])
    for (const id of calendarsOpenTo(ctx.db, around)) {
      const calendar = calendarById(ctx.db, id);
      if (!calendar || calendar.ownerId === ctx.viewer.id || told.has(id)) continue;
      told.add(id);
      put(ctx, calendar, calendar.ownerId, null, 'joined', who);
    }
}

/** Tells a person, in Messages and by letter, that a way to sign in as them was made, or their password made anew. */
export function tellOfSignIn(
  ctx: Pick<Context, 'db' | 'now'>,
  personId: number,
  kind: Extract<Notice['kind'], 'wayInMade' | 'passwordMade'>,
  byId: number,
): void {
  const { db, now: at } = ctx;
  const key = newKey();
  insertNotice(db, { key, personId, at, kind, collectionId: null, ownerId: null, grantId: null, byId, note: '' });
  insertOutgoing(db, { key: newKey(), at, personId, kind, collectionId: null, grantId: null, byId, note: '' });
  tellPeople(db, [personId]);
}

/** Tells an audience afterwards of what it was given quietly. */
export function tellAfterwards(
  ctx: Context,
  key: string,
  body: { seen: string; note: string },
): Result<{ done: true }> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const grant = grantsOn(ctx.db, decided.shared.id).find((g) => g.key === body.seen);
  const audience = grant && audienceOf(ctx, grant);
  if (!grant || !audience) return refuse('changedMeanwhile');
  ctx.db.write(() => tellOf(ctx, decided.shared, audience, grant.id, 'given', body.note));
  return ok({ done: true });
}
