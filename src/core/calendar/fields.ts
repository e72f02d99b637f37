import { z } from 'zod';
import { IMPORTANCES, KINDS, LIMITS, STATUSES, VISIBILITIES } from './kinds.ts';

// Line breaks and tabs may stand in longer texts; every other control character is refused.
// biome-ignore lint/suspicious/noControlCharactersInRegex: exactly these are refused
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const line = (max: number) =>
  z
    .string()
    .trim()
    .max(max, `tooLong:${max}`)
    .refine((s) => !CONTROL.test(s) && !/[\r\n\t]/.test(s), 'control');
const text = (max: number) =>
  z
    .string()
    .max(max, `tooLong:${max}`)
    .refine((s) => !CONTROL.test(s), 'control')
    // One kind of line end, so that nothing that is written from it can begin a line of its own.
    .transform((s) => s.replace(/\r\n?/g, '\n'));

/** Every field a person may write on an item, with its limits. Messages are codes that screens turn into sentences. */
export const itemFields = {
  title: line(LIMITS.title).min(1, 'titleMissing'),
  kind: z.enum(KINDS),
  place: line(LIMITS.place).nullable(),
  notes: text(LIMITS.notes).nullable(),
  link: z
    .string()
    .trim()
    .max(LIMITS.link, `tooLong:${LIMITS.link}`)
    .refine((s) => /^https?:\/\/[^\s/]+/i.test(s), 'link')
    .nullable(),
  categories: z.array(line(LIMITS.category).min(1)).max(LIMITS.categories),
  importance: z.enum(IMPORTANCES),
  shows: z.enum(STATUSES),
  visibility: z.enum(VISIBILITIES),
  briefing: text(LIMITS.briefing).nullable(),
} as const;
