import { useSearchParams } from 'next/navigation';

/** What the address says behind its question mark, and changing some of it in place: `null` takes a name out. */
export function useAddress() {
  const search = useSearchParams();
  const go = (change: Readonly<Record<string, string | null>>) => {
    const next = new URLSearchParams(search);
    for (const [name, value] of Object.entries(change))
      if (value === null) next.delete(name);
      else next.set(name, value);
    window.history.replaceState(null, '', `?${next}`);
  };
  return { search, go };
}
