import type { InvitedInput } from '@/contract/items.ts';
import type { Invited } from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { type Person, personByAddress } from '../../repositories/people.ts';

/** Whoever an address is inside, where it is somebody's. */
export function insideBy(db: Connection, address: string): Person | null {
  const person = personByAddress(db, address.toLowerCase());
  return person?.inside && person.leftAt === null ? person : null;
}

/**
 * Those a request would have at a meeting, as they are asked: whoever is inside by the name the directory has, rooms and things as what
 * they are, everybody once, and never the owner themselves, who calls it.
 */
export function readInvited(db: Connection, owner: Person, input: readonly InvitedInput[]): Invited[] {
  const known = new Map<string, Invited>();
  for (const { address, name, role } of input) {
    if (address === owner.address.toLowerCase() || known.has(address)) continue;
    const inside = insideBy(db, address);
    const kind = inside?.resource ?? 'person';
    known.set(address, { address, name: inside?.name ?? (name || null), role, kind });
  }
  return [...known.values()];
}

/** How many of some addresses are outside. */
export const outsideOf = (db: Connection, addresses: readonly string[]): string[] =>
  addresses.filter((address) => insideBy(db, address) === null);
