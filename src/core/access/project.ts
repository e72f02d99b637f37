import type { Item, ItemView } from '../calendar/index.ts';
import type { Decision } from './decide.ts';
import type { fieldPolicy } from './field-policy.ts';
import { effectiveStatus, type SeenAs, type Standing, seenAs } from './see.ts';

type Policy = typeof fieldPolicy;
type FieldsAt<S> = { [K in keyof Policy]: Policy[K] extends S ? K : never }[keyof Policy];
type Exactly<S> = { readonly [K in FieldsAt<S>]: unknown };

/**
 * What a viewer may be given of one item under a decision, built field by field from nothing; `null` where the item is
 * left out. Without ids: those are the caller's, and below `full` must be opaque. The only maker of an `ItemView`.
 */
export function project<P, A>(item: Item<P, A>, standing: Standing, decision: Decision): ItemView<P, A> | null {
  const seen = seenAs(item, standing, decision);
  return seen === null ? null : viewAs(item, seen, decision);
}

/** The fields of an item for a way of seeing it that `seenAs` has answered. */
export function viewAs<P, A>(item: Item<P, A>, seen: SeenAs, decision: Decision): ItemView<P, A> {
  const shows = effectiveStatus(item);
  switch (seen) {
    case 'busy':
      return { start: item.start, end: item.end, allDay: item.allDay, shows } satisfies Exactly<'busy'>;
    case 'withheld':
      return decision.rights.sight === 'busy'
        ? { start: item.start, end: item.end, allDay: item.allDay, shows }
        : { start: item.start, end: item.end, allDay: item.allDay, shows, withheld: true };
    case 'title':
      return {
        start: item.start,
        end: item.end,
        allDay: item.allDay,
        shows,
        title: item.title,
        kind: item.kind,
      } satisfies Exactly<'busy' | 'title'>;
    case 'outline':
      return {
        start: item.start,
        end: item.end,
        allDay: item.allDay,
        shows,
        title: item.title,
        kind: item.kind,
        place: item.place,
      } satisfies Exactly<'busy' | 'title' | 'outline'>;
    case 'full':
      return {
        start: item.start,
        end: item.end,
        allDay: item.allDay,
        shows,
        title: item.title,
        kind: item.kind,
        place: item.place,
        notes: item.notes,
        link: item.link,
        organiser: item.organiser,
        attendees: item.attendees,
        categories: item.categories,
        importance: item.importance,
        repeats: item.repeats,
        visibility: item.visibility,
        createdBy: item.createdBy,
      } satisfies Exactly<'busy' | 'title' | 'outline' | 'full'>;
    case 'briefed':
      return {
        start: item.start,
        end: item.end,
        allDay: item.allDay,
        shows,
        title: item.title,
        kind: item.kind,
        place: item.place,
        notes: item.notes,
        link: item.link,
        organiser: item.organiser,
        attendees: item.attendees,
        categories: item.categories,
        importance: item.importance,
        repeats: item.repeats,
        visibility: item.visibility,
        createdBy: item.createdBy,
        briefing: item.briefing,
      } satisfies Exactly<'busy' | 'title' | 'outline' | 'full' | 'briefed'>;
    default:
      return seen satisfies never;
  }
}
