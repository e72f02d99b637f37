import { DESK_KINDS } from './facts.ts';
import type { DeskRow } from './row.ts';

const PARTS = ['now', 'soon', 'time'] as const;

/**
 * By part, then the higher score, the earlier due, and the kind: the order of rows, before the place in the band and the key decide. Zero where
 * these do.
 */
export function compareRows(
  a: Pick<DeskRow, 'part' | 'score' | 'due' | 'kind'>,
  b: Pick<DeskRow, 'part' | 'score' | 'due' | 'kind'>,
): number {
  return (
    PARTS.indexOf(a.part) - PARTS.indexOf(b.part) ||
    b.score - a.score ||
    (a.due ?? Number.MAX_VALUE) - (b.due ?? Number.MAX_VALUE) ||
    DESK_KINDS.indexOf(a.kind) - DESK_KINDS.indexOf(b.kind)
  );
}
