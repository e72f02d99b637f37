import { z } from 'zod';

const address = z.email();

/** An address as people type it, alone or with a name before it (`Marta Quill <marta@quill-audit.example>`); `null` for neither. */
export function readTyped(text: string): { name: string; address: string } | null {
  const bracketed = /^(.*)<([^<>]+)>$/.exec(text.trim());
  const found = (bracketed?.[2] ?? text).trim().toLowerCase();
  if (!address.safeParse(found).success) return null;
  return { name: (bracketed?.[1] ?? '').replace(/^["\s]+|["\s]+$/g, ''), address: found };
}
