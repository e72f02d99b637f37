import { z } from 'zod';
import type { SightlineRow } from '@/contract/sharing/sharing.ts';

const address = z.email();

/** The row of somebody outside who is listed by an address already; it is changed, and no second one made. */
export const listedAt = (rows: readonly SightlineRow[], address: string): SightlineRow | undefined =>
  rows.find((row) => row.outside && row.audience.kind === 'person' && row.who.detail.split(' · ').at(-1) === address);

/** An address as people type it, alone or with a name before it (`Marta Quill <marta@quill-audit.example>`); `null` for neither. */
export function readTyped(text: string): { name: string; address: string } | null {
  const bracketed = /^(.*)<([^<>]+)>$/.exec(text.trim());
  const found = (bracketed?.[2] ?? text).trim().toLowerCase();
  if (!address.safeParse(found).success) return null;
  return { name: (bracketed?.[1] ?? '').replace(/^["\s]+|["\s]+$/g, ''), address: found };
}
