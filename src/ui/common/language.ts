import { type Language, LOCALES } from '@/messages/languages.ts';

let spoken: Language = 'en';

/**
 * Says in which language dates are written from here on. In a browser it is one and the same; on the server it is said by everything that
 * is drawn before it writes a date (`useFrame`), so that pages drawn at one time in two languages don't mix: a component is drawn in one go.
 */
export const speak = (language: Language): void => {
  spoken = language;
};
export const language = (): Language => spoken;
export const locale = (): string => LOCALES[spoken];

/** Portuguese in few letters; the language data has them in other forms. */
const WEEKDAYS = ['dom', 'seg', 'ter', 'qua', 'qui', 'sex', 'sáb'];
const MONTHS = ['jan', 'fev', 'mar', 'abr', 'mai', 'jun', 'jul', 'ago', 'set', 'out', 'nov', 'dez'];

/** The short names of the weekdays, from Sunday, and of the months, in Portuguese. */
export const SHORT_PT = { weekdays: WEEKDAYS, months: MONTHS } as const;
