import ICAL from 'ical.js';
import type { Party } from '../../calendar/index.ts';
import { instantText, merged, type Span } from '../../time/index.ts';
import { fold, plainText } from './property.ts';
import { addParty } from './write-event.ts';

/** An occurrence as somebody sees it: what their sight lacks isn't there. Times are instants or, where `allDay`, dates. */
export interface SeenOccurrence {
  readonly id: string;
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly shows: 'free' | 'reachable' | 'tentative' | 'busy' | 'away';
  readonly withheld?: true | undefined;
  readonly title?: string | null | undefined;
  readonly place?: string | null | undefined;
  readonly notes?: string | null | undefined;
  readonly link?: string | null | undefined;
  readonly categories?: readonly string[] | null | undefined;
  readonly organiser?: Party | null | undefined;
  readonly attendees?:
    | readonly (Party & { readonly answer: string; readonly role?: 'may' | undefined })[]
    | null
    | undefined;
}

/** What a block without words is called, in the reader's language. */
export interface BlockWords {
  readonly busy: string;
  readonly tentative: string;
  readonly away: string;
  readonly reachable: string;
  readonly free: string;
  readonly withheld: string;
}

/** The free/busy type of each status (RFC 5545 3.2.9); free time is none, and a type of our own is BUSY to whoever doesn't know it. */
const TYPE = {
  busy: 'BUSY',
  tentative: 'BUSY-TENTATIVE',
  away: 'BUSY-UNAVAILABLE',
  reachable: 'X-PARAMO-REACHABLE',
} as const;

const basic = (instant: string): string => instant.replace(/[-:]/g, '').replace(/\.\d+/, '');

/**
 * The lines of one occurrence, from BEGIN to END, unfolded: what is seen of it and nothing else. `uid` is what it is called outside;
 * below full sight an id that says nothing. `stamp` is when this was written, as an instant.
 */
export function seenLines(seen: SeenOccurrence, uid: string, stamp: string, words: BlockWords): string[] {
  const event = new ICAL.Component('vevent');
  const put = (name: string, value: string) =>
    event.addProperty(new ICAL.Property([name, {}, 'text', plainText(value)]));
  const time = (name: string, text: string) => {
    const p = new ICAL.Property(name, event);
    p.setValue(seen.allDay ? ICAL.Time.fromDateString(text.slice(0, 10)) : ICAL.Time.fromDateTimeString(text));
    event.addProperty(p);
  };
  put('uid', uid);
  event.addPropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(stamp));
  time('dtstart', seen.start);
  if (seen.end !== seen.start) time('dtend', seen.end);
  put('summary', seen.withheld ? words.withheld : (seen.title ?? words[seen.shows]));
  if (seen.place) put('location', seen.place);
  if (seen.notes) put('description', seen.notes);
  if (seen.link) event.addPropertyWithValue('url', seen.link);
  if (seen.categories && seen.categories.length > 0) {
    const p = new ICAL.Property('categories', event);
    p.setValues(seen.categories.map(plainText));
    event.addProperty(p);
  }
  put('transp', seen.shows === 'free' ? 'TRANSPARENT' : 'OPAQUE');
  if (seen.shows === 'tentative') put('status', 'TENTATIVE');
  if (seen.withheld) put('class', 'PRIVATE');
  if (seen.organiser) addParty(event, 'organizer', seen.organiser);
  for (const attendee of seen.attendees ?? [])
    addParty(event, 'attendee', attendee).setParameter('partstat', attendee.answer.toUpperCase());
  return event
    .toString()
    .replace(/\r\n[ \t]/g, '')
    .split('\r\n');
}

/** A calendar of lines as text (RFC 5545), folded at 75 octets. `about` is said of the whole. */
export function calendarText(
  lines: readonly string[],
  about: {
    readonly name?: string;
    readonly zone?: string;
    readonly says?: string;
    readonly every?: string;
    /** What a message asks for or says (RFC 5546). */
    readonly method?: string;
  },
): string {
  const x = (name: string, value: string | undefined) =>
    value === undefined
      ? []
      : [
          `${name}:${plainText(value)
            .replace(/[\\;,]/g, '\\$&')
            .replace(/\n/g, '\\n')}`,
        ];
  const all = [
    'BEGIN:VCALENDAR',
    'PRODID:-//Paramo//Calendar//EN',
    'VERSION:2.0',
    ...x('METHOD', about.method),
    ...x('X-WR-CALNAME', about.name),
    ...x('NAME', about.name),
    ...x('X-WR-TIMEZONE', about.zone),
    ...x('X-WR-CALDESC', about.says),
    // How often a program does well to ask again (RFC 7986 5.7).
    ...(about.every ? [`REFRESH-INTERVAL;VALUE=DURATION:${about.every}`] : []),
    ...lines,
    'END:VCALENDAR',
  ];
  return all.map((line) => `${fold(line)}\r\n`).join('');
}

/**
 * When somebody is taken between two instants, as the lines of a VFREEBUSY (RFC 5545 3.6.4): per type sorted periods in UTC that neither
 * overlap nor touch, cut to the range. All times in epoch milliseconds.
 */
export function freeBusyLines(
  taken: readonly { readonly span: Span; readonly shows: SeenOccurrence['shows'] }[],
  range: Span,
  stamp: string,
  uid: string,
): string[] {
  const text = (ms: number) => basic(instantText(ms));
  const lines = (Object.keys(TYPE) as (keyof typeof TYPE)[]).flatMap((shows) =>
    merged(
      taken
        .filter((p) => p.shows === shows)
        .map(({ span }): Span => [Math.max(span[0], range[0]), Math.min(span[1], range[1])]),
    ).map(([from, to]) => ({ from, line: `FREEBUSY;FBTYPE=${TYPE[shows]}:${text(from)}/${text(to)}` })),
  );
  return [
    'BEGIN:VFREEBUSY',
    `UID:${uid}`,
    `DTSTAMP:${basic(stamp)}`,
    `DTSTART:${text(range[0])}`,
    `DTEND:${text(range[1])}`,
    ...lines.sort((a, b) => a.from - b.from).map(({ line }) => line),
    'END:VFREEBUSY',
  ];
}
