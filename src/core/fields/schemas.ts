import { z } from 'zod';
import type { Holds } from './holds.ts';

/*
 * The schemas of fields. They stand by themselves, so that a screen that only asks what a field holds doesn't load what reads it.
 */

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
const link = (max: number) =>
  z
    .string()
    .trim()
    .max(max, `tooLong:${max}`)
    .refine((s) => /^https?:\/\/[^\s/]+/i.test(s), 'link');

/** A mail address or a number, as people write them. */
const way = (name: string, { each, mail }: Extract<Holds, { type: 'ways' }>) => {
  const text = line(each).min(1, `${name}Missing`);
  return mail ? text.refine((s) => s === '' || /^[^\s@<>,;]+@[^\s@<>,;]+$/.test(s), 'address') : text;
};

/** The schema of a field as it is written, with its limits. Messages are codes that screens turn into sentences. */
export function writtenSchema(name: string, holds: Holds): z.ZodType {
  switch (holds.type) {
    case 'line':
      return holds.required ? line(holds.most).min(1, `${name}Missing`) : line(holds.most).nullable();
    case 'text':
      return text(holds.most).nullable();
    case 'link':
      return link(holds.most).nullable();
    case 'choice':
      return z.enum(holds.of);
    case 'list':
      return z.array(line(holds.each).min(1)).max(holds.most);
    case 'ways':
      return z
        .array(z.strictObject({ value: way(name, holds), as: z.enum(holds.of) }))
        .max(holds.most, `tooMany:${holds.most}`);
    case 'flag':
      return z.boolean();
    case 'made':
      throw new Error(`${name} is not written`);
    default:
      return holds satisfies never;
  }
}

/** The schema of a field as it is sent: what it holds, without the limits of writing. `always`: it is never `null`. */
export function sentSchema(holds: Holds, always: boolean): z.ZodType {
  const plain =
    holds.type === 'choice'
      ? z.enum(holds.of)
      : holds.type === 'list'
        ? z.array(z.string())
        : holds.type === 'ways'
          ? z.array(z.strictObject({ value: z.string(), as: z.enum(holds.of) }))
          : holds.type === 'flag'
            ? z.boolean()
            : z.string();
  return always ? plain : plain.nullable();
}
