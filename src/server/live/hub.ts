import type { ChangedMessage, LiveMessage, SeenChange } from '@/contract/items/live.ts';
import type { Version } from '@/contract/version.ts';
import { now } from '../clock.ts';
import { newKey } from '../ids.ts';

/** Who listens: a person by row number, or whoever holds a link. */
export type Listener = number | `link:${string}`;

/** An open window: how it is written to, whether it may still be, and how it is ended. */
interface Window {
  readonly session: string | null;
  send(message: string): void;
  close(): void;
}

/** A window whose page was made and that doesn't listen yet: what it was told meanwhile. */
interface Coming {
  readonly said: LiveMessage[];
  readonly ends: NodeJS.Timeout;
}

/** What a listener is told of one write: what they see changed, until when that is what they may see (`null` for ever). */
interface Told {
  readonly seen: SeenChange | null;
  readonly until: number | null;
}

const COALESCE_MS = 25;
/** Streams of one listener, and of all of them. */
const MOST_EACH = 20;
const MOST_IN_ALL = 5000;
/** Most calendars one listener is counted along on, and most occurrences in one message. Beyond these a window asks again. */
const MOST_FOLLOWED = 200;
const MOST_SHOWN = 150;
/** How long a page may take until its window listens; pages of one listener on their way at a time, and messages kept for each. */
const LISTENS_WITHIN_MS = 15_000;
const MOST_COMING = 6;
const MOST_KEPT = 60;

interface Waiting {
  readonly follows: Version;
  told: Told;
}

/** What is being told to one listener of one calendar, and how far that has come. */
interface Followed {
  version: Version;
  waiting: Waiting | null;
}

/**
 * The open windows of this process, by who listens. Messages of one kind about one calendar are sent once a moment; what is said of
 * changes meanwhile is said together.
 */
class Hub {
  private readonly windows = new Map<Listener, Set<Window>>();
  private readonly followed = new Map<Listener, Map<string, Followed>>();
  private readonly waiting = new Map<string, NodeJS.Timeout>();
  private readonly coming = new Map<Listener, Map<string, Coming>>();
  private comingCount = 0;
  private count = 0;
  private since = 0;

  /** Adds a window; the answer takes it away again. `null` where there are as many as may be. */
  join(listener: Listener, window: Window): (() => void) | null {
    const set = this.windows.get(listener) ?? new Set();
    if (set.size >= MOST_EACH || this.count >= MOST_IN_ALL) return null;
    set.add(window);
    this.count++;
    this.windows.set(listener, set);
    return () => {
      if (set.delete(window)) this.count--;
      if (set.size > 0) return;
      this.windows.delete(listener);
      this.forget(listener);
    };
  }

  /**
   * Counts in a window whose page is being made: whatever is told from now on is kept for it, for a few seconds. The answer names it to
   * `toldSince`; `null` where as many as may be are on their way.
   */
  expect(listener: Listener): string | null {
    const theirs = this.coming.get(listener);
    const [oldest] = theirs && theirs.size >= MOST_COMING ? theirs.keys() : [];
    if (oldest !== undefined) this.drop(listener, oldest);
    if (this.count + this.comingCount >= MOST_IN_ALL) return null;
    const key = newKey();
    const ends = setTimeout(() => this.drop(listener, key), LISTENS_WITHIN_MS);
    ends.unref?.();
    const all = this.coming.get(listener) ?? new Map<string, Coming>();
    this.coming.set(listener, all.set(key, { said: [], ends }));
    this.comingCount++;
    return key;
  }

  /**
   * What was told to a window since its page was begun, which listens from now on: call it in one go with `join`. `null` where that isn't known:
   * the window has to ask for everything again. Of what changed it is said only that it did: what may be seen of it can have changed since.
   */
  toldSince(listener: Listener, key: string): readonly LiveMessage[] | null {
    const one = this.coming.get(listener)?.get(key);
    if (!one) return null;
    this.drop(listener, key);
    return one.said;
  }

  private drop(listener: Listener, key: string): void {
    const all = this.coming.get(listener);
    const one = all?.get(key);
    if (!all || !one) return;
    clearTimeout(one.ends);
    all.delete(key);
    this.comingCount--;
    if (all.size === 0) this.coming.delete(listener);
    this.forget(listener);
  }

  /** Forgets how far somebody was told of each calendar, where no window of theirs is left. */
  private forget(listener: Listener): void {
    if (!this.hears(listener)) this.followed.delete(listener);
  }

  private hears(listener: Listener): boolean {
    return this.windows.has(listener) || this.coming.has(listener);
  }

  listeners(): Listener[] {
    return [...new Set([...this.windows.keys(), ...this.coming.keys()])];
  }

  /** Ends the windows of a session that was withdrawn, or with `null` all of a person's. */
  end(listener: Listener, session: string | null): void {
    for (const window of [...(this.windows.get(listener) ?? [])])
      if (session === null || window.session === session) window.close();
  }

  /** The version a listener has been told of a calendar, for an answer that is read now; `null` where they have no window open. */
  versionOf(listener: Listener, calendar: string): Version | null {
    return this.hears(listener) ? this.follow(listener, calendar).version : null;
  }

  tell(listener: Listener, message: Exclude<LiveMessage, ChangedMessage>): void {
    // Access changed: nothing seen before is told any more, and no earlier answer can be followed.
    if (message.kind === 'access') this.followed.get(listener)?.delete(message.calendar);
    const text = JSON.stringify(message);
    this.once(`${listener} ${text}`, () => this.send(listener, message));
  }

  /** Tells a listener what they see of a change of a calendar; `null` where they have to ask for it. */
  changed(listener: Listener, calendar: string, told: Told | null): void {
    if (!this.hears(listener)) return;
    const followed = this.follow(listener, calendar);
    const next = told ?? { seen: null, until: null };
    followed.waiting = followed.waiting
      ? { ...followed.waiting, told: together(followed.waiting.told, next) }
      : { follows: followed.version, told: next };
    followed.version = [followed.version[0], followed.version[1] + 1];
    this.once(`${listener} changed ${calendar}`, () => this.sayChanged(listener, calendar));
  }

  private sayChanged(listener: Listener, calendar: string): void {
    const followed = this.followed.get(listener)?.get(calendar);
    if (!followed?.waiting) return;
    const { follows, told } = followed.waiting;
    followed.waiting = null;
    const seen = told.until !== null && told.until <= now() ? null : told.seen;
    const message: ChangedMessage = { kind: 'changed', calendar, follows, version: followed.version, seen };
    this.send(listener, message);
  }

  private follow(listener: Listener, calendar: string): Followed {
    const all = this.followed.get(listener) ?? new Map<string, Followed>();
    this.followed.set(listener, all);
    let one = all.get(calendar);
    if (!one) {
      this.since = Math.max(this.since + 1, Date.now());
      one = { version: [this.since, 0], waiting: null };
      all.set(calendar, one);
      // A window that shows a calendar dropped here asks again at its next change; from then on it is counted anew.
      if (all.size > MOST_FOLLOWED)
        for (const [other, { waiting }] of all)
          if (waiting === null && other !== calendar) {
            all.delete(other);
            break;
          }
    }
    return one;
  }

  private once(key: string, say: () => void): void {
    if (this.waiting.has(key)) return;
    this.waiting.set(
      key,
      setTimeout(() => {
        this.waiting.delete(key);
        say();
      }, COALESCE_MS),
    );
  }

  private send(listener: Listener, message: LiveMessage): void {
    for (const [key, one] of this.coming.get(listener) ?? []) {
      if (one.said.length >= MOST_KEPT) this.drop(listener, key);
      else one.said.push(message.kind === 'changed' ? { ...message, seen: null } : message);
    }
    const windows = this.windows.get(listener);
    if (!windows) return;
    const text = JSON.stringify(message);
    for (const window of [...windows]) window.send(text);
  }
}

/** What was told on a thread that has no windows: who has to ask again for which calendar, and what else was said to whom. */
export type ToldElsewhere =
  | readonly [kind: 'changed', listener: Listener, calendar: string]
  | readonly [kind: 'tell', listener: Listener, message: Exclude<LiveMessage, ChangedMessage>]
  | readonly [kind: 'end', listener: Listener, session: string | null];

/**
 * The hub of a thread without windows. It records what would be told to those who listen on the main thread, which tells it afterwards.
 * Changed items themselves are not recorded, since something newer may have been told meanwhile: windows ask for them.
 */
export class HubElsewhere extends Hub {
  private told: ToldElsewhere[] = [];
  private here: readonly Listener[] = [];

  /** From now on these listen. */
  hearing(listeners: readonly Listener[]): void {
    this.here = listeners;
  }

  /** What was told since it was last asked; from then on nobody listens. */
  take(): ToldElsewhere[] {
    const told = this.told;
    this.told = [];
    this.here = [];
    return told;
  }

  override listeners(): Listener[] {
    return [...this.here];
  }

  override changed(listener: Listener, calendar: string): void {
    this.told.push(['changed', listener, calendar]);
  }

  override tell(listener: Listener, message: Exclude<LiveMessage, ChangedMessage>): void {
    this.told.push(['tell', listener, message]);
  }

  override end(listener: Listener, session: string | null): void {
    this.told.push(['end', listener, session]);
  }
}

/** Tells on this thread what was told on another. */
export function tellFrom(told: readonly ToldElsewhere[]): void {
  for (const one of told)
    if (one[0] === 'changed') hub().changed(one[1], one[2], null);
    else if (one[0] === 'tell') hub().tell(one[1], one[2]);
    else hub().end(one[1], one[2]);
}

/** Two changes, one after the other, as one: of each occurrence and day what was said last. */
function together(first: Told, next: Told): Told {
  const until =
    first.until === null || next.until === null ? (first.until ?? next.until) : Math.min(first.until, next.until);
  const [a, b] = [first.seen, next.seen];
  if (a === null || b === null) return { seen: null, until };
  const again = new Set(b.shown.map((item) => item.id));
  const gone = new Set([...a.gone, ...b.gone]);
  for (const id of again) gone.delete(id);
  const shown = [...a.shown.filter((item) => !again.has(item.id) && !gone.has(item.id)), ...b.shown];
  if (gone.size + shown.length > MOST_SHOWN) return { seen: null, until };
  const days =
    a.days && b.days && a.days.zone === b.days.zone
      ? {
          zone: b.days.zone,
          days: [...new Map([...a.days.days, ...b.days.days].map((day) => [day.date, day])).values()],
        }
      : null;
  return { seen: { within: narrower(a.within, b.within), gone: [...gone], shown, days }, until };
}

function narrower(a: SeenChange['within'], b: SeenChange['within']): SeenChange['within'] {
  if (a === null || b === null) return a ?? b;
  // Instants as text are in the order of time.
  const [, from = a.from] = [a.from, b.from].sort();
  const [to = a.to] = [a.to, b.to].sort();
  return { from, to };
}

const holder = globalThis as { paramoHub?: Hub };

/** Makes this thread a worker: what is told on it is written down. Call it once, before anything is told. */
export function beElsewhere(): HubElsewhere {
  const elsewhere = new HubElsewhere();
  holder.paramoHub = elsewhere;
  return elsewhere;
}

/** The hub of this thread. */
export function hub(): Hub {
  holder.paramoHub ??= new Hub();
  return holder.paramoHub;
}
