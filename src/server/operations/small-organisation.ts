import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type NewItem, newItem } from '@/contract/items/items.ts';
import { type HouseRules, type Rights, STARTING_HOUSE_RULES } from '@/core/access/index.ts';
import { type Connection, openDatabase } from '../db/index.ts';
import type { StoredHouseRules } from '../repositories/house-rules.ts';
import { type Person, personByHandle } from '../repositories/people.ts';
import type { Context } from './deciding/context/context.ts';
import type { People } from './items/create-item.ts';
import { createMeeting } from './meetings/index.ts';
import { addGroup } from './people/groups.ts';
import { addPerson, changePreferences, findBoard } from './people/people.ts';
import { giveAccess } from './sharing/give-access.ts';

/** Tuesday, 2 March 2027, nine in the morning in Lisbon: the instant at which tests begin. */
export const START = Date.UTC(2027, 2, 2, 9);

export const WEEK = { from: '2027-03-01', to: '2027-03-08', zone: 'Europe/Lisbon' };

/** A small organisation over a real SQLite file, for tests; `close` takes the file away. */
export interface SmallOrganisation {
  readonly db: Connection;
  readonly folder: string;
  /** A context for a person, at `START` or another instant. */
  ctx(handle: string, at?: number): Context;
  person(handle: string): Person;
  /** The key of a person's calendar, however little others may see of it. */
  calendar(handle: string): string;
  group(name: string, members: readonly string[]): string;
  give(owner: string, to: string, rights: Rights): void;
  /** Says that somebody works between two hours, every day of the week. */
  works(handle: string, from: string, to: string): void;
  add(
    owner: string,
    by: string,
    item: Partial<NewItem> & { title: string },
    people?: Partial<People>,
  ): { id: string; undo: string };
  close(): void;
}

/** The files of an organisation of some people, as they were made the first time: every test of the process begins with a copy. */
const begun: Record<string, ReadonlyMap<string, Buffer>> = {};

function filesOf(handles: readonly string[]): ReadonlyMap<string, Buffer> {
  const named = handles.join(' ');
  const known = begun[named];
  if (known) return known;
  const folder = mkdtempSync(join(tmpdir(), 'paramo-'));
  const db = openDatabase(folder);
  for (const [i, handle] of handles.entries())
    addPerson(db, START - 1000, null, {
      name: handle.replace(/^./, (c) => c.toUpperCase()),
      handle,
      address: `${handle}@cloudmoor.example`,
      role: '',
      zone: 'Europe/Lisbon',
      account: `account-${handle}`,
      administrator: i === 0,
    });
  db.raw.close();
  const files = new Map(readdirSync(folder).map((name) => [name, readFileSync(join(folder, name))]));
  rmSync(folder, { recursive: true });
  begun[named] = files;
  return files;
}

export function smallOrganisation(handles: readonly string[] = ['ines', 'tomas', 'amara', 'bruno', 'dario', 'wren']) {
  const folder = mkdtempSync(join(tmpdir(), 'paramo-'));
  for (const [name, bytes] of filesOf(handles)) writeFileSync(join(folder, name), bytes);
  const db = openDatabase(folder);
  // What a test writes is read by it alone, and needn't outlive the machine.
  db.raw.pragma('synchronous = OFF');
  const person = (handle: string): Person => {
    const found = personByHandle(db, handle);
    if (!found) throw new Error(`nobody called ${handle}`);
    return found;
  };
  const ctx = (handle: string, at = START): Context => ({ db, now: at, viewer: person(handle) });
  const calendar = (handle: string): string => findBoard(ctx(handle), handle)?.calendar ?? '';
  return {
    db,
    folder,
    ctx,
    person,
    calendar,
    group: (name, members) => addGroup(ctx(handles[0] as string), name, members.map(person)),
    give: (owner, to, rights) => {
      const seen = null;
      const result = giveAccess(ctx(owner), calendar(owner), { audience: { kind: 'person', id: to }, rights, seen });
      if (!result.ok) throw new Error(JSON.stringify(result));
    },
    works: (handle, from, to) => {
      const workHours = Array.from({ length: 7 }, () => [[from, to] as [string, string]]);
      const rest = { zone: 'Europe/Lisbon', hours: '24', weekFirst: 1, dateOrder: 'dmy' } as const;
      changePreferences(ctx(handle), { ...rest, workHours });
    },
    add: (owner, by, item, people = {}) => {
      const input = newItem.parse({ when: at('2027-03-03', 10), ...item });
      const all = { organiser: null, attendees: [], ownerAnswer: null, ...people };
      const result = createMeeting(ctx(by), calendar(owner), input, ctx(by).viewer.id, all);
      if (!result.ok) throw new Error(JSON.stringify(result));
      return { id: result.value.item?.id ?? '', undo: result.value.undo };
    },
    close: () => {
      db.raw.close();
      rmSync(folder, { recursive: true, force: true });
    },
  } satisfies SmallOrganisation;
}

/** From a full hour, for some hours, on the clock of Lisbon. */
export function at(date: string, hour: number, hours = 1) {
  const clock = (h: number) => `${date}T${String(h).padStart(2, '0')}:00`;
  return { start: clock(hour), end: clock(hour + hours), allDay: false, zone: 'Europe/Lisbon' };
}

/** The house rules as they start, with some ceilings of main calendars or other rules set otherwise. */
export function houseRulesWith(
  main: Partial<HouseRules>,
  more: Partial<Omit<StoredHouseRules, 'main'>> = {},
): StoredHouseRules {
  const rest = {
    further: null,
    startSight: 'busy',
    linksBy: 'sharers',
    warnOutside: true,
    meetingLinks: false,
  } as const;
  return { ...rest, ...more, main: { ...STARTING_HOUSE_RULES, ...main } };
}
