import type { z } from 'zod';
import type { ItemWire } from '@/contract/items.ts';
import type { SearchAnswer, searchQuery } from '@/contract/search.ts';
import { fieldPolicy, readerOf } from '@/core/access/index.ts';
import { VISIBILITIES } from '@/core/calendar/index.ts';
import { expand } from '@/core/recurrence/index.ts';
import { dateText } from '@/core/time/index.ts';
import { type Calendar, calendarById, calendarsOf } from '../../repositories/calendars.ts';
import { calendarsNaming } from '../../repositories/grants.ts';
import { type Candidate, candidatesFor, type TextColumn, type TextsOf } from '../../repositories/item-text.ts';
import { itemById, replacementsOf } from '../../repositories/items.ts';
import { lanesOf } from '../../repositories/lanes.ts';
import { personById } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, type Decided, Directory, decideOn, repeats, seriesOf, viewFor } from '../deciding/index.ts';
import { holds, wordsOf } from './words.ts';

/** Items that are answered, and those that are looked at for them. */
const MOST = 40;
const MOST_LOOKED_AT = 4000;
const YEAR = 366 * 86_400_000;

/**
 * Items whose words, as the one who asks sees them, hold every word that is looked for, each as the beginning of one. What they don't see of
 * an item is matched by nothing, nor is it counted: each is found by all of its words and then read again through their own view. The nearest
 * to now first; of a series its next happening.
 */
export function search(
  ctx: Context,
  query: z.infer<typeof searchQuery>,
  mostLookedAt = MOST_LOOKED_AT,
): Result<SearchAnswer> {
  const words = wordsOf(query.words);
  if (words.length === 0) return refuse('badInput', { fields: { words: 'words' } });
  const decided = new Map<number, Decided | null>();
  const calendars = query.everywhere ? null : keptCalendars(ctx);
  let candidates = candidatesFor(ctx.db, words, [{ columns: EVERY_TEXT, calendars }], ctx.now, mostLookedAt);
  // Where there are more than are looked at, what isn't seen takes none of the room.
  if (calendars && candidates.length === mostLookedAt)
    candidates = candidatesFor(ctx.db, words, textsSeen(ctx, calendars, decided), ctx.now, mostLookedAt);
  const directory = new Directory(ctx.db);
  const found: SearchAnswer['found'][number][] = [];
  for (const candidate of candidates) {
    if (found.length > MOST) break;
    const one = seen(ctx, candidate, words, decided, directory);
    if (!one) continue;
    const { view, calendar } = one;
    if (query.kind !== undefined && view.kind !== query.kind) continue;
    const day = view.allDay ? view.start : dateText(Date.parse(view.start));
    if ((query.from !== undefined && day < query.from) || (query.to !== undefined && day > query.to)) continue;
    const owner = personById(ctx.db, calendar.ownerId);
    if (!owner) continue;
    const { handle, name, colour } = owner;
    const of = calendar.main ? null : calendar.name;
    found.push({ owner: { handle, name, colour: colour % 6 }, calendar: calendar.key, of, item: view });
  }
  return ok({
    found: found.slice(0, MOST),
    // In all calendars most of what was looked at is nobody's to know of, not even how much it was.
    cut: found.length > MOST || (!query.everywhere && candidates.length === mostLookedAt),
  });
}

/** The calendars one works with: one's own, those one was given something of by name, and those one keeps. */
function keptCalendars(ctx: Context): number[] {
  const own = calendarsOf(ctx.db, ctx.viewer.id).map((c) => c.id);
  const kept = lanesOf(ctx.db, ctx.viewer.id).map((lane) => lane.calendarId);
  return [...new Set([...own, ...calendarsNaming(ctx.db, ctx.viewer.id), ...kept])].slice(0, 500);
}

const FIELDS: Record<TextColumn, keyof typeof fieldPolicy> = {
  title: 'title',
  place: 'place',
  notes: 'notes',
  people: 'attendees',
  categories: 'categories',
  link: 'link',
  briefing: 'briefing',
};
const EVERY_TEXT = Object.keys(FIELDS) as TextColumn[];
const BY_RANK = ['withheld', 'busy', 'title', 'outline', 'full', 'briefed'] as const;

/**
 * Where words may stand for who asks, by the rule itself: of each visibility in each calendar only the texts that are seen of it, and all
 * texts of what names them or was made by them. So what is looked at is, but for a few called off, what they are shown.
 */
function textsSeen(ctx: Context, calendars: readonly number[], decided: Map<number, Decided | null>): TextsOf[] {
  const groups = new Map<string, { columns: TextColumn[]; calendars: number[]; visibilities: string[] }>();
  const looked: number[] = [];
  for (const id of calendars) {
    const on = decidedOn(ctx, id, decided);
    if (!on || on.decision.rights.sight === 'nothing') continue;
    looked.push(id);
    const reader = readerOf(on.decision);
    const byColumns = new Map<string, string[]>();
    for (const visibility of VISIBILITIES) {
      const item = { visibility, shows: 'busy', cancelled: false, ownerAnswer: null } as const;
      const rank = BY_RANK.indexOf(
        reader.seen(item, { named: false, created: false, ownerInvited: false }) ?? 'withheld',
      );
      const columns = EVERY_TEXT.filter(
        (column) => BY_RANK.indexOf(fieldPolicy[FIELDS[column]] as (typeof BY_RANK)[number]) <= rank,
      );
      if (columns.length > 0)
        byColumns.set(columns.join(' '), [...(byColumns.get(columns.join(' ')) ?? []), visibility]);
    }
    for (const [columns, visibilities] of byColumns) {
      const key = `${columns}|${visibilities.join(' ')}`;
      const group = groups.get(key) ?? { columns: columns.split(' ') as TextColumn[], calendars: [], visibilities };
      group.calendars.push(id);
      groups.set(key, group);
    }
  }
  if (looked.length === 0) return [];
  const columns = EVERY_TEXT.filter((column) => column !== 'briefing');
  const { address, id: createdBy } = ctx.viewer;
  const named = address ? [{ columns, calendars: looked, named: address }] : [];
  return [...groups.values(), ...named, { columns, calendars: looked, createdBy }];
}

function decidedOn(ctx: Context, calendarId: number, decided: Map<number, Decided | null>): Decided | null {
  let on = decided.get(calendarId);
  if (on === undefined) {
    const calendar = calendarById(ctx.db, calendarId);
    on = calendar && decideOn(ctx, calendar);
    decided.set(calendarId, on);
  }
  return on;
}

function seen(
  ctx: Context,
  { id, calendarId }: Candidate,
  words: readonly string[],
  decided: Map<number, Decided | null>,
  directory: Directory,
): { view: ItemWire; calendar: Calendar } | null {
  const on = decidedOn(ctx, calendarId, decided);
  if (!on || on.decision.rights.sight === 'nothing') return null;
  const item = itemById(ctx.db, id);
  if (!item) return null;
  const view = viewFor(ctx, on, item, item, directory);
  if (!view || !holds(view, words)) return null;
  const next = repeats(item) ? nextOf(ctx, item) : null;
  return { view: (next && viewFor(ctx, on, item, next, directory)) ?? view, calendar: on.calendar };
}

/** The next happening of a series, within a year. */
function nextOf(ctx: Context, item: StoredItem): { start: number; end: number } | undefined {
  const replaced = replacementsOf(ctx.db, item.id).map((r) => r.recurrence as string);
  return expand(seriesOf(item, replaced), ctx.now, ctx.now + YEAR, 1).occurrences[0];
}
