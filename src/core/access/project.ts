import type { Item, ItemView, Status } from '../calendar/index.ts';
import type { Decision } from './decide.ts';
import type { fieldPolicy } from './field-policy.ts';
import { effectiveStatus, type SeenAs, type Standing, seenAs } from './see.ts';

type Policy = typeof fieldPolicy;
type FieldsAt<S> = { [K in keyof Policy]: Policy[K] extends S ? K : never }[keyof Policy];
type Exactly<S> = { readonly [K in FieldsAt<S>]: unknown };

/** Builds what one way of seeing gives of an item; `shows` is its effective status. */
export type Build = <P, A>(item: Item<P, A>, shows: Status) => ItemView<P, A>;

/** One builder a way of seeing, field by field from nothing, so that a field nobody listed is in no view. */
const BUILD: Record<SeenAs, Build> = {
  busy: (item, shows) => ({ start: item.start, end: item.end, allDay: item.allDay, shows }) satisfies Exactly<'busy'>,
  withheld: (item, shows) => ({ start: item.start, end: item.end, allDay: item.allDay, shows, withheld: true }),
  title: (item, shows) =>
    ({
      start: item.start,
      end: item.end,
      allDay: item.allDay,
      shows,
      title: item.title,
      kind: item.kind,
    }) satisfies Exactly<'busy' | 'title'>,
  outline: (item, shows) =>
    ({
      start: item.start,
      end: item.end,
      allDay: item.allDay,
      shows,
      title: item.title,
      kind: item.kind,
      place: item.place,
    }) satisfies Exactly<'busy' | 'title' | 'outline'>,
  full: (item, shows) =>
    ({
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
    }) satisfies Exactly<'busy' | 'title' | 'outline' | 'full'>,
  briefed: (item, shows) =>
    ({
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
    }) satisfies Exactly<'busy' | 'title' | 'outline' | 'full' | 'briefed'>,
};

/** The builder for a way of seeing under a decision: what is withheld looks like any busy block where no titles are seen. */
export function buildFor(seen: SeenAs, decision: Decision): Build {
  return BUILD[seen === 'withheld' && decision.rights.sight === 'busy' ? 'busy' : seen];
}

/**
 * What a viewer may be given of one item under a decision; `null` where the item is left out. Without ids: those are the
 * caller's, and below `full` must be opaque. Only this file makes an `ItemView`.
 */
export function project<P, A>(item: Item<P, A>, standing: Standing, decision: Decision): ItemView<P, A> | null {
  const seen = seenAs(item, standing, decision);
  return seen === null ? null : buildFor(seen, decision)(item, effectiveStatus(item));
}
