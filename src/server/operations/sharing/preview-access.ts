import type { RuleChange } from '@/contract/sharing/rules.ts';
import type { OpenedItem, PreviewAnswer, PreviewBody } from '@/contract/sharing/sharing.ts';
import {
  type Choice,
  choicesFor,
  type Decision,
  decide,
  fitRights,
  type Grant,
  type HouseRules,
  NO_RIGHTS,
  offeredOn,
  presetOf,
  type Rights,
  readerOf,
  SIGHT_RANK,
} from '@/core/access/index.ts';
import { SCOPES } from '@/core/calendar/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { grantsOn, type StoredGrant } from '../../repositories/grants.ts';
import { allMemberships } from '../../repositories/groups.ts';
import { plainMailIn } from '../../repositories/messages.ts';
import { readersInside } from '../../repositories/people.ts';
import { sensitiveWordsOf } from '../../repositories/sensitive-words.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  type Context,
  collectionOf,
  contactsAs,
  type Decided,
  Directory,
  decideOn,
  type FoundAudience,
  findAudience,
  findShared,
  isCalendar,
  isRefusal,
  messagesAs,
  readRange,
  rulesOf,
  type Shared,
  sameAudience,
  storedRules,
  tasksAs,
  viewerOf,
  viewsAs,
  viewsIn,
} from '../deciding/index.ts';
import { comingRange, openedItem } from './findings.ts';
import { heldLess } from './holding.ts';

/** Mails that are shown of a folder where access to it is thought of. */
const MOST_MESSAGES = 30;

/**
 * What an audience would get with rights that are only considered: the decision, rights that don't fit together, what the house rules bar,
 * and the days (of a list: its tasks or contacts) asked for exactly as they would be served. For anyone but the owner, cut to what they see themselves.
 */
export function previewAccess(ctx: Context, key: string, body: PreviewBody): Result<PreviewAnswer> {
  const decided = findShared(ctx, key);
  if (isRefusal(decided)) return decided;
  const range = readRange(body.range);
  if (isRefusal(range)) return range;
  const audience = findAudience(ctx, body.audience, decided.shared);
  if (isRefusal(audience)) return audience;
  if (audience.person?.id === decided.shared.ownerId)
    return refuse('badInput', { fields: { audience: 'audienceOwner' } });
  const standing = grantsOn(ctx.db, decided.shared.id);
  const replaced = standing.find((g) => g.key === body.seen);
  if (replaced && !sameAudience(replaced.audience, audience.stored)) return refuse('changedMeanwhile');
  const others = standing.filter((g) => g !== replaced);
  const house = rulesOf(ctx.db, decided.shared);
  const decideWith = (grants: readonly StoredGrant[]): Decision =>
    decide(collectionOf(decided.shared, grants), audience.viewer, ctx.now, house);
  const offered = offeredOn(decided.shared);
  const rights = body.rights && fitRights(body.rights, offered).rights;
  const after = decideWith(rights ? [...others, thoughtGrant(decided, audience, rights)] : others);
  const without = decideWith(others);
  const before = decideWith(standing);
  const calendar = isCalendar(decided) ? { ...decided, calendar: decided.shared } : null;
  const look = (decision: Decision) => (calendar ? viewsAs(ctx, calendar, range, audience, decision).items : []);
  const { shared } = decided;
  const tasks = (decision: Decision) =>
    shared.kind === 'tasks' ? tasksAs(ctx, { ...decided, list: shared }, audience, decision) : [];
  const contacts = (decision: Decision) =>
    shared.kind === 'contacts' ? contactsAs(ctx, { ...decided, list: shared }, audience, decision) : [];
  const messages = (decision: Decision) =>
    shared.kind === 'folder'
      ? messagesAs(ctx, { ...decided, list: shared }, audience, decision, plainMailIn(ctx.db, shared.id, MOST_MESSAGES))
      : [];
  return ok({
    effective: after.rights,
    before: before.rights,
    without: without.rights,
    withoutStep: without.because[0]?.step ?? 'none',
    choices: choicesFor(rights ?? NO_RIGHTS, offered).map((choice) => ({
      ...choice,
      ...barredBy(ctx, decided, audience, choice),
    })),
    outside: audience.outside,
    moved:
      audience.stored.kind === 'everyone'
        ? moved(ctx, decided, rights ? [...others, thoughtGrant(decided, audience, rights)] : others)
        : { more: 0, less: 0 },
    preset: body.rights && presetOf(body.rights),
    opened: calendar && audience.stored.kind === 'everyone' ? opened(ctx, calendar, before, after) : [],
    theirs: theirsOf(ctx, decided, audience),
    items: look(after),
    itemsBefore: look(before),
    tasks: tasks(after),
    tasksBefore: tasks(before),
    contacts: contacts(after),
    contactsBefore: contacts(before),
    messages: messages(after),
    messagesBefore: messages(before),
  });
}

/** What somebody shows the owner of their own main calendar, by name: the owner's to know, and nobody else's. */
function theirsOf(ctx: Context, { decision, shared }: Shared, { person }: FoundAudience): Rights | null {
  const own = decision.owner && shared.main && person?.inside ? mainCalendarOf(ctx.db, person.id) : null;
  return own && decideOn(ctx, own).decision.rights;
}

function thoughtGrant({ shared }: Shared, { stored }: FoundAudience, rights: Rights): StoredGrant {
  return {
    id: 0,
    key: 'thought of',
    collectionId: shared.id,
    audience: stored,
    rights,
    starts: null,
    ends: null,
    givenBy: 0,
    givenFor: 0,
    byAdministrator: false,
    hangs: false,
    recordedFrom: 0,
    recordedUntil: null,
  };
}

const MOST_OPENED = 200;

/** Coming items whose title everyone would come to read, each series once; only those the giver may change. */
function opened(ctx: Context, decided: Decided, before: Decision, after: Decision): OpenedItem[] {
  if (
    SIGHT_RANK[after.rights.sight] <= SIGHT_RANK[before.rights.sight] ||
    SIGHT_RANK[after.rights.sight] < SIGHT_RANK.title
  )
    return [];
  const directory = new Directory(ctx.db);
  const looker = { person: ctx.viewer, decision: decided.decision };
  const mine = viewsIn(ctx.db, directory, decided.calendar, comingRange(ctx), looker, { whole: true });
  const plain = { named: false, created: false, ownerInvited: false };
  const [was, is] = [readerOf(before), readerOf(after)];
  const titled = (seen: string | null) => seen !== null && seen !== 'busy' && seen !== 'withheld';
  const series = new Set<string>();
  const words = sensitiveWordsOf(ctx.db, decided.calendar.ownerId);
  return mine
    .flatMap((view): OpenedItem[] => {
      if (!view.visibility || !view.may?.change) return [];
      const facts = { shows: view.shows, visibility: view.visibility, cancelled: false };
      if (titled(was.seen(facts, plain)) || !titled(is.seen(facts, plain))) return [];
      const key = view.id.split('~')[0] ?? view.id;
      if (series.has(key)) return [];
      series.add(key);
      return openedItem(view, words);
    })
    .slice(0, MOST_OPENED);
}

/** How many people inside would come to see more, or less, than they do now. */
function moved(ctx: Context, decided: Shared, grants: readonly StoredGrant[]): { more: number; less: number } {
  const house = rulesOf(ctx.db, decided.shared);
  const memberships = allMemberships(ctx.db);
  const after = collectionOf(decided.shared, grants);
  const sum = { more: 0, less: 0 };
  for (const person of readersInside(ctx.db)) {
    const viewer = viewerOf(ctx.db, person, memberships.get(person.id) ?? []);
    const was = SIGHT_RANK[decide(decided.collection, viewer, ctx.now, house).rights.sight];
    const is = SIGHT_RANK[decide(after, viewer, ctx.now, house).rights.sight];
    if (is > was) sum.more++;
    if (is < was) sum.less++;
  }
  return sum;
}

interface Barred {
  readonly barred: string | null;
  readonly wants: RuleChange[];
}

/** Why a choice can't be made for an audience: the house rules that would cut it with what they would have to be, or the giver's own rights. */
function barredBy(ctx: Context, shared: Shared, { viewer, stored }: FoundAudience, { rights }: Choice): Barred {
  const house = rulesOf(ctx.db, shared.shared);
  const speaks = (audience: Grant['audience']): Grant => ({ key: 'choice', audience, rights, from: null, until: null });
  const named =
    viewer.kind === 'link' ? { kind: 'link' as const, id: viewer.id } : { kind: 'person' as const, id: viewer.id };
  const alone = {
    kind: shared.shared.kind,
    main: shared.shared.main,
    owner: 'nobody',
    suspended: false,
    grants: [speaks({ kind: 'everyone' }), ...(stored.kind === 'everyone' ? [] : [speaks(named)])],
  };
  const wants: RuleChange[] = [];
  for (const step of decide(alone, viewer, ctx.now, house).because) {
    if (step.step !== 'ceiling' || wants.some((w) => w.rule === step.rule)) continue;
    wants.push({ rule: step.rule, wanted: wanted(step.rule, rights) });
  }
  if (stored.kind === 'link') {
    const barred = linkBarred(ctx, shared, rights);
    if (barred === 'linksBy') wants.unshift({ rule: 'linksBy', wanted: 'sharers' });
    else if (barred) return { barred, wants: [] };
  }
  if (wants[0]) return { barred: wants[0].rule, wants };
  const less = shared.asAdministrator ? null : heldLess(rights, shared.decision.rights);
  return { barred: less === null ? null : 'giverHoldsLess', wants: [] };
}

/** What a house rule would have to be, so that it cuts nothing of some rights. */
function wanted(rule: keyof HouseRules, rights: Rights): string {
  if (rule === 'outsideExtras') return 'true';
  if (rule !== 'outsideReach') return rights.sight;
  const scopes = [rights.change, rights.remove, rights.add ? 'own' : 'none'] as const;
  return SCOPES[Math.max(...scopes.map((s) => SCOPES.indexOf(s)))] ?? 'none';
}

/** Why these rights can't be given to a link: a link only ever looks, and a house rule says who may make one. */
export function linkBarred(
  ctx: Context,
  { asAdministrator }: Shared,
  rights: Rights,
): 'linkLooksOnly' | 'linksBy' | null {
  const { sight: _sight, ...rest } = rights;
  if (Object.values(rest).some((right) => right !== false && right !== 'none')) return 'linkLooksOnly';
  const { linksBy } = storedRules(ctx.db);
  const may = linksBy === 'sharers' || (linksBy === 'administrators' && (asAdministrator || ctx.viewer.administrator));
  return may || rights.sight === 'nothing' ? null : 'linksBy';
}
