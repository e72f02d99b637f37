import type { ItemWire } from '@/contract/items/items.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import type { Sight } from '@/core/calendar/index.ts';
import type { OpeningsPerson } from '@/core/openings/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { type Person, personByAddress } from '../../repositories/people.ts';
import { timePreferencesOf } from '../../repositories/time-preferences.ts';
import {
  type About,
  type Context,
  type Decided,
  Directory,
  decideOn,
  rangeOf,
  readViews,
  type Views,
  withoutCopy,
} from '../deciding/index.ts';

/** Somebody who is asked, and the views they are read from. */
export type ViewedPerson = OpeningsPerson & {
  readonly name: string;
  readonly colour: number;
  readonly sight: Sight;
  readonly views: readonly ItemWire[];
  /** Not all of what they have could be read. */
  readonly cut: boolean;
};

/** Somebody as a search reads them, with the views it is made of: from what the asker sees of that calendar, and nothing else. */
export function viewedPerson(
  ctx: Context,
  person: Person,
  decided: Decided | null,
  need: 'must' | 'may',
  from: number,
  to: number,
  about: About,
): ViewedPerson {
  const known = decided !== null && decided.decision.rights.sight !== 'nothing';
  const { views, cut } = known ? viewsAround(ctx, decided, from, to, about) : { views: [], cut: false };
  const hours = readWorkHours(person.workHours);
  // Of somebody who isn't known nothing counts but their hours.
  const preferences = known ? timePreferencesOf(ctx.db, person.id).keeps : [];
  const sight = decided?.decision.rights.sight ?? 'nothing';
  const { address: id, name, zone, colour } = person;
  return { id, name, colour, sight, need, known, zone, hours, keeps: preferences, items: views, views, cut };
}

/**
 * People by their addresses as a search reads them; those outside are named as not known, and so are those who give nothing. Who comes from
 * outside has no directory: to them somebody who gives nothing is an address, with neither a name nor hours.
 */
export function viewedPeople(
  ctx: Context,
  wanted: readonly { readonly address: string; readonly must: boolean }[],
  from: number,
  to: number,
  about: About,
): { readonly people: ViewedPerson[]; readonly unknown: string[] } {
  const people: ViewedPerson[] = [];
  const unknown: string[] = [];
  for (const { address, must } of wanted) {
    const person = personByAddress(ctx.db, address);
    const calendar = person?.inside && person.leftAt === null ? mainCalendarOf(ctx.db, person.id) : null;
    const need = must ? 'must' : 'may';
    const one = person && calendar ? viewedPerson(ctx, person, decideOn(ctx, calendar), need, from, to, about) : null;
    if (!one?.known) unknown.push(person?.inside && ctx.viewer.inside ? person.name : address);
    if (one && (one.known || ctx.viewer.inside)) people.push(one);
  }
  return { people, unknown };
}

/** So many answers of somebody's time are read: each holds as many items as a board shows. */
const MOST_ANSWERS = 4;

function viewsAround(
  ctx: Context,
  { calendar, decision }: Decided,
  from: number,
  to: number,
  about: About,
): { views: readonly ItemWire[]; cut: boolean } {
  const range = rangeOf({ start: from, end: to, allDay: false }, calendar.zone);
  const directory = new Directory(ctx.db);
  const views: ItemWire[] = [];
  let after: number | null = 0;
  let cut = false;
  for (let answers = 0; after !== null && answers < MOST_ANSWERS; answers++) {
    const read: Views = readViews(ctx.db, directory, calendar, range, { person: ctx.viewer, decision }, { after });
    views.push(...read.items);
    cut ||= read.unread;
    after = read.more;
  }
  return {
    views: withoutCopy(ctx.db, calendar.id, about, views).filter((view) => !view.asSet?.cancelled),
    cut: cut || after !== null,
  };
}
