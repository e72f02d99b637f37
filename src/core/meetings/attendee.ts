import type { Answer } from '../calendar/index.ts';
import {
  type Classification,
  compareRevisions,
  type Given,
  type Listed,
  type MeetingMatter,
  type MeetingTime,
  type Message,
  type Revision,
  sameAddress,
  sameHours,
  sameTime,
} from './meeting.ts';
import type { Origin } from './organiser.ts';

/** States of a meeting that are remembered to tell since when its time is what it is; older ones go. */
const MOST_REMEMBERED = 60;

/** What the organiser said last, and how far that had come. */
interface Said extends Revision {
  readonly method: 'REQUEST' | 'PUBLISH' | 'CANCEL';
}

/** A meeting as somebody asked to it holds it. Of what they say, see and mark themselves nothing is in the organiser's hands. */
export interface Copy {
  readonly uid: string;
  readonly recurrence: string | null;
  readonly organiser: string;
  /** Whose copy it is. */
  readonly me: string;
  readonly said: Said;
  /** What it was when it was last on: what was called off still says what it was. `null` where only its end was ever heard of. */
  readonly on: {
    readonly revision: Revision;
    readonly time: MeetingTime;
    readonly matter: MeetingMatter;
    readonly invited: readonly Listed[];
    readonly classification?: Classification;
  } | null;
  readonly times: readonly (Revision & { readonly time: MeetingTime })[];
  readonly mine: Given | null;
  /** The time one proposed instead, by whom where that is somebody who acts, and to which state of the meeting, until it was declined or one answered. */
  readonly proposed: {
    readonly time: MeetingTime;
    readonly revision: Revision;
    readonly sentBy?: string | null;
  } | null;
  /** Who was taken to speak for the organiser beside them: the sender of the first invitation, or whom a person authorised. */
  readonly spokesmen?: readonly string[];
  /** Messages about it from another organiser than the one known: kept to be looked at, never applied. */
  readonly claims: readonly Message[];
}

/** Whether a meeting stands: it was asked to it and not called off, or only told of it. */
export const stateOf = (copy: Copy): 'invited' | 'information' | 'cancelled' =>
  copy.said.method === 'CANCEL' ? 'cancelled' : copy.said.method === 'PUBLISH' ? 'information' : 'invited';

/** One's own answer as it counts now: it was given to the time the meeting has. */
export function myAnswer(copy: Copy): Answer {
  return copy.mine && copy.mine.sequence >= timeSince(copy) ? copy.mine.answer : 'needs-action';
}

/** The time one proposed that still waits for a word: of a meeting that is on, to the time it has. */
export const myProposal = (copy: Copy): MeetingTime | null =>
  copy.proposed && stateOf(copy) === 'invited' && copy.proposed.revision.sequence >= timeSince(copy)
    ? copy.proposed.time
    : null;

/** The sequence since which the time is what it is, of the states that were heard of, in whatever order they came. */
function timeSince({ times }: Copy): number {
  let since = times[0]?.sequence ?? 0;
  for (let i = 1; i < times.length; i++) {
    const [before, now] = [times[i - 1], times[i]];
    if (before && now && !sameHours(before.time, now.time)) since = now.sequence;
  }
  return since;
}

/**
 * Takes in a message to somebody asked; `null` for a meeting they don't know yet. The newest of what the organiser said holds, in
 * whatever order it came and however often; called off beats asked where both are as new. What another organiser says of it is a claim.
 */
export function receiveAsAttendee(copy: Copy | null, message: Message, me: string): Copy | null {
  const { method } = message;
  const isOurs = method === 'REQUEST' || method === 'PUBLISH' || method === 'CANCEL' || method === 'DECLINECOUNTER';
  if (!isOurs && method !== 'ADD') return copy;
  const byOther = !sameAddress(message.sender, message.organiser);
  // SENT-BY is the sender's own word: it counts only for whom it named when the meeting was first heard of.
  const fromOrganiser =
    !byOther ||
    message.authorised === true ||
    (copy?.spokesmen?.some((one) => sameAddress(one, message.sender)) ?? false);
  if (copy && (message.uid !== copy.uid || message.recurrence !== copy.recurrence)) return copy;
  if (copy && (!sameAddress(message.organiser, copy.organiser) || !fromOrganiser)) return claimed(copy, message);
  if (method === 'DECLINECOUNTER') {
    if (!copy?.proposed || message.stamp < copy.proposed.revision.stamp) return copy;
    return { ...copy, proposed: null };
  }
  if (method === 'ADD') return copy && addDate(copy, message);
  // A first message must come from the organiser, or from an attendee who sends somebody else instead. Any other has no copy it could be
  // kept with.
  if (!copy && !fromOrganiser && !isSentInstead(message, me)) return null;
  const { sequence, stamp } = message;
  const said: Said = { method, sequence, stamp };
  const first: Copy = copy ?? {
    uid: message.uid,
    recurrence: message.recurrence,
    organiser: message.organiser,
    me,
    said,
    on: null,
    times: [],
    mine: null,
    proposed: null,
    claims: [],
  };
  const newest = copy && !laterThan(said, copy.said) ? copy.said : said;
  if (method === 'CANCEL') return { ...first, said: newest };
  const spokesman = byOther && message.authorised ? message.sender.toLowerCase() : null;
  const known = first.spokesmen ?? [];
  const spokesmen = spokesman && !known.includes(spokesman) ? { spokesmen: [...known, spokesman].sort() } : {};
  const { time, matter, invited } = message;
  const mark = message.classification ? { classification: message.classification } : {};
  const now = { revision: { sequence, stamp }, time, matter, invited, ...mark };
  const on = first.on === null || isNewer(now, first.on) ? now : first.on;
  const heard = first.times.some((t) => t.sequence === sequence && t.stamp === stamp && sameTime(t.time, time));
  const times = heard ? first.times : [...first.times, { sequence, stamp, time }].sort(inOrder).slice(-MOST_REMEMBERED);
  return { ...first, ...spokesmen, said: newest, on, times };
}

/** Whether a message asks somebody to come instead of who it is from, who was asked (RFC 5546, 3.2.2.3). */
function isSentInstead(message: Message, me: string): boolean {
  if (message.method !== 'REQUEST') return false;
  const { sender, invited } = message;
  const mine = invited.find((one) => sameAddress(one.address, me));
  return (
    mine?.delegatedFrom !== undefined &&
    sameAddress(mine.delegatedFrom, sender) &&
    invited.some((one) => sameAddress(one.address, sender))
  );
}

/** Who sends the holder of a copy instead of themselves. */
const senderOf = (copy: Copy): string | undefined =>
  copy.on?.invited.find((one) => sameAddress(one.address, copy.me))?.delegatedFrom;

/**
 * A date more of a series that is known (RFC 5546, 3.2.4): where it is newer than what is. Of one that isn't known there is nothing to add
 * to; whoever gets it asks for the whole.
 */
function addDate(copy: Copy, message: Extract<Message, { method: 'ADD' }>): Copy {
  const { sequence, stamp } = message;
  const revision = { sequence, stamp };
  if (!copy.on || compareRevisions(revision, copy.on.revision) <= 0) return copy;
  const { time } = copy.on;
  if (time.zone !== message.time.zone || time.added.includes(message.time.start)) return copy;
  const added = { ...time, added: [...time.added, message.time.start].sort() };
  const said: Said = { method: 'REQUEST', ...revision };
  const times = [...copy.times, { ...revision, time: added }].sort(inOrder).slice(-MOST_REMEMBERED);
  return {
    ...copy,
    said: laterThan(said, copy.said) ? said : copy.said,
    on: { ...copy.on, revision, time: added },
    times,
  };
}

const RANK = { PUBLISH: 0, REQUEST: 1, CANCEL: 2 } as const;
const laterThan = (a: Said, b: Said): boolean => (compareRevisions(a, b) || RANK[a.method] - RANK[b.method]) > 0;

function isNewer<T extends { readonly revision: Revision }>(a: T, b: T): boolean {
  const apart = compareRevisions(a.revision, b.revision);
  return apart !== 0 ? apart > 0 : JSON.stringify(a) > JSON.stringify(b);
}

function inOrder(a: Revision & { time: MeetingTime }, b: Revision & { time: MeetingTime }): number {
  return compareRevisions(a, b) || (JSON.stringify(a.time) < JSON.stringify(b.time) ? -1 : 1);
}

function claimed(copy: Copy, message: Message): Copy {
  const text = JSON.stringify(message);
  if (copy.claims.some((one) => JSON.stringify(one) === text)) return copy;
  const claims = [...copy.claims, message].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
  return { ...copy, claims };
}

/** A copy after an act of its holder, and what goes to the organiser for it. */
export interface Answered {
  readonly copy: Copy;
  readonly messages: readonly Message[];
}

const toOrganiser = (copy: Copy, origin: Origin) => ({
  uid: copy.uid,
  recurrence: copy.recurrence,
  organiser: copy.organiser,
  sender: copy.me,
  sentBy: origin.sentBy,
  // An answer says to which state of the meeting it was given.
  sequence: copy.on?.revision.sequence ?? copy.said.sequence,
  stamp: origin.stamp,
  to: [copy.organiser],
  attendee: copy.me,
});

/** Answers a meeting, or answers it otherwise: the organiser hears it, and whoever sent one instead of themselves, nobody else. What was called off, or only told, isn't answered. */
export function answerMeeting(
  copy: Copy,
  answer: Exclude<Answer, 'needs-action'>,
  comment: string | null,
  origin: Origin,
): Answered {
  if (stateOf(copy) !== 'invited') return { copy, messages: [] };
  const head = toOrganiser(copy, origin);
  const mine: Given = { answer, comment, sentBy: origin.sentBy, sequence: head.sequence, stamp: origin.stamp };
  const delegatedFrom = senderOf(copy);
  // Whoever sent them hears the answer too (RFC 5546, 3.2.2.3).
  const instead = delegatedFrom === undefined ? {} : { delegatedFrom, to: [...head.to, delegatedFrom] };
  return {
    copy: { ...copy, mine, proposed: null },
    messages: [{ ...head, method: 'REPLY', answer, comment, ...instead }],
  };
}

/** Proposes another time: the meeting stays as it is until the organiser takes it. */
export function proposeTime(copy: Copy, time: MeetingTime, comment: string | null, origin: Origin): Answered {
  if (stateOf(copy) !== 'invited') return { copy, messages: [] };
  const head = toOrganiser(copy, origin);
  const revision = { sequence: head.sequence, stamp: origin.stamp };
  return {
    copy: { ...copy, proposed: { time, revision, sentBy: origin.sentBy } },
    messages: [{ ...head, method: 'COUNTER', time, comment }],
  };
}

/** Asks for the meeting as it stands now. */
export const requestRefresh = (copy: Copy, origin: Origin): Answered => ({
  copy,
  messages: [{ ...toOrganiser(copy, origin), method: 'REFRESH' }],
});
