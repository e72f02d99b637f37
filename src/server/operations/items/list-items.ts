import type { BoardHead, ItemsAnswer, ItemsQuery, LoadAnswer, RangeQuery } from '@/contract/items/items.ts';
import { MAY_NOTHING } from '@/contract/may-nothing.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import { type Collection, decide, may, mayRun, nextChange, SIGHT_RANK } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import { type Calendar, calendarsOf } from '../../repositories/calendars.ts';
import { membersOf } from '../../repositories/groups.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  type Context,
  type Decided,
  Directory,
  decideOnSeveral,
  findAudienceParam,
  findCalendar,
  findSharedCalendar,
  isRefusal,
  loadOf,
  noteUse,
  type Range,
  readRange,
  readViews,
  rulesOf,
  viewsAs,
} from '../deciding/index.ts';
import { mayImport } from './importing.ts';

/** What the viewer sees of a calendar in a range, with what they may do there. Hidden and missing answer alike. */
export function listItems(ctx: Context, key: string, query: ItemsQuery): Result<ItemsAnswer> {
  const range = readRange(query);
  const after = query.after ?? 0;
  if (query.as !== undefined) return isRefusal(range) ? range : listItemsAs(ctx, key, query.as, range, after);
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  if (isRefusal(range)) return range;
  const directory = new Directory(ctx.db);
  noteUse(ctx, decided.decision);
  const looker = { person: ctx.viewer, decision: decided.decision };
  const { items, more, unread } = readViews(ctx.db, directory, decided.calendar, range, looker, { after });
  return ok({ head: headOf(ctx, decided, directory), items, cutShort: unread, more, version: null });
}

/**
 * The same through the eyes of an audience, in the real boards: what they get, cut to what the one who looks sees too, and
 * nothing that can be acted on. For those who may give access.
 */
function listItemsAs(ctx: Context, key: string, as: string, range: Range, after: number): Result<ItemsAnswer> {
  const decided = findSharedCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const audience = findAudienceParam(ctx, as, decided.calendar);
  if (isRefusal(audience)) return refuse('badInput', { fields: { as: 'audience' } });
  const theirs = decide(decided.collection, audience.viewer, ctx.now, rulesOf(ctx.db, decided.calendar));
  const head = headOf(ctx, { ...decided, viewer: audience.viewer, decision: theirs }, new Directory(ctx.db));
  const { items, more, unread } = viewsAs(ctx, decided, range, audience, theirs, after);
  return ok({
    head: { ...head, own: false, may: MAY_NOTHING, as: audience.name || 'everyone' },
    items,
    cutShort: unread,
    more,
    version: null,
  });
}

/** The head of a board: whose it is, and what the viewer may do there. */
function headOf(ctx: Context, { calendar, collection, viewer, decision }: Decided, directory: Directory): BoardHead {
  const owner = directory.person(calendar.ownerId);
  const next = nextChange(collection, viewer, ctx.now);
  const { add, suggest, share } = may(decision);
  return {
    calendar: {
      key: calendar.key,
      name: calendar.name,
      zone: calendar.zone,
      main: calendar.main,
      description: calendar.description,
    },
    others: seenOf(
      ctx,
      calendarsOf(ctx.db, calendar.ownerId).filter((c) => c.id !== calendar.id),
    ).map(({ key, name, main }) => ({ key, name, main })),
    owner: { handle: owner?.handle ?? '', name: owner?.name ?? '', colour: owner?.colour ?? 0 },
    hours: readWorkHours(owner?.workHours ?? null),
    hoursZone: owner?.zone ?? calendar.zone,
    rights: decision.rights,
    own: decision.owner,
    may: { add, suggest, share, import: mayImport(decision), ...mayRun(decision) },
    accessChangesAt: next === null ? null : instantText(next),
    widelyRead: mayRun(decision).arrange && isWidelyRead(ctx, calendar, collection),
    as: null,
  };
}

/** Those of some calendars of which the viewer sees anything. */
export function seenOf(ctx: Context, calendars: readonly Calendar[]): Calendar[] {
  const decided = decideOnSeveral(
    ctx,
    calendars.map((c) => c.id),
  );
  const seen = new Set(decided.flatMap((d) => (d.decision.rights.sight === 'nothing' ? [] : [d.calendar.id])));
  return calendars.filter((c) => seen.has(c.id));
}

const MANY = 5;

/** Whether everyone inside, or a group of five or more, reads the titles of what follows the calendar. */
function isWidelyRead(ctx: Context, calendar: Calendar, collection: Collection): boolean {
  const house = rulesOf(ctx.db, calendar);
  const reads = (groups: readonly string[]): boolean => {
    const viewer = { kind: 'person' as const, id: 'no one by name', inside: true, groups: new Set(groups) };
    return SIGHT_RANK[decide(collection, viewer, ctx.now, house).rights.sight] >= SIGHT_RANK.title;
  };
  if (reads([])) return true;
  return collection.grants.some(
    ({ audience: a }) => a.kind === 'group' && reads([a.id]) && membersOf(ctx.db, Number(a.id)).length >= MANY,
  );
}

/** Booked minutes and clashes by day, worked out from the views the asker gets and nothing else. */
export function listLoad(ctx: Context, key: string, query: RangeQuery): Result<LoadAnswer> {
  const listed = listItems(ctx, key, query);
  if (!listed.ok) return listed;
  const days = loadOf(listed.value.items, query);
  const { cutShort, more } = listed.value;
  return ok({ days, cutShort: cutShort || more !== null, version: null });
}
