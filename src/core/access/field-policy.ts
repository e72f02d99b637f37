import type { Item, Sight } from '../calendar/index.ts';

/** From which way of seeing on a field is sent; `never` for what only decides. A field without an entry doesn't compile. */
export const fieldPolicy = {
  start: 'busy',
  end: 'busy',
  allDay: 'busy',
  shows: 'busy',
  title: 'title',
  kind: 'title',
  place: 'outline',
  notes: 'full',
  link: 'full',
  organiser: 'full',
  attendees: 'full',
  categories: 'full',
  importance: 'full',
  repeats: 'full',
  visibility: 'full',
  createdBy: 'full',
  briefing: 'briefed',
  cancelled: 'never',
  ownerAnswer: 'never',
} as const satisfies Record<keyof Item, Exclude<Sight, 'nothing'> | 'briefed' | 'never'>;
