import type { ItemWire, NewItem } from '@/contract/items/items.ts';
import {
  type Answer,
  type Attendee,
  CONTENT_FIELDS,
  freshFields,
  type Party,
  settled,
  specOf,
  type WrittenField,
  withoutEmpty,
} from '@/core/calendar/index.ts';
import { toWall } from '@/core/time/index.ts';
import { newKey } from '../../ids.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { countAddedBy, countItems, MADE_HERE } from '../../repositories/items.ts';
import { personById } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  Directory,
  findCalendar,
  type ItemsWritten,
  isRefusal,
  MOST_ADDED_A_DAY,
  MOST_ITEMS_IN_CALENDAR,
  noRoomFor,
  seriesOf,
  viewFor,
  writeItems,
} from '../deciding/index.ts';
import { pickedDays, readRepeat, readWhen } from './when.ts';

/** Who calls a meeting, who is asked and what they answered: never out of a request's body, only from messages, files and samples. */
export interface People {
  readonly organiser: Party | null;
  readonly attendees: readonly Attendee[];
  readonly ownerAnswer: Answer | null;
  /** Of a hold: its set, and when it frees itself. */
  readonly holdSet?: number;
  readonly lapsesAt?: number;
  /** What it is called outside, where a program of its owner's called it so. */
  readonly uid?: string;
  /** Days that were left out of a series before it came here, as texts on its clock. */
  readonly left?: readonly string[];
  /** Who may see it was chosen: it isn't as its kind begins. */
  readonly chosen?: true;
  /** Lines of its text that aren't modelled. */
  readonly unmodelled?: StoredItem['kept'];
  /** It came here called off: it takes no time, and nobody is invited. */
  readonly cancelled?: true;
  /** Which occurrence of its series it stands for, where it came without that: a text on its own clock. */
  readonly recurrence?: string | null;
}
export const NOBODY: People = { organiser: null, attendees: [], ownerAnswer: null };

/**
 * Adds an item to a calendar, in its owner's name. Refused without the right to add, and where a calendar or a person has as many as
 * they may; every field is checked first. `by` is whose work it is, where that is not the one who writes.
 */
export function createItem(
  ctx: Context,
  key: string,
  input: NewItem,
  by = ctx.viewer.id,
  people: People = NOBODY,
): Result<ItemsWritten> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar, decision } = decided;
  const directory = new Directory(ctx.db);
  if (!decision.rights.add) return refuse('mayNotAdd', { facts: { name: directory.name(calendar.ownerId) } });
  const draft = draftItem(ctx, calendar, input, by, people);
  if ('ok' in draft) return draft;
  const unseen = unseenIn(input, viewFor(ctx, decided, { ...draft, id: 0 }));
  if (unseen) return refuse('badInput', { fields: { [unseen]: 'notSeen' } });
  const full = noRoom(ctx, calendar, by, 1) ?? noRoomFor(ctx.db, calendar, seriesOf(draft, []));
  if (full) return full;
  const written = writeItems(ctx, calendar, 'item.added', [{ before: null, after: draft }]);
  return ok({ ...written, decided, item: written.changes[0]?.after ?? null });
}

/** The first briefing field with something in it that whoever adds the item will not see: it is refused, as it is in a change. */
const unseenIn = (input: NewItem, view: ItemWire | null): WrittenField | undefined =>
  CONTENT_FIELDS.find((name) => {
    const [value, { sight }] = [input[name], specOf(name)];
    return sight === 'briefed' && value && !(view && name in view);
  });

const DAY = 86_400_000;

/** Why a calendar, or the day of whoever adds, has no room for so many more items; `null` where they have. */
export function noRoom(ctx: Context, calendar: Calendar, by: number, more: number): Refusal | null {
  if (countItems(ctx.db, calendar.id) + more > MOST_ITEMS_IN_CALENDAR)
    return refuse('calendarFull', { facts: { most: MOST_ITEMS_IN_CALENDAR } });
  if (countAddedBy(ctx.db, by, ctx.now - DAY) + more > MOST_ADDED_A_DAY)
    return refuse('addedTooMuch', { facts: { most: MOST_ADDED_A_DAY } });
  return null;
}

/** The item that an addition would make, or the refusal that names the field. */
export function draftItem(
  ctx: Context,
  calendar: Calendar,
  input: NewItem,
  by: number,
  { chosen, ...people }: People = NOBODY,
): Omit<StoredItem, 'id'> | Refusal {
  const owner = personById(ctx.db, calendar.ownerId)?.address ?? '';
  const when = readWhen(input.when);
  if (isRefusal(when)) return when;
  const startWall = when.allDay ? when.start : toWall(when.zone, when.start);
  const repeat = readRepeat(input.repeat?.rule ?? null, startWall, when.allDay ? null : when.zone);
  if (isRefusal(repeat)) return repeat;
  const picked = pickedDays({ ...when, wall: null, rule: repeat.rule, left: [] }, input.dates ?? []);
  if (isRefusal(picked)) return picked;
  const { when: _when, repeat: _repeat, dates: _dates, people: _people, ...fields } = input;
  const own = authorship(ctx, calendar, by);
  return settled(
    {
      ...MADE_HERE,
      ...freshFields(fields.title),
      ...withoutEmpty(fields),
      ...when,
      ...picked,
      ...own,
      ...people,
      key: newKey(),
      calendarId: calendar.id,
      left: [...new Set([...picked.left, ...(people.left ?? [])])],
      uid: people.uid ?? `${newKey()}@paramo`,
      seriesId: null,
      recurrence: people.recurrence ?? null,
      rule: repeat.rule,
      cancelled: people.cancelled ?? false,
      ownerInvited: people.attendees.some((a) => a.address === owner) && people.organiser?.address !== owner,
      sequence: 0,
      version: 1,
      createdBy: own.changedBy,
      createdFor: own.changedFor,
      createdAt: own.changedAt,
      removedAt: null,
    },
    chosen ? fields : null,
  );
}
