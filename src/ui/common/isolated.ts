/** Text that is written from right to left, kept together where it stands within a sentence (Unicode's first strong isolate, UAX 9). */
export const isolated = (text: string): string =>
  /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/.test(text) ? `\u2068${text}\u2069` : text;
