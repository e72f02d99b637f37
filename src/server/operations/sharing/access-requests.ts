import type {
  AccessRequestsAnswer,
  AccessRequestToAnswer,
  OwnAccessRequest,
} from '@/contract/sharing/access-requests.ts';
import type { AudienceWire } from '@/contract/sharing/sharing.ts';
import { type Decision, decide, NO_RIGHTS, presetOf } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import {
  type AccessRequest,
  type AccessRequestSubject,
  accessRequestsAbout,
  accessRequestsFrom,
  answersTo,
  openAccessRequestsAbout,
  unheardAccessRequests,
} from '../../repositories/access-requests.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { kindOfCollection } from '../../repositories/collections.ts';
import { calendarsNaming, grantById, grantReplacedBy, grantsOn, type StoredGrant } from '../../repositories/grants.ts';
import { groupsOf } from '../../repositories/groups.ts';
import { outsiderName } from '../../repositories/outsider-names.ts';
import type { Person } from '../../repositories/people.ts';
import {
  firstCollectionOf,
  type Shareable,
  shareableById,
  shareablesById,
  shareablesOf,
  shortName,
} from '../../repositories/shareables.ts';
import { ok, type Result } from '../../result.ts';
import {
  type Context,
  collectionOf,
  Directory,
  decideOnAll,
  decideOnShared,
  rulesOf,
  viewerOf,
} from '../deciding/index.ts';

const MOST = 100;
const MOST_ANSWERS = 10;
const DAY = 86_400_000;

/** From when on an asker may remind those who can answer, or ask again after a no: a day after the last word of either side. */
export const againFrom = (ctx: Pick<Context, 'db'>, request: Pick<AccessRequest, 'id' | 'at' | 'nudgedAt'>): number =>
  Math.max(request.at, request.nudgedAt ?? 0, answersTo(ctx.db, request.id, 1)[0]?.at ?? 0) + DAY;

/** What an access request is about as things stand; `null` where whoever was asked hasn't it any more. */
export function collectionRequested(
  ctx: Pick<Context, 'db'>,
  request: Pick<AccessRequest, 'toId' | 'collectionId'>,
): Shareable | null {
  const shared =
    request.collectionId === null ? mainCalendarOf(ctx.db, request.toId) : shareableById(ctx.db, request.collectionId);
  // What changed hands since belongs to somebody who was asked nothing.
  return shared?.ownerId === request.toId ? shared : null;
}

/** Whether the viewer answers requests about something: its owner, and those who give access to it for them. */
export function mayAnswerOn(ctx: Context, shared: Shareable): boolean {
  const { decision } = decideOnShared(ctx, shared);
  return decision.owner || decision.rights.shares;
}

/** Everybody but the viewer who answers requests about something. */
export function answerersOf(ctx: Context, shared: Shareable): number[] {
  const people = new Set([shared.ownerId]);
  const grants = grantsOn(ctx.db, shared.id);
  const collection = collectionOf(shared, grants);
  const house = rulesOf(ctx.db, shared);
  const directory = new Directory(ctx.db);
  for (const { rights, audience } of grants)
    if (rights.shares && audience.kind === 'person') {
      const person = directory.person(audience.personId);
      if (person && decide(collection, viewerOf(ctx.db, person), ctx.now, house).rights.shares) people.add(person.id);
    }
  people.delete(ctx.viewer.id);
  return [...people];
}

/** The asker as an audience: somebody outside may not have been named on this calendar before. */
export const requesterAs = (requester: Person): AudienceWire =>
  requester.inside
    ? { kind: 'person', id: requester.handle }
    : { kind: 'address', address: requester.address, name: requester.name };

/** What one answers requests about, as asks name it: all of one's own, and what one gives access to; with `owners`, only what these people own. */
function answeredFor(ctx: Context, owners: ReadonlySet<number> | null = null): AccessRequestSubject[] {
  const own = shareablesOf(ctx.db, ctx.viewer.id);
  const known = new Set(own.map(({ id }) => id));
  const others = calendarsNaming(ctx.db, ctx.viewer.id).filter((id) => !known.has(id));
  const all = [...own, ...shareablesById(ctx.db, others)].filter(({ ownerId }) => owners?.has(ownerId) ?? true);
  return decideOnAll(ctx, all).flatMap(({ shared: { id, ownerId, main }, decision }) =>
    decision.owner || decision.rights.shares ? [{ toId: ownerId, collectionId: main ? null : id }] : [],
  );
}

/** Asks for access to what some people own that wait for one's answer, the oldest first. `cut`: there are more. */
export function accessRequestsToAnswer(
  ctx: Context,
  owners: ReadonlySet<number>,
): { readonly requests: AccessRequestToAnswer[]; readonly cut: boolean } {
  const found = accessRequestsAbout(ctx.db, answeredFor(ctx, owners), ctx.viewer.id, MOST + 1);
  const open = found.filter((request) => request.state === 'open');
  return { requests: answerableRequests(ctx, open.slice(0, MOST)).sort(byTime), cut: open.length > MOST };
}

/** Asks, as those who answer them read them; without those whose subject is no longer there. */
function answerableRequests(ctx: Context, requests: readonly AccessRequest[]): AccessRequestToAnswer[] {
  const look: Look = { ctx, directory: new Directory(ctx.db) };
  return requests.flatMap((request) => {
    const shared = collectionRequested(ctx, request);
    return shared ? [toAnswer(look, request, shared)] : [];
  });
}

const byTime = (a: AccessRequestToAnswer, b: AccessRequestToAnswer): number => a.at.localeCompare(b.at);

/** How many asks wait for one's answer, and how many of one's own were answered since one looked. */
export const accessRequestsWaiting = (ctx: Context): number =>
  openAccessRequestsAbout(ctx.db, answeredFor(ctx), ctx.viewer.id) + unheardAccessRequests(ctx.db, ctx.viewer.id);

/** Who asks for access that one may give, what was answered, and what one asks for oneself. */
export function listAccessRequests(ctx: Context): Result<AccessRequestsAnswer> {
  const look: Look = { ctx, directory: new Directory(ctx.db) };
  const to = accessRequestsAbout(ctx.db, answeredFor(ctx), ctx.viewer.id, MOST + 1);
  const from = accessRequestsFrom(ctx.db, ctx.viewer.id, MOST + 1);
  const wires = answerableRequests(ctx, to.slice(0, MOST));
  const open = wires.filter((request) => request.state === 'open');
  return ok({
    waiting: open.sort(byTime),
    answered: wires.filter((request) => request.state !== 'open').sort((a, b) => latest(b).localeCompare(latest(a))),
    own: from.slice(0, MOST).map((request) => ownRequestWire(look, request)),
    cut: to.length > MOST || from.length > MOST,
  });
}

const latest = (request: AccessRequestToAnswer): string => request.answers.at(-1)?.at ?? request.at;

interface Look {
  readonly ctx: Context;
  readonly directory: Directory;
}

const text = (at: number | null): string | null => (at === null ? null : instantText(at));

/** What both sides of an access request read of it. */
function wireOf(
  { ctx, directory }: Look,
  request: AccessRequest,
  sees: (id: number) => Omit<AccessRequestToAnswer['from'], 'handle'>,
) {
  const person = (id: number) => ({ handle: directory.person(id)?.handle ?? '', ...sees(id) });
  const gave = request.gave === null ? null : grantById(ctx.db, request.gave);
  return {
    key: request.key,
    at: instantText(request.at),
    state: request.state,
    turns: request.turns,
    from: person(request.fromId),
    to: person(request.toId),
    wants: request.rights,
    preset: presetOf(request.rights),
    starts: text(request.starts),
    ends: text(request.ends),
    why: request.why,
    gave: gave?.recordedUntil === null ? gave.rights : null,
    nudged: text(request.nudgedAt),
  };
}

function personPart(person: Person | null, called?: string | null) {
  return {
    name: called ?? person?.name ?? '',
    detail: person ? [person.role, person.inside ? '' : person.address].filter(Boolean).join(' · ') : '',
    colour: person?.colour ?? 0,
    outside: person?.inside === false,
  };
}

function ownRequestWire(look: Look, request: AccessRequest): OwnAccessRequest {
  const { ctx, directory } = look;
  const shared = collectionRequested(ctx, request);
  const has = shared ? decideOnShared(ctx, shared).decision.rights : NO_RIGHTS;
  return {
    ...wireOf(look, request, (id) => personPart(directory.person(id))),
    further:
      request.collectionId === null ? null : aboutFor(ctx, request.collectionId, shared, has.sight !== 'nothing'),
    answers: answersTo(ctx.db, request.id, MOST_ANSWERS).map((a) => {
      const grant = a.grantId === null ? null : grantById(ctx.db, a.grantId);
      return {
        at: instantText(a.at),
        answer: a.answer,
        by: a.quiet ? null : { actor: directory.name(a.byId), principal: directory.name(a.forId) },
        rights: grant?.rights ?? null,
        note: a.note,
      };
    }),
    has,
    again: instantText(againFrom(ctx, request)),
    news: !request.heard,
  };
}

/** What an access request is about, for its asker: what they don't see is named by what they asked for alone. */
function aboutFor(ctx: Context, id: number, shared: Shareable | null, seen: boolean): OwnAccessRequest['further'] {
  const what = shared && firstCollectionOf(shared);
  return {
    key: shared && seen ? shared.key : '',
    name: shared && (seen || what !== null) ? shortName(shared) : '',
    kind: kindOfCollection(ctx.db, id),
    what,
  };
}

/** How far a row is followed back to what stood before it was given. */
const MOST_BACK = 20;

/**
 * Which of somebody's grants goes back to the yes to an access request, through what was changed by hand since, and what stood before that yes took its
 * place: taking the yes back gives it again, so that somebody who was shut out isn't let in by a no. `null` where nothing stood.
 */
export function stoodBefore(
  ctx: Context,
  request: AccessRequest,
  theirs: readonly StoredGrant[],
): { readonly grant: StoredGrant; readonly before: StoredGrant } | null {
  const given = new Set(answersTo(ctx.db, request.id, MOST_ANSWERS).map(({ grantId }) => grantId));
  for (const grant of theirs) {
    let at: StoredGrant | null = grant;
    for (let back = 0; at && !given.has(at.id) && back < MOST_BACK; back++) at = grantReplacedBy(ctx.db, at);
    const before = at && given.has(at.id) ? grantReplacedBy(ctx.db, at) : null;
    if (before) return { grant, before };
  }
  return null;
}

function toAnswer(look: Look, request: AccessRequest, shared: Shareable): AccessRequestToAnswer {
  const { ctx, directory } = look;
  const requester = directory.person(request.fromId);
  const grants = grantsOn(ctx.db, shared.id);
  const groups = requester ? groupsOf(ctx.db, requester.id) : [];
  const decideWith = (with_: readonly StoredGrant[]): Decision['rights'] =>
    requester
      ? decide(collectionOf(shared, with_), viewerOf(ctx.db, requester, groups), ctx.now, rulesOf(ctx.db, shared))
          .rights
      : NO_RIGHTS;
  const theirs = grants.filter((g) => g.audience.kind === 'person' && g.audience.personId === request.fromId);
  const answers = answersTo(ctx.db, request.id, MOST_ANSWERS);
  const byRequest = new Set(answers.map((a) => a.grantId));
  const stood = stoodBefore(ctx, request, theirs);
  const called =
    requester && !requester.inside ? (outsiderName(ctx.db, shared.id, requester.id) ?? requester.address) : undefined;
  const authored = (actor: number, principal: number) => ({
    actor: directory.name(actor),
    principal: directory.name(principal),
  });
  return {
    ...wireOf(look, request, (id) => personPart(directory.person(id), id === request.fromId ? called : undefined)),
    further: shared.main
      ? null
      : { key: shared.key, name: shortName(shared), kind: shared.kind, what: firstCollectionOf(shared) },
    answers: answers.map((a) => ({
      at: instantText(a.at),
      answer: a.answer,
      by: authored(a.byId, a.forId),
      rights: (a.grantId === null ? null : grantById(ctx.db, a.grantId))?.rights ?? null,
      note: a.note,
    })),
    has: decideWith(grants),
    calendar: shared.key,
    audience: requester ? requesterAs(requester) : { kind: 'person', id: '' },
    standing: theirs.map((g) => ({
      key: g.key,
      rights: g.rights,
      preset: presetOf(g.rights),
      from: text(g.starts),
      until: text(g.ends),
      since: instantText(g.recordedFrom),
      given: authored(g.givenBy, g.givenFor),
      byAsk: byRequest.has(g.id),
    })),
    without: decideWith([...grants.filter((g) => !theirs.includes(g)), ...(stood ? [stood.before] : [])]),
    own: shared.ownerId === ctx.viewer.id,
  };
}
