export type { Span } from '../time/index.ts';

/** What is asked: a meeting of a length between two instants (epoch minutes), on a grid of a zone's clock; all lengths in minutes. */
export interface OpeningsRequest {
  readonly now: number;
  readonly from: number;
  readonly until: number;
  readonly length: number;
  readonly grid: number;
  readonly zone: string;
  readonly notice: number;
  readonly tentative: 'blocks' | 'counts';
  readonly within: 'hours' | 'any';
  readonly padBefore: number;
  readonly padAfter: number;
  readonly place: string | null;
  /** Who has to be at the place by what their whereabouts say. */
  readonly at: readonly string[];
}

/** An item as the asker's view of it has it: texts as there, an all-day item's the dates it begins and ends before. */
export interface OpeningsItem {
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly shows: 'free' | 'reachable' | 'tentative' | 'busy' | 'away';
  readonly kind?: string | null | undefined;
  readonly place?: string | null | undefined;
}

/** A person's standing wish for their days, on their own clock. `days` are weekdays from 1, Monday. */
export type TimePreference = { readonly hard: boolean } & (
  | { readonly kind: 'span'; readonly days: readonly number[]; readonly from: string; readonly to: string }
  | {
      readonly kind: 'rest';
      readonly days: readonly number[];
      readonly from: string;
      readonly to: string;
      readonly minutes: number;
    }
  | { readonly kind: 'most'; readonly minutes: number }
  | { readonly kind: 'pause'; readonly after: number; readonly minutes: number }
);

/** Somebody to be asked. `known` where the asker sees at least when they are taken; nothing of the others counts but their hours. */
export interface OpeningsPerson {
  readonly id: string;
  readonly need: 'must' | 'may';
  readonly known: boolean;
  readonly zone: string;
  /** Wall-clock ranges for each weekday from Monday; `null` where they keep none. */
  readonly hours: readonly (readonly (readonly [string, string])[])[] | null;
  readonly keeps: readonly TimePreference[];
  readonly items: readonly OpeningsItem[];
}

/** Minutes between two places, either way. */
export type Journey = readonly [a: string, b: string, minutes: number];

/** An item that might be moved to make room. Instants in epoch minutes, `people` by their ids. */
export interface Movable {
  readonly id: string;
  readonly people: readonly string[];
  readonly start: number;
  readonly length: number;
  readonly cost: number;
  readonly from: number;
  readonly until: number;
}
