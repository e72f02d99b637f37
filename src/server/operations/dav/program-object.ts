import type { CardVersion } from '@/core/contacts/index.ts';
import type { CardFilter, CompFilter } from '@/core/formats/index.ts';

/** One object of a calendar: what it is called, what tells whether it changed, and (where wanted) its text. */
export interface ProgramObject {
  readonly name: string;
  readonly tag: string;
  /** The same for who calls and whom they ask, whatever these answer (RFC 6638 3.2.10). */
  readonly scheduleTag: string;
  readonly text: string | null;
  readonly mayChange: boolean;
}

/** Two instants in epoch milliseconds. */
export interface Instants {
  readonly from: number;
  readonly to: number;
}

/** Which objects of a calendar are wanted, and what of them. */
export interface ObjectsWanted {
  /** Those that happen between two instants; without, those of the weeks that a calendar shows by itself. */
  readonly range?: Instants | undefined;
  /** Those of these names alone. */
  readonly names?: readonly string[] | undefined;
  readonly filter?: CompFilter | undefined;
  /** Of an address book: what stands in its cards, and in which version they are written. */
  readonly cards?: { readonly filter?: CardFilter | undefined; readonly version?: CardVersion | undefined } | undefined;
  /** Their texts too. */
  readonly texts: boolean;
  /** Every occurrence between two instants by itself, in UTC (RFC 4791 9.6.5). */
  readonly expand?: Instants | undefined;
}

/** Objects of one answer, and their bytes. */
export const MOST_OBJECTS = 5000;
export const MOST_BYTES = 10_000_000;
