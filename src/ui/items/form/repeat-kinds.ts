'use client';
import { useTranslations } from 'use-intl';
import { dateWords } from '../../common/fields/date-words.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { locale } from '../../common/language.ts';
import { DAY } from '../../common/times.ts';
import { rulePartsOf } from './rule-words.ts';

/** A rule in words, as far as there are any for it; otherwise as the format writes it. */
export function useRepeatWords(): (rule: string | null, added?: number) => string {
  const t = useTranslations('form.repeat');
  const tr = useTranslations('rule');
  const { style } = useFrame();
  return (rule, added = 0) => {
    // Without a rule it is the picked days alone; beside one they are counted.
    if (added > 0) {
      const addedWords = t('beside', { count: added });
      return rule === null ? t('pickedDays', { count: added + 1 }) : `${inWords(rule)}, ${addedWords}`;
    }
    return inWords(rule);
  };
  function inWords(rule: string | null): string {
    const kind = repeatKind(rule);
    if (rule === null || kind === 'none') return t('none');
    const parts = rulePartsOf(rule);
    if (parts === null) return kind === 'kept' || kind === 'said' ? t('kept', { rule }) : t(kind);
    const { freq, interval, days, which, workday, dates, month, count, until } = parts;
    const list = new Intl.ListFormat(locale(), { type: 'conjunction' });
    const names = list.format(days.map((d) => weekdayLong(MONDAY + d * DAY)));
    const on =
      which !== null
        ? workday
          ? tr('nthWorkday', { which })
          : tr('nth', { which, day: names })
        : dates.length > 0
          ? list.format(dates.map((date) => tr('date', { date })))
          : days.length === 5 && days.join() === '0,1,2,3,4'
            ? tr('workdays')
            : names;
    const words = [
      tr('every', { freq, interval }),
      on === '' ? '' : tr('on', { on, working: days.length === 5 && which === null ? 'yes' : 'no' }),
      month === null ? '' : tr('in', { month: monthLong(month) }),
      count === null ? '' : tr('count', { count }),
      until === null ? '' : tr('until', { day: dateWords(until, style.dateOrder) }),
    ];
    return words.filter(Boolean).join(' ');
  }
}

const MONDAY = 4 * DAY;
const long = (wall: number, options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat(locale(), { ...options, timeZone: 'UTC' }).format(wall);
const weekdayLong = (wall: number) => long(wall, { weekday: 'long' });
const monthLong = (month: number) => long(Date.UTC(2027, month - 1, 1), { month: 'long' });

const SIMPLE = {
  'FREQ=DAILY': 'DAILY',
  'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR': 'WEEKDAYS',
  'FREQ=WEEKLY': 'WEEKLY',
  'FREQ=WEEKLY;INTERVAL=2': 'FORTNIGHT',
  'FREQ=MONTHLY': 'MONTHLY',
  'FREQ=YEARLY': 'YEARLY',
} as const;

export type RepeatKind = (typeof SIMPLE)[keyof typeof SIMPLE] | 'none' | 'kept' | 'said' | 'picked';

/** Which of the form's choices a rule is, its end not counted; `kept` for any other. */
export function repeatKind(rule: string | null): RepeatKind {
  if (rule === null) return 'none';
  const plain = rule
    .replace(/;?UNTIL=[^;]*/, '')
    .replace(/;?WKST=MO/, '')
    .replace(/^(FREQ=WEEKLY(?:;INTERVAL=2)?);BYDAY=[A-Z]{2}$/, '$1');
  return SIMPLE[plain as keyof typeof SIMPLE] ?? 'kept';
}

/** The rule for one of the form's choices, with its last day where one is given, or the one that was said. */
export function ruleFor(kind: RepeatKind, lastDay: string, said: string): string | null {
  if (kind === 'none' || kind === 'kept' || kind === 'picked') return null;
  if (kind === 'said') return said || null;
  const rule = (Object.entries(SIMPLE).find(([, k]) => k === kind) as [string, string])[0];
  return lastDay ? `${rule};UNTIL=${lastDay.replace(/-/g, '')}T235959` : rule;
}
