import { createHash } from 'node:crypto';
import type { Decision } from '@/core/access/index.ts';
import { calendarByKey } from '../../repositories/calendars.ts';
import { saveSyncState, syncState } from '../../repositories/program-sync.ts';
import { lastEntryOn } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { programList } from './program-list.ts';
import type { ProgramObject } from './program-object.ts';

const DAY = 86_400_000;

const hash = (what: unknown): string =>
  createHash('sha256').update(JSON.stringify(what)).digest('base64url').slice(0, 22);

/**
 * What tells its owner whether anything of a collection changed: the last entry of its trail, what they may do there, and the day, with
 * which the weeks that are shown move on.
 */
export function collectionTag(ctx: Context, id: number, { rights, ceiling }: Decision): string {
  return hash([id, lastEntryOn(ctx.db, id), rights, ceiling, ctx.viewer.language, Math.floor(ctx.now / DAY)]);
}

/** What changed of a collection since a token, and the token of now. */
interface Changes {
  readonly changed: readonly ProgramObject[];
  readonly gone: readonly string[];
  readonly token: string;
  /** Not all of it: the rest is had by asking with the new token. */
  readonly cut: boolean;
}

/**
 * What changed of a collection since a program had it by `since` (RFC 6578), or all of it for `null`; at most `most`. `now` is its tag, taken before
 * `objects`, all there is now, was read; `null` where it has none for the viewer: then it is a state by what they see. Refused is a token by
 * which nothing is kept.
 */
export function changesSince(
  ctx: Context,
  key: string,
  {
    since,
    now,
    objects,
    partial,
    most,
  }: {
    since: string | null;
    now: string | null;
    objects: readonly ProgramObject[];
    /** There is more than `objects`: what isn't among them isn't gone for that. */
    partial: boolean;
    most: number;
  },
): Result<Changes> {
  const collection = programList(ctx.db, key) ?? calendarByKey(ctx.db, key);
  if (!collection) return refuse('notFound');
  const had = since === null ? new Map<string, string>() : syncState(ctx.db, ctx.viewer.id, collection.id, since);
  if (!had) return refuse('changedMeanwhile');
  const here = new Set(objects.map(({ name }) => name));
  const allChanged = objects.filter(({ name, tag }) => had.get(name) !== tag);
  const allGone = partial ? [] : [...had.keys()].filter((name) => !here.has(name));
  const gone = allGone.slice(0, most);
  const changed = allChanged.slice(0, most - gone.length);
  const cut = changed.length + gone.length < allChanged.length + allGone.length;
  const state = new Map(had);
  for (const name of gone) state.delete(name);
  for (const { name, tag } of changed) state.set(name, tag);
  // A part of what changed is a state of its own.
  const seen = () => hash([...state].sort(([a], [b]) => (a < b ? -1 : 1)));
  const token = cut || now === null ? seen() : now;
  // A program that asks again and again, and hears that nothing changed, writes nothing.
  if (token !== since || changed.length + gone.length > 0)
    ctx.db.write(() => saveSyncState(ctx.db, ctx.viewer.id, collection.id, token, state));
  return ok({ changed, gone, token, cut });
}
