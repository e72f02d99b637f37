import { z } from 'zod';

/** Every refusal an answer can carry, with the HTTP status it travels under. The sentence for each is in the catalogue. */
export const ERRORS = {
  badInput: 400,
  signedOut: 401,
  wrongPassword: 401,
  originRefused: 403,
  mayNotChange: 403,
  mayNotAdd: 403,
  mayNotRemove: 403,
  mayNotSuggest: 403,
  mayNotShare: 403,
  mayNotImport: 403,
  administratorOnly: 403,
  ownerOnly: 403,
  insideOnly: 403,
  onlyAdministrator: 409,
  wayInGone: 410,
  linkGone: 404,
  notFound: 404,
  changedMeanwhile: 409,
  alreadyThere: 409,
  calendarFull: 409,
  calendarTooBusy: 409,
  addedTooMuch: 429,
  stopped: 409,
  busyBringingIn: 409,
  tooManyWindows: 429,
  tooManyFiles: 429,
  tooSlow: 408,
  tooManySuggestions: 409,
  previewGone: 409,
  setUpAlready: 409,
  fileTooLarge: 413,
  notACalendar: 422,
  wrongEncoding: 422,
  tooManyItems: 422,
  fileTookTooLong: 422,
  nothingToBringIn: 422,
  seriesDayMove: 422,
  seriesSplit: 422,
  tooManyTries: 429,
  broken: 500,
} as const;
export type ErrorCode = keyof typeof ERRORS;

/** The body of every refusal: the code, a sentence, the fields it speaks of, and what stands now where that helps. */
export const errorBody = z.strictObject({
  code: z.enum(Object.keys(ERRORS) as [ErrorCode, ...ErrorCode[]]),
  sentence: z.string(),
  fields: z.record(z.string(), z.string()).optional(),
  data: z.unknown().optional(),
});
export type ErrorBody = z.infer<typeof errorBody>;
