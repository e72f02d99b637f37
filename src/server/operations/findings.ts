import type { Finding, OpenedItem } from '@/contract/access.ts';
import type { ItemWire } from '@/contract/items.ts';
import { decide, presetOf, readerOf, SIGHT_RANK } from '@/core/access/index.ts';
import { topicOf } from '@/core/review/index.ts';
import { dateText, instantText } from '@/core/time/index.ts';
import { lastUses } from '../repositories/grant-use.ts';
import { grantsOn } from '../repositories/grants.ts';
import { allMemberships } from '../repositories/groups.ts';
import { allPeople } from '../repositories/people.ts';
import { ok, type Result } from '../result.ts';
import { audienceOf } from './audience.ts';
import type { Context } from './context.ts';
import { type Decided, isRefusal, rulesOf, viewerOf } from './deciding.ts';
import { Directory } from './directory.ts';
import { findShared } from './sightlines.ts';
import { type Range, viewsIn } from './views.ts';

const DAY = 86_400_000;
/** How far ahead coming items are looked at, and how many people reading one are many. */
const AHEAD = 60 * DAY;
const MANY = 5;
const UNUSED = 90 * DAY;
const MOST = 200;

/** The coming weeks, in the calendar's own days. */
export function comingRange(ctx: Context): Range {
  const to = ctx.now + AHEAD;
  return { from: ctx.now, to, fromDate: dateText(ctx.now), toDate: dateText(to) };
}

/** A view as findings and previews name it. Views without an id to act on by, or without a title, are left out. */
export function openedItem(view: ItemWire): OpenedItem[] {
  if (view.title == null) return [];
  const { id, title, start, end, allDay } = view;
  return [{ id, title, start, end, allDay, topic: topicOf(`${title} ${view.notes ?? ''}`) }];
}

/**
 * What is more open on a calendar than it should be: items that look sensitive and are read by many, everyone reading titles,
 * grants unused for 90 days, acting rights without an end given to someone outside. Computed from what the one who asks sees.
 */
export function readFindings(ctx: Context, key: string): Result<{ findings: Finding[] }> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  return ok({
    findings: [...openToEveryone(ctx, decided), ...sensitive(ctx, decided), ...grantFindings(ctx, decided)],
  });
}

function openToEveryone(ctx: Context, { calendar }: Decided): Finding[] {
  const grant = grantsOn(ctx.db, calendar.id).find((g) => g.audience.kind === 'everyone');
  if (!grant || !calendar.main || SIGHT_RANK[grant.rights.sight] < SIGHT_RANK.title) return [];
  return [{ kind: 'everyone', sight: grant.rights.sight, seen: grant.key }];
}

function sensitive(ctx: Context, { calendar, collection, decision }: Decided): Finding[] {
  const views = viewsIn(ctx.db, new Directory(ctx.db), calendar.id, comingRange(ctx), { person: ctx.viewer, decision });
  const suspects = new Map<string, { view: ItemWire; item: OpenedItem }>();
  for (const view of views) {
    const item = openedItem(view)[0];
    const open = view.visibility === 'follow' || view.visibility === 'open';
    // Of a series, its next happening stands for all.
    const series = view.id.split('~')[0] ?? view.id;
    if (item?.topic && open && view.kind !== 'whereabouts' && !suspects.has(series))
      suspects.set(series, { view, item });
  }
  if (suspects.size === 0) return [];
  const house = rulesOf(ctx.db);
  const memberships = allMemberships(ctx.db);
  // How many people inside read a title under the calendar's own sharing, for each visibility.
  const readers = { follow: 0, open: 0 };
  const plain = { named: false, created: false, ownerInvited: false };
  for (const person of allPeople(ctx.db)) {
    if (person.id === calendar.ownerId) continue;
    const theirs = decide(collection, viewerOf(ctx.db, person, memberships.get(person.id) ?? []), ctx.now, house);
    for (const visibility of ['follow', 'open'] as const) {
      const seen = readerOf(theirs).seen({ shows: 'busy', visibility, cancelled: false }, plain);
      if (seen !== null && seen !== 'busy' && seen !== 'withheld') readers[visibility]++;
    }
  }
  return [...suspects.values()]
    .flatMap(({ view, item }): Finding[] => {
      const people = readers[view.visibility as 'follow' | 'open'];
      if (people < MANY || view.version === undefined) return [];
      return [{ kind: 'sensitive', item, version: view.version, series: view.repeats != null, people }];
    })
    .slice(0, MOST);
}

function grantFindings(ctx: Context, { calendar }: Decided): Finding[] {
  const used = lastUses(ctx.db, calendar.id);
  return grantsOn(ctx.db, calendar.id).flatMap((grant): Finding[] => {
    const audience = audienceOf(ctx, grant);
    if (!audience || grant.audience.kind === 'everyone' || grant.rights.sight === 'nothing') return [];
    const base = { audience: audience.wire, name: audience.name, seen: grant.key, preset: presetOf(grant.rights) };
    const last = used.get(grant.id) ?? null;
    const found: Finding[] = [];
    if (ctx.now - (last ?? grant.recordedFrom) > UNUSED)
      found.push({ kind: 'unused', ...base, lastUsed: last === null ? null : instantText(last) });
    const acts = grant.rights.add || grant.rights.change !== 'none';
    if (acts && grant.ends === null && audience.person && !audience.person.inside)
      found.push({ kind: 'endless', ...base });
    return found;
  });
}
