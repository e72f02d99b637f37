import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { MOST_TOKENS, type TokenActs, type TokenBody, type TokenWire } from '@/contract/people/tokens.ts';
import { fromWallLenient, instantText, parseDate } from '@/core/time/index.ts';
import { now } from '../../clock.ts';
import { mustWait } from '../../db/gate.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { type Person, personById } from '../../repositories/people.ts';
import {
  insertToken,
  noteTokenUse,
  type Token,
  tokenActs,
  tokenByKey,
  tokenStands,
  tokensOf,
  withdrawTokenRow,
} from '../../repositories/tokens.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, decideOn, findCalendar, isRefusal, trailOwn } from '../deciding/index.ts';

const DAY = 86_400_000;
const ONCE_IN = 3_600_000;
/** For so long after it was withdrawn a token is listed, with what it did. */
const SHOWN_AFTER = 90 * DAY;
const digestOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');

/** The tokens by which programs come in as the viewer. Their secrets stand nowhere. */
export function listTokens(ctx: Context): Result<{ tokens: TokenWire[] }> {
  const directory = new Directory(ctx.db);
  return ok({
    tokens: tokensOf(ctx.db, ctx.viewer.id, ctx.now - SHOWN_AFTER).map((t) => {
      const calendar = t.collectionId === null ? null : calendarById(ctx.db, t.collectionId);
      return {
        key: t.key,
        name: t.name,
        reads: t.reads,
        calendar: calendar && {
          key: calendar.key,
          name: calendar.main ? directory.name(calendar.ownerId) : calendar.name,
        },
        until: t.ends === null ? null : instantText(t.ends),
        ended: t.ends !== null && t.ends <= ctx.now,
        made: instantText(t.madeAt),
        used: t.lastUsed === null ? null : instantText(t.lastUsed),
        withdrawn: t.withdrawnAt === null ? null : instantText(t.withdrawnAt),
      };
    }),
  });
}

/** Makes a token. Its secret is in this answer and nowhere else: what is kept is a digest. */
export function makeToken(ctx: Context, body: TokenBody): Result<{ secret: string }> {
  const decided = body.calendar === null ? null : findCalendar(ctx, body.calendar);
  if (decided && isRefusal(decided)) return refuse('badInput', { fields: { calendar: 'unclear' } });
  const last = body.until === null ? null : parseDate(body.until);
  if (body.until !== null && last === null) return refuse('badInput', { fields: { until: 'date' } });
  const ends = last === null ? null : fromWallLenient(ctx.viewer.zone, last + DAY);
  if (ends !== null && ends <= ctx.now) return refuse('badInput', { fields: { until: 'datePassed' } });
  if (tokensOf(ctx.db, ctx.viewer.id, Number.MAX_SAFE_INTEGER).length >= MOST_TOKENS)
    return refuse('tooManyTokens', { facts: { most: MOST_TOKENS } });
  const key = newKey();
  const secret = randomBytes(32).toString('base64url');
  const { name, reads } = body;
  ctx.db.write(() => {
    insertToken(ctx.db, {
      key,
      personId: ctx.viewer.id,
      name,
      digest: digestOf(secret),
      reads,
      collectionId: decided?.calendar.id ?? null,
      ends,
      madeAt: ctx.now,
    });
    trailOwn(ctx, key, 'token.made', null, { name, reads, calendar: body.calendar, ends });
  });
  return ok({ secret: `paramo.${key}.${secret}` });
}

const MOST_ACTS = 500;

/** What was written by one of one's own tokens, the latest first. A calendar is named as long as one sees it. */
export function readTokenActs(ctx: Context, key: string): Result<TokenActs> {
  const token = tokenByKey(ctx.db, key);
  if (token?.personId !== ctx.viewer.id) return refuse('notFound');
  const directory = new Directory(ctx.db);
  const acts = tokenActs(ctx.db, token.id, MOST_ACTS + 1);
  const nameOf = (id: number): string | null => {
    const calendar = calendarById(ctx.db, id);
    if (!calendar || decideOn(ctx, calendar).decision.rights.sight === 'nothing') return null;
    return calendar.main ? directory.name(calendar.ownerId) : calendar.name;
  };
  const names = new Map([...new Set(acts.flatMap((one) => one.collectionId ?? []))].map((id) => [id, nameOf(id)]));
  return ok({
    acts: acts.slice(0, MOST_ACTS).map(({ at, act, collectionId }) => ({
      at: instantText(at),
      act,
      calendar: collectionId === null ? null : (names.get(collectionId) ?? null),
    })),
    cut: acts.length > MOST_ACTS,
  });
}

/** Withdraws one of one's own tokens: it is refused at its next use, and within whatever it is doing. */
export function withdrawToken(ctx: Context, key: string): Result<{ done: true }> {
  const token = tokenByKey(ctx.db, key);
  if (token?.personId !== ctx.viewer.id || token.withdrawnAt !== null) return refuse('notFound');
  ctx.db.write(() => {
    withdrawTokenRow(ctx.db, key, ctx.now);
    trailOwn(ctx, key, 'token.withdrawn', { name: token.name }, null);
  });
  return ok({ done: true });
}

/** The secret in a request's `Authorization`: as a bearer's (RFC 6750), or as the password of a sign-in by name (RFC 7617). */
function secretIn(authorization: string): { secret: string; name: string | null } | null {
  const [scheme = '', value = '', ...rest] = authorization.trim().split(/\s+/);
  if (rest.length > 0 || value.length > 1000) return null;
  if (/^bearer$/i.test(scheme)) return { secret: value, name: null };
  if (!/^basic$/i.test(scheme)) return null;
  const plain = Buffer.from(value, 'base64').toString('utf8');
  const colon = plain.indexOf(':');
  return colon < 0 ? null : { secret: plain.slice(colon + 1), name: plain.slice(0, colon).trim().toLowerCase() };
}

/**
 * Who comes in by the token of a request, and what it is limited to; `null` for one that is made up, withdrawn, at its end, or whose maker
 * isn't here any more. A name that comes with it has to be its maker's address.
 */
export function tokenIn(db: Connection, authorization: string): { person: Person; token: Token } | null {
  const found = secretIn(authorization);
  const [prefix, key = '', secret = '', ...rest] = (found?.secret ?? '').split('.');
  if (!found || prefix !== 'paramo' || rest.length > 0) return null;
  const token = tokenByKey(db, key);
  const [given, right] = [Buffer.from(digestOf(secret)), Buffer.from(token?.digest ?? digestOf(''))];
  if (!token || !timingSafeEqual(given, right)) return null;
  const at = now();
  const person = personById(db, token.personId);
  if (!tokenStands(db, key, at) || !person || person.account === null || person.leftAt !== null) return null;
  if (found.name !== null && found.name !== person.address && found.name !== person.handle) return null;
  if ((token.lastUsed === null || Math.abs(at - token.lastUsed) > ONCE_IN) && !mustWait())
    db.write(() => noteTokenUse(db, key, at));
  return { person, token };
}
