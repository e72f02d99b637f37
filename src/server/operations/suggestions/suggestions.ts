import { type InvitedInput, type ItemWire, newItem } from '@/contract/items/items.ts';
import type {
  SuggestionAnswerBody,
  SuggestionAnswered,
  SuggestionBody,
  SuggestionsAnswer,
  SuggestionWire,
} from '@/contract/suggestions.ts';
import { may as mayOn } from '@/core/access/index.ts';
import { FORWARD_CHANGED, pick, takesTime, type WrittenFields, withoutEmpty } from '@/core/calendar/index.ts';
import { dateText, instantText, toWall, wallText } from '@/core/time/index.ts';
import { newKey, occurrenceId } from '../../ids.ts';
import { hub } from '../../live/hub.ts';
import { type Calendar, calendarById } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import { personById } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import {
  closeSuggestion,
  insertSuggestion,
  openSuggestionsNear,
  openSuggestionsOf,
  type PutForward,
  type SuggestedChange,
  type Suggestion,
  suggestionByKey,
  suggestionsOf,
} from '../../repositories/suggestions.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  type Context,
  type Decided,
  Directory,
  decideOn,
  type FoundItem,
  findCalendar,
  findItem,
  findSeen,
  isRefusal,
  tellPeople,
  trailOwn,
  viewFor,
  viewsIn,
} from '../deciding/index.ts';
import { draftItem, readWhen } from '../items/index.ts';
import { answerItem, changeMeeting, createMeeting, removeMeeting } from '../meetings/index.ts';

/** How many suggestions of one person may wait at a time. */
const MOST_OPEN = 100;
const MOST_OWN = 50;
const MOST_OVERLAPS = 3;

/**
 * Puts a change of a calendar forward: kept until somebody who may make it says yes or no. Refused where the viewer may
 * make it themselves or may not suggest, and for a field of an item that they don't see.
 */
export function putForward(ctx: Context, key: string, input: SuggestionBody): Result<{ done: true }> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const suggested =
    input.kind === 'add' ? suggestedAddition(ctx, decided, input) : suggestedChange(ctx, decided, input);
  if (isRefusal(suggested)) return suggested;
  if (openSuggestionsOf(ctx.db, ctx.viewer.id) >= MOST_OPEN) return refuse('tooManySuggestions');
  const suggestion: Suggestion = {
    key: newKey(),
    collectionId: decided.calendar.id,
    personId: ctx.viewer.id,
    at: ctx.now,
    why: input.why,
    state: 'open',
    answeredBy: null,
    answerNote: '',
    ...suggested,
  };
  ctx.db.write(() => {
    insertSuggestion(ctx.db, suggestion);
    trailOwn(ctx, suggestion.key, 'suggestion.made', null, { ...suggestion });
  });
  tellPeople(ctx.db, answerersListening(ctx, suggestion));
  return ok({ done: true });
}

type Suggested = PutForward & Pick<Suggestion, 'itemId' | 'occurrence' | 'version'>;

function mayNot(ctx: Context, { calendar }: Decided): Refusal {
  return refuse('mayNotSuggest', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
}

function suggestedAddition(
  ctx: Context,
  decided: Decided,
  input: Extract<SuggestionBody, { kind: 'add' }>,
): Suggested | Refusal {
  if (!mayOn(decided.decision).suggest) return mayNot(ctx, decided);
  const item = newItem.parse(input.item);
  const draft = draftItem(ctx, decided.calendar, item, ctx.viewer.id);
  return isRefusal(draft) ? draft : { kind: 'add', itemId: null, occurrence: null, version: null, body: item };
}

function suggestedChange(
  ctx: Context,
  decided: Decided,
  input: Exclude<SuggestionBody, { kind: 'add' }>,
): Suggested | Refusal {
  const found = findSeen(ctx, decided, input.item);
  if (isRefusal(found)) return found;
  if (!found.may.suggest) return mayNot(ctx, decided);
  const about = {
    itemId: found.item.id,
    occurrence: found.occurrence?.start ?? null,
    version: found.item.version,
  };
  if (input.kind === 'remove') return { ...about, kind: 'remove', body: { scope: input.scope } };
  if (input.kind === 'answer') {
    if (!found.item.ownerInvited || found.item.cancelled) return refuse('meetingOff');
    const { answer, comment } = input;
    return { ...about, kind: 'answer', body: { answer, comment } };
  }
  // Only somebody who sees the attendees may put a change of them forward.
  if (input.people && !('attendees' in found.view)) return refuse('badInput', { fields: { people: 'notSeen' } });
  const touched = FORWARD_CHANGED.filter((name) => input.fields[name] !== undefined);
  const unseen = touched.find((name) => !(name in found.view));
  if (unseen) return refuse('badInput', { fields: { [unseen]: 'notSeen' } });
  const when = input.when ? readWhen(input.when) : null;
  if (when && isRefusal(when)) return when;
  if (!when && !input.people && touched.length === 0)
    return refuse('badInput', { fields: { title: 'nothingChanged' } });
  const { people, scope } = input;
  const change: SuggestedChange = {
    when: when && { start: when.start, end: when.end, allDay: when.allDay },
    fields: withoutEmpty(pick(input.fields as WrittenFields, touched)),
    ...(people ? { people } : {}),
    scope,
  };
  return { ...about, kind: 'change', body: change };
}

/** A suggestion as somebody who may make the change meets it: the item it is about, as it stands, where it is about one. */
interface Answerable {
  readonly calendar: Calendar;
  readonly decided: Decided;
  readonly found: FoundItem | null;
}

/**
 * What the viewer may say yes to: they could make the change themselves, and what it comes to is theirs to read in full.
 * `null` for everybody else, and for one's own.
 */
function answerable(ctx: Context, s: Suggestion, decide = decideOn): Answerable | null {
  if (s.personId === ctx.viewer.id) return null;
  const calendar = calendarById(ctx.db, s.collectionId);
  if (!calendar) return null;
  const decided = decide(ctx, calendar);
  const { rights } = decided.decision;
  if (s.kind === 'add') {
    if (!rights.add) return null;
    const draft = draftItem(ctx, calendar, s.body, s.personId);
    if (isRefusal(draft)) return null;
    const view = viewFor(ctx, decided, { ...draft, id: 0 });
    return view && 'notes' in view ? { calendar, decided, found: null } : null;
  }
  if (s.kind !== 'answer' && rights.change === 'none' && rights.remove === 'none') return null;
  const item = s.itemId === null ? null : itemById(ctx.db, s.itemId);
  if (!item) return null;
  const found = findItem(ctx, occurrenceId(item.key, s.occurrence));
  if (isRefusal(found)) return null;
  const may = s.kind === 'change' ? found.may.change : s.kind === 'answer' ? found.may.answer : found.may.remove;
  return may ? { calendar, decided, found } : null;
}

/** Deciding once for each calendar, however many suggestions wait there. */
function decidingOnce(): typeof decideOn {
  const known = new Map<number, Decided>();
  return (ctx, calendar) => {
    const decided = known.get(calendar.id) ?? decideOn(ctx, calendar);
    known.set(calendar.id, decided);
    return decided;
  };
}

/** The suggestions that wait for the answer of the viewer, the oldest first; with `owners`, those in these people's calendars alone. */
function waitingFor(ctx: Context, decide: typeof decideOn, owners: ReadonlySet<number> | null = null) {
  return openSuggestionsNear(ctx.db, ctx.viewer.id).flatMap((s) => {
    if (owners && !owners.has(calendarById(ctx.db, s.collectionId)?.ownerId ?? 0)) return [];
    const met = answerable(ctx, s, decide);
    return met ? [{ s, met }] : [];
  });
}

/** How many suggestions wait for the answer of the viewer. */
export const suggestionsWaiting = (ctx: Context): number => waitingFor(ctx, decidingOnce()).length;

/** A suggestion without the other items at the time it wants. */
export type PlainSuggestion = Omit<SuggestionWire, 'overlaps'>;

/** The suggestions in some people's calendars that wait for the answer of the viewer, the oldest first. */
export function suggestionsToAnswer(ctx: Context, owners: ReadonlySet<number>): PlainSuggestion[] {
  const directory = new Directory(ctx.db);
  return waitingFor(ctx, decidingOnce(), owners).map(({ s, met }) =>
    plainWire(ctx, directory, s, met.decided, met.found),
  );
}

/** What waits for one's yes, the oldest first, and what one put forward oneself, the newest first. */
export function listSuggestions(ctx: Context): Result<SuggestionsAnswer> {
  const directory = new Directory(ctx.db);
  const decide = decidingOnce();
  const waiting = waitingFor(ctx, decide).map(({ s, met: { decided, found } }): SuggestionWire => {
    const plain = plainWire(ctx, directory, s, decided, found);
    const { when } = plain.wanted;
    return { ...plain, overlaps: when ? overlaps(ctx, directory, decided, found, when) : [] };
  });
  const own = suggestionsOf(ctx.db, ctx.viewer.id, MOST_OWN).flatMap((s) => {
    const calendar = calendarById(ctx.db, s.collectionId);
    if (!calendar) return [];
    const decided = decide(ctx, calendar);
    if (decided.decision.rights.sight === 'nothing') return [];
    return [{ ...plainWire(ctx, directory, s, decided, null), overlaps: [] }];
  });
  return ok({ waiting, own });
}

function plainWire(
  ctx: Context,
  directory: Directory,
  s: Suggestion,
  decided: Decided,
  found: FoundItem | null,
): PlainSuggestion {
  const { calendar } = decided;
  const owner = directory.person(calendar.ownerId);
  const own = s.personId === ctx.viewer.id;
  const view = found ? found.view : own ? seenNow(ctx, decided, s) : null;
  const wanted = wantedOf(s);
  return {
    key: s.key,
    at: instantText(s.at),
    kind: s.kind,
    who: directory.name(s.personId),
    own,
    owner: { handle: owner?.handle ?? '', name: owner?.name ?? '', colour: owner?.colour ?? 0 },
    further: calendar.main ? null : { key: calendar.key, name: calendar.name },
    why: s.why,
    state: s.state,
    answeredBy: s.answeredBy === null ? null : directory.name(s.answeredBy),
    answerNote: s.answerNote,
    now: view && standing(view),
    wanted,
    movedOn: found !== null && (found.item.id !== s.itemId || found.item.version !== s.version),
    version: found?.item.version ?? null,
  };
}

/** The item of one's own suggestion as one sees it now; of one that was removed nothing is left to see. */
function seenNow(ctx: Context, decided: Decided, s: Suggestion): ItemWire | null {
  const item = s.itemId === null ? null : itemById(ctx.db, s.itemId);
  if (!item || item.removedAt !== null) return null;
  const at = s.occurrence === null ? item : { start: s.occurrence, end: s.occurrence + (item.end - item.start) };
  return viewFor(ctx, decided, item, at);
}

function standing(view: ItemWire): SuggestionWire['now'] {
  const texts = Object.fromEntries(
    FORWARD_CHANGED.flatMap((name) => (name in view ? [[name, view[name] ?? null]] : [])),
  );
  return { start: view.start, end: view.end, allDay: view.allDay, ...texts };
}

const timesOf = ({ start, end, allDay }: Pick<StoredItem, 'start' | 'end' | 'allDay'>) => {
  const text = allDay ? dateText : instantText;
  return { start: text(start), end: text(end), allDay };
};

function wantedOf(s: Suggestion): SuggestionWire['wanted'] {
  if (s.kind === 'answer') return { when: null, ...s.body };
  if (s.kind === 'add') {
    const { body: item } = s;
    const when = readWhen(item.when);
    return {
      when: isRefusal(when) ? null : timesOf(when),
      ...pick(item, FORWARD_CHANGED),
      ...pick(item, ['kind', 'shows', 'visibility']),
      rule: item.repeat?.rule ?? null,
      ...named(item.people),
    };
  }
  const all = s.body?.scope === 'all' ? { all: true as const } : {};
  if (s.kind === 'remove') return { when: null, ...all };
  const { when, fields, people } = s.body;
  return { when: when && timesOf(when), ...fields, ...named(people), ...all };
}

const named = (people: readonly InvitedInput[] | undefined) =>
  people && people.length > 0 ? { people: people.map(({ name, address }) => ({ name, address })) } : {};

/** What else takes the wanted time, from the asker's own views. */
function overlaps(
  ctx: Context,
  directory: Directory,
  { calendar, decision }: Decided,
  found: FoundItem | null,
  when: { start: string; end: string; allDay: boolean },
): (string | null)[] {
  if (when.allDay) return [];
  const [from, to] = [Date.parse(when.start), Date.parse(when.end)];
  const range = { from, to, fromDate: dateText(from), toDate: dateText(to) };
  return viewsIn(ctx.db, directory, calendar, range, { person: ctx.viewer, decision })
    .filter((v) => !v.allDay && takesTime(v) && v.id !== found?.view.id)
    .filter((v) => Date.parse(v.start) < to && Date.parse(v.end) > from)
    .slice(0, MOST_OVERLAPS)
    .map((v) => v.title ?? null);
}

/**
 * Answers a suggestion. A yes makes the change as its author's work, where the version is the one seen, and says by which key it
 * is undone; a no leaves all as it is; its author may take it back while it waits. Only what was put forward is written.
 */
export function answerSuggestion(ctx: Context, key: string, body: SuggestionAnswerBody): Result<SuggestionAnswered> {
  const s = suggestionByKey(ctx.db, key);
  if (!s) return refuse('notFound');
  const mine = s.personId === ctx.viewer.id;
  const met = mine ? null : answerable(ctx, s);
  if (mine ? body.answer !== 'withdrawn' : met === null || body.answer === 'withdrawn') return refuse('notFound');
  if (s.state !== 'open') return refuse('changedMeanwhile');
  const heard = answerersListening(ctx, s);
  const answer = ctx.db.write((): Result<SuggestionAnswered> => {
    let undoKey: string | null = null;
    if (met && body.answer === 'yes') {
      const made = makeIt(ctx, s, met, body.version);
      if (!made.ok) return made;
      undoKey = made.value.undo;
    }
    closeSuggestion(ctx.db, key, { state: body.answer, by: ctx.viewer.id, at: ctx.now, note: body.note, undoKey });
    trailOwn(ctx, key, `suggestion.${body.answer}`, { ...s }, { note: body.note });
    return ok({ undo: undoKey });
  });
  if (answer.ok) tellPeople(ctx.db, [...heard, s.personId]);
  return answer;
}

function makeIt(
  ctx: Context,
  s: Suggestion,
  { calendar, found }: Answerable,
  version: number | null,
): Result<{ undo: string | null }> {
  if (s.kind === 'add') return createMeeting(ctx, calendar.key, s.body, s.personId);
  if (!found || version === null) return refuse('changedMeanwhile');
  const { id } = found.view;
  if (s.kind === 'answer') {
    const { answer, comment } = s.body;
    const seen = found.item.ownerAnswer ?? 'needs-action';
    const answered = answerItem(ctx, id, { answer, comment, seen, scope: found.occurrence ? 'one' : 'all' });
    return answered.ok ? ok({ undo: null }) : answered;
  }
  const scope = s.body?.scope ?? 'one';
  if (s.kind === 'remove') return removeMeeting(ctx, id, { version, scope }, s.personId);
  const { when, fields, people } = s.body;
  const patch = { version, scope, fields, ...(people ? { people: [...people] } : {}) };
  return changeMeeting(ctx, id, when ? { ...patch, when: onTheClock(when, found.item, calendar) } : patch, s.personId);
}

/** A kept time as people write it, on the clock the item keeps. */
function onTheClock(when: NonNullable<SuggestedChange['when']>, item: StoredItem, calendar: Calendar) {
  const zone = item.allDay && !when.allDay ? calendar.zone : item.zone;
  const text = (at: number) => (when.allDay ? dateText(at) : wallText(toWall(zone, at)));
  return { start: text(when.start), end: text(when.end), allDay: when.allDay, zone };
}

/** Those with a window open who may answer a suggestion. */
function answerersListening(ctx: Context, s: Suggestion): number[] {
  return hub()
    .listeners()
    .filter((listener): listener is number => {
      const viewer = typeof listener === 'number' ? personById(ctx.db, listener) : null;
      return viewer !== null && answerable({ ...ctx, viewer }, s) !== null;
    });
}
