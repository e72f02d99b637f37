import type { Item } from './item.ts';
import type { Attendee, Party } from './kinds.ts';

type Field<K extends keyof Item, P, A> = Pick<Item<P, A>, K>;

/** What each way of seeing an item carries, and nothing else. Only `core/access` makes these. */
type BusyView = Field<'start' | 'end' | 'allDay' | 'shows', unknown, unknown>;
type WithheldView = BusyView & { readonly withheld: true };
type TitleView<P = Party, A = Attendee> = BusyView & Field<'title' | 'kind', P, A>;
type OutlineView<P = Party, A = Attendee> = TitleView<P, A> & Field<'place', P, A>;
type FullView<P = Party, A = Attendee> = OutlineView<P, A> &
  Field<
    'notes' | 'link' | 'organiser' | 'attendees' | 'categories' | 'importance' | 'repeats' | 'visibility' | 'createdBy',
    P,
    A
  >;
type BriefedView<P = Party, A = Attendee> = FullView<P, A> & Field<'briefing', P, A>;

export type ItemView<P = Party, A = Attendee> =
  | BusyView
  | WithheldView
  | TitleView<P, A>
  | OutlineView<P, A>
  | FullView<P, A>
  | BriefedView<P, A>;
