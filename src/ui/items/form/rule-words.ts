/** What of a rule can be said in words: its parts, or `null` where it has one that the words don't know. */
export interface RuleParts {
  readonly freq: 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY';
  readonly interval: number;
  /** Weekdays from 0, Monday. */
  readonly days: readonly number[];
  /** Which of them in a month, -1 the last; `null` for all. */
  readonly which: number | null;
  /** That the days are the working days, of which one by its order is meant. */
  readonly workday: boolean;
  readonly dates: readonly number[];
  readonly month: number | null;
  readonly count: number | null;
  /** `YYYY-MM-DD` */
  readonly until: string | null;
}

const BYDAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const KNOWN = ['FREQ', 'INTERVAL', 'BYDAY', 'BYMONTHDAY', 'BYSETPOS', 'BYMONTH', 'COUNT', 'UNTIL', 'WKST'];

export function rulePartsOf(rule: string): RuleParts | null {
  const parts = new Map(rule.split(';').map((part) => part.split('=') as [string, string]));
  const freq = parts.get('FREQ');
  if (freq !== 'DAILY' && freq !== 'WEEKLY' && freq !== 'MONTHLY' && freq !== 'YEARLY') return null;
  if ([...parts.keys()].some((key) => !KNOWN.includes(key))) return null;
  const by = (parts.get('BYDAY') ?? '')
    .split(',')
    .filter(Boolean)
    .map((one) => /^(-?\d+)?([A-Z]{2})$/.exec(one));
  if (by.some((one) => one === null || !BYDAY.includes(one[2] as string))) return null;
  const days = by.map((one) => BYDAY.indexOf(one?.[2] as string));
  const orders = [...new Set(by.map((one) => one?.[1]))];
  const setPos = parts.get('BYSETPOS');
  const workday = setPos !== undefined && days.join() === '0,1,2,3,4';
  if (orders.length > 1 || (setPos !== undefined && !workday)) return null;
  const which = orders[0] !== undefined ? Number(orders[0]) : setPos !== undefined ? Number(setPos) : null;
  if (which !== null && (which < -1 || which > 5 || freq === 'DAILY' || freq === 'WEEKLY')) return null;
  if (which === null && days.length > 0 && freq !== 'WEEKLY') return null;
  const dates = (parts.get('BYMONTHDAY') ?? '').split(',').filter(Boolean).map(Number);
  const months = (parts.get('BYMONTH') ?? '').split(',').filter(Boolean).map(Number);
  if (months.length > 1 || (months.length === 1 && freq !== 'YEARLY') || dates.some((d) => d < -1)) return null;
  if (dates.length > 0 && (freq === 'DAILY' || freq === 'WEEKLY' || days.length > 0)) return null;
  const until = /^(\d{4})(\d{2})(\d{2})/.exec(parts.get('UNTIL') ?? '');
  return {
    freq,
    interval: Number(parts.get('INTERVAL') ?? 1),
    days,
    which,
    workday,
    dates,
    month: months[0] ?? null,
    count: parts.has('COUNT') ? Number(parts.get('COUNT')) : null,
    until: until ? `${until[1]}-${until[2]}-${until[3]}` : null,
  };
}
