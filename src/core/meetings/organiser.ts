import type { Answer } from '../calendar/index.ts';
import {
  compareRevisions,
  type Given,
  type Invited,
  type Listed,
  type MeetingMatter,
  type MeetingTime,
  type Message,
  type Revision,
  sameAddress,
  sameHours,
  sameTime,
} from './meeting.ts';

/** A time somebody proposed instead, until it is taken or declined, or they answer. */
interface Counter extends Revision {
  readonly attendee: string;
  readonly time: MeetingTime;
  readonly comment: string | null;
  readonly sentBy: string | null;
}

/** A message that could not be applied by itself: kept for the organiser to look at. */
interface Question {
  readonly why: 'notInvited' | 'notTheirs' | 'otherOrganiser' | 'sentInstead';
  readonly message: Message;
}

/** A meeting as its organiser's copy holds it. One occurrence of a series that was changed is a meeting of its own here, by `recurrence`. */
export interface Meeting extends Revision {
  readonly uid: string;
  readonly recurrence: string | null;
  readonly organiser: string;
  readonly state: 'draft' | 'sent' | 'cancelled';
  readonly time: MeetingTime;
  readonly matter: MeetingMatter;
  readonly invited: readonly Invited[];
  /** The sequence since which the time is what it is: answers to an older one don't count any more. */
  readonly timeSince: number;
  /** The newest answer each gave, whether it still counts or not; by address in small letters. */
  readonly given: Readonly<Record<string, Given>>;
  readonly counters: readonly Counter[];
  readonly questions: readonly Question[];
  /** Who was ever sent instead of somebody asked: once taken out again, the same word doesn't bring them back. */
  readonly sentInstead?: readonly string[];
}

/** Who acts, in whose name it goes out (always the organiser's), and when: epoch milliseconds. */
export interface Origin {
  readonly sentBy: string | null;
  readonly stamp: number;
}

/** The meeting after an act, and what goes out for it. */
export interface Outcome {
  readonly meeting: Meeting;
  readonly messages: readonly Message[];
}

/** What somebody's answer counts as now: the newest one, as long as the time is the one they answered to. */
export function answerOf(meeting: Meeting, address: string): Answer {
  const given = meeting.given[address.toLowerCase()];
  return given && given.sequence >= meeting.timeSince ? given.answer : 'needs-action';
}

const isInvited = (meeting: Meeting, address: string): boolean =>
  meeting.invited.some((one) => sameAddress(one.address, address));

const about = (meeting: Meeting, origin: Origin) => ({
  uid: meeting.uid,
  recurrence: meeting.recurrence,
  organiser: meeting.organiser,
  sender: meeting.organiser,
  sentBy: origin.sentBy,
  sequence: meeting.sequence,
  stamp: origin.stamp,
});

/** Everybody asked but the organiser, who needs no message of their own. */
const others = (meeting: Meeting): string[] =>
  meeting.invited.map((one) => one.address).filter((address) => !sameAddress(address, meeting.organiser));

function request(meeting: Meeting, origin: Origin, to: readonly string[]): Message[] {
  if (to.length === 0) return [];
  const invited = meeting.invited.map(({ group: _, ...one }): Listed => {
    const answer = answerOf(meeting, one.address);
    const instead = answer === 'needs-action' ? undefined : meeting.given[one.address.toLowerCase()]?.delegatedTo;
    return { ...one, answer, ...(instead ? { delegatedTo: instead } : {}) };
  });
  return [{ ...about(meeting, origin), method: 'REQUEST', to, time: meeting.time, matter: meeting.matter, invited }];
}

const cancel = (meeting: Meeting, origin: Origin, to: readonly string[]): Message[] =>
  to.length === 0 ? [] : [{ ...about(meeting, origin), method: 'CANCEL', to }];

/** Calls a draft: everybody on it is asked. A meeting that was called already stays as it is, and nothing goes out. */
export function callMeeting(meeting: Meeting, origin: Origin): Outcome {
  if (meeting.state !== 'draft') return { meeting, messages: [] };
  const sent: Meeting = { ...meeting, state: 'sent', stamp: origin.stamp };
  return { meeting: sent, messages: request(sent, origin, others(sent)) };
}

/** What of a meeting is changed; what isn't named stays. */
export interface MeetingChange {
  readonly time?: MeetingTime;
  readonly matter?: Partial<MeetingMatter>;
  readonly invited?: readonly Invited[];
  /** The sender says that all shall hear of it, whatever it is. */
  readonly tellAll?: boolean;
}

/**
 * Changes a called meeting, by the table of who hears of what: a new time, place or joining link is said to everybody, and answers begin
 * afresh where the time is another; who is added is asked alone, who is taken out is told alone; all else is said to nobody. A draft
 * changes without a word.
 */
export function changeMeeting(meeting: Meeting, change: MeetingChange, origin: Origin): Outcome {
  const matter = { ...meeting.matter, ...change.matter };
  const time = change.time ?? meeting.time;
  const invited = change.invited ?? meeting.invited;
  if (meeting.state !== 'sent') {
    const next = meeting.state === 'draft' ? { ...meeting, matter, time, invited } : meeting;
    return { meeting: next, messages: [] };
  }
  const moved = !sameTime(time, meeting.time);
  const afresh = !sameHours(time, meeting.time);
  const elsewhere = matter.place !== meeting.matter.place || matter.link !== meeting.matter.link;
  const all = moved || elsewhere || change.tellAll === true;
  const sequence = moved || elsewhere ? meeting.sequence + 1 : meeting.sequence;
  const next: Meeting = {
    ...meeting,
    matter,
    time,
    invited,
    sequence,
    stamp: origin.stamp,
    timeSince: afresh ? sequence : meeting.timeSince,
    counters: afresh ? [] : meeting.counters.filter((c) => invited.some((one) => sameAddress(one.address, c.attendee))),
  };
  const added = others(next).filter((address) => !isInvited(meeting, address));
  const gone = others(meeting).filter((address) => !isInvited(next, address));
  return {
    meeting: next,
    messages: [...cancel(next, origin, gone), ...request(next, origin, all ? others(next) : added)],
  };
}

/** Calls a meeting off: everybody asked is told. Of a draft nobody knew, and nobody is told. */
export function callOff(meeting: Meeting, origin: Origin): Outcome {
  if (meeting.state === 'cancelled') return { meeting, messages: [] };
  const off: Meeting = {
    ...meeting,
    state: 'cancelled',
    sequence: meeting.state === 'sent' ? meeting.sequence + 1 : meeting.sequence,
    stamp: origin.stamp,
    counters: [],
  };
  return { meeting: off, messages: meeting.state === 'sent' ? cancel(off, origin, others(off)) : [] };
}

/** Asks once more those who haven't answered, or some of them: the same invitation, no new state of it. */
export function nudge(meeting: Meeting, origin: Origin, whom?: readonly string[]): Outcome {
  const silent = others(meeting).filter((address) => answerOf(meeting, address) === 'needs-action');
  const to = silent.filter((address) => !whom || whom.some((one) => sameAddress(one, address)));
  return { meeting, messages: meeting.state === 'sent' ? request(meeting, origin, to) : [] };
}

/** Takes a proposed time: the meeting moves there, and everybody is asked anew. */
export function takeCounter(meeting: Meeting, attendee: string, origin: Origin): Outcome {
  const counter = meeting.counters.find((c) => sameAddress(c.attendee, attendee));
  if (!counter || meeting.state !== 'sent') return { meeting, messages: [] };
  const moved = changeMeeting(meeting, { time: counter.time }, origin);
  return { ...moved, meeting: { ...moved.meeting, counters: [] } };
}

/** Declines a proposed time with a word: whoever proposed it hears so, and the meeting stands. */
export function declineCounter(meeting: Meeting, attendee: string, comment: string | null, origin: Origin): Outcome {
  const counter = meeting.counters.find((c) => sameAddress(c.attendee, attendee));
  if (!counter) return { meeting, messages: [] };
  const next = { ...meeting, counters: meeting.counters.filter((c) => c !== counter) };
  return {
    meeting: next,
    messages: [{ ...about(next, origin), method: 'DECLINECOUNTER', to: [counter.attendee], comment }],
  };
}

/** A meeting with a message that isn't applied by itself kept as a question; the same one is asked once. */
function withQuestion(meeting: Meeting, why: Question['why'], message: Message): Meeting {
  const same = (q: Question) => JSON.stringify(q) === JSON.stringify({ why, message });
  return meeting.questions.some(same) ? meeting : { ...meeting, questions: [...meeting.questions, { why, message }] };
}

/**
 * Takes in a message to the organiser. Answers and counter-proposals count for the attendee whose address they come from, the newest of each
 * person's. Those of nobody who was asked, and those sent for another without authority (SENT-BY is the sender's own word and proves nothing),
 * are kept as questions. So is whom an attendee sends instead (RFC 5546, 3.2.2.3), until a person authorises the message. The order in which
 * messages come makes no difference, nor do those that come twice.
 */
export function receiveAsOrganiser(meeting: Meeting, message: Message, origin: Origin): Outcome {
  const stays: Outcome = { meeting, messages: [] };
  if (message.uid !== meeting.uid || message.recurrence !== meeting.recurrence || meeting.state === 'draft')
    return stays;
  if (
    message.method === 'REQUEST' ||
    message.method === 'CANCEL' ||
    message.method === 'PUBLISH' ||
    message.method === 'ADD'
  )
    // A message that calls a meeting, or calls one off, in place of its organiser is a claim.
    return sameAddress(message.sender, meeting.organiser)
      ? stays
      : { ...stays, meeting: withQuestion(meeting, 'otherOrganiser', message) };
  if (message.method === 'DECLINECOUNTER') return stays;
  const { attendee } = message;
  if (!isInvited(meeting, attendee)) return { ...stays, meeting: withQuestion(meeting, 'notInvited', message) };
  const authorised = message.authorised === true;
  if (!sameAddress(message.sender, attendee) && !authorised)
    return { ...stays, meeting: withQuestion(meeting, 'notTheirs', message) };
  if (message.method === 'REFRESH')
    return {
      meeting,
      messages: meeting.state === 'sent' ? request(meeting, origin, [attendee]) : cancel(meeting, origin, [attendee]),
    };
  const key = attendee.toLowerCase();
  const { sequence, stamp, sentBy, comment } = message;
  if (message.method === 'REPLY') {
    const before = meeting.given[key];
    const named = message.delegatedTo;
    const instead = authorised ? named : undefined;
    const to = instead ? { delegatedTo: instead.address.toLowerCase() } : {};
    const given: Given = { answer: message.answer, comment, sentBy, sequence, stamp, ...to };
    // Whom an authorised answer sends instead is asked from then on, even where another answer followed it before it arrived.
    const after = instead
      ? sendInstead(meeting, attendee, instead, origin)
      : named && !isKnownInstead(meeting, attendee, named.address)
        ? withQuestion(meeting, 'sentInstead', message)
        : meeting;
    if (before && !isLater(given, before)) return { ...stays, meeting: after };
    return { ...stays, meeting: settle({ ...after, given: { ...after.given, [key]: given } }) };
  }
  const counter: Counter = { attendee, time: message.time, comment, sentBy, sequence, stamp };
  const before = meeting.counters.find((c) => sameAddress(c.attendee, attendee));
  if (before && !isNewer(counter, before)) return stays;
  const rest = meeting.counters.filter((c) => c !== before);
  return { ...stays, meeting: settle({ ...meeting, counters: [...rest, counter] }) };
}

/** Most people asked to one meeting; whom others send instead of themselves is no way around it. */
const MOST_INVITED = 1000;

/**
 * Puts whom somebody asked sends instead among those asked, once; what they answered before that was known counts then. They come after
 * the others in the order of their addresses, and for the first of those who send them, so that the order of arrival decides nothing.
 */
function sendInstead(
  meeting: Meeting,
  from: string,
  to: { readonly address: string; readonly name: string | null },
  origin: Origin,
): Meeting {
  const address = to.address.toLowerCase();
  const sender = from.toLowerCase();
  const ever = meeting.sentInstead ?? [];
  const standing = meeting.invited.find((one) => sameAddress(one.address, address));
  const known = standing ? (standing.delegatedFrom ?? '') <= sender : ever.includes(address);
  if (known || sameAddress(address, meeting.organiser)) return meeting;
  if (!standing && meeting.invited.length >= MOST_INVITED) return meeting;
  const role = meeting.invited.find((one) => sameAddress(one.address, from))?.role ?? 'must';
  const one: Invited = { address, name: to.name, role, kind: 'person', delegatedFrom: sender };
  const others = meeting.invited.filter((other) => other !== standing);
  const sent = [...others.filter((other) => other.delegatedFrom !== undefined), one];
  const theirs = (q: Question) =>
    q.why === 'notInvited' && 'attendee' in q.message && sameAddress(q.message.attendee, address);
  const settled = (q: Question) =>
    q.why === 'sentInstead' &&
    'delegatedTo' in q.message &&
    sameAddress(q.message.attendee, from) &&
    sameAddress(q.message.delegatedTo?.address ?? '', address);
  const next: Meeting = {
    ...meeting,
    invited: [
      ...others.filter((other) => other.delegatedFrom === undefined),
      ...sent.sort((a, b) => (a.address < b.address ? -1 : 1)),
    ],
    sentInstead: standing ? ever : [...ever, address].sort(),
    questions: meeting.questions.filter((q) => !theirs(q) && !settled(q)),
  };
  const waiting = meeting.questions.filter(theirs).map((q) => q.message);
  return waiting.reduce((m, message) => receiveAsOrganiser(m, message, origin).meeting, next);
}

/** Whether an attendee's word that somebody comes instead was authorised already. */
const isKnownInstead = (meeting: Meeting, attendee: string, address: string): boolean =>
  meeting.invited.some(
    (one) =>
      sameAddress(one.address, address) && one.delegatedFrom !== undefined && sameAddress(one.delegatedFrom, attendee),
  );

/** Which of two answers came later: of one answer, the one that was authorised to name somebody instead. */
function isLater(a: Given, b: Given): boolean {
  const named = Number(a.delegatedTo !== undefined) - Number(b.delegatedTo !== undefined);
  return compareRevisions(a, b) === 0 && named !== 0 ? named > 0 : isNewer(a, b);
}

/** Which of two came later; of two made at the same instant the one that reads last, so that their order of arrival decides nothing. */
function isNewer<T extends Revision>(a: T, b: T): boolean {
  const apart = compareRevisions(a, b);
  return apart !== 0 ? apart > 0 : JSON.stringify(a) > JSON.stringify(b);
}

/** Counter-proposals that still stand: to the time as it is, of a meeting that is on, and not followed by an answer; in one order. */
function settle(meeting: Meeting): Meeting {
  const counters = meeting.counters
    .filter((c) => {
      const given = meeting.given[c.attendee.toLowerCase()];
      return meeting.state === 'sent' && c.sequence >= meeting.timeSince && !(given && compareRevisions(given, c) > 0);
    })
    .sort((a, b) => (a.attendee < b.attendee ? -1 : 1));
  const given = Object.fromEntries(Object.entries(meeting.given).sort(([a], [b]) => (a < b ? -1 : 1)));
  return { ...meeting, counters, given };
}
