import { createTranslator } from 'use-intl/core';
import type { ItemWire } from '@/contract/items/items.ts';
import type { BlockWords } from '@/core/formats/index.ts';
import { fromWallLenient, parseDate, parseInstant, type Span } from '@/core/time/index.ts';
import { type Language, LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';

/** The blocks without words as they are called in a language. */
export function blockWords(language: Language): BlockWords {
  const t = createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'board' });
  const word = (shows: string) => t('busyWord', { shows });
  return {
    busy: word('busy'),
    tentative: word('tentative'),
    away: word('away'),
    reachable: word('reachable'),
    free: word('free'),
    withheld: t('private'),
  };
}

/** When somebody is taken by what is seen of them, and how: days are those of a zone. Instants in epoch milliseconds. */
export function takenIn(
  items: readonly ItemWire[],
  zone: string,
): { readonly span: Span; readonly shows: ItemWire['shows'] }[] {
  const at = (text: string, allDay: boolean) =>
    allDay ? fromWallLenient(zone, parseDate(text) ?? 0) : (parseInstant(text) ?? 0);
  return items.map(({ start, end, allDay, shows }) => ({ span: [at(start, allDay), at(end, allDay)], shows }));
}
