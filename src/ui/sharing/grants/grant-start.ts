import type { ChoiceWire, PreviewAnswer } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { SIGHTS } from '@/core/calendar/index.ts';

/**
 * What a new row starts with, from what its audience has already, through a group or as everyone inside: all of that, and the lowest sight that
 * adds something and can be given. Saved as it stands, it takes nothing away.
 */
export function startOf(had: RightsWire, choices: readonly ChoiceWire[]): RightsWire {
  const rank = (sight: string) => SIGHTS.indexOf(sight as RightsWire['sight']);
  const next = choices.find(
    (c) => c.group === 'sight' && rank(c.value) > rank(had.sight) && c.barred === null && c.needs === null,
  );
  return next ? { ...had, sight: next.rights.sight } : had;
}

/** Whether rights that are thought of show somebody less than they see now. */
export const seesLess = ({ before, effective }: Pick<PreviewAnswer, 'before' | 'effective'>): boolean =>
  SIGHTS.indexOf(effective.sight) < SIGHTS.indexOf(before.sight);
