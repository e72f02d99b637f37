import type { ExplainAnswer, ExplainBody, ItemSightAnswer } from '@/contract/sharing/review.ts';
import { type Decision, decide, type Explanation, explain, presetOf, readerOf } from '@/core/access/index.ts';
import { instantText, parseInstant } from '@/core/time/index.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { wasSuspended } from '../../repositories/collections.ts';
import { grantsOn, grantsOnAt, type StoredGrant } from '../../repositories/grants.ts';
import { allMemberships, groupsOfAt, membersOf } from '../../repositories/groups.ts';
import { type Link, linkByKey } from '../../repositories/links.ts';
import { outsiderName } from '../../repositories/outsider-names.ts';
import { personById, type Reader, readersInside } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { trailAfter } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  audienceOf,
  type Context,
  ceilingsOn,
  collectionOf,
  Directory,
  findAudience,
  findItem,
  findSharedCalendar,
  isRefusal,
  RowItem,
  rowOf,
  rulesOf,
  standingOf,
  storedRules,
  viewerOf,
} from '../deciding/index.ts';

/**
 * Whether an audience can see an item, and why, step by step; now, or as everything stood at a past instant: grants, groups,
 * house rules and the item itself. Only about an item that the viewer sees in full.
 */
export function explainAccess(ctx: Context, key: string, body: ExplainBody): Result<ExplainAnswer> {
  const decided = findSharedCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const found = findItem(ctx, body.item);
  if (isRefusal(found)) return found;
  if (found.decided.calendar.id !== decided.calendar.id) return refuse('notFound');
  const audience = findAudience(ctx, body.audience, decided.calendar);
  if (isRefusal(audience)) return audience;
  const at = body.at === null ? ctx.now : (parseInstant(body.at) ?? Number.NaN);
  if (!Number.isFinite(at)) return refuse('badInput', { fields: { at: 'date' } });
  if (at > ctx.now) return refuse('badInput', { fields: { at: 'dateToCome' } });
  const { calendar } = decided;
  const grants = grantsOnAt(ctx.db, calendar.id, at);
  const collection = { ...collectionOf(calendar, grants), suspended: wasSuspended(ctx.db, calendar.id, at) };
  const viewer = audience.person
    ? viewerOf(ctx.db, audience.person, groupsOfAt(ctx.db, audience.person.id, at))
    : audience.viewer;
  const house = ceilingsOn(storedRules(ctx.db, at), calendar);
  const item = itemAsOf(ctx, found.item, at);
  const about = {
    title: found.view.title ?? null,
    start: found.view.start,
    end: found.view.end,
    allDay: found.view.allDay,
  };
  const base = { at: instantText(at), name: audience.name, item: about };
  if (!item) return ok({ ...base, seen: 'nothing', steps: [{ step: 'notYet', facts: {} }] });
  const row = rowOf(item);
  const standing = standingOf(row, audience.person);
  const explanation = explain(collection, viewer, at, house, new RowItem(row, new Directory(ctx.db)), standing);
  const seen = explanation.seen === null ? 'nothing' : explanation.seen === 'briefed' ? 'full' : explanation.seen;
  return ok({ ...base, seen, steps: stepsOf(ctx, explanation, grants) });
}

const MOST_TRAIL = 5000;

/** An item as it stood at an instant, read off the trail of what was written since; `null` where it wasn't there yet. */
function itemAsOf(ctx: Context, item: StoredItem, at: number): StoredItem | null {
  if (item.createdAt > at) return null;
  if (item.changedAt <= at) return item;
  for (const entry of trailAfter(ctx.db, item.calendarId, at, MOST_TRAIL)) {
    // What a file brought in leaves no states: those items began with it.
    if (!Array.isArray(entry.after)) continue;
    const afters = entry.after as readonly (StoredItem | null)[];
    const index = afters.findIndex((after) => after?.id === item.id);
    if (index >= 0) return (entry.before as readonly (StoredItem | null)[])[index] ?? null;
  }
  return item;
}

function stepsOf(ctx: Context, explanation: Explanation, grants: readonly StoredGrant[]): ExplainAnswer['steps'] {
  const grantFacts = (keys: readonly string[]) => {
    const named = keys.flatMap((key) => grants.find((g) => g.key === key) ?? []);
    const first = named[0];
    return {
      name: named.map((g) => audienceOf(ctx, g)?.name ?? '').join(', '),
      preset: first ? (presetOf(first.rights) ?? '') : '',
      sight: first?.rights.sight ?? 'nothing',
      until: first?.ends === null || first?.ends === undefined ? '' : instantText(first.ends),
      count: String(named.length),
    };
  };
  const steps = explanation.steps.map((step) => {
    switch (step.step) {
      case 'person':
      case 'group':
      case 'everyone':
      case 'link':
        return { step: step.step, facts: grantFacts(step.grants) };
      case 'ceiling':
        return { step: step.step, facts: { rule: step.rule, from: step.from, to: step.to } };
      case 'fit':
        return { step: step.step, facts: { lowered: step.lowered.map((m) => m.right).join(',') } };
      case 'owner':
      case 'suspended':
      case 'none':
        return { step: step.step, facts: {} };
      default:
        return step satisfies never;
    }
  });
  if (explanation.decision.rights.sight === 'nothing') return steps;
  return [
    ...steps,
    { step: `item.${explanation.itemStep}`, facts: { sight: explanation.decision.rights.sight } },
    ...(explanation.freeOmitted ? [{ step: 'item.free', facts: {} }] : []),
  ];
}

/** Everybody who can see anything of a calendar, the owner aside: the directory, and those outside who were given something. */
export function readersOf(ctx: Context, calendar: Calendar): Reader[] {
  const outside = grantsOn(ctx.db, calendar.id).flatMap((grant) => {
    const a = grant.audience;
    const ids = a.kind === 'person' ? [a.personId] : a.kind === 'group' ? membersOf(ctx.db, a.groupId) : [];
    return ids.flatMap((id) => personById(ctx.db, id) ?? []).filter((person) => !person.inside);
  });
  const people: Reader[] = [
    ...readersInside(ctx.db),
    ...new Map(outside.map((person) => [person.id, person])).values(),
  ];
  return people.filter((person) => person.id !== calendar.ownerId);
}

/** The links that a calendar has grants for. */
function linksOn(ctx: Context, calendar: Calendar): Link[] {
  const keys = grantsOn(ctx.db, calendar.id).flatMap((g) => (g.audience.kind === 'link' ? [g.audience.link] : []));
  return [...new Set(keys)].flatMap((key) => linkByKey(ctx.db, key) ?? []);
}

/** What somebody is called on a calendar: those outside by the name they have there. */
const nameOn = (ctx: Context, calendar: Calendar, person: Reader): string =>
  person.inside ? person.name : (outsiderName(ctx.db, calendar.id, person.id) ?? person.address);

const ORDER = ['full', 'outline', 'title', 'withheld', 'busy', 'nothing'] as const;
const MOST_NAMES = 12;

/** Who sees what of an item: how many people see it each way, those who see more than everyone by name, and through which links. */
export function readItemSight(ctx: Context, id: string): Result<ItemSightAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { calendar } = found.decided;
  const shared = findSharedCalendar(ctx, calendar.key);
  if (isRefusal(shared)) return shared;
  const collection = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  const house = rulesOf(ctx.db, calendar);
  const memberships = allMemberships(ctx.db);
  const row = rowOf(found.item);
  const item = new RowItem(row, new Directory(ctx.db));
  const levels = new Map<string, { people: number; named: Reader[] }>();
  const readers = new Map<string, { decision: Decision; reader: ReturnType<typeof readerOf> }>();
  for (const person of readersOf(ctx, calendar)) {
    const decision = decide(collection, viewerOf(ctx.db, person, memberships.get(person.id) ?? []), ctx.now, house);
    const kind = JSON.stringify([decision.rights, decision.ceiling]);
    const known = readers.get(kind) ?? { decision, reader: readerOf(decision) };
    readers.set(kind, known);
    const seen = known.reader.seen(item, standingOf(row, person));
    const level = seen === null ? 'nothing' : seen === 'briefed' ? 'full' : seen;
    const entry = levels.get(level) ?? { people: 0, named: [] };
    entry.people++;
    if (decision.because[0]?.step !== 'everyone' || level === 'full') entry.named.push(person);
    levels.set(level, entry);
  }
  return ok({
    links: linksOn(ctx, calendar).flatMap((link) => {
      const viewer = { kind: 'link' as const, id: link.key };
      const seen = readerOf(decide(collection, viewer, ctx.now, house)).seen(item, standingOf(row, null));
      return seen === null ? [] : [{ seen: seen === 'briefed' ? 'full' : seen, name: link.name }];
    }),
    levels: ORDER.flatMap((seen) => {
      const entry = levels.get(seen);
      if (!entry) return [];
      const named = entry.named.slice(0, MOST_NAMES).map((person) => ({
        name: nameOn(ctx, calendar, person),
        handle: personById(ctx.db, person.id)?.handle ?? '',
      }));
      return [{ seen, people: entry.people, named }];
    }),
  });
}
