import { itemFields } from '@/core/calendar/index.ts';
import { isZone, parseDate } from '@/core/time/index.ts';
import { readTime } from '../../common/fields/read-time.ts';
import { type Values, whenOf } from './item-values.ts';

/** What is wrong in the form before anything is sent: fields with the codes of their sentences. */
export function wrongIn(v: Values, titleCounts: boolean): [keyof Values, string][] {
  const wrong: [keyof Values, string][] = [];
  const title = itemFields.title.safeParse(v.title);
  if (!title.success && titleCounts) {
    const code = title.error.issues[0]?.message ?? '';
    wrong.push(['title', code.startsWith('tooLong') || code === 'titleMissing' ? code : 'control']);
  }
  if (v.link && !itemFields.link.safeParse(v.link).success) wrong.push(['link', 'link']);
  if (!isZone(v.zone)) wrong.push(['zone', 'zone']);
  if (v.endZone !== '' && !isZone(v.endZone)) wrong.push(['endZone', 'zone']);
  if (v.repeatUntil !== '' && v.repeat !== 'none' && parseDate(v.repeatUntil) === null)
    wrong.push(['repeatUntil', 'date']);
  const when = whenOf(v);
  if (parseDate(v.day) === null) wrong.push(['day', 'date']);
  else if (parseDate(v.lastDay) === null) wrong.push(['lastDay', 'date']);
  else if (!v.allDay && !readTime(v.from)) wrong.push(['from', 'time']);
  else if (!v.allDay && !readTime(v.to)) wrong.push(['to', 'time']);
  // On two clocks an end may read earlier than its start: whether it is is for the server to say.
  else if (v.endZone === '' && when.end <= when.start) wrong.push([v.allDay ? 'lastDay' : 'to', 'endBeforeStart']);
  return wrong;
}
