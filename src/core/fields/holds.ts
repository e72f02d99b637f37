/** What a field holds: one line, a text, an address on the web, one of some words, a list of short lines, ways to reach somebody, yes or no; or something made by itself. */
export type Holds =
  | { readonly type: 'line' | 'text' | 'link'; readonly most: number; readonly required?: true }
  | { readonly type: 'choice'; readonly of: readonly string[]; readonly fresh: string }
  | { readonly type: 'list'; readonly most: number; readonly each: number }
  | {
      readonly type: 'ways';
      readonly most: number;
      readonly each: number;
      readonly of: readonly string[];
      readonly mail?: true;
    }
  | { readonly type: 'flag'; readonly fresh: boolean }
  | { readonly type: 'made' };

/** A way to reach somebody, and where that is. */
export interface Way<As extends string = string> {
  readonly value: string;
  readonly as: As;
}

type Plain<F> = F extends { type: 'choice'; of: readonly (infer W)[] }
  ? W
  : F extends { type: 'list' }
    ? readonly string[]
    : F extends { type: 'ways'; of: readonly (infer W extends string)[] }
      ? readonly Way<W>[]
      : F extends { type: 'flag' }
        ? boolean
        : string;
type Absent<F> = F extends { type: 'line' | 'text' | 'link' } ? (F extends { required: true } ? never : null) : never;
/** What a field holds where it is kept: `null` is an empty line or text. */
export type WrittenValue<F> = Plain<F> | Absent<F>;
/** What a field holds in what is sent of something: only what decides is always there. */
export type SentValue<F> = Plain<F> | (F extends { decides: true } ? never : null);

/** What a field of something new holds where nothing is said of it; `undefined` where something has to be. */
export function freshOf(holds: Holds): unknown {
  if (holds.type === 'choice' || holds.type === 'flag') return holds.fresh;
  if (holds.type === 'list' || holds.type === 'ways') return [];
  return holds.type === 'made' || holds.required ? undefined : null;
}
