import { useTranslations } from 'use-intl';
import type { TaskWire } from '@/contract/tasks.ts';
import { parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from './frame-context.tsx';
import { clock, DAY, dayName, fullDay } from './times.ts';

/** When something is due, on the reader's clock: the day as if UTC, and the time of day where one is said. */
export function dueOf(due: string | null, zone: string): { readonly day: number; readonly at: number | null } | null {
  if (due === null) return null;
  const date = parseDate(due);
  if (date !== null) return { day: date, at: null };
  const wall = toWall(zone, parseInstant(due) ?? 0);
  return { day: Math.floor(wall / DAY) * DAY, at: wall };
}

/** The parts a list of open tasks is shown in, the most pressing first. */
export const PARTS = ['overdue', 'today', 'tomorrow', 'week', 'later', 'none'] as const;
export type Part = (typeof PARTS)[number];

/** In which part a task stands: by the day it is due, and what is overdue by the minute. */
export function partOf(due: string | null, zone: string, now: number): Part {
  const when = dueOf(due, zone);
  if (when === null) return 'none';
  const wall = toWall(zone, now);
  const today = Math.floor(wall / DAY) * DAY;
  if (when.day < today || (when.at !== null && when.at < wall)) return 'overdue';
  if (when.day === today) return 'today';
  if (when.day === today + DAY) return 'tomorrow';
  return when.day < today + 7 * DAY ? 'week' : 'later';
}

/** Says when a task is due: near days by their name, others in full, with the hour where there is one. */
export function useDueWords(): (task: Pick<TaskWire, 'due'>) => string {
  const t = useTranslations('tasks');
  const { style, now } = useFrame();
  return ({ due }) => {
    const when = dueOf(due, style.zone);
    if (when === null) return '';
    const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
    const days = (when.day - today) / DAY;
    const day =
      days === 0
        ? t('today')
        : days === 1
          ? t('tomorrow')
          : days === -1
            ? t('yesterday')
            : days > 1 && days < 7
              ? dayName(when.day)
              : fullDay(when.day);
    return when.at === null ? day : `${day}, ${clock(when.at, style.hours)}`;
  };
}
