import ICAL from 'ical.js';
import { SAID_FIELDS } from '../../calendar/index.ts';
import { type Message, sameAddress } from '../../meetings/index.ts';
import { parseDate, parseWall, wallText } from '../../time/index.ts';
import { fold, plainText } from '../ical/property.ts';
import { addParty, putField, putTime, putTimes } from '../ical/write-event.ts';
import { zoneLines } from '../ical/write-zone.ts';

/** What a message's text needs beside the message: the organiser's name, and of an occurrence the clock its series is on. */
export interface MessageContext {
  readonly organiserName: string | null;
  readonly series?: { readonly zone: string; readonly allDay: boolean };
}

const ROLES = { must: 'REQ-PARTICIPANT', may: 'OPT-PARTICIPANT' } as const;
const CLASSES = { private: 'PRIVATE', confidential: 'CONFIDENTIAL' } as const;
const KINDS = { person: 'INDIVIDUAL', group: 'GROUP', room: 'ROOM', thing: 'RESOURCE' } as const;

/**
 * Writes a scheduling message as iCalendar text (RFC 5546, section 3.2, by the table of its method), lines folded at 75 octets. It says
 * what the meeting is, with its organiser's CLASS where that isn't public, and nothing of anybody's own copy: no status, category or briefing.
 */
export function writeMessage(message: Message, { organiserName, series }: MessageContext): string {
  const event = new ICAL.Component('vevent');
  const put = (name: string, value: string) =>
    event.addProperty(new ICAL.Property([name, {}, 'text', plainText(value)]));
  put('uid', message.uid);
  event.addPropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(`${wallText(message.stamp)}Z`));
  event.addPropertyWithValue('sequence', message.sequence);
  const byOrganiser = sameAddress(message.sender, message.organiser);
  const organiser = addParty(event, 'organizer', { address: message.organiser, name: organiserName });
  if (byOrganiser && message.sentBy !== null) organiser.setParameter('sent-by', `mailto:${message.sentBy}`);
  const attendee = (address: string, name: string | null) => addParty(event, 'attendee', { address, name });
  const zones = new Map<string, number>();
  const onClock = (zone: string, allDay: boolean, text: string) => {
    if (allDay || zone === 'UTC') return;
    const at = parseWall(text) ?? parseDate(text) ?? 0;
    zones.set(zone, Math.min(zones.get(zone) ?? Number.POSITIVE_INFINITY, at));
  };
  if ('time' in message) {
    const { time } = message;
    const within = series === undefined ? {} : { series };
    const length = { days: 0, ms: (parseWall(time.end) ?? 0) - (parseWall(time.start) ?? 0) };
    putTimes(event, { ...time, recurrence: message.recurrence, length, ...within });
    for (const text of [time.start, ...time.added]) onClock(time.zone, time.allDay, text);
  } else if (message.recurrence !== null) putTime(event, 'recurrence-id', message.recurrence, series ?? UTC);
  if (message.recurrence !== null && series) onClock(series.zone, series.allDay, message.recurrence);

  switch (message.method) {
    case 'REQUEST':
    case 'PUBLISH':
    case 'ADD': {
      for (const name of SAID_FIELDS) putField(event, name, message.matter[name]);
      put('status', 'CONFIRMED');
      if (message.classification) put('class', CLASSES[message.classification]);
      // What is published is for information: nobody is asked.
      if (message.method === 'PUBLISH') break;
      for (const one of message.invited) {
        const p = attendee(one.address, one.name);
        p.setParameter('cutype', KINDS[one.kind]);
        p.setParameter('role', ROLES[one.role]);
        p.setParameter('partstat', one.delegatedTo ? 'DELEGATED' : one.answer.toUpperCase());
        if (one.delegatedTo) p.setParameter('delegated-to', `mailto:${one.delegatedTo}`);
        if (one.delegatedFrom) p.setParameter('delegated-from', `mailto:${one.delegatedFrom}`);
        if (one.answer === 'needs-action') p.setParameter('rsvp', 'TRUE');
      }
      break;
    }
    case 'CANCEL':
      for (const address of message.to) attendee(address, null);
      put('status', 'CANCELLED');
      break;
    case 'REPLY':
    case 'COUNTER':
    case 'REFRESH': {
      const p = attendee(message.attendee, null);
      if (message.sentBy !== null) p.setParameter('sent-by', `mailto:${message.sentBy}`);
      if (message.method === 'REPLY') {
        p.setParameter('partstat', message.answer.toUpperCase());
        if (message.delegatedFrom) p.setParameter('delegated-from', `mailto:${message.delegatedFrom}`);
      }
      // A counter-proposal has to say what it is about; the organiser knows.
      if (message.method === 'COUNTER') put('summary', '');
      if (message.method !== 'REFRESH' && message.comment) put('comment', message.comment);
      break;
    }
    case 'DECLINECOUNTER':
      for (const address of message.to) attendee(address, null);
      if (message.comment) put('comment', message.comment);
      break;
    default:
      message satisfies never;
  }
  const lines = [
    'BEGIN:VCALENDAR',
    'PRODID:-//Paramo//Calendar//EN',
    'VERSION:2.0',
    `METHOD:${message.method}`,
    ...[...zones].flatMap(([zone, from]) => zoneLines(zone, from)),
    ...event
      .toString()
      .replace(/\r\n[ \t]/g, '')
      .split('\r\n'),
    'END:VCALENDAR',
  ];
  return lines.map((line) => `${fold(line)}\r\n`).join('');
}

const UTC = { zone: 'UTC', allDay: false } as const;
