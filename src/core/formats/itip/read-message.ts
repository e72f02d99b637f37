import { ANSWERS, type Answer, LIMITS, pick, SAID_FIELDS } from '../../calendar/index.ts';
import type { Message } from '../../meetings/index.ts';
import { parseDate, parseInstant, parseWall } from '../../time/index.ts';
import { type Block, cutIntoBlocks } from '../ical/lines.ts';
import { insideOf, type Property, plainText, propertyOf } from '../ical/property.ts';
import { readCalendar } from '../ical/read.ts';
import type { ReadItem, ReadOptions } from '../ical/read-item.ts';
import { addressOf } from '../ical/unmodelled.ts';
import type { FileZone } from '../ical/zones.ts';

const METHODS = ['REQUEST', 'PUBLISH', 'ADD', 'CANCEL', 'REPLY', 'COUNTER', 'DECLINECOUNTER', 'REFRESH'] as const;
/** Components of one message that are read; a mail that has more is no invitation. */
const MOST = 200;

/** A scheduling message as it was read; `recurrence` is on the clock of `recurrenceZone`, which need not be that of its series. */
export type ReadMessage = Message & { readonly recurrenceZone: string };

/** What a text turned out to be. `unread` counts parts that say nothing an organiser or somebody asked could be told. */
export type ReadMessages =
  | {
      readonly kind: 'messages';
      readonly messages: readonly ReadMessage[];
      readonly unread: number;
      /** Zones that the text defined itself and no named one stands for. */
      readonly zones: readonly FileZone[];
    }
  | { readonly kind: 'notAMessage' };

/**
 * Reads iCalendar text with a METHOD (RFC 5546) into messages, one for each VEVENT that has what its method asks for; `sender` is the
 * address it came from. Never throws; work is bounded. What the mail's own header says of the method counts for nothing.
 */
export function readMessage(
  text: string,
  sender: string,
  to: readonly string[],
  options: Omit<ReadOptions, 'most'>,
): ReadMessages {
  const cut = cutIntoBlocks(text, MOST);
  const stated = cut.header
    .map(propertyOf)
    .find((p) => p?.name === 'METHOD')
    ?.value.trim()
    .toUpperCase();
  const method = METHODS.find((m) => m === stated);
  if (!cut.isCalendar || !method || cut.cut) return { kind: 'notAMessage' };
  const read = readCalendar(text, { ...options, most: MOST });
  const items = read.kind === 'read' ? read.items : [];
  const events = cut.blocks.filter((b) => b.name === 'VEVENT');
  const messages = events.flatMap((block) => oneMessage(block, method, items, sender, to, options.zone) ?? []);
  const zones = read.kind === 'read' ? read.zones : [];
  return { kind: 'messages', messages, unread: events.length - messages.length, zones };
}

function oneMessage(
  block: Block,
  method: (typeof METHODS)[number],
  items: readonly ReadItem[],
  sender: string,
  to: readonly string[],
  floating: string,
): ReadMessage | null {
  const { properties } = insideOf(block.text);
  const all = (name: string) => properties.filter((p) => p.name === name);
  const value = (name: string) => all(name)[0]?.value.trim() ?? '';
  const uid = unescaped(value('UID')).slice(0, 400);
  const organiserLine = all('ORGANIZER')[0];
  const organiser = organiserLine && partyOf(organiserLine);
  if (uid === '' || !organiser) return null;
  const recurrence = recurrenceOf(all('RECURRENCE-ID')[0], floating);
  if (recurrence === 'unclear') return null;
  const item = items.find(
    (i) => i.uid === uid && (i.recurrence === null) === (recurrence === null) && i.line === block.line,
  );
  const attendees = all('ATTENDEE').slice(0, LIMITS.attendees);
  const about = {
    uid,
    recurrence: item && recurrence ? item.recurrence : (recurrence?.text ?? null),
    recurrenceZone: item && recurrence ? item.recurrenceZone : (recurrence?.zone ?? 'UTC'),
    organiser: organiser.address,
    sender,
    sequence: Math.max(0, Math.min(1_000_000_000, Math.trunc(Number(value('SEQUENCE')) || 0))),
    stamp: parseInstant(utcText(value('DTSTAMP'))) ?? 0,
    to,
  };
  const byOrganiser = { ...about, sentBy: sentByOf(organiserLine) };
  const comment = unescaped(value('COMMENT')).slice(0, LIMITS.notes) || null;
  switch (method) {
    case 'REQUEST':
    case 'PUBLISH':
    case 'ADD': {
      if (!item || (method !== 'PUBLISH' && attendees.length === 0)) return null;
      const matter = pick(item, SAID_FIELDS);
      const invited = attendees.flatMap((p) => {
        const party = partyOf(p);
        const [from, to] = [otherOf(p, 'DELEGATED-FROM'), sentInsteadBy(p)];
        const instead = { ...(from ? { delegatedFrom: from } : {}), ...(to ? { delegatedTo: to } : {}) };
        return party ? [{ ...party, role: roleOf(p), kind: kindOf(p), answer: answerOf(p), ...instead }] : [];
      });
      const mark =
        item.visibility === 'private'
          ? { classification: 'private' as const }
          : item.visibility === 'outline'
            ? { classification: 'confidential' as const }
            : {};
      return { ...byOrganiser, method, time: timeOf(item), matter, invited, ...mark };
    }
    case 'CANCEL':
      return { ...byOrganiser, method };
    case 'DECLINECOUNTER':
      return { ...byOrganiser, method, comment };
    case 'REPLY':
    case 'COUNTER':
    case 'REFRESH': {
      // Exactly one answers, asks or proposes; a counter-proposal may name the others too, and whoever sends somebody instead names them.
      const line =
        attendees.length === 1
          ? attendees[0]
          : attendees.find((p) => partyOf(p)?.address.toLowerCase() === sender.toLowerCase());
      const attendee = line && partyOf(line)?.address;
      const to = line && method === 'REPLY' ? sentInsteadBy(line) : null;
      const others = attendees.filter((p) => p !== line);
      const instead =
        to === null ? undefined : others.find((p) => partyOf(p)?.address.toLowerCase() === to.toLowerCase());
      const alone = others.length === 0 || (others.length === 1 && instead !== undefined);
      if (!line || !attendee || (method !== 'COUNTER' && !alone)) return null;
      const byThem = { ...about, sentBy: sentByOf(line), attendee };
      if (method === 'REFRESH') return { ...byThem, method };
      if (method === 'REPLY') {
        const from = otherOf(line, 'DELEGATED-FROM');
        const name = (instead && partyOf(instead)?.name) ?? null;
        return {
          ...byThem,
          method,
          answer: answerOf(line),
          comment,
          ...(to === null ? {} : { delegatedTo: { address: to, name } }),
          ...(from ? { delegatedFrom: from } : {}),
        };
      }
      return item ? { ...byThem, method, time: timeOf(item), comment } : null;
    }
    default:
      return method satisfies never;
  }
}

const timeOf = ({ start, end, allDay, zone, rule, added, left }: ReadItem) => ({
  start,
  end,
  allDay,
  zone,
  rule,
  added,
  left,
});

/** Which occurrence a message speaks of, on its own clock; `null` for the whole, `unclear` for what can't be read. */
function recurrenceOf(
  property: Property | undefined,
  floating: string,
): { text: string; zone: string } | 'unclear' | null {
  if (!property) return null;
  if (property.params.has('RANGE')) return 'unclear';
  const { value } = property;
  const date = /^(\d{4})(\d{2})(\d{2})$/.exec(value);
  const text = date ? `${date[1]}-${date[2]}-${date[3]}` : utcText(value).replace(/Z$/, '');
  if (date ? parseDate(text) === null : parseWall(text) === null) return 'unclear';
  const zone = value.endsWith('Z') ? 'UTC' : (property.params.get('TZID') ?? floating);
  return { text, zone };
}

/** `20270303T100000Z` as `2027-03-03T10:00:00Z`; anything else as it is. */
const utcText = (value: string): string =>
  value.replace(/^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})(Z?)$/, '$1-$2-$3T$4:$5:$6$7');

const unescaped = (text: string): string =>
  plainText(text.replace(/\\([\\;,nN])/g, (_, c: string) => (c === 'n' || c === 'N' ? '\n' : c))).trim();

function partyOf(p: Property): { address: string; name: string | null } | null {
  const address = plainText(addressOf(p.value)).trim();
  if (address === '' || address.length > LIMITS.address) return null;
  const name = plainText(p.params.get('CN') ?? '')
    .replace(/\s+/g, ' ')
    .trim();
  return { address, name: name.slice(0, LIMITS.name) || null };
}

/** The first address a parameter names; empty where there is none. In it stands no space, line break or quote, however it was written. */
const addressIn = (p: Property, name: string): string =>
  addressOf((p.params.get(name)?.split(',')[0] ?? '').replace(/[\s"]/g, ''));

const sentByOf = (p: Property): string | null => addressIn(p, 'SENT-BY') || null;

const otherOf = (p: Property, name: string): string | null => {
  const address = addressIn(p, name);
  return address === '' || address.length > LIMITS.address ? null : address;
};

/** Whom somebody sends instead of themselves: it takes both the word and the address. */
const sentInsteadBy = (p: Property): string | null =>
  p.params.get('PARTSTAT')?.toUpperCase() === 'DELEGATED' ? otherOf(p, 'DELEGATED-TO') : null;

/** Whoever sends somebody else instead doesn't come themselves. */
const answerOf = (p: Property): Answer => {
  if (sentInsteadBy(p) !== null) return 'declined';
  return ANSWERS.find((a) => a === p.params.get('PARTSTAT')?.toLowerCase()) ?? 'needs-action';
};
const roleOf = (p: Property) =>
  p.params.get('ROLE')?.toUpperCase() === 'OPT-PARTICIPANT' ? ('may' as const) : ('must' as const);
const kindOf = (p: Property) =>
  (({ GROUP: 'group', ROOM: 'room', RESOURCE: 'thing' }) as const)[p.params.get('CUTYPE')?.toUpperCase() as 'ROOM'] ??
  ('person' as const);
