import type { DeskKind } from './facts.ts';

/** Why a row is there, beside its kind: what else it is, and what it stands with. */
export type DeskBecause =
  | { readonly why: 'refused' | 'proposal' | 'silent'; readonly who: readonly string[] }
  | { readonly why: 'unset' }
  /** An invitation would share time with these. */
  | { readonly why: 'clash'; readonly items: readonly string[] }
  /** The way between two places takes longer than there is time: minutes. */
  | { readonly why: 'journey'; readonly needs: number; readonly has: number }
  | { readonly why: 'lapses'; readonly at: number }
  | { readonly why: 'notice' | 'cover' }
  | { readonly why: 'unused' | 'ends' };

/** What a row's score is made of. */
export interface DeskScore {
  readonly weight: number;
  readonly shift: number;
  readonly near: number;
  readonly atHand: number;
  readonly person: number;
}

type DeskPart = 'now' | 'soon' | 'time';

/** One thing to decide, for one principal. Instants in epoch milliseconds. */
export interface DeskRow {
  /** Whose it is, then the kind and what caused it: the same for everybody who has it, for as long as the cause stands. */
  readonly key: string;
  readonly kind: DeskKind;
  readonly for: string;
  readonly due: number | null;
  readonly part: DeskPart;
  readonly score: number;
  readonly parts: DeskScore;
  /** The occurrences it is about, by id. */
  readonly items: readonly string[];
  readonly because: readonly DeskBecause[];
  /** The versions of the facts it comes from, by id: what `left` is said of. */
  readonly versions: Readonly<Record<string, number>>;
  /** To whom it was passed on, where it was. */
  readonly passed: string | null;
}

/** A row before it is ranked and before what was said of it counts. */
export interface DeskCause {
  readonly key: string;
  readonly kind: DeskKind;
  readonly due: number | null;
  readonly items: readonly string[];
  readonly because: readonly DeskBecause[];
  /** The versions of the facts it comes from, by id. */
  readonly versions: Readonly<Record<string, number>>;
  /** Its occurrences, as far as they may be at hand: when each begins and ends, all-day ones left out. */
  readonly spans: readonly { readonly from: number; readonly to: number }[];
  /** Addresses of those concerned. */
  readonly people: readonly string[];
}
