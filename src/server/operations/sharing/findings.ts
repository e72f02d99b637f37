import type { ItemWire } from '@/contract/items/items.ts';
import type { Finding, FindingsAnswer, WordsBody } from '@/contract/sharing/review.ts';
import type { OpenedItem } from '@/contract/sharing/sharing.ts';
import { decide, presetOf, readerOf, SIGHT_RANK } from '@/core/access/index.ts';
import { type OwnWord, plainWord, topicOf } from '@/core/review/index.ts';
import { dateText, instantText } from '@/core/time/index.ts';
import { lastUses } from '../../repositories/grant-use.ts';
import { grantsOn, type StoredGrant } from '../../repositories/grants.ts';
import { allMemberships, leftSince } from '../../repositories/groups.ts';
import { replaceSensitiveWords, sensitiveWordsOf } from '../../repositories/sensitive-words.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  audienceOf,
  type Context,
  type Decided,
  Directory,
  findSharedCalendar,
  isRefusal,
  type Range,
  rulesOf,
  trailOwn,
  viewerOf,
  viewsIn,
} from '../deciding/index.ts';
import { readersOf } from './explain-access.ts';

const DAY = 86_400_000;
/** How far ahead coming items are looked at, and how many people reading one are many. */
const AHEAD = 60 * DAY;
const MANY = 5;
const UNUSED = 90 * DAY;
const SEVERAL = 3;
const MOST = 200;

/** The coming weeks, in the calendar's own days. */
export function comingRange(ctx: Context): Range {
  const to = ctx.now + AHEAD;
  return { from: ctx.now, to, fromDate: dateText(ctx.now), toDate: dateText(to) };
}

/** A view as findings and previews name it. Views without an id to act on by, or without a title, are left out. */
export function openedItem(view: ItemWire, words: readonly OwnWord[]): OpenedItem[] {
  if (view.title == null) return [];
  const { id, title, start, end, allDay } = view;
  return [{ id, title, start, end, allDay, topic: topicOf(`${title} ${view.notes ?? ''}`, words) }];
}

/**
 * What is more open on a calendar than it should be: items that look sensitive and are read by many, everyone reading titles, a
 * main calendar behind a link, grants unused for 90 days or to people who have left a group that is given access here, acting
 * rights without an end given to someone outside; and people named with no more than they get anyway. Computed from what the one
 * who asks sees.
 */
export function readFindings(ctx: Context, key: string): Result<FindingsAnswer> {
  const decided = findSharedCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const own = decided.decision.owner;
  return ok({
    findings: [
      ...openToEveryone(ctx, decided),
      ...sensitive(ctx, decided),
      ...grantFindings(ctx, decided),
      ...spare(ctx, decided),
    ],
    words: own ? sensitiveWordsOf(ctx.db, ctx.viewer.id) : [],
    mayChangeWords: own,
  });
}

/** Puts one's own words, by which an item looks sensitive or doesn't, in place of those before. */
export function changeWords(ctx: Context, body: WordsBody): Result<{ done: true }> {
  const words = body.words.map(({ word, topic }) => ({ word: plainWord(word), topic }));
  const bad = words.findIndex(({ word }) => word === '');
  if (bad >= 0) return refuse('badInput', { fields: { [`words.${bad}.word`]: 'wordMissing' } });
  ctx.db.write(() => {
    const before = sensitiveWordsOf(ctx.db, ctx.viewer.id);
    replaceSensitiveWords(ctx.db, ctx.viewer.id, words);
    trailOwn(ctx, ctx.viewer.key, 'words.changed', before, words);
  });
  return ok({ done: true });
}

function openToEveryone(ctx: Context, { calendar }: Decided): Finding[] {
  const grant = grantsOn(ctx.db, calendar.id).find((g) => g.audience.kind === 'everyone');
  if (!grant || !calendar.main || SIGHT_RANK[grant.rights.sight] < SIGHT_RANK.title) return [];
  return [{ kind: 'everyone', sight: grant.rights.sight, seen: grant.key }];
}

function sensitive(ctx: Context, { calendar, collection, decision }: Decided): Finding[] {
  const views = viewsIn(
    ctx.db,
    new Directory(ctx.db),
    calendar,
    comingRange(ctx),
    { person: ctx.viewer, decision },
    { whole: true },
  );
  const words = sensitiveWordsOf(ctx.db, calendar.ownerId);
  const suspects = new Map<string, { view: ItemWire; item: OpenedItem }>();
  for (const view of views) {
    const item = openedItem(view, words)[0];
    const open = view.visibility === 'follow' || view.visibility === 'open';
    // Of a series, its next occurrence stands for all.
    const series = view.id.split('~')[0] ?? view.id;
    if (item?.topic && open && view.kind !== 'whereabouts' && !suspects.has(series))
      suspects.set(series, { view, item });
  }
  if (suspects.size === 0) return [];
  const house = rulesOf(ctx.db, calendar);
  const memberships = allMemberships(ctx.db);
  // How many people read a title under the calendar's own sharing, for each visibility.
  const readers = { follow: 0, open: 0 };
  const plain = { named: false, created: false, ownerInvited: false };
  for (const person of readersOf(ctx, calendar)) {
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
  const grants = grantsOn(ctx.db, calendar.id);
  return grants.flatMap((grant): Finding[] => {
    const audience = audienceOf(ctx, grant);
    if (!audience || grant.audience.kind === 'everyone' || grant.rights.sight === 'nothing') return [];
    const base = { audience: audience.wire, name: audience.name, seen: grant.key, preset: presetOf(grant.rights) };
    const last = (audience.link ? audience.link.lastUsed : used.get(grant.id)) ?? null;
    const found: Finding[] = [];
    if (grant.audience.kind === 'link' && calendar.main && stands(grant, ctx.now)) {
      const { sight } = grant.rights;
      found.push({ kind: 'link', audience: audience.wire, name: audience.name, seen: grant.key, sight });
    }
    if (grant.audience.kind === 'person') {
      const left = groupLeft(ctx, grant.audience.personId, grant, grants);
      if (left) found.push({ kind: 'leftGroup', ...base, group: left.name, left: instantText(left.at) });
    }
    if (ctx.now - (last ?? grant.recordedFrom) > UNUSED && stands(grant, ctx.now))
      found.push({ kind: 'unused', ...base, lastUsed: last === null ? null : instantText(last) });
    const acts = grant.rights.add || grant.rights.change !== 'none';
    if (acts && grant.ends === null && audience.person && !audience.person.inside)
      found.push({ kind: 'endless', ...base });
    return found;
  });
}

/**
 * People inside who are named with exactly what their groups or everyone would give them: taking their rows away changes nothing
 * but what decides from then on. Said where there are several.
 */
function spare(ctx: Context, { calendar, collection }: Decided): Finding[] {
  const house = rulesOf(ctx.db, calendar);
  const grants = grantsOn(ctx.db, calendar.id);
  const people = grants.flatMap((grant) => {
    const { audience: a } = grant;
    if (a.kind !== 'person' || grant.rights.sight === 'nothing' || grant.starts !== null || grant.ends !== null)
      return [];
    const audience = audienceOf(ctx, grant);
    const alone = grants.every(
      (g) => g === grant || g.audience.kind !== 'person' || g.audience.personId !== a.personId,
    );
    if (!alone || !audience?.person?.inside) return [];
    const viewer = viewerOf(ctx.db, audience.person);
    const without = { ...collection, grants: collection.grants.filter((g) => g.key !== grant.key) };
    const [now, then] = [collection, without].map((c) => JSON.stringify(decide(c, viewer, ctx.now, house).rights));
    return now === then ? [{ audience: audience.wire, name: audience.name, seen: grant.key }] : [];
  });
  return people.length < SEVERAL ? [] : [{ kind: 'spare', people: people.slice(0, MOST) }];
}

const stands = (grant: StoredGrant, now: number): boolean =>
  (grant.starts === null || grant.starts <= now) && (grant.ends === null || now < grant.ends);

/** The group that a named person has left since they were given something, where the calendar knows that group. */
function groupLeft(
  ctx: Context,
  personId: number,
  named: StoredGrant,
  grants: readonly StoredGrant[],
): { name: string; at: number } | null {
  if (named.rights.sight === 'nothing') return null;
  for (const grant of grants) {
    if (grant.audience.kind !== 'group') continue;
    const at = leftSince(ctx.db, grant.audience.groupId, named.recordedFrom).get(personId);
    if (at !== undefined) return { name: audienceOf(ctx, grant)?.name ?? '', at };
  }
  return null;
}
