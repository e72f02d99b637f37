import { parseInstant } from '@/core/time/index.ts';
import { type Language, LOCALES } from '@/messages/languages.ts';

/**
 * Times as sentences for a letter, in a reader's zone and language: the day in words, from when to when on their clock, and where that clock is
 * ("Thursday 4 March, 14:00 to 15:00, Lisbon"). A time that ends on another day says which.
 */
export function timesText(starts: readonly string[], minutes: number, zone: string, language: Language): string {
  const locale = LOCALES[language];
  const day = new Intl.DateTimeFormat(locale, { timeZone: zone, weekday: 'long', day: 'numeric', month: 'long' });
  const hour = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' });
  const place = (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
  return [...starts]
    .sort()
    .map((start) => {
      const from = parseInstant(start) ?? 0;
      const to = from + minutes * 60_000;
      const [first, last] = [plainDay(day, from), plainDay(day, to)];
      const [a, b] = [hour.format(from), hour.format(to)];
      const until = language === 'pt' ? 'às' : 'to';
      const span = first === last ? `${a} ${until} ${b}` : `${a} ${until} ${last}, ${b}`;
      return `${first}, ${language === 'pt' ? `das ${span}` : span}, ${place}`;
    })
    .join('\n');
}

/** A day without the commas some languages set after the weekday. */
const plainDay = (format: Intl.DateTimeFormat, at: number): string => {
  const part = Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, value]));
  const of = format.resolvedOptions().locale.startsWith('pt') ? ' de ' : ' ';
  return `${part.weekday} ${part.day}${of}${part.month}`;
};
