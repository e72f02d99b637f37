import { createHash } from 'node:crypto';

/** The name of a zone that a calendar text defines itself: `~` and a digest of the definition, so that a name never means two things. */
export const nameZone = (text: string): string =>
  `~${createHash('sha256').update(text).digest('base64url').slice(0, 27)}`;
