import { z } from 'zod';
import { at, done, type Routes } from '../route.ts';

/** One item of a file in the preview. Times are as the file has them, in the zone named. */
const importItem = z.strictObject({
  title: z.string(),
  start: z.string(),
  end: z.string(),
  allDay: z.boolean(),
  zone: z.string(),
  repeats: z.string().nullable(),
  replaces: z.string().nullable(),
  visibility: z.enum(['follow', 'open', 'outline', 'private']),
  line: z.number(),
});
const problem = z.strictObject({
  code: z.string(),
  line: z.number(),
  title: z.string().nullable(),
  fact: z.string().nullable(),
});

/** What a file would bring: what is fresh, what is a newer revision of an item that is there, what is there already, what can't be taken. */
const importPreview = z.strictObject({
  preview: z.string(),
  fresh: z.array(importItem),
  newer: z.array(importItem),
  there: z.array(importItem),
  problems: z.array(problem),
  remarks: z.array(z.strictObject({ code: z.string(), fact: z.string(), count: z.number() })),
  counts: z.strictObject({ fresh: z.number(), newer: z.number(), there: z.number(), problems: z.number() }),
  ended: z.boolean(),
});
export type ImportPreview = z.infer<typeof importPreview>;

/** How far bringing in has come: not begun (`ready`), or so many items of so many. */
const importState = z.strictObject({
  kind: z.enum(['ready', 'comingIn']),
  done: z.number(),
  of: z.number(),
});
export type ImportState = z.infer<typeof importState>;

/** What came in, what was put in place of an older revision and what was left, and the token that takes the whole act back for a while. */
const importDone = z.strictObject({
  broughtIn: z.number(),
  renewed: z.number(),
  left: z.number(),
  undo: z.string(),
});
export type ImportDone = z.infer<typeof importDone>;

/** Calendar files: read, brought in, taken out. */
export const fileRoutes = {
  previewImport: {
    ...at('previewImport'),
    who: 'person',
    summary: 'Read a calendar file and say what would come in',
    rawBody: 'text/calendar',
    answer: importPreview,
  },
  readImport: {
    ...at('readImport'),
    who: 'person',
    summary: 'How far bringing in a file has come',
    answer: importState,
  },
  stopImport: {
    ...at('stopImport'),
    who: 'person',
    summary: 'Stop bringing in a file; nothing of it stays',
    answer: done,
  },
  bringIn: {
    ...at('bringIn'),
    who: 'person',
    summary: 'Bring in what a preview showed',
    answer: importDone,
  },
  exportFile: {
    ...at('exportFile'),
    who: 'person',
    summary: 'The calendar as a file',
    rawAnswer: 'text/calendar',
  },
} as const satisfies Routes;
