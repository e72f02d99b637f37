import { dateText, wallText } from '@/core/time/index.ts';
import type { Taken } from '../times/times-found.tsx';
import type { FormDraft, Values } from './item-values.ts';

/** The form as a time that is taken begins it: something new, or an item that stands already put there. */
export function formOf({ start, end, people, place, rule }: Taken, item: string | null, title = ''): FormDraft {
  const at: Partial<Values> = {
    allDay: false,
    day: dateText(start),
    from: wallText(start).slice(11, 16),
    lastDay: dateText(end),
    to: wallText(end).slice(11, 16),
  };
  const said: Partial<Values> = {
    ...(place === '' ? {} : { place }),
    ...(title === '' ? {} : { title }),
    ...(rule === null ? {} : { repeat: 'said' as const, rule }),
  };
  // Who comes to what stands already, and where, stays as it is.
  if (item !== null) return { item, start, end, values: at, why: '', people: null };
  return { item: null, start, end, values: said, why: '', people: people.length > 0 ? people : null };
}
