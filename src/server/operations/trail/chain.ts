import { instantText } from '@/core/time/index.ts';
import { type Connection, entryDigest, textDigest } from '../../db/index.ts';
import {
  type ChainLink,
  chainAfter,
  digestBefore,
  entriesSaying,
  forgetEntry,
  trailHead,
} from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, trailOwn } from '../deciding/index.ts';

const HOUR = 3_600_000;
const AT_ONCE = 1000;

/** What the chain of the trail comes to: whole, or the first entry that isn't what it was. */
export type ChainRead =
  | { readonly whole: true; readonly entries: number; readonly forgotten: number; readonly digest: string }
  | {
      readonly whole: false;
      /** What is wrong: an entry reads otherwise, what it said is otherwise or gone without a word, or entries at the end are missing. */
      readonly wrong: 'entry' | 'text' | 'forgotten' | 'end' | 'notFound';
      /** The first entry that isn't what it was; `null` where it is missing. */
      readonly entry: Pick<ChainLink, 'key' | 'at' | 'verb'> | null;
      /** How many entries stand before it. */
      readonly entries: number;
    };

/**
 * Reads the trail from its beginning and holds each entry against its digest and the one before. `known` is a digest somebody kept
 * (from a letter or the API): it has to be that of an entry, else what it was of is gone.
 */
export function chainOf(db: Connection, known: string | null): ChainRead {
  const head = trailHead(db);
  let [previous, entries, forgotten, last] = ['', 0, 0, 0];
  let found = known === null;
  const unsaid = new Map<string, { readonly entry: ChainLink; readonly entries: number }>();
  for (;;) {
    const links = chainAfter(db, last, AT_ONCE);
    for (const link of links) {
      const wrong = (what: 'entry' | 'text') => ({ whole: false as const, wrong: what, entry: link, entries });
      if (link.digest !== entryDigest(previous, link, link.textDigest)) return wrong('entry');
      if (link.forgottenAt === null) {
        if (link.salt === null || link.textDigest !== textDigest(link.salt, link)) return wrong('text');
      } else {
        forgotten++;
        unsaid.set(link.key, { entry: link, entries });
      }
      // Whoever had something forgotten is in the chain too, with what.
      if (link.verb === 'trail.forgotten') for (const key of forgottenBy(link)) unsaid.delete(key);
      previous = link.digest;
      found ||= previous === known;
      entries++;
      last = link.id;
    }
    if (links.length < AT_ONCE) break;
  }
  const [gone] = unsaid.values();
  if (gone) return { whole: false, wrong: 'forgotten', ...gone };
  if (head.entries !== entries || head.digest !== previous) return { whole: false, wrong: 'end', entry: null, entries };
  if (!found) return { whole: false, wrong: 'notFound', entry: null, entries };
  return { whole: true, entries, forgotten, digest: previous };
}

function forgottenBy({ after }: ChainLink): string[] {
  const said: unknown = after === null ? null : JSON.parse(after);
  const { entries } = (said ?? {}) as { entries?: unknown };
  return Array.isArray(entries) ? entries.filter((key): key is string => typeof key === 'string') : [];
}

/** The digest of the trail as it stood at the last full hour, for whoever is inside: it tells nothing of what was done since. */
export function readTrailDigest(ctx: Context): Result<{ at: string; digest: string }> {
  if (!ctx.viewer.inside) return refuse('insideOnly');
  const at = Math.floor(ctx.now / HOUR) * HOUR;
  return ok({ at: instantText(at), digest: digestBefore(ctx.db, at) });
}

/**
 * Forgets what the trail says of an item (by its key) or in one entry: the texts before and after and who was behind, not that something was done,
 * when and by whom. For administrators; that they did is in the trail. Answers how many entries were forgotten.
 */
export function forgetTrail(ctx: Context, subject: string): Result<{ forgotten: number }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  return ctx.db.write(() => {
    const entries = entriesSaying(ctx.db, subject);
    if (entries.length === 0) return refuse('notFound');
    for (const key of entries) forgetEntry(ctx.db, key, ctx.now);
    trailOwn(ctx, subject, 'trail.forgotten', null, { entries });
    return ok({ forgotten: entries.length });
  });
}
