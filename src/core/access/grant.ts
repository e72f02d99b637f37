import type { CollectionKind } from '../collection/index.ts';
import type { Rights } from './rights.ts';

/** To whom a grant speaks. */
export type Audience =
  | { readonly kind: 'person'; readonly id: string }
  | { readonly kind: 'group'; readonly id: string }
  | { readonly kind: 'everyone' }
  | { readonly kind: 'link'; readonly id: string };

/** A grant as a decision reads it. `from` and `until` are epoch milliseconds; `null` is open. `key` names it in explanations. */
export interface Grant {
  readonly key: string;
  readonly audience: Audience;
  readonly rights: Rights;
  readonly from: number | null;
  readonly until: number | null;
}

/** The shared thing as a decision reads it; `main` is whether it is the calendar that carries its owner's name. */
export interface Collection {
  readonly kind: CollectionKind;
  readonly main: boolean;
  readonly owner: string;
  readonly suspended: boolean;
  readonly grants: readonly Grant[];
}

/** Who looks: a person (with the groups they are in), or whoever holds a link. */
export type Viewer =
  | { readonly kind: 'person'; readonly id: string; readonly inside: boolean; readonly groups: ReadonlySet<string> }
  | { readonly kind: 'link'; readonly id: string };

/** Whether a grant counts at an instant: `from <= now < until`. */
export function isActive(grant: Grant, now: number): boolean {
  return (grant.from === null || grant.from <= now) && (grant.until === null || now < grant.until);
}
