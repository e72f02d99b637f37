import { type Collection, decide } from '@/core/access/index.ts';
import { hub } from '../live/hub.ts';
import type { Calendar } from '../repositories/calendars.ts';
import { grantsOn } from '../repositories/grants.ts';
import type { StoredItem } from '../repositories/items.ts';
import { personById } from '../repositories/people.ts';
import type { Context } from './context.ts';
import { collectionOf, rulesOf, viewerOf } from './deciding.ts';
import { Directory } from './directory.ts';
import { rowOf } from './row-item.ts';
import { viewOfRow } from './views.ts';

/** Tells the open windows of those whose view of an item differs between before and after; nobody else hears of it. */
export function announceItems(
  ctx: Context,
  calendar: Calendar,
  changes: readonly { before: StoredItem | null; after: StoredItem | null }[],
): void {
  const people = hub().people();
  if (people.length === 0) return;
  const collection = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  const house = rulesOf(ctx.db);
  const directory = new Directory(ctx.db);
  for (const id of people) {
    const person = personById(ctx.db, id);
    if (!person) continue;
    const decision = decide(collection, viewerOf(ctx.db, person), ctx.now, house);
    if (decision.rights.sight === 'nothing') continue;
    const look = (item: StoredItem | null) =>
      item === null || item.removedAt !== null ? null : viewOfRow(ctx.db, directory, rowOf(item), { person, decision });
    const differs = changes.some(({ before, after }) => {
      const [was, is] = [look(before), look(after)];
      if (was === null && is === null) return false;
      if (was === null || is === null || JSON.stringify(was) !== JSON.stringify(is)) return true;
      return repeatText(before) !== repeatText(after);
    });
    if (differs) hub().tell(id, { kind: 'changed', calendar: calendar.key });
  }
}

const repeatText = (item: StoredItem | null): string =>
  item === null ? '' : JSON.stringify([item.rule, item.added, item.left, item.zone]);

/** Tells the open windows of those whose rights differ from what a collection gave them before. */
export function announceAccess(ctx: Context, calendar: Calendar, before: Collection): void {
  const after = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  const house = rulesOf(ctx.db);
  for (const id of hub().people()) {
    const person = personById(ctx.db, id);
    if (!person) continue;
    const viewer = viewerOf(ctx.db, person);
    const was = decide(before, viewer, ctx.now, house);
    const is = decide(after, viewer, ctx.now, house);
    if (JSON.stringify(was.rights) !== JSON.stringify(is.rights) || was.ceiling !== is.ceiling || is.owner)
      hub().tell(id, { kind: 'access', calendar: calendar.key });
  }
}
