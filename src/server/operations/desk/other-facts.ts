import type { DeskAbout } from '@/contract/desk.ts';
import type { TimePreferenceWire } from '@/contract/openings/time-preferences.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import type { AccessRequestToAnswer } from '@/contract/sharing/access-requests.ts';
import { may, mayRun, presetOf } from '@/core/access/index.ts';
import type { DeskFacts } from '@/core/desk/index.ts';
import { brokenDays } from '@/core/openings/index.ts';
import { dateText, fromWallLenient, instantText, parseDate, parseInstant } from '@/core/time/index.ts';
import { absencesOf } from '../../repositories/absences.ts';
import { calendarsOf } from '../../repositories/calendars.ts';
import { lastUses } from '../../repositories/grant-use.ts';
import { grantsOn, type StoredGrant } from '../../repositories/grants.ts';
import { holdSetById } from '../../repositories/holds.ts';
import { itemById } from '../../repositories/items.ts';
import { meetingById } from '../../repositories/meetings.ts';
import type { StoredMessage } from '../../repositories/message-row.ts';
import { pendingOf, whatCame } from '../../repositories/messages.ts';
import { mailGivenUp } from '../../repositories/outgoing-mail.ts';
import { personByHandle, personById } from '../../repositories/people.ts';
import { suggestionByKey } from '../../repositories/suggestions.ts';
import { timePreferencesOf } from '../../repositories/time-preferences.ts';
import { unreadMailIn } from '../../repositories/unread-messages.ts';
import { isCovered } from '../absences/index.ts';
import {
  type ActedFor,
  audienceOf,
  type Context,
  type Decided,
  Directory,
  decideOn,
  isRefusal,
  viewFor,
} from '../deciding/index.ts';
import { messageSeen, readerOn } from '../messages/index.ts';
import { accessRequestsToAnswer, readFindings } from '../sharing/index.ts';
import { type PlainSuggestion, suggestionsToAnswer } from '../suggestions/index.ts';
import { type DueTask, tasksDue } from '../tasks/index.ts';
import type { SeenItem } from './item-facts.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** Of each kind, of one person. */
const MOST = 200;

/** A fact with what it is outside, and the calendar it is about where that isn't the main one. */
interface Known {
  readonly about: DeskAbout;
  readonly calendar?: string;
}
/** What facts are, by kind and id as the rule names them. */
export type KnownFacts = Map<string, Known>;
type Most = <T>(list: readonly T[]) => readonly T[];
type Lists = Omit<DeskFacts, 'items' | 'travel'>;

/** What the viewer has to answer about those whose rows are read: read once for all of them. */
export interface Waiting {
  readonly suggestions: readonly PlainSuggestion[];
  readonly accessRequests: readonly AccessRequestToAnswer[];
  readonly cut: boolean;
}

export function waitingOn(ctx: Context, whom: readonly ActedFor[]): Waiting {
  const owners = new Set(whom.map(({ person }) => person.id));
  const { requests, cut } = accessRequestsToAnswer(ctx, owners);
  return { suggestions: suggestionsToAnswer(ctx, owners), accessRequests: requests, cut };
}

const ofOwner =
  ({ person }: ActedFor) =>
  ({ owner }: PlainSuggestion): boolean =>
    owner.handle === person.handle;

/** Everything that isn't an occurrence and waits for a decision about somebody, as the viewer may decide it. */
export function otherFacts(ctx: Context, one: ActedFor, seen: readonly SeenItem[], waiting: Waiting) {
  const known: KnownFacts = new Map();
  let cut = false;
  /** As many as there may be of a list that was read one further. */
  const most: Most = (list) => {
    cut ||= list.length > MOST;
    return list.slice(0, MOST);
  };
  const due = tasksDue(ctx, one.person.id, ctx.now + TASKS_AHEAD, MOST, new Directory(ctx.db));
  cut ||= due.cut;
  const lists: Lists = {
    sets: heldSets(ctx, seen, known),
    wishes: wishes(ctx, one, seen, known),
    suggestions: suggestions(ctx, one, most(waiting.suggestions.filter(ofOwner(one))), known),
    asks: accessRequestRows(
      ctx,
      waiting.accessRequests.filter(({ to }) => to.handle === one.person.handle),
      known,
    ),
    ...messages(ctx, one, most, known),
    letters: letters(ctx, one, most, known),
    ...shared(ctx, one, most, known),
    absences: absences(ctx, one, most, known),
    tasks: tasks(due.tasks, known),
  };
  return { lists, known, cut: cut || waiting.cut };
}

function heldSets(ctx: Context, seen: readonly SeenItem[], known: KnownFacts): Lists['sets'] {
  const sets = new Map<string, SeenItem[]>();
  for (const one of seen)
    if (one.fact.set !== null && one.view.may?.change && !one.fact.cancelled)
      sets.set(one.fact.set, [...(sets.get(one.fact.set) ?? []), one]);
  return [...sets].map(([id, times]) => {
    const lapses = times[0]?.row.lapsesAt ?? null;
    known.set(`hold:${id}`, {
      about: {
        of: 'hold',
        letter: holdSetById(ctx.db, Number(id))?.letter ?? '',
        lapses: lapses === null ? null : instantText(lapses),
        times: times.map(({ view, row }) => ({
          item: view.id,
          version: row.version,
          start: view.start,
          end: view.end,
        })),
      },
    });
    return { id, lapses, version: 0 };
  });
}

/** Wishes that are held to: for whose they are, and whoever arranges for them. */
function wishes(
  ctx: Context,
  { person, decided }: ActedFor,
  seen: readonly SeenItem[],
  known: KnownFacts,
): Lists['wishes'] {
  if (!mayRun(decided.decision).arrange) return [];
  const { keeps: preferences, version } = timePreferencesOf(ctx.db, person.id);
  const hard = preferences.filter((preference) => preference.hard);
  if (hard.length === 0) return [];
  const from = Math.floor(ctx.now / MINUTE);
  const request = {
    now: from,
    from,
    until: from + (15 * DAY) / MINUTE,
    length: 1,
    grid: 15,
    zone: person.zone,
    notice: 0,
    tentative: 'blocks' as const,
    within: 'any' as const,
    padBefore: 0,
    padAfter: 0,
    place: null,
    at: [],
  };
  const items = seen.filter(({ fact }) => !fact.cancelled && fact.answer !== 'declined').map(({ view }) => view);
  const hours = readWorkHours(person.workHours);
  const self = {
    id: person.address,
    need: 'must' as const,
    known: true,
    zone: person.zone,
    hours,
    keeps: hard,
    items,
  };
  return brokenDays(self, request).flatMap((days, i) => {
    const preference = hard[i];
    if (!preference || days.length === 0) return [];
    const id = `${preference.kind}${preferences.indexOf(preference)}`;
    for (const day of days) {
      const date = dateText(day);
      known.set(`wish:${id}/${date}`, { about: { of: 'wish', keep: preference as TimePreferenceWire, day: date } });
    }
    return [{ id, days, version }];
  });
}

function suggestions(
  ctx: Context,
  { person }: ActedFor,
  waiting: readonly PlainSuggestion[],
  known: KnownFacts,
): Lists['suggestions'] {
  // A day begins at the midnight of whose calendar it is.
  const at = (when: { start: string; allDay: boolean } | null) =>
    when && (when.allDay ? fromWallLenient(person.zone, parseDate(when.start) ?? 0) : parseInstant(when.start));
  return waiting.map((s) => {
    const now = s.now && { start: s.now.start, end: s.now.end, allDay: s.now.allDay };
    const wanted = s.wanted.when;
    known.set(`suggestion:${s.key}`, {
      about: {
        of: 'suggestion',
        suggestion: s.key,
        act: s.kind,
        who: s.who,
        why: s.why,
        title: s.now?.title ?? s.wanted.title ?? null,
        now,
        wanted,
        version: s.version,
      },
      ...(s.further ? { calendar: s.further.key } : {}),
    });
    const by = personById(ctx.db, suggestionByKey(ctx.db, s.key)?.personId ?? 0)?.address ?? '';
    return {
      id: s.key,
      at: parseInstant(s.at) ?? 0,
      by,
      before: at(now),
      after: at(wanted),
      version: s.version ?? 0,
    };
  });
}

function accessRequestRows(ctx: Context, waiting: readonly AccessRequestToAnswer[], known: KnownFacts): Lists['asks'] {
  return waiting.map((request) => {
    known.set(`ask:${request.key}`, {
      about: {
        of: 'ask',
        ask: request.key,
        who: request.from.name,
        why: request.why,
        collection: request.further && { kind: request.further.kind, name: request.further.name },
        preset: request.preset,
        until: request.ends,
        outside: request.from.outside,
      },
      ...(request.further?.kind === 'calendar' ? { calendar: request.further.key } : {}),
    });
    const by = personByHandle(ctx.db, request.from.handle)?.address ?? '';
    return { id: request.key, at: parseInstant(request.nudged ?? request.at) ?? 0, by, version: request.turns };
  });
}

/** What came from outside and waits for a person, and plain mail nobody has read: for whoever may read it. */
function messages(
  ctx: Context,
  { person, decided }: ActedFor,
  most: Most,
  known: KnownFacts,
): Pick<Lists, 'claims' | 'mails'> {
  // Where nothing came nothing is decided on.
  const came = whatCame(ctx.db, person.id);
  const reader = came.pending || came.mail ? readerOn(ctx, person, decided) : null;
  if (!reader || isRefusal(reader)) return { claims: [], mails: [] };
  const fact = (kind: 'claim' | 'mail') => (m: StoredMessage) => {
    const view = messageSeen(ctx, reader, m);
    if (!view || (kind === 'claim' && view.sight !== 'full')) return [];
    known.set(`${kind}:${view.id}`, {
      about: {
        of: 'message',
        message: view.sight === 'full' ? view.id : null,
        from: m.fromName ?? m.fromAddress,
        subject: m.subject,
        at: instantText(m.at),
      },
    });
    return [{ id: view.id, at: m.at, by: m.fromAddress, version: 0 }];
  };
  const pending = came.pending && mayRun(decided.decision).speak ? pendingOf(ctx.db, person.id, MOST + 1) : [];
  // A folder that isn't theirs to see has nothing unread for them, and what one of ours wrote is none.
  const unread = (came.mail ? [...reader.folders.values()] : [])
    .filter(({ list: { role } }) => role !== 'sent' && role !== 'drafts')
    .flatMap(({ list }) => unreadMailIn(ctx.db, list.id, ctx.viewer.id, MOST + 1));
  return { claims: most(pending).flatMap(fact('claim')), mails: most(unread).flatMap(fact('mail')) };
}

/** What was to go out and was given up: about a meeting for whoever reads it in full and may change it, else its owner's alone. */
function letters(ctx: Context, { decided, own }: ActedFor, most: Most, known: KnownFacts): Lists['letters'] {
  return most(mailGivenUp(ctx.db, decided.calendar.id, MOST + 1)).flatMap((mail) => {
    const meeting = mail.meetingId === null ? null : meetingById(ctx.db, mail.meetingId);
    const item = meeting?.itemId == null ? null : itemById(ctx.db, meeting.itemId);
    const view = item && item.removedAt === null ? viewFor(ctx, decided, item) : null;
    if (!own && !view?.may?.change) return [];
    known.set(`letter:${mail.key}`, {
      about: { of: 'letter', to: mail.address, subject: mail.subject || (view?.title ?? ''), at: instantText(mail.at) },
    });
    return [{ id: mail.key, at: mail.at, by: mail.address, version: mail.tries }];
  });
}

/** When somebody is away: for them, and for whoever sets their notice. */
function absences(ctx: Context, { person, decided }: ActedFor, most: Most, known: KnownFacts): Lists['absences'] {
  if (!mayRun(decided.decision).absence) return [];
  return most(absencesOf(ctx.db, person.id, ctx.now)).map((one) => {
    const covered = isCovered(ctx, decided, one);
    known.set(`away:${one.key}`, {
      about: {
        of: 'absence',
        absence: one.key,
        from: instantText(one.starts),
        until: instantText(one.ends),
        cover: one.coverId === null ? null : (personById(ctx.db, one.coverId)?.name ?? null),
        mayCover: may(decided.decision).share,
      },
    });
    const notice = one.inside !== '' || one.outside !== '';
    return { id: one.key, from: one.starts, until: one.ends, notice, cover: covered, version: one.version };
  });
}

/** The farthest a task may be due to be a row: the working day after the next may be as far as the days somebody works are apart. */
const TASKS_AHEAD = 16 * DAY;

/** Tasks that are due, of which the viewer may say that they are done. */
const tasks = (due: readonly DueTask[], known: KnownFacts): Lists['tasks'] =>
  due.flatMap(({ task, view }) => {
    if (!view.may?.change) return [];
    known.set(`task:${task.key}`, {
      about: {
        of: 'task',
        task: task.key,
        list: view.list,
        title: view.title,
        due: view.due,
        belongsTo: view.belongsTo ?? null,
        notes: view.notes?.slice(0, 500) ?? null,
      },
    });
    return [{ id: task.key, due: task.due, done: false, version: task.version }];
  });

/** Access that ends or was never used, and what is more open than it should be, on the calendars of somebody that one gives access to. */
function shared(
  ctx: Context,
  { person, decided }: ActedFor,
  most: Most,
  known: KnownFacts,
): Pick<Lists, 'grants' | 'findings'> {
  const grants: Lists['grants'][number][] = [];
  const findings: Lists['findings'][number][] = [];
  for (const calendar of calendarsOf(ctx.db, person.id)) {
    const on: Decided = calendar.id === decided.calendar.id ? decided : decideOn(ctx, calendar);
    if (!on.decision.owner && !on.decision.rights.shares) continue;
    const further = calendar.main ? {} : { calendar: calendar.key };
    const used = lastUses(ctx.db, calendar.id);
    for (const grant of most(grantsOn(ctx.db, calendar.id).filter((one) => needsLook(ctx, one)))) {
      const audience = grant.audience.kind === 'everyone' ? null : audienceOf(ctx, grant);
      if (!audience || grant.rights.sight === 'nothing') continue;
      known.set(`grant:${grant.key}`, {
        about: {
          of: 'grant',
          grant: grant.key,
          who: audience.name,
          preset: presetOf(grant.rights),
          until: grant.ends === null ? null : instantText(grant.ends),
          given: instantText(grant.recordedFrom),
        },
        ...further,
      });
      grants.push({
        id: grant.key,
        given: grant.recordedFrom,
        ends: grant.ends,
        used: (audience.link ? audience.link.lastUsed !== null : used.has(grant.id)) || (grant.starts ?? 0) > ctx.now,
        version: grant.id,
      });
    }
    const found = readFindings(ctx, calendar.key);
    for (const finding of found.ok ? found.value.findings : []) {
      // Who is named for nothing is tidying up, and nothing open; what was never used has a row of its own.
      if (finding.kind === 'spare' || (finding.kind === 'unused' && finding.lastUsed === null)) continue;
      const id = `${calendar.key}.${finding.kind}.${finding.kind === 'sensitive' ? finding.item.id : finding.seen}`;
      known.set(`open:${id}`, {
        about: {
          of: 'finding',
          finding: finding.kind,
          who: finding.kind === 'sensitive' ? finding.item.title : finding.kind === 'everyone' ? null : finding.name,
          people: finding.kind === 'sensitive' ? finding.people : null,
        },
        ...further,
      });
      findings.push({ id, version: finding.kind === 'sensitive' ? finding.version : 0 });
    }
  }
  return { grants, findings };
}

/** Whether a grant can be a row at all: it ends within seven days, or was given thirty days ago or more. */
const needsLook = ({ now }: Context, { ends, recordedFrom }: StoredGrant): boolean =>
  (ends !== null && ends > now && ends <= now + 7 * DAY) || now - recordedFrom >= 30 * DAY;
