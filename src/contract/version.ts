import { z } from 'zod';

/**
 * How far one listener has been told of a calendar: since when they were counted for (epoch milliseconds), and how many changes ago.
 * It counts what that listener sees and nothing else, so that no number tells of what they don't.
 */
export const version = z.tuple([z.number(), z.number()]).readonly();
export type Version = z.infer<typeof version>;
