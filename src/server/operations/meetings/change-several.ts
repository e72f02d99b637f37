import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { SeveralAnswer, SeveralBody } from '@/contract/items/several.ts';
import { COPIED_FIELDS, freshFields, pick } from '@/core/calendar/index.ts';
import { dateText, fromWallLenient, parseDate, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, Directory, type FoundItem, findItem, isRefusal } from '../deciding/index.ts';
import { isSaid, moveMeeting } from './move.ts';
import { changeMeeting, createMeeting, removeMeeting, undoMeeting } from './save.ts';

const DAY = 86_400_000;
const MINUTE = 60_000;

/**
 * One act on several items: each is written as it would be alone, in one transaction, and where one of them is refused none is. The refusal is
 * that one's own, with the id it was asked under. Its one token takes all of it back.
 */
export function changeSeveral(ctx: Context, { items, change }: SeveralBody): Result<SeveralAnswer> {
  // Several occurrences of one series in one act: the first write changes the series' version, so what counts is the version before the act.
  const before = new Map<number, number>();
  return writeEach(ctx, items, ({ item, version: seen, to, at }) => {
    const found = findItem(ctx, item);
    if (isRefusal(found)) return found;
    const now = found.item.version;
    const was = before.get(found.item.id) ?? now;
    before.set(found.item.id, was);
    const version = seen === was ? now : seen;
    if (change.kind === 'times') {
      const when = at === undefined ? null : begun(ctx, found, parseInstant(at));
      if (when === null) return refuse('badInput', { fields: { items: 'start' } });
      return changeMeeting(ctx, item, { version, scope: 'one', when, fields: {} });
    }
    if (change.kind === 'remove') return removeMeeting(ctx, item, { version, scope: 'one' });
    if (change.kind === 'visibility')
      return changeMeeting(ctx, item, { version, scope: 'one', fields: { visibility: change.visibility } });
    const when = shifted(ctx, found, change.days, change.minutes);
    if (change.kind === 'into') {
      // Who hears that somebody else calls it now is said of each by itself.
      if (isSaid(ctx, found)) return refuse('movesAlone');
      return moveMeeting(ctx, item, { to: to ?? change.to, version, ...(when ? { when } : {}) });
    }
    return when && changeMeeting(ctx, item, { version, scope: 'one', when, fields: {} });
  });
}

/** When an item would be, moved on the clock of its own zone with its length kept; `null` where it stays: whole days move by days alone. */
function shifted(ctx: Context, { item, occurrence }: FoundItem, days: number, minutes: number) {
  const { start, end } = occurrence ?? item;
  const zone = new Directory(ctx.db).zone(item.zone);
  if (days === 0 && (item.allDay || minutes === 0)) return null;
  if (item.allDay) {
    return { start: dateText(start + days * DAY), end: dateText(end + days * DAY), allDay: true, zone };
  }
  const from = fromWallLenient(zone, toWall(zone, start) + days * DAY + minutes * MINUTE);
  const text = (at: number) => wallText(toWall(zone, at));
  return { start: text(from), end: text(from + (end - start)), allDay: false, zone };
}

/** When an item would be that begins at an instant, with its length kept. */
function begun(ctx: Context, { item, occurrence }: FoundItem, at: number | null) {
  if (at === null || item.allDay) return null;
  const { start, end } = occurrence ?? item;
  const zone = new Directory(ctx.db).zone(item.zone);
  const text = (ms: number) => wallText(toWall(zone, ms));
  return { start: text(at), end: text(at + (end - start)), allDay: false, zone };
}

/** Puts another like an item on each of some dates, at its hours, without its people and its repeat; all of them or none. */
export function copyItem(ctx: Context, id: string, dates: readonly string[]): Result<SeveralAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { item, occurrence, view, decided } = found;
  const { start, end } = occurrence ?? item;
  const zone = new Directory(ctx.db).zone(item.zone);
  const wall = (at: number) => (item.allDay ? at : toWall(zone, at));
  const text = (at: number) => (item.allDay ? dateText(at) : wallText(at));
  const day = Math.floor(wall(start) / DAY) * DAY;
  const seen = COPIED_FIELDS.filter((name) => name in view);
  const like = { ...freshFields(item.title), ...pick(item, seen) };
  return writeEach(ctx, [...new Set(dates)].sort(), (date) => {
    const on = parseDate(date);
    if (on === null) return refuse('badInput', { fields: { dates: 'date' } });
    const first = on + (wall(start) - day);
    const last = item.allDay ? first + (end - start) : wall(fromWallLenient(zone, first) + (end - start));
    const when = { start: text(first), end: text(last), allDay: item.allDay, zone };
    return createMeeting(ctx, decided.calendar.key, { ...like, when }, ctx.viewer.id, { chosen: true });
  });
}

/** The tokens of several writes as one; a token's own letters never hold what joins them. */
const JOINT = '.';

/** Takes back what one token stands for: the last write first, all of them or none. */
export function undoSeveral(ctx: Context, token: string): Result<WrittenAnswer> {
  const tokens = token.split(JOINT).reverse();
  if (tokens.length === 1) return undoMeeting(ctx, token);
  const back: WrittenAnswer[] = [];
  const all = writeEach(ctx, tokens, (one) => {
    const undone = undoMeeting(ctx, one);
    if (undone.ok) back.push(undone.value);
    return undone;
  });
  if (!all.ok) return all;
  const sending = back.find((one) => one.sending)?.sending;
  return ok({ item: null, undo: all.value.undo, ...(sending ? { sending } : {}) });
}

/** Writes each of several; the first that is refused takes back all before it, and is what is answered. `null` is nothing to write. */
export function writeEach<T>(
  ctx: Context,
  each: readonly T[],
  write: (one: T) => Result<WrittenAnswer> | null,
): Result<SeveralAnswer> {
  return ctx.db.write(() => {
    const done: WrittenAnswer[] = [];
    for (const one of each) {
      const answer = write(one);
      if (answer && !answer.ok) return named(answer, one);
      if (answer) done.push(answer.value);
    }
    if (done.length === 0) return refuse('badInput', { fields: { change: 'nothingMoves' } });
    const sendings = done.filter((one) => one.sending).length;
    const items = done.flatMap((one) => one.item ?? []);
    return ok({ written: done.length, items, undo: done.map((one) => one.undo).join(JOINT), sendings });
  });
}

/** A refusal of one of several, with which it is. */
function named(refusal: Refusal, one: unknown): Refusal {
  const id = typeof one === 'object' && one !== null && 'item' in one ? String(one.item) : null;
  return id === null ? refusal : { ...refusal, data: { item: id } };
}
