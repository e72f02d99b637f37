import { createHash, randomInt } from 'node:crypto';
import type { AccountsAnswer } from '@/contract/people/accounts.ts';
import { instantText } from '@/core/time/index.ts';
import { limiter } from '../../auth/limiter.ts';
import { insertOperator } from '../../repositories/operators.ts';
import { personByHandle, personById } from '../../repositories/people.ts';
import { isTied, saveCode, spendCode, tie, tiedTo, untie } from '../../repositories/same-person.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { again, type Context, trailOwn } from '../deciding/index.ts';

const CODE_FOR = 15 * 60_000;
/** Letters and figures that nobody takes for another. */
const LETTERS = 'ABCDEFGHJKMNPQRSTVWXYZ23456789';
const LENGTH = 10;
/** Codes that one person may try in a quarter of an hour, and accounts that may be tied to one. */
const tries = limiter(10, CODE_FOR);
const MOST_TIED = 5;

const plainCode = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '');
const digestOf = (code: string): string => createHash('sha256').update(plainCode(code)).digest('hex');

/** The accounts that are tied to that of the viewer: theirs too, so that nothing about them is a secret here. */
export function listAccounts(ctx: Context): AccountsAnswer {
  return {
    tied: tiedTo(ctx.db, ctx.viewer.id).flatMap(({ id, at }) => {
      const person = personById(ctx.db, id);
      if (!person) return [];
      const { handle, name, address, inside } = person;
      return [{ handle, name, address, inside, since: instantText(at) }];
    }),
  };
}

/** Makes the code that proves this account in the other: good once, for a quarter of an hour, and the one before no more. */
export function makeAccountCode(ctx: Context): Result<{ code: string; until: string }> {
  if (ctx.viewer.kind === 'role') return refuse('roleTied');
  const letters = Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  const ends = ctx.now + CODE_FOR;
  ctx.db.write(() => saveCode(ctx.db, ctx.viewer.id, digestOf(letters), ends));
  return ok({ code: `${letters.slice(0, LENGTH / 2)}-${letters.slice(LENGTH / 2)}`, until: instantText(ends) });
}

/**
 * Ties the account a code was made in to that of whoever gives it: whoever has both is in both. What each of the two may see stays as it is; it
 * says whose they are, where access is given to one of them.
 */
export function tieAccount(ctx: Context, { code }: { readonly code: string }): Result<AccountsAnswer> {
  if (ctx.viewer.kind === 'role') return refuse('roleTied');
  if (!tries.take(String(ctx.viewer.id), ctx.now)) return refuse('tooManyTries');
  return ctx.db.write(() => {
    let other: number | null = null;
    // A code is good once, whatever comes of it.
    ctx.db.evenIfRefused(() => {
      other = spendCode(ctx.db, digestOf(code), ctx.now) ?? other;
    });
    const person = other === null ? null : personById(ctx.db, other);
    if (!person || person.account === null || person.leftAt !== null)
      return refuse('badInput', { fields: { code: 'codeWrong' } });
    if (person.id === ctx.viewer.id) return refuse('badInput', { fields: { code: 'codeOwn' } });
    const most = [ctx.viewer.id, person.id].some((id) => tiedTo(ctx.db, id).length >= MOST_TIED);
    if (most && !isTied(ctx.db, ctx.viewer.id, person.id))
      return refuse('badInput', { fields: { code: `tooManyTied:${MOST_TIED}` } });
    tie(ctx.db, ctx.viewer.id, person.id, ctx.now);
    trailOwn(ctx, person.key, 'account.tied', null, { with: person.address });
    return ok(listAccounts(ctx));
  });
}

export function untieAccount(ctx: Context, handle: string): Result<AccountsAnswer> {
  const person = personByHandle(ctx.db, handle);
  if (!person || !isTied(ctx.db, ctx.viewer.id, person.id)) return refuse('notFound');
  return ctx.db.write(() => {
    untie(ctx.db, ctx.viewer.id, person.id);
    trailOwn(ctx, person.key, 'account.untied', { with: person.address }, null);
    return ok(listAccounts(ctx));
  });
}

/** Says who is behind a role account's window from now on, today: it stands with everything that is done in it. */
export function setOperator(ctx: Context, { name }: { readonly name: string }): Result<{ done: true }> {
  if (ctx.viewer.kind !== 'role' || !ctx.session) return refuse('notFound');
  const { session } = ctx;
  return ctx.db.write(() => {
    // That nobody said so yet is no reason not to say it; that the window was signed out meanwhile is.
    const now = again(ctx);
    if ('ok' in now && now.code !== 'handsFirst') return now;
    insertOperator(ctx.db, ctx.viewer.id, session, name, ctx.now);
    trailOwn(ctx, ctx.viewer.key, 'hands.said', null, { name });
    return ok({ done: true as const });
  });
}
