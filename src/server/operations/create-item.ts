import type { NewItem, WrittenAnswer } from '@/contract/items.ts';
import { toWall } from '@/core/time/index.ts';
import { newKey } from '../ids.ts';
import type { Calendar } from '../repositories/calendars.ts';
import { insertItem, type StoredItem } from '../repositories/items.ts';
import { personById } from '../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../result.ts';
import { announceItems } from './announce.ts';
import type { Context } from './context.ts';
import { findCalendar, isRefusal } from './deciding.ts';
import { Directory } from './directory.ts';
import { indexItem } from './indexing.ts';
import { readRepeat, readWhen } from './when.ts';
import { hands, trailItems, written } from './writing.ts';

/**
 * Adds an item to a calendar, in its owner's name. Refused without the right to add; every field is checked first. `by` is whose
 * work it is, where that is not the one who writes.
 */
export function createItem(ctx: Context, key: string, input: NewItem, by = ctx.viewer.id): Result<WrittenAnswer> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar, decision } = decided;
  const directory = new Directory(ctx.db);
  if (!decision.rights.add) return refuse('mayNotAdd', { facts: { name: directory.name(calendar.ownerId) } });
  const draft = draftItem(ctx, calendar, input, by);
  if ('ok' in draft) return draft;
  const { item, undo } = ctx.db.write(() => {
    const item = insertItem(ctx.db, draft);
    indexItem(ctx.db, calendar, item);
    return { item, undo: trailItems(ctx, calendar, 'item.added', [{ before: null, after: item }]) };
  });
  announceItems(ctx, calendar, [{ before: null, after: item }]);
  return ok(written(ctx, decided, item, undo));
}

/** The item that an addition would make, or the refusal that names the field. */
export function draftItem(
  ctx: Context,
  calendar: Calendar,
  input: NewItem,
  by: number,
): Omit<StoredItem, 'id'> | Refusal {
  const owner = personById(ctx.db, calendar.ownerId)?.address ?? '';
  const when = readWhen(input.when);
  if (isRefusal(when)) return when;
  const startWall = when.allDay ? when.start : toWall(when.zone, when.start);
  const repeat = readRepeat(input.repeat?.rule ?? null, startWall, when.zone);
  if (isRefusal(repeat)) return repeat;
  const { when: _when, repeat: _repeat, ...fields } = input;
  const own = hands(ctx, calendar, by);
  return {
    ...fields,
    ...when,
    ...own,
    place: fields.place || null,
    link: fields.link || null,
    key: newKey(),
    calendarId: calendar.id,
    uid: `${newKey()}@paramo`,
    seriesId: null,
    recurrence: null,
    rule: repeat.rule,
    added: [],
    left: [],
    cancelled: false,
    ownerInvited: input.attendees.some((a) => a.address === owner) && input.organiser?.address !== owner,
    sequence: 0,
    version: 1,
    createdBy: own.changedBy,
    createdFor: own.changedFor,
    createdAt: own.changedAt,
    removedAt: null,
  };
}
