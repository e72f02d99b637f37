import { LIMITS } from './kinds.ts';

/**
 * Whether a text is a number one can call: at least three digits, as people write them (a plus before, spaces, brackets, dots, strokes
 * and dashes between), with an extension behind where there is one ("+351 213 000 001 ext. 12").
 */
export const isPhone = (text: string): boolean =>
  text.length <= LIMITS.phone &&
  /^\+?[0-9 ()./-]+(?:(?:x|ext\.?) ?[0-9]{1,6})?$/i.test(text) &&
  text.replace(/(?:x|ext).*$/i, '').replace(/[^0-9]/g, '').length >= 3;
