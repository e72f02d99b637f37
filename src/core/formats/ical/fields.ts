import type ICAL from 'ical.js';
import {
  ANSWERS,
  type Answer,
  type Attendee,
  FILED_FIELDS,
  type FiledField,
  LIMITS,
  type Party,
  specOf,
  type WrittenFields,
} from '../../calendar/index.ts';
import { type Property, plainText, textsOf } from './property.ts';
import { addressOf } from './unmodelled.ts';

type Remark = (code: 'truncatedText' | 'manyPeople', fact: string) => void;

/** What an item says of itself beside its times, cut to the limits of its fields; what is cut is remarked on. `properties` are its lines as they stand. */
export function fieldsOf(event: ICAL.Component, properties: readonly Property[], remark: Remark) {
  const status = textOf(event, 'status')?.trim().toUpperCase();
  const attendees = event.getAllProperties('attendee');
  if (attendees.length > LIMITS.attendees) remark('manyPeople', String(LIMITS.attendees));
  const filed = Object.fromEntries(FILED_FIELDS.map((name) => [name, readField(event, properties, name, remark)]));
  return {
    ...(filed as Pick<WrittenFields, FiledField>),
    ...(textOf(event, 'x-paramo-visibility') === null ? {} : { saysWho: true as const }),
    cancelled: status === 'CANCELLED',
    organiser: partyOf(event.getFirstProperty('organizer')),
    attendees: attendees.slice(0, LIMITS.attendees).flatMap((p): Attendee[] => {
      const party = partyOf(p);
      const answer = oneOf(ANSWERS, String(p.getFirstParameter('partstat') ?? '').toLowerCase()) ?? 'needs-action';
      const may = paramOf(p, 'role') === 'OPT-PARTICIPANT' ? { role: 'may' as const } : {};
      return party ? [{ ...party, answer: answer as Answer, ...may }] : [];
    }),
    // Whoever wrote the text invites these themselves, or nobody does (RFC 6638 7.1).
    unasked: attendees
      .slice(0, LIMITS.attendees)
      .flatMap((p) => (/^(?:NONE|CLIENT)$/.test(paramOf(p, 'schedule-agent')) ? (partyOf(p)?.address ?? []) : [])),
  };
}

const paramOf = (property: ICAL.Property, name: string): string =>
  String(property.getFirstParameter(name) ?? '').toUpperCase();

/** Fields that the standard's own properties say something of, whether or not ours is there. */
const BY_STANDARD: { readonly [K in FiledField]?: (event: ICAL.Component) => WrittenFields[K] | null } = {
  shows: (event) => {
    if (textOf(event, 'transp')?.trim().toUpperCase() === 'TRANSPARENT') return 'free';
    return textOf(event, 'status')?.trim().toUpperCase() === 'TENTATIVE' ? 'tentative' : 'busy';
  },
  importance: (event) => {
    const priority = Number(textOf(event, 'priority') ?? 0);
    return priority >= 1 && priority <= 4 ? 'high' : priority >= 6 ? 'low' : 'normal';
  },
  // A class that is public or none follows, and any other is private (RFC 5545 3.8.1.3).
  visibility: (event) => {
    const klass = textOf(event, 'class')?.trim().toUpperCase() ?? '';
    return klass === '' || klass === 'PUBLIC' ? 'follow' : 'private';
  },
};

/** One field from the property it stands in; our own value wins over what the standard's properties say. */
function readField(event: ICAL.Component, properties: readonly Property[], name: FiledField, remark: Remark): unknown {
  const spec = specOf(name);
  const property = (spec.file ?? '').toLowerCase();
  const text = spec.type === 'list' ? null : textOf(event, property);
  const cut = (max: number, oneLine: boolean): string | null => {
    if (text === null) return null;
    const plain = clean(text, oneLine);
    if (plain.length > max) remark('truncatedText', String(max));
    return plain.slice(0, max) || null;
  };
  switch (spec.type) {
    case 'line':
      return cut(spec.most, true) ?? (spec.required ? '(no title)' : null);
    case 'text':
      return cut(spec.most, false);
    case 'link': {
      const url = text?.trim() ?? '';
      return /^https?:\/\/[^\s/]+/i.test(url) && url.length <= spec.most ? plainText(url) : null;
    }
    case 'choice':
      return oneOf(spec.of, text?.trim().toLowerCase()) ?? BY_STANDARD[name]?.(event) ?? spec.fresh;
    case 'list':
      return properties
        .filter((p) => p.name === spec.file)
        .flatMap(textsOf)
        .map((c) => clean(c, true).slice(0, spec.each))
        .filter(Boolean)
        .slice(0, spec.most);
    case 'flag':
      return text?.trim().toUpperCase() === 'TRUE';
    default:
      return null;
  }
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
