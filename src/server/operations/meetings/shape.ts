import { type Attendee, pick, SAID_FIELDS, type Visibility } from '@/core/calendar/index.ts';
import {
  answerOf,
  type Classification,
  type Copy,
  type Invited,
  type Meeting,
  type MeetingMatter,
  type MeetingTime,
  type Message,
  myAnswer,
  sameAddress,
  stateOf,
} from '@/core/meetings/index.ts';
import {
  dateText,
  fromWallLenient,
  instantText,
  isDefined,
  parseDate,
  parseWall,
  toWall,
  wallText,
} from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { itemById } from '../../repositories/items.ts';
import type { StoredMeeting } from '../../repositories/meetings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { knowZone } from '../../repositories/zone-definitions.ts';
import type { Acting, Directory } from '../deciding/index.ts';

/*
 * Between an item as it is stored and a meeting as it is said.
 */
type Timed = Pick<StoredItem, 'start' | 'end' | 'allDay' | 'zone' | 'wall' | 'rule' | 'added' | 'left'>;

/** When an item is, as it is said to others: on the clock of its zone, by a name everybody knows. */
export function timeOf(directory: Directory, item: Timed): MeetingTime {
  const zone = directory.zone(item.zone);
  const text = (ms: number) => (item.allDay ? dateText(ms) : wallText(toWall(zone, ms)));
  return {
    start: item.wall === null ? text(item.start) : wallText(item.wall),
    end: text(item.end),
    allDay: item.allDay,
    zone,
    rule: item.rule,
    added: item.added,
    left: item.left,
  };
}

/** When an occurrence of a series is, as a meeting of its own. */
export function timeOfOccurrence(
  directory: Directory,
  series: Timed,
  occurrence: { readonly start: number; readonly end: number },
): MeetingTime {
  const { start, end } = occurrence;
  return timeOf(directory, { ...series, start, end, wall: null, rule: null, added: [], left: [] });
}

/** A said time as it is stored; `null` for what is no time. */
export function storedTime(time: MeetingTime): (Omit<Timed, 'zone'> & { zone: string; days: number }) | null {
  const read = (text: string) => (time.allDay ? parseDate(text.slice(0, 10)) : parseWall(text));
  const [startWall, endWall] = [read(time.start), read(time.end)];
  if (startWall === null || endWall === null) return null;
  const instant = (wall: number) => (time.allDay ? wall : fromWallLenient(time.zone, wall));
  const [start, end] = [instant(startWall), instant(endWall)];
  const { allDay, zone, rule, added, left } = time;
  const wall = allDay || toWall(zone, start) === startWall ? null : startWall;
  return { start, end: Math.max(start, end), allDay, zone, rule, added, left, wall, days: 0 };
}

/** How a message says who may see what it is about (RFC 5545, 3.8.1.3): `null` for what is public. */
export const classificationOf = (visibility: Visibility): Classification | null =>
  visibility === 'private' ? 'private' : visibility === 'outline' ? 'confidential' : null;

/** What a meeting is about, of what its item holds: nothing of anybody's own copy. */
export const matterOf = (item: StoredItem): MeetingMatter => pick(item, SAID_FIELDS);

/** Where an answer is more than its word: how somebody is asked, and who answered for them. */
function attendee(one: Invited, answer: Attendee['answer'], by: string | null): Attendee {
  return {
    name: one.name,
    // As the directory writes addresses: who is a party is told by them.
    address: one.address.toLowerCase(),
    answer,
    ...(one.role === 'may' ? { role: 'may' as const } : {}),
    ...(one.kind === 'person' ? {} : { kind: one.kind }),
    ...(by === null ? {} : { by }),
  };
}

/** The attendees as the organiser's item has them: those who were asked, with what they answered. */
export const attendeesOf = (meeting: Meeting): Attendee[] =>
  meeting.invited.map((one) => {
    const answer = answerOf(meeting, one.address);
    const given = meeting.given[one.address.toLowerCase()];
    return attendee(one, answer, answer === 'needs-action' ? null : (given?.sentBy ?? null));
  });

/** What an item takes from its organiser: what it is, who is asked, and what its own owner answered. */
export function fieldsFromCopy(copy: Copy, organiserName: string | null) {
  const mine = myAnswer(copy);
  const cancelled = stateOf(copy) === 'cancelled';
  const attendees = (copy.on?.invited ?? []).map((one) =>
    sameAddress(one.address, copy.me)
      ? attendee(one, mine, copy.mine?.sentBy ?? null)
      : attendee(one, one.answer, null),
  );
  const invited = attendees.some((one) => sameAddress(one.address, copy.me));
  return {
    organiser: { name: organiserName, address: copy.organiser },
    attendees,
    ownerInvited: true,
    ownerAnswer: stateOf(copy) === 'information' || (!invited && copy.mine === null && copy.on === null) ? null : mine,
    cancelled,
    sequence: copy.said.sequence,
  };
}

/** Whom an item's attendees stand for, as people to be asked. */
export const invitedFrom = (attendees: readonly Attendee[]): Invited[] =>
  attendees.map(({ name, address, role, kind }) => ({
    name,
    address,
    role: role ?? 'must',
    kind: kind ?? 'person',
  }));

/** A said time as instants, or dates where all day: as whoever reads it shows it. A zone that its file defined is made known first. */
export function timesOf(
  db: Connection,
  time: Pick<MeetingTime, 'start' | 'end' | 'allDay' | 'zone'>,
): { start: string; end: string; allDay: boolean } | null {
  if (time.zone.startsWith('~') && !isDefined(time.zone)) knowZone(db, time.zone);
  const stored = storedTime({ ...time, rule: null, added: [], left: [] });
  if (!stored) return null;
  const text = time.allDay ? dateText : instantText;
  return { start: text(stored.start), end: text(stored.end), allDay: time.allDay };
}

/** A message with the CLASS its item has for its organiser (RFC 5545, 3.8.1.3): what is private there begins private with whoever is asked. */
export function classified(ctx: Acting, meeting: StoredMeeting, message: Message): Message {
  if (!('matter' in message) || meeting.part !== 'organiser' || meeting.itemId === null) return message;
  const classification = classificationOf(itemById(ctx.db, meeting.itemId)?.visibility ?? 'follow');
  return classification ? { ...message, classification } : message;
}
