import { useTranslations } from 'use-intl';
import type { PersonWire } from '@/contract/people/people.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from './frame-context.tsx';
import { useLevelName } from './requests/level-name.ts';
import { dayMonth } from './times.ts';

/** What becomes of somebody's sight by itself, in words: until when it lasts, or what it is from which day on; `null` where it stays. */
export function useComesNext(): (seen: Pick<PersonWire, 'until' | 'next'>) => string | null {
  const t = useTranslations('people');
  const levelName = useLevelName();
  const { style } = useFrame();
  return ({ until, next }) => {
    if (until === null || next === null) return null;
    const at = parseInstant(until) ?? 0;
    return next.sight === 'nothing'
      ? t('until', { date: dayMonth(toWall(style.zone, at - 1)) })
      : t('then', { date: dayMonth(toWall(style.zone, at)), what: levelName(next) });
  };
}
