import type { ContactWire } from '@/contract/contacts.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import type { TrailEntryWire, TrailListAnswer, TrailQuery } from '@/contract/trail.ts';
import { may, mayRun, NO_RIGHTS, presetOf, type Rights } from '@/core/access/index.ts';
import { WRITTEN_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { WRITTEN_TASK_FIELDS } from '@/core/tasks/index.ts';
import { dateText, fromWallLenient, instantText, parseDate, toWall } from '@/core/time/index.ts';
import { showsAbsence } from '../../repositories/absences.ts';
import { contactById } from '../../repositories/contacts.ts';
import type { StoredAudience } from '../../repositories/grants.ts';
import { itemById, itemByKey } from '../../repositories/items.ts';
import { isAboutMeeting } from '../../repositories/message-row.ts';
import { messageByKey } from '../../repositories/messages.ts';
import { personByHandle, personById } from '../../repositories/people.ts';
import {
  type Shareable,
  shareableById,
  shareableByKey,
  shareablesOf,
  shortName,
} from '../../repositories/shareables.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { taskById } from '../../repositories/tasks.ts';
import {
  contactStates,
  itemStates,
  type StoredTrailEntry,
  type TrailScope,
  taskStates,
  trailEntries,
  trailPeople,
} from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  audienceNamed,
  ContactReading,
  type Context,
  type Decided,
  type DecidedAlone,
  Directory,
  decideOnShared,
  isCalendar,
  principalsOf,
  TaskReading,
  viewOfMessage,
} from '../deciding/index.ts';
import { changedBetween, seenAs } from './item-trail.ts';
import { NOTHING_TOLD, TITLES, type Told, toldOfListed, UNDOABLE_IN_LISTS } from './listed-trail.ts';

const DAY = 86_400_000;
/** Entries on one page, and how many are looked through for it. */
const MOST = 50;
const LOOKED_THROUGH = 500;
/** Entries that are read at once: each may hold long texts. */
const AT_ONCE = 100;
/** How long whoever did something may take it back from here, and how long the owner may. */
const UNDO_FOR = 15 * 60_000;
const OWNER_UNDOES_FOR = 30 * DAY;
/** A row number nobody has. */
const NOBODY = -1;
const UNDOABLE = new Set(['item.added', 'item.changed', 'item.removed']);

/** What each kind holds: the first part of its verbs. `house` is all the rest. */
const KINDS = {
  items: ['item', 'file', 'suggestion', 'meeting'],
  access: ['access', 'ask', 'sharing', 'told', 'link'],
  away: ['absence'],
  desk: ['desk'],
  tasks: ['task', 'list'],
  contacts: ['contact'],
  messages: ['message'],
} as const;

/** What was done in one's name, by one for others, or in a calendar one runs: the latest first, a page at a time. */
export function listTrail(ctx: Context, query: TrailQuery): Result<TrailListAnswer> {
  const scope = scopeOf(ctx, query);
  if ('ok' in scope) return scope;
  const read = readEntries(ctx, scope, query.after ?? null, MOST, LOOKED_THROUGH);
  const people = trailPeople(ctx.db, scope, 200).flatMap((id) => {
    const person = personById(ctx.db, id);
    return person ? [{ handle: person.handle, name: person.name }] : [];
  });
  return ok({ ...read, people, calendars: readable(ctx) });
}

/** Entries of a scope that the viewer may read, at most so many, after one by key; and where to go on, if there is more. */
export function readEntries(
  ctx: Context,
  scope: TrailScope,
  after: string | null,
  most: number,
  lookedThrough: number,
): Pick<TrailListAnswer, 'entries' | 'after'> {
  const reading = new Reading(ctx);
  const entries: TrailEntryWire[] = [];
  let last = after;
  for (let looked = 0; looked < lookedThrough; ) {
    const found = trailEntries(ctx.db, scope, last, AT_ONCE);
    for (const one of found) {
      if (entries.length === most) return { entries, after: last };
      const wire = reading.entry(one);
      if (wire) entries.push(wire);
      last = one.key;
    }
    looked += found.length;
    if (found.length < AT_ONCE) return { entries, after: null };
  }
  return { entries, after: last };
}

/** What others did since an instant in a calendar, or in the name of the viewer (`null`), as far as a test picks it; the latest first. */
export function doneByOthers(
  ctx: Context,
  calendarId: number | null,
  since: number,
  picks: (entry: StoredTrailEntry) => boolean,
): TrailEntryWire[] {
  const scope: TrailScope = {
    calendarId,
    principalId: calendarId === null ? ctx.viewer.id : null,
    actorId: null,
    forOthers: false,
    from: since,
    until: null,
    kinds: null,
    butKinds: false,
    only: ctx.token?.only ?? null,
  };
  const reading = new Reading(ctx);
  return trailEntries(ctx.db, scope, null, LOOKED_THROUGH).flatMap(
    (one) => (one.actorId !== ctx.viewer.id && picks(one) && reading.entry(one)) || [],
  );
}

/** The calendars and lists whose trail the viewer may read: those they run, their own last. */
const readable = (ctx: Context): TrailListAnswer['calendars'] =>
  principalsOf(ctx).flatMap(({ person }) =>
    shareablesOf(ctx.db, person.id).flatMap((one) =>
      mayRun(decideOnShared(ctx, one).decision).run
        ? [{ key: one.key, kind: one.kind, name: one.main ? '' : shortName(one), owner: person.name }]
        : [],
    ),
  );

/** What is done in a collection of a kind. */
const readableIn = (kind: Decided['decision']['kind']): readonly string[] =>
  kind === 'tasks'
    ? KINDS.tasks
    : kind === 'contacts'
      ? [...KINDS.contacts, 'list']
      : kind === 'folder'
        ? [...KINDS.messages, 'list']
        : KINDS.items;

/** The kinds of entries that somebody who runs a calendar reads there; `null`: all of them. */
const readableKinds = (decision: Decided['decision']): readonly string[] | null =>
  decision.owner
    ? null
    : [
        ...readableIn(decision.kind),
        ...KINDS.desk,
        ...(may(decision).share ? KINDS.access : []),
        ...(mayRun(decision).absence ? KINDS.away : []),
      ];

/** Which verbs are looked for: of a kind, as far as they may be read. */
function kindsOf(kind: TrailQuery['kind'], readable: readonly string[] | null): Pick<TrailScope, 'kinds' | 'butKinds'> {
  if (kind === 'house')
    return readable ? { kinds: [], butKinds: false } : { kinds: Object.values(KINDS).flat(), butKinds: true };
  const kinds = kind === undefined ? null : KINDS[kind];
  return {
    kinds: kinds && readable ? kinds.filter((one) => readable.includes(one)) : (kinds ?? readable),
    butKinds: false,
  };
}

/** What of the trail is asked for, or the refusal of whoever may not read it. */
export function scopeOf(ctx: Context, query: TrailQuery): TrailScope | ReturnType<typeof refuse> {
  const day = (date: string | undefined, more: number): number | null => {
    const at = date === undefined ? null : parseDate(date);
    return at === null ? null : fromWallLenient(ctx.viewer.zone, at + more);
  };
  // Nobody of that name did anything: whether there is somebody of it isn't said.
  const who = query.who === undefined ? null : (personByHandle(ctx.db, query.who)?.id ?? NOBODY);
  const rest = {
    from: day(query.from, 0),
    until: day(query.until, DAY),
    ...kindsOf(query.kind, null),
    only: ctx.token?.only ?? null,
  };
  if (query.of === 'calendar') {
    const shared = shareableByKey(ctx.db, query.calendar ?? '');
    if (!shared) return refuse('notFound');
    const { decision } = decideOnShared(ctx, shared);
    if (decision.rights.sight === 'nothing' || !mayRun(decision).run) return refuse('notFound');
    const kinds = kindsOf(query.kind, readableKinds(decision));
    return { ...rest, ...kinds, calendarId: shared.id, actorId: who, principalId: null, forOthers: false };
  }
  const me = ctx.viewer.id;
  return query.of === 'name'
    ? { ...rest, calendarId: null, principalId: me, actorId: who, forOthers: false }
    : { ...rest, calendarId: null, principalId: who, actorId: me, forOthers: true };
}

/** What is shared, with what was decided on it. */
type On = DecidedAlone & { readonly shared: Shareable };

/** Fields of a task of which what is seen is told in words. */
const TOLD_OF_TASKS = ['title', 'due', 'done', 'belongsTo', 'repeats', ...WRITTEN_TASK_FIELDS.slice(1)] as const;

/** Puts entries as the viewer may read them at this instant. */
class Reading {
  private readonly directory: Directory;
  private readonly decided = new Map<number, On | null>();
  constructor(private readonly ctx: Context) {
    this.directory = new Directory(ctx.db);
  }

  /** An entry, or `null` where nothing of it is for the viewer. */
  entry(one: StoredTrailEntry): TrailEntryWire | null {
    const { ctx, directory } = this;
    const on = one.collectionId === null ? null : this.on(one.collectionId);
    const own = one.principalId === ctx.viewer.id;
    const did = one.actorId === ctx.viewer.id;
    const [kind = ''] = one.verb.split('.');
    const runs = on !== null && mayRun(on.decision).run;
    const reads = own || (runs && (readableKinds(on.decision)?.includes(kind) ?? true));
    // What one did oneself one knows of, but no more of what it was about than one may see now.
    if (!reads && !did) return null;
    const bare: TrailEntryWire = {
      key: one.key,
      at: instantText(one.at),
      actor: directory.name(one.actorId),
      hands: one.hands,
      principal: directory.name(one.principalId),
      verb: one.verb,
      calendar: on && reads && !on.shared.main ? on.shared.name : null,
      items: [],
      more: 0,
      who: null,
      changed: [],
      levels: null,
      undo: false,
      forgotten: one.forgottenAt === null ? null : instantText(one.forgottenAt),
    };
    if (!reads) return bare;
    if (kind === 'task') return { ...bare, ...this.tasks(one, on) };
    if (kind === 'contact') return { ...bare, ...this.contacts(one, on) };
    if (kind === 'message') return { ...bare, ...this.messages(one) };
    const calendar = on && isCalendar(on) ? { ...on, calendar: on.shared } : null;
    if (kind === 'item') return { ...bare, ...this.items(one, calendar) };
    if (kind === 'file' || kind === 'meeting')
      return { ...bare, items: calendar ? [this.titleOf(one.subject, calendar)] : [] };
    if (kind === 'access') return { ...bare, ...this.access(one) };
    if (kind === 'absence') return { ...bare, changed: this.absence(one) };
    return bare;
  }

  private on(collectionId: number): On | null {
    let found = this.decided.get(collectionId);
    if (found === undefined) {
      const shared = shareableById(this.ctx.db, collectionId);
      found = shared && { shared, ...decideOnShared(this.ctx, shared) };
      if (found?.decision.rights.sight === 'nothing') found = null;
      this.decided.set(collectionId, found ?? null);
    }
    return found ?? null;
  }

  private titleOf(subject: string, on: Decided): string | null {
    const item = itemByKey(this.ctx.db, subject);
    return item ? this.titleAs(item, item, on) : null;
  }

  /** A state of an item by its title, where both that state and the item as it is now are the one's to see. */
  private titleAs(state: StoredItem, now: StoredItem, on: Decided): string | null {
    const seen = seenAs(this.ctx, on, state, this.directory);
    const today = seenAs(this.ctx, on, now, this.directory);
    return seen && 'title' in seen && today && 'title' in today ? (seen.title ?? null) : null;
  }

  private items(one: StoredTrailEntry, on: Decided | null): Told {
    const { before, after } = itemStates(one);
    if (!on || after.length === 0) return NOTHING_TOLD;
    const now = after.slice(0, TITLES).map((state) => itemById(this.ctx.db, state.id));
    const items = after.slice(0, TITLES).map((state, i) => this.titleAs(state, now[i] ?? state, on));
    const [was, is, today] = [before[0] ?? null, after[0], now[0]];
    // Fields are told where the item is one's to read in full as it is now, not only as it was then.
    const view = is ? seenAs(this.ctx, on, today ?? is, this.directory) : null;
    const reads = is !== undefined && view !== null && 'notes' in view;
    return {
      items,
      more: after.length - items.length,
      changed: reads && after.length === 1 ? changedBetween(this.ctx, on, was, is, this.directory) : [],
      undo:
        after.length === 1 &&
        today?.version === is?.version &&
        this.mayUndo(one, on) &&
        !showsAbsence(this.ctx.db, today?.id ?? -1),
    };
  }

  private tasks(one: StoredTrailEntry, on: On | null): Told {
    if (on?.shared.kind !== 'tasks') return NOTHING_TOLD;
    const reading = new TaskReading(this.ctx, { list: on.shared, decision: on.decision }, this.directory);
    return toldOfListed(one.verb, this.mayUndo(one, on), taskStates(one), {
      current: (id) => taskById(this.ctx.db, id),
      view: (task) => reading.view(task),
      title: (view: TaskWire) => view.title,
      told: TOLD_OF_TASKS,
    });
  }

  private contacts(one: StoredTrailEntry, on: On | null): Told {
    if (on?.shared.kind !== 'contacts') return NOTHING_TOLD;
    const reading = new ContactReading(this.ctx, { list: on.shared, decision: on.decision }, this.directory);
    return toldOfListed(one.verb, this.mayUndo(one, on), contactStates(one), {
      current: (id) => contactById(this.ctx.db, id),
      view: (contact) => reading.view(contact),
      title: (view: ContactWire) => view.name,
      told: WRITTEN_CONTACT_FIELDS,
    });
  }

  /** Which messages it was done to, by their subjects, as far as they are seen where they are now. */
  private messages({ after }: StoredTrailEntry): Pick<TrailEntryWire, 'items' | 'more'> {
    const keys = messageKeys(after);
    const items = keys.slice(0, TITLES).map((key) => {
      const message = messageByKey(this.ctx.db, key);
      const on = message && this.on(message.collectionId);
      if (!message || on?.shared.kind !== 'folder') return null;
      // What is about a meeting is seen by whoever sees that, and named there.
      if (isAboutMeeting(message) && !on.decision.owner) return null;
      return viewOfMessage(this.ctx, on.decision, message) ? message.subject || (message.facts.title ?? null) : null;
    });
    return { items, more: Math.max(0, keys.length - TITLES) };
  }

  private mayUndo(one: StoredTrailEntry, on: DecidedAlone): boolean {
    const age = this.ctx.now - one.at;
    if (one.actorId === this.ctx.viewer.id && age < UNDO_FOR) return one.verb !== 'item.undone';
    return on.decision.owner && age < OWNER_UNDOES_FOR && (UNDOABLE.has(one.verb) || UNDOABLE_IN_LISTS.has(one.verb));
  }

  private access({ subject, before, after }: StoredTrailEntry): Pick<TrailEntryWire, 'who' | 'levels'> {
    const audience = readAudience(subject);
    return {
      who: audience && audienceNamed(this.ctx, audience),
      levels: { before: levelOf(before), after: levelOf(after) },
    };
  }

  private absence({ principalId, before, after }: StoredTrailEntry): TrailEntryWire['changed'] {
    const zone = this.directory.person(principalId)?.zone ?? 'UTC';
    const was = absenceText(before, zone, this.directory);
    const is = absenceText(after, zone, this.directory);
    return Object.keys({ ...was, ...is }).flatMap((field) => {
      const [a, b] = [was[field] ?? null, is[field] ?? null];
      return a === b ? [] : [{ field, before: a, after: b }];
    });
  }
}

function messageKeys(after: unknown): string[] {
  const said = after as { messages?: unknown } | null;
  return Array.isArray(said?.messages) ? said.messages.filter((key): key is string => typeof key === 'string') : [];
}

function readAudience(subject: string): StoredAudience | null {
  try {
    return JSON.parse(subject) as StoredAudience;
  } catch {
    return null;
  }
}

function levelOf(stored: unknown): NonNullable<TrailEntryWire['levels']>['before'] {
  const grant = stored as { rights?: Rights; ends?: number | null } | null;
  if (!grant?.rights) return null;
  const { rights, ends } = grant;
  // Entries of before a right was its own have none of it.
  const whole = { ...NO_RIGHTS, ...rights };
  return { preset: presetOf(whole), rights: whole, until: typeof ends === 'number' ? instantText(ends) : null };
}

const LONGEST = 200;

function absenceText(stored: unknown, zone: string, directory: Directory): Readonly<Record<string, string>> {
  const absence = stored as Readonly<Record<string, unknown>> | null;
  if (!absence) return {};
  const day = (at: unknown, off: number) => (typeof at === 'number' ? dateText(toWall(zone, at + off)) : '');
  const words = {
    from: day(absence.starts, 0),
    until: day(absence.ends, -1),
    inside: String(absence.inside ?? '').slice(0, LONGEST),
    outside: String(absence.outside ?? '').slice(0, LONGEST),
    cover: typeof absence.coverId === 'number' ? directory.name(absence.coverId) : '',
  };
  return Object.fromEntries(Object.entries(words).filter(([, text]) => text !== ''));
}
