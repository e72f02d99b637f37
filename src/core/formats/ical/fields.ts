import type ICAL from 'ical.js';
import {
  ANSWERS,
  type Answer,
  type Attendee,
  type Importance,
  KINDS,
  type Kind,
  LIMITS,
  type Party,
  STATUSES,
  type Status,
  VISIBILITIES,
  type Visibility,
} from '../../calendar/index.ts';
import { addressOf } from './kept.ts';
import { plainText } from './property.ts';

type Remark = (code: 'truncatedText' | 'manyPeople', fact: string) => void;

/** What an item says of itself beside its times, cut to the limits of its fields; what is cut is remarked on. */
export function fieldsOf(event: ICAL.Component, remark: Remark) {
  const cut = (text: string | null, max: number, oneLine: boolean): string | null => {
    if (text === null) return null;
    const plain = clean(text, oneLine);
    if (plain.length > max) remark('truncatedText', String(max));
    return plain.slice(0, max) || null;
  };
  const priority = Number(textOf(event, 'priority') ?? 0);
  const url = textOf(event, 'url')?.trim() ?? null;
  const status = textOf(event, 'status')?.trim().toUpperCase();
  const transparent = textOf(event, 'transp')?.trim().toUpperCase() === 'TRANSPARENT';
  const shows: Status =
    oneOf(STATUSES, textOf(event, 'x-paramo-shows')?.toLowerCase()) ??
    (transparent ? 'free' : status === 'TENTATIVE' ? 'tentative' : 'busy');
  const attendees = event.getAllProperties('attendee');
  if (attendees.length > LIMITS.attendees) remark('manyPeople', String(LIMITS.attendees));
  return {
    title: cut(textOf(event, 'summary'), LIMITS.title, true) || '(no title)',
    kind: oneOf(KINDS, textOf(event, 'x-paramo-kind')?.toLowerCase()) ?? ('meeting' as Kind),
    place: cut(textOf(event, 'location'), LIMITS.place, true),
    notes: cut(textOf(event, 'description'), LIMITS.notes, false),
    link: url && /^https?:\/\/[^\s/]+/i.test(url) && url.length <= LIMITS.link ? plainText(url) : null,
    categories: event
      .getAllProperties('categories')
      .flatMap((p) => p.getValues() as string[])
      .map((c) => clean(String(c), true).slice(0, LIMITS.category))
      .filter(Boolean)
      .slice(0, LIMITS.categories),
    importance: (priority >= 1 && priority <= 4 ? 'high' : priority >= 6 ? 'low' : 'normal') as Importance,
    shows,
    visibility: visibilityOf(event),
    ...(textOf(event, 'x-paramo-visibility') === null ? {} : { saysWho: true as const }),
    cancelled: status === 'CANCELLED',
    organiser: partyOf(event.getFirstProperty('organizer')),
    attendees: attendees.slice(0, LIMITS.attendees).flatMap((p): Attendee[] => {
      const party = partyOf(p);
      const answer = oneOf(ANSWERS, String(p.getFirstParameter('partstat') ?? '').toLowerCase()) ?? 'needs-action';
      return party ? [{ ...party, answer: answer as Answer }] : [];
    }),
  };
}

/** Our own value wins; otherwise a class that is public or none follows, and any other is private (RFC 5545 3.8.1.3). */
function visibilityOf(event: ICAL.Component): Visibility {
  const own = oneOf(VISIBILITIES, textOf(event, 'x-paramo-visibility')?.trim().toLowerCase());
  if (own) return own;
  const klass = textOf(event, 'class')?.trim().toUpperCase() ?? '';
  return klass === '' || klass === 'PUBLIC' ? 'follow' : 'private';
}

export function textOf(event: ICAL.Component, name: string): string | null {
  let value: unknown = null;
  try {
    value = event.getFirstPropertyValue(name);
  } catch {
    // A value the parser can't make anything of says nothing.
  }
  return value === null || value === undefined ? null : String(value);
}

function clean(text: string, oneLine: boolean): string {
  const plain = plainText(text);
  return oneLine ? plain.replace(/\s+/g, ' ').trim() : plain.trim();
}

function oneOf<T extends string>(list: readonly T[], value: string | null | undefined): T | null {
  return list.find((x) => x === value) ?? null;
}

/** Whom a property names. An address that isn't a mail address is kept as it is: it is shown, and never written to. */
function partyOf(property: ICAL.Property | null): Party | null {
  if (!property) return null;
  const raw = (property.toJSON() as unknown[])[3];
  const address = clean(addressOf(typeof raw === 'string' ? raw : ''), true);
  if (address === '' || address.length > LIMITS.address) return null;
  const cn = property.getFirstParameter('cn');
  return { address, name: cn ? clean(String(cn), true).slice(0, LIMITS.name) || null : null };
}
