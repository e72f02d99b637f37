import type { InvitedInput } from '@/contract/items/items.ts';
import { LIMITS } from '@/core/calendar/index.ts';
import type { Invited } from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { groupByKey, membersOf } from '../../repositories/groups.ts';
import { type Person, personByAddress, personById } from '../../repositories/people.ts';
import { type Refusal, refuse } from '../../result.ts';
import type { Context } from '../deciding/index.ts';

/** Whoever an address is inside, where it is somebody's. */
export function insideBy(db: Connection, address: string): Person | null {
  const person = personByAddress(db, address.toLowerCase());
  return person?.inside && person.leftAt === null ? person : null;
}

/**
 * Those a request would have at a meeting, as they are asked: whoever is inside by the name the directory has, rooms and things as what
 * they are, everybody once, and never the owner themselves, who calls it. Who is asked as one of a group is asked with all who are in it
 * now; of somebody who isn't, and for whoever doesn't know the groups, it means nothing.
 */
export function readInvited(ctx: Context, owner: Person, input: readonly InvitedInput[]): Invited[] | Refusal {
  const { db, viewer } = ctx;
  const known = new Map<string, Invited>();
  const put = (address: string, name: string | null, role: Invited['role'], group: string | null) => {
    if (address === owner.address.toLowerCase() || known.has(address)) return;
    const inside = insideBy(db, address);
    const kind = inside?.resource ?? 'person';
    known.set(address, { address, name: inside?.name ?? (name || null), role, kind, ...(group ? { group } : {}) });
  };
  const members = new Map<string, ReadonlySet<string>>();
  for (const { group } of input) {
    const found = group && viewer.inside && !members.has(group) ? groupByKey(db, group) : null;
    if (!found) continue;
    const ids = membersOf(db, found.id);
    if (ids.length > LIMITS.invited)
      return refuse('badInput', { fields: { people: `tooManyPeople:${LIMITS.invited}` } });
    members.set(
      found.key,
      new Set(ids.flatMap((id) => personById(db, id) ?? []).map((one) => one.address.toLowerCase())),
    );
  }
  for (const { address, name, role, group } of input) {
    const within = group ? members.get(group) : undefined;
    put(address, name, role, within?.has(address) ? group : null);
  }
  for (const [group, addresses] of members) {
    const role = input.find((one) => one.group === group)?.role ?? 'must';
    for (const address of addresses) put(address, null, role, group);
  }
  if (known.size > LIMITS.invited) return refuse('badInput', { fields: { people: `tooManyPeople:${LIMITS.invited}` } });
  return [...known.values()];
}

/** How many of some addresses are outside. */
export const outsideOf = (db: Connection, addresses: readonly string[]): string[] =>
  addresses.filter((address) => insideBy(db, address) === null);
