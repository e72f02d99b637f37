import { z } from 'zod';
import { rightsSchema } from './sharing/sight.ts';

/*
 * What lists of tasks and address books have in common.
 */

/** Who did something when, in whose name. */
export const authorship = z.strictObject({ at: z.string(), actor: z.string(), principal: z.string() });

/** A list, with what one may do in it. An empty name is the one everybody begins with. */
export const list = <More extends z.ZodRawShape>(more: More) =>
  z.strictObject({
    key: z.string(),
    name: z.string(),
    owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
    own: z.boolean(),
    rights: rightsSchema,
    may: z.strictObject({
      add: z.boolean(),
      share: z.boolean(),
      rename: z.boolean(),
      remove: z.boolean(),
      files: z.boolean(),
    }),
    ...more,
  });

/** Somebody's lists of a kind. */
export const listsAnswerOf = <L extends z.ZodType>(one: L) =>
  z.strictObject({
    owner: z.strictObject({ handle: z.string(), name: z.string() }),
    /** Somebody's lists that one sees, the one they began with first. */
    lists: z.array(one),
    /** With one's own: lists of others that one sees. */
    others: z.array(one),
  });

export const listName = z.strictObject({ name: z.string().trim().min(1, 'nameMissing').max(80, 'tooLong:80') });

/** What a file brought into a list. */
export const broughtIn = z.strictObject({
  added: z.number(),
  changed: z.number(),
  /** As many were there already, as they are in the file. */
  same: z.number(),
  /** What couldn’t be read: the first of it, and how much there is. */
  problems: z.array(z.strictObject({ code: z.string(), line: z.number(), title: z.string().nullable() })),
  left: z.number(),
  undo: z.string(),
});
export type BroughtIn = z.infer<typeof broughtIn>;
