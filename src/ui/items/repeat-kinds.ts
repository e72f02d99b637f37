'use client';
import { useTranslations } from 'use-intl';

/** A rule in words, as far as the form can make one; otherwise as the format writes it. */
export function useRepeatWords(): (rule: string | null) => string {
  const t = useTranslations('form.repeat');
  return (rule) => {
    const kind = repeatKind(rule);
    return kind === 'kept' ? t('kept', { rule: rule ?? '' }) : t(kind);
  };
}

export const SIMPLE = {
  'FREQ=DAILY': 'DAILY',
  'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR': 'WEEKDAYS',
  'FREQ=WEEKLY': 'WEEKLY',
  'FREQ=WEEKLY;INTERVAL=2': 'FORTNIGHT',
  'FREQ=MONTHLY': 'MONTHLY',
  'FREQ=YEARLY': 'YEARLY',
} as const;

export type RepeatKind = (typeof SIMPLE)[keyof typeof SIMPLE] | 'none' | 'kept';

/** Which of the form's choices a rule is, its end not counted; `kept` for any other. */
export function repeatKind(rule: string | null): RepeatKind {
  if (rule === null) return 'none';
  const plain = rule
    .replace(/;?UNTIL=[^;]*/, '')
    .replace(/;?WKST=MO/, '')
    .replace(/^(FREQ=WEEKLY(?:;INTERVAL=2)?);BYDAY=[A-Z]{2}$/, '$1');
  return SIMPLE[plain as keyof typeof SIMPLE] ?? 'kept';
}

/** The rule for one of the form's choices, with its last day where one is given. */
export function ruleFor(kind: RepeatKind, lastDay: string): string | null {
  if (kind === 'none' || kind === 'kept') return null;
  const rule = (Object.entries(SIMPLE).find(([, k]) => k === kind) as [string, string])[0];
  return lastDay ? `${rule};UNTIL=${lastDay.replace(/-/g, '')}T235959` : rule;
}
