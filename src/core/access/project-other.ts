import type { OtherItems, OtherKind } from '../collection/index.ts';
import type { Decision } from './decide.ts';
import { otherPolicies } from './kinds.ts';
import { SIGHT_RANK } from './ladder.ts';
import { type Standing, seenAs } from './see.ts';

/** What a viewer may be given of an item that isn't a calendar's: the fields of their sight, by the table of its kind. */
export type OtherView<K extends OtherKind, P> = Partial<OtherItems<P>[K]>;

/**
 * What a viewer may be given of one item of contacts, tasks or a message folder under a decision; `null` where the item is left
 * out. Such items have no status and are never cancelled; a private one is left out, so that nobody can tell there are any.
 */
export function projectOther<K extends OtherKind, P>(
  kind: K,
  item: OtherItems<P>[K],
  standing: Standing,
  decision: Decision,
): OtherView<K, P> | null {
  const facts = { visibility: item.visibility, shows: 'busy', cancelled: false, ownerAnswer: null } as const;
  const seen = seenAs(facts, standing, decision);
  if (seen !== 'title' && seen !== 'outline' && seen !== 'full') return null;
  const view: Partial<Record<keyof OtherItems<P>[K], unknown>> = {};
  for (const field of FIELDS_AT[kind][seen] as (keyof OtherItems<P>[K])[]) view[field] = item[field];
  return view as OtherView<K, P>;
}

/** The fields of a kind that are seen at a sight, by its table; worked out once. */
const FIELDS_AT = Object.fromEntries(
  Object.entries(otherPolicies).map(([kind, policy]) => [
    kind,
    Object.fromEntries(
      (['title', 'outline', 'full'] as const).map((seen) => [
        seen,
        Object.keys(policy).filter((field) => SIGHT_RANK[policy[field as keyof typeof policy]] <= SIGHT_RANK[seen]),
      ]),
    ),
  ]),
) as unknown as Readonly<Record<OtherKind, Readonly<Record<'title' | 'outline' | 'full', readonly string[]>>>>;
