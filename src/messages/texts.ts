import english from './en/index.ts';
import type { Language } from './languages.ts';
import portuguese from './pt/index.ts';

/** Every text of the product, by language. */
export const TEXTS: Record<Language, typeof english> = { en: english, pt: portuguese };
export type Texts = typeof english;
