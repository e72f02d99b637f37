import { useSearchParams } from 'next/navigation';
import { KINDS, type Kind } from '@/core/calendar/index.ts';

/** What is looked for on a board: by words, and of a kind where one is chosen. It stands in the address, so that going elsewhere keeps it. */
export interface Sought {
  readonly words: string;
  readonly kind: Kind | null;
}

/** What the address says is looked for, and how another search is begun or ended. */
export function useSought(): [Sought | null, (sought: Sought | null) => void] {
  const search = useSearchParams();
  const words = search.get('find');
  const sought = words === null ? null : { words, kind: KINDS.find((k) => k === search.get('kind')) ?? null };
  const seek = (next: Sought | null) => {
    const to = new URLSearchParams(search);
    for (const name of ['find', 'kind']) to.delete(name);
    for (const [name, value] of soughtParams(next)) to.set(name, value);
    window.history.replaceState(null, '', `?${to}`);
  };
  return [sought, seek];
}

/** What a search is in an address. */
export const soughtParams = (sought: Sought | null): [string, string][] =>
  sought === null ? [] : [['find', sought.words], ...(sought.kind ? [['kind', sought.kind] as [string, string]] : [])];
