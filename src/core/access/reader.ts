import type { Item, ItemView } from '../calendar/index.ts';
import type { Decision } from './decide.ts';
import { type MayItem, mayItem } from './may.ts';
import { type Build, buildFor } from './project.ts';
import { effectiveStatus, type ItemFacts, type SeenAs, type Standing, seenAs } from './see.ts';

/** A decision applied to many items: the same answers as the plain functions, each kind of item decided once. */
export interface Reader {
  seen(item: ItemFacts, standing: Standing): SeenAs | null;
  view<P, A>(item: Item<P, A>, standing: Standing): ItemView<P, A> | null;
  may(item: ItemFacts, standing: Standing): MayItem;
}

interface Answer {
  readonly seen: SeenAs | null;
  readonly build: Build | null;
  readonly may: MayItem;
}

/**
 * Makes a reader of a decision. What decides about an item is its visibility and five facts, so a decision has at most 128
 * answers: each is worked out by the rule itself when first met, and looked up from then on.
 */
export function readerOf(decision: Decision): Reader {
  const answers: (Answer | null)[] = new Array(128).fill(null);
  const answerFor = (item: ItemFacts, standing: Standing, free: boolean): Answer => {
    const { visibility } = item;
    const kind =
      (visibility === 'follow' ? 0 : visibility === 'private' ? 1 : visibility === 'open' ? 2 : 3) |
      (standing.named ? 4 : 0) |
      (standing.created ? 8 : 0) |
      (standing.ownerInvited ? 16 : 0) |
      (item.cancelled ? 32 : 0) |
      (free ? 64 : 0);
    return answers[kind] ?? work(kind, item, standing);
  };
  const work = (kind: number, item: ItemFacts, standing: Standing): Answer => {
    const seen = seenAs(item, standing, decision);
    const build = seen === null ? null : buildFor(seen, decision);
    const answer = { seen, build, may: mayItem(item, standing, decision) };
    answers[kind] = answer;
    return answer;
  };
  return {
    seen: (item, standing) => answerFor(item, standing, effectiveStatus(item) === 'free').seen,
    view: (item, standing) => {
      const shows = effectiveStatus(item);
      const { build } = answerFor(item, standing, shows === 'free');
      return build === null ? null : build(item, shows);
    },
    may: (item, standing) => answerFor(item, standing, effectiveStatus(item) === 'free').may,
  };
}
