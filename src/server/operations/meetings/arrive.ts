import { type ReadMessage, recurrenceIn } from '@/core/formats/index.ts';
import { type Message, sameAddress } from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { isPublicMailHost } from '../../mail/public-hosts.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { itemsByUid } from '../../repositories/items.ts';
import { findFolder } from '../../repositories/lists.ts';
import { meetingByUid, type StoredMeeting } from '../../repositories/meetings.ts';
import { invitationsSince } from '../../repositories/messages.ts';
import type { Person } from '../../repositories/people.ts';
import { Directory } from '../deciding/index.ts';
import { insideBy } from './invited.ts';
import { timeOf } from './shape.ts';

/** New invitations that stand in one person's calendar within a day: of one sender, and of all whom nobody vouches for. */
const MOST_OF_SENDER = 30;
const MOST_UNCHECKED = 100;
const DAY = 86_400_000;

/**
 * What becomes of a scheduling message from outside: it does what it says, or it is kept as a question, with what a person's yes would do
 * (`pending`; `null` where nobody's yes could).
 */
export type Verdict =
  | { readonly does: 'what it says'; readonly message: Message }
  | {
      readonly does: 'ask';
      readonly message: Message;
      readonly why: 'notTheirs' | 'notInvited' | 'notChecked' | 'sentInstead' | 'tooManyToday';
      readonly about: StoredMeeting | null;
      readonly pending: Message | null;
    };

/**
 * Decides what a scheduling message from outside does for somebody inside. Only what their own mail host vouches for counts, but for a new
 * invitation, which stands unanswered. SENT-BY is its sender's own word (RFC 5545, 3.2.18) and proves nothing: an answer counts from the
 * attendee's own address, or from a vouched sender of the attendee's own domain where not just anybody has an address; what is said of a known
 * meeting counts from its organiser's address, or from whom the organiser's first message named. All else waits for a person.
 */
export function judge(db: Connection, now: number, read: ReadMessage, me: Person, checked: boolean): Verdict {
  const message = onClockOfSeries(db, me, read);
  const about = meetingOf(db, me, message);
  const question = (why: Extract<Verdict, { does: 'ask' }>['why'], pending: Message | null): Verdict => ({
    does: 'ask',
    message,
    why,
    about,
    pending,
  });
  const principal = principalOf(message);
  const byOther = !sameAddress(message.sender, principal);
  const isNew = isNewInvitation(db, me, message, about);
  if (isUninvited(me, message, about)) return question('notInvited', null);
  let authorised = false;
  // Only a sender who names themselves in SENT-BY can be authorised; core keeps what anybody else says for another as a question.
  const spoken = message.sentBy !== null && sameAddress(message.sentBy, message.sender);
  if (byOther && spoken && !isPassedOn(message, me)) {
    // People inside send from inside: no mail from outside speaks for them.
    authorised = checked && !insideBy(db, principal) && speaksFor(message, about, isNew);
    const known = about?.part === 'attendee' && isSpokesman(about, message.sender);
    // A person may confirm that a message in somebody outside's name is theirs.
    if (!authorised && !known) return question('notTheirs', insideBy(db, principal) ? null : message);
  }
  const counts: Message = authorised ? { ...message, authorised: true } : message;
  if (!checked && !isNew) return question('notChecked', message);
  if (isNew && isTooMuch(db, now, me, message.sender, checked)) return question('tooManyToday', counts);
  return { does: 'what it says', message: counts };
}

/**
 * Whether a vouched sender may speak for the person a message names, though nobody said so before: both have addresses of one domain, and it is
 * no public mail host. To change a meeting that is already known in its organiser's name, this is not enough.
 */
function speaksFor(message: Message, about: StoredMeeting | null, isNew: boolean): boolean {
  const domain = domainOf(message.sender);
  if (domain === '' || domain !== domainOf(principalOf(message)) || isPublicMailHost(domain)) return false;
  return 'attendee' in message ? about?.part !== 'attendee' : isNew;
}

const isSpokesman = (about: Extract<StoredMeeting, { part: 'attendee' }>, sender: string): boolean =>
  about.state.spokesmen?.some((one) => sameAddress(one, sender)) ?? false;

/** Whether an attendee passes an invitation on to whom they send instead (RFC 5546, 3.2.2.3): it says so of both. */
function isPassedOn(message: Message, me: Person): boolean {
  if (message.method !== 'REQUEST') return false;
  const mine = message.invited.find((one) => sameAddress(one.address, me.address));
  return mine?.delegatedFrom !== undefined && sameAddress(mine.delegatedFrom, message.sender);
}

/** From here on an occurrence is named on its series' clock. */
function onClockOfSeries(db: Connection, me: Person, { recurrenceZone, ...message }: ReadMessage): Message {
  if (message.recurrence === null) return message as Message;
  const calendar = mainCalendarOf(db, me.id);
  const series = calendar && itemsByUid(db, calendar.id, message.uid).find((i) => i.recurrence === null);
  if (!series) return message as Message;
  const { start, allDay, zone } = { ...timeOf(new Directory(db), series), zone: series.zone };
  const recurrence = recurrenceIn({ start, allDay, zone }, { recurrence: message.recurrence, recurrenceZone });
  return { ...message, recurrence } as Message;
}

const meetingOf = (db: Connection, me: Person, message: Message): StoredMeeting | null => {
  const calendar = mainCalendarOf(db, me.id);
  return calendar && meetingByUid(db, calendar.id, message.uid, message.recurrence);
};

/** In whose name a message speaks. */
const principalOf = (message: Message): string => ('attendee' in message ? message.attendee : message.organiser);

const domainOf = (address: string): string => address.toLowerCase().split('@').at(-1) ?? '';

/** An invitation to a meeting that isn't known yet may stand, as what it is: unanswered. */
function isNewInvitation(db: Connection, me: Person, message: Message, about: StoredMeeting | null): boolean {
  const calendar = mainCalendarOf(db, me.id);
  // Whoever is inside asks from inside: mail that says it is from one of ours has to be vouched for.
  if (message.method !== 'REQUEST' || !calendar || insideBy(db, message.organiser)) return false;
  return about === null && itemsByUid(db, calendar.id, message.uid).length === 0;
}

/** Whoever isn't among those a meeting asks has nothing in it. */
function isUninvited(me: Person, message: Message, about: StoredMeeting | null): boolean {
  if ((message.method !== 'REQUEST' && message.method !== 'ADD') || about) return false;
  return !message.invited.some((one) => sameAddress(one.address, me.address));
}

function isTooMuch(db: Connection, now: number, me: Person, sender: string, checked: boolean): boolean {
  const folder = findFolder(db, me.id, 'arrived')?.id;
  if (folder === undefined) return false;
  const since = now - DAY;
  if (invitationsSince(db, folder, since, sender, MOST_OF_SENDER) >= MOST_OF_SENDER) return true;
  return !checked && invitationsSince(db, folder, since, null, MOST_UNCHECKED) >= MOST_UNCHECKED;
}
