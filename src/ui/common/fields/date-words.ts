import type { DateOrder } from '@/core/sentence/index.ts';
import { parseDate } from '@/core/time/index.ts';
import { language, SHORT_PT } from '../language.ts';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

/** A date (`YYYY-MM-DD`) as text in a person's own order, with its day of the week, in the language that is spoken: `Tue 2 Mar 2027`. Other text stays as it is. */
export function dateWords(date: string, order: DateOrder): string {
  const at = parseDate(date);
  if (at === null) return date;
  const [year = '', month = '', day = ''] = date.split('-');
  const portuguese = language() === 'pt';
  const weekday = (portuguese ? SHORT_PT.weekdays : WEEKDAYS)[new Date(at).getUTCDay()];
  const name = (portuguese ? SHORT_PT.months : MONTHS)[Number(month) - 1];
  if (order === 'ymd') return `${weekday} ${date}`;
  return order === 'mdy' ? `${weekday} ${name} ${Number(day)}, ${year}` : `${weekday} ${Number(day)} ${name} ${year}`;
}
