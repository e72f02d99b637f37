import type { Item } from './item.ts';
import type { FieldSeenAt } from './item-fields.ts';
import type { Attendee, Party } from './kinds.ts';

type SeenAt<S, P, A> = Pick<Item<P, A>, Extract<FieldSeenAt<S>, keyof Item>>;

/** What each way of seeing an item carries, and nothing else. Only `core/access` makes these. */
type BusyView = SeenAt<'busy', unknown, unknown>;
type WithheldView = BusyView & { readonly withheld: true };
type TitleView<P, A> = BusyView & SeenAt<'title', P, A>;
type OutlineView<P, A> = TitleView<P, A> & SeenAt<'outline', P, A>;
type FullView<P, A> = OutlineView<P, A> & SeenAt<'full', P, A>;
type BriefedView<P, A> = FullView<P, A> & SeenAt<'briefed', P, A>;

export type ItemView<P = Party, A = Attendee> =
  | BusyView
  | WithheldView
  | TitleView<P, A>
  | OutlineView<P, A>
  | FullView<P, A>
  | BriefedView<P, A>;
