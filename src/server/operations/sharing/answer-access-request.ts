import type { AskAnswerBody } from '@/contract/sharing/access-requests.ts';
import { newKey } from '../../ids.ts';
import { type Ask, answersTo, askByKey, putAnswer, setAnswerNote } from '../../repositories/access-requests.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { insertOutgoing } from '../../repositories/outbox.ts';
import { type Person, personById } from '../../repositories/people.ts';
import type { Shareable } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, tellPeople, trailOn } from '../deciding/index.ts';
import { answerersOf, askerAs, collectionAsked, mayAnswerOn, stoodBefore } from './access-requests.ts';
import { giveAccess, takeSeveral } from './give-access.ts';

/**
 * Answers an ask, or turns its answer round: weeks later as well as at once. A yes gives what is chosen, by the same rule and with the same
 * refusals as giving by hand; a no takes away what it names. Whoever answers names how the ask stood when they looked: two who answer one
 * ask are one answer, and a refusal that says who was first.
 */
export function answerAccessRequest(ctx: Context, key: string, body: AskAnswerBody): Result<{ done: true }> {
  const ask = askByKey(ctx.db, key);
  const shared = ask && collectionAsked(ctx, ask);
  const asker = ask && personById(ctx.db, ask.fromId);
  if (!ask || !shared || !asker || asker.id === ctx.viewer.id || !mayAnswerOn(ctx, shared)) return refuse('notFound');
  if (ask.state === 'takenBack') return refuse('askGone');
  if (ask.turns !== body.turns) return refuse('askAnswered', { facts: { name: lastHand(ctx, ask) } });
  const answered = body.answer === 'give' ? give(ctx, shared, ask, asker, body) : no(ctx, shared, ask, asker, body);
  if (!answered.ok) return answered;
  tellPeople(ctx.db, [...answerersOf(ctx, shared), asker.id]);
  return answered;
}

const lastHand = (ctx: Context, ask: Ask): string => {
  const last = answersTo(ctx.db, ask.id, 1)[0];
  return new Directory(ctx.db).name(last ? last.byId : ask.fromId);
};

function give(
  ctx: Context,
  shared: Shareable,
  ask: Ask,
  asker: Person,
  body: Extract<AskAnswerBody, { answer: 'give' }>,
): Result<{ done: true }> {
  if (body.rights.sight === 'nothing') return refuse('badInput', { fields: { sight: 'giveNothing' } });
  const { rights, span, seen, note } = body;
  return ctx.db.write(() => {
    const given = giveAccess(ctx, shared.key, { audience: askerAs(asker), rights, span, seen, tell: { note } });
    if (!given.ok) return given;
    // Giving by hand may have answered the request already; then only the words are added.
    if ((askByKey(ctx.db, ask.key)?.turns ?? ask.turns) !== ask.turns) setAnswerNote(ctx.db, ask.id, note);
    else
      putAnswer(ctx.db, ask.id, {
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
  ask: Ask,
  asker: Person,
  body: Extract<AskAnswerBody, { answer: 'refuse' }>,
): Result<{ done: true }> {
  const { takes, note, quiet } = body;
  return ctx.db.write(() => {
    if (takes.length > 0) {
      const audience = askerAs(asker);
      const tell = quiet ? null : { note };
      // What goes back to what it was is changed, and told so; what stood on nothing is taken away.
      const stood = stoodBefore(
        ctx,
        ask,
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
    putAnswer(ctx.db, ask.id, {
      at: ctx.now,
      answer: 'refused',
      byId: ctx.viewer.id,
      forId: shared.ownerId,
      grantId: null,
      note: quiet ? '' : note,
      quiet,
    });
    trailOn(ctx, shared, ask.key, 'ask.refused', { state: ask.state }, { takes, quiet });
    // Who is outside reads it where they read what they are given: in a letter. What was taken away is told by its own.
    if (!asker.inside && !quiet && takes.length === 0)
      insertOutgoing(ctx.db, {
        key: newKey(),
        at: ctx.now,
        personId: asker.id,
        kind: 'refused',
        collectionId: shared.id,
        grantId: null,
        byId: ctx.viewer.id,
        note,
      });
    return ok({ done: true as const });
  });
}
