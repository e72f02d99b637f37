import { z } from 'zod';
import { at, type Routes } from '../route.ts';

/** Files of one item, and the longest name of one. */
export const MOST_ATTACHMENTS = 20;
const LONGEST_FILE_NAME = 200;

const attachment = z.strictObject({
  key: z.string(),
  name: z.string(),
  bytes: z.number(),
  by: z.string(),
  at: z.string(),
  /** It stands at the series whose occurrence this is. */
  ofSeries: z.boolean(),
});
const attachmentsAnswer = z.strictObject({
  files: z.array(attachment),
  /** Whether the viewer may add files here, and take them away. */
  may: z.boolean(),
});
export type AttachmentsAnswer = z.infer<typeof attachmentsAnswer>;

/** Files at items, for whoever sees the item in full. */
export const attachmentRoutes = {
  listAttachments: {
    ...at('listAttachments'),
    who: 'person',
    summary: 'The files of an item that is seen in full',
    answer: attachmentsAnswer,
  },
  addAttachment: {
    ...at('addAttachment'),
    who: 'person',
    summary: 'Add a file to an item: the body is its bytes, at most 25 MB',
    query: z.strictObject({
      name: z
        .string()
        .transform((name) => name.replace(/[\p{Cc}\p{Cf}\\/]/gu, ' ').trim())
        .pipe(z.string().min(1, 'fileName').max(LONGEST_FILE_NAME, `tooLong:${LONGEST_FILE_NAME}`)),
    }),
    rawBody: 'application/octet-stream',
    streams: true,
    answer: attachmentsAnswer,
  },
  readAttachment: {
    ...at('readAttachment'),
    who: 'person',
    summary: 'A file’s bytes, to be saved and never shown',
    rawAnswer: 'application/octet-stream',
  },
  removeAttachment: {
    ...at('removeAttachment'),
    who: 'person',
    summary: 'Take a file away; for thirty days it can be brought back',
    answer: attachmentsAnswer,
  },
  bringBackAttachment: {
    ...at('bringBackAttachment'),
    who: 'person',
    summary: 'Bring a file back that was taken away',
    answer: attachmentsAnswer,
  },
} as const satisfies Routes;
