import type { AnswerAccessRequestBody } from '@/contract/sharing/access-requests.ts';
import { newKey } from '../../ids.ts';
import {
  type AccessRequest,
  accessRequestByKey,
  answersTo,
  putAnswer,
  setAnswerNote,
} from '../../repositories/access-requests.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { insertOutgoing } from '../../repositories/outbox.ts';
import { type Person, personById } from '../../repositories/people.ts';
import type { Shareable } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, tellPeople, trailOn } from '../deciding/index.ts';
import { answerersOf, collectionRequested, mayAnswerOn, requesterAs, stoodBefore } from './access-requests.ts';
import { giveAccess, takeSeveral } from './give-access.ts';

/**
 * Answers an access request, or turns its answer round: weeks later as well as at once. A yes gives what is chosen, by the same rule and with the same
 * refusals as giving by hand; a no takes away what it names. Whoever answers names how the access request stood when they looked: two who answer one
 * ask are one answer, and a refusal that says who was first.
 */
export function answerAccessRequest(ctx: Context, key: string, body: AnswerAccessRequestBody): Result<{ done: true }> {
  const request = accessRequestByKey(ctx.db, key);
  const shared = request && collectionRequested(ctx, request);
  const requester = request && personById(ctx.db, request.fromId);
  if (!request || !shared || !requester || requester.id === ctx.viewer.id || !mayAnswerOn(ctx, shared))
    return refuse('notFound');
  if (request.state === 'takenBack') return refuse('askGone');
  if (request.turns !== body.turns) return refuse('askAnswered', { facts: { name: lastOperator(ctx, request) } });
  const answered =
    body.answer === 'give' ? give(ctx, shared, request, requester, body) : no(ctx, shared, request, requester, body);
  if (!answered.ok) return answered;
  tellPeople(ctx.db, [...answerersOf(ctx, shared), requester.id]);
  return answered;
}

const lastOperator = (ctx: Context, request: AccessRequest): string => {
  const last = answersTo(ctx.db, request.id, 1)[0];
  return new Directory(ctx.db).name(last ? last.byId : request.fromId);
};

function give(
  ctx: Context,
  shared: Shareable,
  request: AccessRequest,
  requester: Person,
  body: Extract<AnswerAccessRequestBody, { answer: 'give' }>,
): Result<{ done: true }> {
  if (body.rights.sight === 'nothing') return refuse('badInput', { fields: { sight: 'giveNothing' } });
  const { rights, span, seen, note } = body;
  return ctx.db.write(() => {
    const given = giveAccess(ctx, shared.key, { audience: requesterAs(requester), rights, span, seen, tell: { note } });
    if (!given.ok) return given;
    // Giving by hand may have answered the request already; then only the words are added.
    if ((accessRequestByKey(ctx.db, request.key)?.turns ?? request.turns) !== request.turns)
      setAnswerNote(ctx.db, request.id, note);
    else
      putAnswer(ctx.db, request.id, {
        at: ctx.now,
        answer: 'given',
        byId: ctx.viewer.id,
        forId: shared.ownerId,
        grantId: grantsOn(ctx.db, shared.id).find((g) => g.key === given.value.grant)?.id ?? null,
        note,
        quiet: false,
      });
    return ok({ done: true as const });
  });
}

function no(
  ctx: Context,
  shared: Shareable,
  request: AccessRequest,
  requester: Person,
  body: Extract<AnswerAccessRequestBody, { answer: 'refuse' }>,
): Result<{ done: true }> {
  const { takes, note, quiet } = body;
  return ctx.db.write(() => {
    if (takes.length > 0) {
      const audience = requesterAs(requester);
      const tell = quiet ? null : { note };
      // What goes back to what it was is changed, and told so; what stood on nothing is taken away.
      const stood = stoodBefore(
        ctx,
        request,
        grantsOn(ctx.db, shared.id).filter(({ key }) => takes.includes(key)),
      );
      const rest = takes.filter((key) => key !== stood?.grant.key);
      const taken = takeSeveral(ctx, shared.key, {
        takes: rest.map((seen, i) => ({ audience, seen, tell: !stood && i === 0 ? tell : null })),
      });
      if (!taken.ok) return taken;
      if (stood) {
        const { grant, before } = stood;
        const back = { audience, rights: before.rights, span: null, seen: grant.key, tell };
        const given = giveAccess(ctx, shared.key, back);
        if (!given.ok) return given;
      }
    }
    putAnswer(ctx.db, request.id, {
      at: ctx.now,
      answer: 'refused',
      byId: ctx.viewer.id,
      forId: shared.ownerId,
      grantId: null,
      note: quiet ? '' : note,
      quiet,
    });
    trailOn(ctx, shared, request.key, 'ask.refused', { state: request.state }, { takes, quiet });
    // Who is outside reads it where they read what they are given: in a letter. What was taken away is told by its own.
    if (!requester.inside && !quiet && takes.length === 0)
      insertOutgoing(ctx.db, {
        key: newKey(),
        at: ctx.now,
        personId: requester.id,
        kind: 'refused',
        collectionId: shared.id,
        grantId: null,
        byId: ctx.viewer.id,
        note,
      });
    return ok({ done: true as const });
  });
}
