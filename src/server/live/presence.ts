/** What somebody does with an item that they have open. */
export type Doing = 'looks' | 'types';

interface Present {
  readonly at: number;
  readonly doing: Doing;
}

/** Who says nothing for so long has gone: a window says every twenty seconds that it is still there. */
const HOLDS_MS = 45_000;
const MOST_ITEMS = 5000;
const MOST_EACH = 30;

/**
 * Who has which item open, in this process and in nothing that is stored. It knows no rights: the caller makes sure of them. Times are
 * epoch milliseconds.
 */
export class Presence {
  private readonly items = new Map<string, Map<number, Present>>();

  /** Says that somebody has an item open, or (`null`) no longer; answers whether that is news. */
  say(item: string, person: number, doing: Doing | null, now: number): boolean {
    this.forget(item, now);
    const there = this.items.get(item) ?? new Map<number, Present>();
    const was = there.get(person);
    if (doing === null) {
      there.delete(person);
      if (there.size === 0) this.items.delete(item);
      return was !== undefined;
    }
    if (!was && there.size >= MOST_EACH) return false;
    if (!this.items.has(item) && this.items.size >= MOST_ITEMS) this.makeRoom(now);
    if (!this.items.has(item) && this.items.size >= MOST_ITEMS) return false;
    there.set(person, { at: now, doing });
    this.items.set(item, there);
    return was?.doing !== doing;
  }

  /** Who else has it open. */
  others(item: string, person: number, now: number): { person: number; doing: Doing }[] {
    this.forget(item, now);
    return [...(this.items.get(item) ?? [])]
      .filter(([other]) => other !== person)
      .map(([other, { doing }]) => ({ person: other, doing }));
  }

  private forget(item: string, now: number): void {
    const there = this.items.get(item);
    if (!there) return;
    for (const [person, { at }] of there) if (at < now - HOLDS_MS) there.delete(person);
    if (there.size === 0) this.items.delete(item);
  }

  private makeRoom(now: number): void {
    for (const item of [...this.items.keys()]) this.forget(item, now);
  }
}

const holder = globalThis as { paramoPresence?: Presence };

/** Who has what open in this process. */
export function presence(): Presence {
  holder.paramoPresence ??= new Presence();
  return holder.paramoPresence;
}
