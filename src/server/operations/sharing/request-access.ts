import type { RequestAccessBody } from '@/contract/sharing/access-requests.ts';
import type { ChoiceWire } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { choicesFor, fitRights, NO_RIGHTS, offeredOn, presetOf, type Rights, SIGHT_RANK } from '@/core/access/index.ts';
import { type CollectionKind, type FirstCollection, kindOfFirst } from '@/core/collection/index.ts';
import { newKey } from '../../ids.ts';
import {
  type AccessRequest,
  accessRequestBetween,
  accessRequestByKey,
  openAccessRequestsFrom,
  putAccessRequest,
  setNudged,
  setTakenBack,
} from '../../repositories/access-requests.ts';
import { calendarsOf } from '../../repositories/calendars.ts';
import { grantsEverNaming, grantsOn } from '../../repositories/grants.ts';
import { type Person, personByHandle } from '../../repositories/people.ts';
import { firstCollectionOf, firstOf, type Shareable, shareableByKey } from '../../repositories/shareables.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, decideOnShared, isRefusal, tellPeople, trailOwn } from '../deciding/index.ts';
import { againFrom, answerersOf, collectionRequested } from './access-requests.ts';
import { giveAccess } from './give-access.ts';
import { coversRequest } from './settle-access-request.ts';
import { readSpan } from './span.ts';

/** The most asks of one person that wait at a time. */
const MOST_OPEN = 400;

const offeredOf = (kind: CollectionKind) => offeredOn({ kind, main: kind === 'calendar' });

const wrong = (fields: Record<string, string>): Refusal => refuse('badInput', { fields });

/** What can be chosen beside some rights, each choice with what it comes to. It says nothing of anybody's. */
export function accessRequestChoices(
  _ctx: Context,
  body: { rights: RightsWire; kind?: CollectionKind | undefined },
): Result<{ choices: ChoiceWire[] }> {
  const offered = offeredOf(body.kind ?? 'calendar');
  const { rights } = fitRights(body.rights, offered);
  return ok({
    choices: choicesFor(rights, offered)
      .filter((choice) => choice.rights.sight !== 'nothing')
      .map((choice) => ({ ...choice, barred: null, wants: [] })),
  });
}

/**
 * Asks people for access to what is theirs: all of them, or nobody where one can't be asked. An access request is addressed to a person and answered
 * alike whatever they have, so that it confirms nothing. Left out are those of whom the asker has that already. What is offered in
 * return is given in the same act: no less than they have of it, and to nobody who has more.
 */
export const requestAccess = (ctx: Context, body: RequestAccessBody): Result<{ asked: number; already: number }> =>
  ctx.db.write(() => requestAll(ctx, body));

function requestAll(ctx: Context, body: RequestAccessBody): Result<{ asked: number; already: number }> {
  if (body.rights.sight === 'nothing') return wrong({ sight: 'askNothing' });
  const span = readSpan(ctx, body.span, null);
  if (isRefusal(span)) return span;
  const people = new Map<number, Person>();
  for (const [i, handle] of body.to.entries()) {
    const person = personByHandle(ctx.db, handle);
    if (!person || !mayBeRequested(ctx, person)) return wrong({ [`to.${i}`]: 'personMissing' });
    if (person.id === ctx.viewer.id) return wrong({ [`to.${i}`]: 'askSelf' });
    people.set(person.id, person);
  }
  const further = body.calendar === null ? null : furtherSeen(ctx, body.calendar, [...people.values()]);
  if (further && isRefusal(further)) return further;
  const kind = further?.kind ?? kindOfFirst(body.what);
  // Tasks, contacts and folders are given to people inside alone.
  if (kind !== 'calendar' && !ctx.viewer.inside) return wrong({ what: 'unclear' });
  const misfit = fitRights(body.rights, offeredOf(kind)).lowered[0];
  if (misfit) return wrong({ [misfit.right]: 'unclear' });
  const own = firstOf(ctx.db, ctx.viewer.id, (further && firstCollectionOf(further)) ?? firstOfKind(kind, body.what));
  const offers = body.offers === null || body.offers === 'nothing' ? null : body.offers;
  if (offers && !own) return wrong({ offers: 'noCalendarToOffer' });
  if (offers && !offeredOf(kind).sights.includes(offers)) return wrong({ offers: 'unclear' });
  const requests: { person: Person; collectionId: number | null; current: AccessRequest | null }[] = [];
  let already = 0;
  for (const person of people.values()) {
    const about = further ?? firstOf(ctx.db, person.id, body.what);
    if (about && coversRequest(decideOnShared(ctx, about).decision.rights, body)) {
      already++;
      continue;
    }
    // Whoever has no such thing is a room or the like: nobody would answer.
    if (!about && kind !== 'calendar') return wrong({ what: 'unclear' });
    const collectionId = about?.main === false ? about.id : null;
    const current = accessRequestBetween(ctx.db, ctx.viewer.id, person.id, collectionId);
    // What was closed isn't asked about again within a day of it.
    if (current?.state === 'refused' && againFrom(ctx, current) > ctx.now)
      return refuse('askedToday', { facts: { name: person.name } });
    requests.push({ person, collectionId, current });
  }
  if (requests.length === 0 && people.size === 1) return wrong({ sight: 'askedHas' });
  const opened = requests.filter(({ current }) => current?.state !== 'open').length;
  if (openAccessRequestsFrom(ctx.db, ctx.viewer.id) + opened > MOST_OPEN)
    return refuse('tooManyAsks', { facts: { most: MOST_OPEN } });
  const tell = new Set<number>();
  for (const { person, collectionId, current } of requests) {
    const gave = offers && own ? offer(ctx, own, person, { ...NO_RIGHTS, sight: offers }) : null;
    const request = {
      key: current?.key ?? newKey(),
      fromId: ctx.viewer.id,
      toId: person.id,
      collectionId,
      at: ctx.now,
      rights: body.rights,
      ...span,
      why: body.why,
      gave,
    };
    putAccessRequest(ctx.db, request);
    trailOwn(ctx, request.key, 'ask.made', current && { state: current.state }, {
      to: person.key,
      rights: body.rights,
      why: body.why,
      offers,
    });
    for (const id of toldOf(ctx, request)) tell.add(id);
  }
  tellPeople(ctx.db, tell);
  return ok({ asked: requests.length, already });
}

/** Whom somebody may ask: whoever stands in the directory they see; from outside, whoever ever gave them anything. */
function mayBeRequested(ctx: Context, person: Person): boolean {
  if (!person.inside) return false;
  return ctx.viewer.inside || calendarsOf(ctx.db, person.id).some((c) => grantsEverNaming(ctx.db, c.id, ctx.viewer.id));
}

/** What one shows of one's own where a further one of theirs is asked about: of a folder, what has arrived. */
const firstOfKind = (kind: CollectionKind, what: FirstCollection): FirstCollection =>
  kindOfFirst(what) === kind ? what : kind === 'folder' ? 'arrived' : kind;

/** The further one that is asked about: one the asker sees something of, of the one who is asked. */
function furtherSeen(ctx: Context, key: string, people: readonly Person[]): Shareable | null | Refusal {
  const shared = shareableByKey(ctx.db, key);
  if (!shared || people.length !== 1 || shared.ownerId !== people[0]?.id) return wrong({ calendar: 'unclear' });
  if (decideOnShared(ctx, shared).decision.rights.sight === 'nothing') return wrong({ calendar: 'unclear' });
  return shared.main ? null : shared;
}

/** Shows one's own to somebody, and tells them; answers the grant, or `null` where they have as much by name already. */
function offer(ctx: Context, own: Shareable, person: Person, rights: Rights): number | null {
  const theirs = grantsOn(ctx.db, own.id).find(
    (g) => g.audience.kind === 'person' && g.audience.personId === person.id && g.starts === null && g.ends === null,
  );
  if (theirs && SIGHT_RANK[theirs.rights.sight] >= SIGHT_RANK[rights.sight]) return null;
  const given = giveAccess(ctx, own.key, {
    audience: { kind: 'person', id: person.handle },
    rights: theirs ? fitRights({ ...theirs.rights, sight: rights.sight }, offeredOn(own)).rights : rights,
    seen: theirs?.key ?? null,
    tell: { note: '' },
  });
  if (!given.ok) throw new Error(`one's own can't be shown as ${presetOf(rights)}: ${given.code}`);
  return grantsOn(ctx.db, own.id).find((g) => g.key === given.value.grant)?.id ?? null;
}

/** Who is told that something became of an access request. */
function toldOf(ctx: Context, request: Pick<AccessRequest, 'toId' | 'collectionId'>): number[] {
  const shared = collectionRequested(ctx, request);
  return shared ? answerersOf(ctx, shared) : [request.toId];
}

function findOwn(ctx: Context, key: string): AccessRequest | Refusal {
  const request = accessRequestByKey(ctx.db, key);
  return request?.fromId === ctx.viewer.id ? request : refuse('notFound');
}

/** Reminds those who can answer of one's ask: once a day, as long as it waits. */
export function remindOfAccessRequest(ctx: Context, key: string): Result<{ done: true }> {
  return ctx.db.write(() => {
    const request = findOwn(ctx, key);
    if (isRefusal(request)) return request;
    if (request.state !== 'open') return refuse('changedMeanwhile');
    if (againFrom(ctx, request) > ctx.now) return refuse('nudgedToday');
    setNudged(ctx.db, request.id, ctx.now);
    trailOwn(ctx, request.key, 'ask.nudged', null, {});
    tellPeople(ctx.db, toldOf(ctx, request));
    return ok({ done: true });
  });
}

/** Takes one's ask back: whoever could answer it finds it no longer. What was given by it stays. */
export function withdrawAccessRequest(ctx: Context, key: string): Result<{ done: true }> {
  return ctx.db.write(() => {
    const request = findOwn(ctx, key);
    if (isRefusal(request)) return request;
    if (request.state !== 'open') return refuse('changedMeanwhile');
    setTakenBack(ctx.db, request.id);
    trailOwn(ctx, request.key, 'ask.takenBack', null, {});
    tellPeople(ctx.db, toldOf(ctx, request));
    return ok({ done: true });
  });
}
