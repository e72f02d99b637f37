'use client';
import { useTranslations } from 'use-intl';

const SIGHT_RULES = ['everyoneSight', 'outsideSight', 'linkSight'];

/** The word for a house rule's value. */
export function useRuleValue(): (rule: string, value: string) => string {
  const t = useTranslations();
  return (rule, value) =>
    SIGHT_RULES.includes(rule) ? t(`sights.${value as 'full'}`) : t(`ruleValues.${value as 'own'}`);
}
