import type { z } from 'zod';
import type { SearchAnswer, searchQuery } from '@/contract/search.ts';
import { fieldPolicy, readerOf } from '@/core/access/index.ts';
import { SEARCHED_FIELDS, VISIBILITIES } from '@/core/calendar/index.ts';
import { dateText } from '@/core/time/index.ts';
import { candidatesFor, type TextColumn, type TextsOf } from '../../repositories/item-text.ts';
import { calendarsOnLanesOf } from '../../repositories/lanes.ts';
import { itemsAtNext } from '../../repositories/occurrences.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, type Decided, Directory, decideOnSeveral, viewOfRow } from '../deciding/index.ts';
import { searchContacts } from './search-contacts.ts';
import { searchMessages } from './search-messages.ts';
import { searchTasks } from './search-tasks.ts';
import { holds, wordsOf } from './words.ts';

/** Items that are answered, and those that are looked at for them. */
const MOST = 40;
const MOST_LOOKED_AT = 4000;
/** Calendars that are looked through where not all are. */
const MOST_CALENDARS = 500;
/** So many are read at a time: what is found is mostly found among the first. */
const AT_A_TIME = 60;

/**
 * Items whose words, as the viewer sees them, hold every word that is looked for, each as the beginning of one. What they don't see of
 * an item is matched by nothing, nor is it counted: each is found by all of its words and then read again through their own view. The nearest
 * to now first; of a series its next occurrence.
 */
export function search(
  ctx: Context,
  query: z.infer<typeof searchQuery>,
  mostLookedAt = MOST_LOOKED_AT,
): Result<SearchAnswer> {
  const words = wordsOf(query.words);
  if (words.length === 0) return refuse('badInput', { fields: { words: 'words' } });
  const deciding = new Deciding(ctx);
  const calendars = query.everywhere ? null : calendarsOnLanesOf(ctx.db, ctx.viewer.id, MOST_CALENDARS);
  let candidates = candidatesFor(ctx.db, words, [{ columns: EVERY_TEXT, calendars }], ctx.now, mostLookedAt);
  // Where there are more than are looked at, what isn't seen takes none of the room.
  if (calendars && candidates.length === mostLookedAt)
    candidates = candidatesFor(ctx.db, words, textsSeen(ctx, calendars, deciding), ctx.now, mostLookedAt);
  const directory = new Directory(ctx.db);
  const found: SearchAnswer['found'][number][] = [];
  for (let from = 0; from < candidates.length && found.length <= MOST; from += AT_A_TIME) {
    const some = candidates.slice(from, from + AT_A_TIME);
    deciding.on(some.map((c) => c.calendarId));
    const rows = itemsAtNext(
      ctx.db,
      some.filter((c) => deciding.sees(c.calendarId)).map((c) => c.id),
      ctx.now,
    );
    for (const { calendarId, row } of rows) {
      const on = deciding.sees(calendarId);
      const view = on && viewOfRow(ctx.db, directory, row, { person: ctx.viewer, decision: on.decision });
      if (!view || !holds(view, words)) continue;
      if (query.kind !== undefined && view.kind !== query.kind) continue;
      const day = view.allDay ? view.start : dateText(Date.parse(view.start));
      if ((query.from !== undefined && day < query.from) || (query.to !== undefined && day > query.to)) continue;
      const { key, main, ownerId, name: calendarName } = on.calendar;
      const owner = directory.person(ownerId);
      if (!owner) continue;
      const { handle, name, colour } = owner;
      const of = main ? null : calendarName;
      found.push({ owner: { handle, name, colour: colour % 6 }, calendar: key, of, item: view });
    }
  }
  // Of a kind of item, or between days of a calendar, there are no tasks, contacts or mails.
  const narrowed = query.kind !== undefined || query.from !== undefined || query.to !== undefined;
  return ok({
    found: found.slice(0, MOST),
    ...(narrowed
      ? { tasks: [], tasksCut: false, contacts: [], contactsCut: false, messages: [], messagesCut: false }
      : { ...searchTasks(ctx, words), ...searchContacts(ctx, words), ...searchMessages(ctx, words) }),
    // Most of what was looked through in all calendars may not be seen, so not even its number is told.
    cut: found.length > MOST || (!query.everywhere && candidates.length === mostLookedAt),
  });
}

type On = Pick<Decided, 'calendar' | 'decision'>;

/** What is decided on calendars while one search lasts, each once, several at a time. */
export class Deciding {
  private readonly known = new Map<number, On | null>();
  constructor(private readonly ctx: Context) {}

  /** Decides on those that aren't decided on yet. */
  on(calendars: readonly number[]): void {
    const unknown = [...new Set(calendars)].filter((id) => !this.known.has(id));
    if (unknown.length === 0) return;
    for (const id of unknown) this.known.set(id, null);
    for (const on of decideOnSeveral(this.ctx, unknown))
      if (on.decision.rights.sight !== 'nothing') this.known.set(on.calendar.id, on);
  }

  /** What was decided on a calendar, `null` where nothing of it is seen. */
  sees(calendar: number): On | null {
    return this.known.get(calendar) ?? null;
  }
}

const EVERY_TEXT: readonly TextColumn[] = [...SEARCHED_FIELDS, 'people'];
const sightOf = (column: TextColumn) => fieldPolicy[column === 'people' ? 'attendees' : column];
const BY_RANK = ['withheld', 'busy', 'title', 'outline', 'full', 'briefed'] as const;

/**
 * Where words may stand for who asks, by the rule itself: of each visibility in each calendar only the texts that are seen of it, and all
 * texts of what names them or was made by them. So what is looked at is, but for a few called off, what they are shown.
 */
function textsSeen(ctx: Context, calendars: readonly number[], deciding: Deciding): TextsOf[] {
  const groups = new Map<string, { columns: TextColumn[]; calendars: number[]; visibilities: string[] }>();
  const looked: number[] = [];
  deciding.on(calendars);
  for (const id of calendars) {
    const on = deciding.sees(id);
    if (!on) continue;
    looked.push(id);
    const reader = readerOf(on.decision);
    const byColumns = new Map<string, string[]>();
    for (const visibility of VISIBILITIES) {
      const item = { visibility, shows: 'busy', cancelled: false, ownerAnswer: null } as const;
      const rank = BY_RANK.indexOf(
        reader.seen(item, { named: false, created: false, ownerInvited: false }) ?? 'withheld',
      );
      const columns = EVERY_TEXT.filter(
        (column) => BY_RANK.indexOf(sightOf(column) as (typeof BY_RANK)[number]) <= rank,
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
  const columns = EVERY_TEXT.filter((column) => sightOf(column) !== 'briefed');
  const { address, id: createdBy } = ctx.viewer;
  const named = address ? [{ columns, calendars: looked, named: address }] : [];
  return [...groups.values(), ...named, { columns, calendars: looked, createdBy }];
}
