import type { DeskDone, DeskStep } from '@/contract/desk.ts';
import { parseInstant } from '@/core/time/index.ts';
import { deskKey } from '../../ids.ts';
import { dropDeskWord, insertDeskWord, unsayWithout } from '../../repositories/desk.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type ActedFor, type Context, tellPeople, trailOn } from '../deciding/index.ts';
import { causeOf, type DeskRead, deskPrincipals, findDeskRow, type Gathered, whoActsFor } from './desk.ts';
import { answerTwins, doStep, NOTHING } from './do-step.ts';
import { gone, lastWord } from './gone.ts';
import { giveBack } from './grant-steps.ts';
import { stepsOf } from './steps.ts';

const DAY = 86_400_000;
type Row = DeskRead['rows'][number];

/**
 * Takes a step on a row. The row is worked out again within the write, by the rights of that instant; where it is gone nothing is done, and the refusal
 * says who decided it, where that is known (`gone`).
 */
export function takeDeskStep(ctx: Context, key: string, step: DeskStep, whose = ''): Result<DeskDone> {
  return ctx.db.write((): Result<DeskDone> => {
    const whom = deskPrincipals(ctx);
    if (step.act === 'back') return takeBackWord(ctx, whom, key);
    const found = findDeskRow(ctx, whom, key, whose);
    if (!found) return gone(ctx, whom, key);
    const done = take(ctx, found, step);
    if (!done.ok) return done;
    if (step.act === 'later') tellPeople(ctx.db, [ctx.viewer.id]);
    else heard(ctx, found.gathered);
    return done;
  });
}

/** What is said of a row, or done with it. */
function take(ctx: Context, found: Row, step: Exclude<DeskStep, { act: 'back' }>): Result<DeskDone> {
  switch (step.act) {
    case 'later': {
      const until = parseInstant(step.until) ?? 0;
      if (until <= ctx.now || until > ctx.now + 366 * DAY)
        return refuse('badInput', { fields: { until: 'laterPast' } });
      return said(ctx, found, { what: 'later', until });
    }
    case 'left':
      return said(ctx, found, { what: 'left' });
    case 'passed': {
      const to = found.gathered.acts.find((who) => who.handle === step.to && who.id !== ctx.viewer.id);
      return to
        ? said(ctx, found, { what: 'passed', toId: to.id, line: step.line })
        : refuse('badInput', { fields: { to: 'nobodySuch' } });
    }
    default: {
      const offered = stepsOf(found.gathered, found.row).map(({ act }) => act);
      if (!offered.includes(step.act === 'move' ? 'another' : step.act)) return refuse('deskGone');
      const done = doStep(ctx, found, step);
      if (!done.ok) return done;
      word(ctx, found, { what: 'done', act: step.act });
      if (!('twin' in step && step.twin)) return done;
      const also = answerTwins(ctx, found, step);
      if (!also.ok) return also;
      for (const { one, cause } of also.value.twins) note(ctx, one, cause, { what: 'done', act: step.act });
      return ok({ ...done.value, sendings: [...done.value.sendings, ...also.value.sendings] });
    }
  }
}

interface Word {
  readonly what: 'later' | 'left' | 'passed' | 'done';
  readonly until?: number;
  readonly toId?: number;
  readonly line?: string;
  readonly act?: string;
}

const word = (ctx: Context, { row, gathered }: Row, one: Word): void =>
  note(ctx, gathered.one, row.key, one, row.versions);

function note(
  ctx: Context,
  { person }: ActedFor,
  cause: string,
  { what, until, toId, line, act: done }: Word,
  versions: Readonly<Record<string, number>> = {},
): void {
  insertDeskWord(ctx.db, {
    ownerId: person.id,
    cause,
    byId: ctx.viewer.id,
    at: ctx.now,
    what,
    until: until ?? null,
    versions: what === 'left' ? versions : {},
    toId: toId ?? null,
    line: line ?? '',
    act: done ?? null,
  });
}

function said(ctx: Context, found: Row, one: Word): Result<DeskDone> {
  word(ctx, found, one);
  if (one.what !== 'later')
    trailOn(ctx, found.gathered.one.decided.calendar, deskKey(found.row.key), `desk.${one.what}`, null, {
      kind: found.row.kind,
    });
  return ok({ ...NOTHING, said: true });
}

/** Takes back the latest one said of a row oneself, and what has no undo of its own: without whom a meeting takes place, and access. */
function takeBackWord(ctx: Context, whom: readonly ActedFor[], key: string): Result<DeskDone> {
  const last = lastWord(ctx, whom, key, true);
  const one = whom.find(({ person }) => person.id === last?.ownerId);
  if (!last || !one) return refuse('notFound');
  const { fact } = causeOf(last.cause);
  if (last.act === 'without') unsayWithout(ctx.db, fact.split('~')[0] ?? '', last.at);
  if (last.act === 'extend' || last.act === 'takeAccess') {
    const back = giveBack(ctx, fact, last.at);
    if (!back.ok) return back;
  }
  dropDeskWord(ctx.db, last.id);
  heard(ctx, { one, acts: whoActsFor(ctx, one) });
  return ok(NOTHING);
}

/** Those who act for somebody hear that something was decided, and they themselves do. */
function heard(ctx: Context, { one, acts }: Pick<Gathered, 'one' | 'acts'>): void {
  tellPeople(ctx.db, [one.person.id, ctx.viewer.id, ...acts.map(({ id }) => id)]);
}
