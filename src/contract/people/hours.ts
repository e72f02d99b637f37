import { z } from 'zod';

const TIME = /^([01]\d|2[0-3]):[0-5]\d$|^24:00$/;
const range = z
  .tuple([z.string().regex(TIME, 'time'), z.string().regex(TIME, 'time')])
  .refine(([from, to]) => from < to, 'endFirst');

/** When somebody works: for each weekday from Monday some ranges of wall-clock times in their own zone; `null` where they don't say. */
export const workHours = z.array(z.array(range).max(6)).length(7).nullable();
export type WorkHours = z.infer<typeof workHours>;

/** Reads hours as they are stored; what isn't of their form are none. */
export function readWorkHours(text: string | null): WorkHours {
  if (text === null) return null;
  try {
    const read = workHours.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
