import { type Collection, decide, type HouseRules, type Viewer } from '@/core/access/index.ts';
import type { Connection } from '../../db/index.ts';
import { hub, type Listener } from '../../live/hub.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { grantsOn } from '../../repositories/grants.ts';
import type { StoredItem } from '../../repositories/items.ts';
import { type Person, personById } from '../../repositories/people.ts';
import type { Context } from './context.ts';
import { collectionOf, rulesOf, viewerOf } from './deciding.ts';
import { Directory } from './directory.ts';
import { rowOf } from './row-item.ts';
import { viewOfRow } from './views.ts';

type Change = { readonly before: StoredItem | null; readonly after: StoredItem | null };

/** Tells the open windows of those whose view of an item differs between before and after; nobody else hears of it. */
export function announceItems(ctx: Context, calendar: Calendar, changes: readonly Change[]): void {
  for (const listener of whoSees(ctx, calendar, changes, hub().listeners()))
    hub().tell(listener, { kind: 'changed', calendar: calendar.key });
}

/** Those of some listeners whose view of an item differs between before and after. */
export function whoSees(
  ctx: Context,
  calendar: Calendar,
  changes: readonly Change[],
  listeners: readonly Listener[],
): Listener[] {
  const collection = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  const house = rulesOf(ctx.db, calendar);
  const directory = new Directory(ctx.db);
  return listening(ctx.db, listeners).flatMap(({ listener, viewer, person }) => {
    const decision = decide(collection, viewer, ctx.now, house);
    if (decision.rights.sight === 'nothing') return [];
    const look = (item: StoredItem | null) =>
      item === null || item.removedAt !== null ? null : viewOfRow(ctx.db, directory, rowOf(item), { person, decision });
    const differs = changes.some(({ before, after }) => {
      const [was, is] = [look(before), look(after)];
      if (was === null && is === null) return false;
      if (was === null || is === null || JSON.stringify(was) !== JSON.stringify(is)) return true;
      return repeatText(before) !== repeatText(after);
    });
    return differs ? [listener] : [];
  });
}

const repeatText = (item: StoredItem | null): string =>
  item === null ? '' : JSON.stringify([item.rule, item.added, item.left, item.zone]);

/** Tells the open windows of those whose rights differ from what a collection gave them before. */
export function announceAccess(
  ctx: Pick<Context, 'db' | 'now'>,
  calendar: Calendar,
  before: Collection,
  rulesBefore?: HouseRules,
): void {
  const after = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  const house = rulesOf(ctx.db, calendar);
  for (const { listener, viewer } of listening(ctx.db, hub().listeners())) {
    const was = decide(before, viewer, ctx.now, rulesBefore ?? house);
    const is = decide(after, viewer, ctx.now, house);
    // Who shares a calendar reads all its grants: for them any change of them is one.
    const reads = is.owner || was.rights.shares || is.rights.shares;
    if (JSON.stringify(was.rights) !== JSON.stringify(is.rights) || was.ceiling !== is.ceiling || reads)
      hub().tell(listener, { kind: 'access', calendar: calendar.key });
  }
}

interface Listening {
  readonly listener: Listener;
  readonly viewer: Viewer;
  readonly person: Person | null;
}

/** Whoever has a window open, as the rule reads them. */
function listening(db: Connection, listeners: readonly Listener[]): Listening[] {
  return listeners.flatMap((listener): Listening[] => {
    if (typeof listener === 'string')
      return [{ listener, viewer: { kind: 'link', id: listener.slice('link:'.length) }, person: null }];
    const person = personById(db, listener);
    return person ? [{ listener, viewer: viewerOf(db, person), person }] : [];
  });
}
