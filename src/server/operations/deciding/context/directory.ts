import type { Party } from '@/core/calendar/index.ts';
import { instantText } from '@/core/time/index.ts';
import type { Connection } from '../../../db/index.ts';
import { calendarById } from '../../../repositories/calendars.ts';
import { heldIn, holdSetById } from '../../../repositories/holds.ts';
import { type Person, personByAddress, personById } from '../../../repositories/people.ts';
import { zoneByName } from '../../../repositories/zone-definitions.ts';

/** Names of people by row number, looked up once a request. */
export class Directory {
  private readonly known = new Map<number, Person | null>();
  private readonly owners = new Map<number, Person | null>();
  private readonly parties = new Map<number, Party | null>();
  constructor(private readonly db: Connection) {}

  person(id: number): Person | null {
    let found = this.known.get(id);
    if (found === undefined) {
      found = personById(this.db, id);
      this.known.set(id, found);
    }
    return found;
  }

  name(id: number): string {
    return this.person(id)?.name ?? '';
  }

  /** Whose a calendar is. */
  ownerOf(calendarId: number): Person | null {
    let found = this.owners.get(calendarId);
    if (found === undefined) {
      const calendar = calendarById(this.db, calendarId);
      found = calendar ? this.person(calendar.ownerId) : null;
      this.owners.set(calendarId, found);
    }
    return found;
  }

  /** What somebody at an address is called; the address itself where nobody here is. */
  byAddress(address: string): string {
    return personByAddress(this.db, address.toLowerCase())?.name ?? address;
  }

  /** A zone as screens can show it: a named one stays, one that a file defined itself is shown as the named one nearest to it. */
  zone(name: string): string {
    return name.startsWith('~') ? (zoneByName(this.db, name)?.near ?? 'UTC') : name;
  }

  /** Which of its set a hold is, and when it frees itself; private ones count for whoever sees what is private alone. */
  hold(set: number, item: number, lapsesAt: number | null, privateToo: boolean) {
    const held = heldIn(this.db, set, privateToo);
    const letter = holdSetById(this.db, set)?.letter ?? '';
    const lapses = lapsesAt === null ? null : instantText(lapsesAt);
    return { letter, number: Math.max(1, held.indexOf(item) + 1), of: Math.max(1, held.length), lapses };
  }

  party(id: number): Party | null {
    let found = this.parties.get(id);
    if (found === undefined) {
      const person = this.person(id);
      found = person && { name: person.name, address: person.address };
      this.parties.set(id, found);
    }
    return found;
  }
}
