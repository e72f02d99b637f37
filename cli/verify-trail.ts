import { instantText } from '../src/core/time/index.ts';
import type { Connection } from '../src/server/db/index.ts';
import { chainOf } from '../src/server/operations/trail/chain.ts';

/** What a command prints and how it ended: 0 done, 1 refused, 2 not understood. */
export interface Ended {
  readonly code: 0 | 1 | 2;
  readonly out: string;
}

const WRONG = {
  entry: 'reads otherwise than it was written, or one before it is missing.',
  text: 'says otherwise than it was written.',
  forgotten: 'lost what it said, and nobody had it forgotten.',
  end: 'Entries are missing at the end, or were added by another way.',
  notFound: 'No entry has that digest: what it was of is gone.',
} as const;

/**
 * Says whether the trail is what was written, and that `known`, a digest that was kept, is among its digests. Whoever has the file may ask: no name is
 * needed.
 */
export function verifyTrail(db: Connection, known: string | null, asJson: boolean): Ended {
  const read = chainOf(db, known);
  if (read.whole) {
    const { entries, forgotten, digest } = read;
    if (asJson) return { code: 0, out: JSON.stringify({ whole: true, entries, forgotten, digest }) };
    const also = forgotten > 0 ? `, ${forgotten} of them without what they said, which was forgotten` : '';
    return { code: 0, out: `The trail is whole: ${entries} entries${also}.\nIts latest digest is ${digest || 'none'}` };
  }
  const { wrong, entry, entries } = read;
  const first = entry && { key: entry.key, at: instantText(entry.at), verb: entry.verb };
  if (asJson) return { code: 1, out: JSON.stringify({ whole: false, wrong, entry: first, entries }) };
  const names = first ? `Entry ${entries + 1}, ${first.key} (${first.verb}, ${first.at}), ` : '';
  return { code: 1, out: `The trail is not what was written. ${names}${WRONG[wrong]}` };
}
