import ICAL from 'ical.js';
import { LIMITS, VISIBILITIES } from '../../calendar/index.ts';
import {
  ADDRESS_PLACES,
  type CardVersion,
  contactFields,
  PHONE_PLACES,
  type WrittenContact,
} from '../../contacts/index.ts';
import type { UnmodelledLine } from '../ical/unmodelled.ts';
import { type Card, type CardLine, cardLine, cutIntoCards, typesOf, unescaped } from './lines.ts';

/** A contact that was read, with the line its card began on. */
export interface ReadContact extends WrittenContact {
  readonly line: number;
  /** What it is called outside; `null` where it says nothing of that. */
  readonly uid: string | null;
  /** The card version its unmodelled lines are of. */
  readonly version: CardVersion;
  /** Every line of the card that isn't written anew: with the field it says, and what that was, or by itself. */
  readonly kept: readonly UnmodelledLine[];
}

type CardProblem = 'unreadable' | 'unended' | 'nameless' | 'cardVersion' | 'cardTooLarge' | 'twice';
export type ReadCards =
  | { readonly kind: 'notCards' }
  | { readonly kind: 'tooMany' }
  | {
      readonly kind: 'read';
      readonly contacts: readonly ReadContact[];
      readonly problems: readonly {
        readonly code: CardProblem;
        readonly line: number;
        readonly title: string | null;
      }[];
    };

/** Units of one card. */
const MOST_CARD = 300_000;
/** What stands in a card anew each time. */
const OURS = new Set(['VERSION', 'UID', 'PRODID']);

class Refused extends Error {
  constructor(readonly code: CardProblem) {
    super(code);
  }
}

/**
 * Reads the cards of a vCard file (RFC 6350; RFC 2426). Each that can’t be read becomes a problem with its line; the others stand. What has no
 * field here, or is more than a field takes, is kept as it stands. Never throws.
 */
export function readCards(text: string, most: number): ReadCards {
  const cards = cutIntoCards(text, most);
  if (cards === null) return { kind: 'tooMany' };
  if (cards.length === 0) return { kind: 'notCards' };
  const contacts: ReadContact[] = [];
  const problems: { code: CardProblem; line: number; title: string | null }[] = [];
  const uids = new Set<string>();
  for (const card of cards) {
    const title = nameIn(card);
    try {
      const contact = contactOf(card);
      if (contact.uid !== null && uids.has(contact.uid)) throw new Refused('twice');
      if (contact.uid !== null) uids.add(contact.uid);
      contacts.push(contact);
    } catch (error) {
      problems.push({ code: error instanceof Refused ? error.code : 'unreadable', line: card.line, title });
    }
  }
  return { kind: 'read', contacts, problems };
}

const nameIn = (card: Card): string | null => {
  const line = card.lines.map(cardLine).find((one) => one?.name === 'FN');
  return line ? unescaped(line.value).slice(0, 120) : null;
};

function contactOf(card: Card): ReadContact {
  if (card.unended) throw new Refused('unended');
  if (card.lines.reduce((sum, line) => sum + line.length, 0) > MOST_CARD) throw new Refused('cardTooLarge');
  const lines = card.lines.flatMap((line) => cardLine(line) ?? []);
  const version = lines.find(({ name }) => name === 'VERSION')?.value.trim();
  if (version !== '3.0' && version !== '4.0') throw new Refused('cardVersion');
  const reading = new Reading(version, lines);
  const fields = reading.fields();
  const uid =
    lines
      .find(({ name }) => name === 'UID')
      ?.value.trim()
      .slice(0, 400) || null;
  const unmodelled = lines
    .filter(({ name }) => !OURS.has(name))
    .map((line): UnmodelledLine => {
      const of = reading.fieldOf.get(line);
      return of === undefined ? { line: line.line } : { line: line.line, ...of };
    });
  return { ...fields, line: card.line, uid, version, kept: unmodelled };
}

type Said = { readonly of: string; readonly was: string };
/** What a line says of a field, as it is held against what the field is later. */
export const saidOf = (of: string, value: unknown): Said => ({ of, was: JSON.stringify(value) });

class Reading {
  /** Which field each line says, and what it said of it. */
  readonly fieldOf = new Map<CardLine, Said>();
  constructor(
    private readonly version: CardVersion,
    private readonly lines: readonly CardLine[],
  ) {}

  fields(): WrittenContact {
    const role = this.first('TITLE', 'role', (line) => this.text(line, 'role'));
    const organisation = this.first('ORG', 'organisation', (line) =>
      this.text(line, 'organisation', this.parts(line)[0]),
    );
    const place = this.first('ADR', 'place', (line) =>
      this.text(line, 'place', this.parts(line).filter(Boolean).join(', ')),
    );
    const link = this.first('URL', 'link', (line) => this.text(line, 'link'));
    const addresses = this.ways('EMAIL', 'addresses', ADDRESS_PLACES);
    const phones = this.ways('TEL', 'phones', PHONE_PLACES);
    const name = this.name(organisation ?? addresses[0]?.value ?? null);
    const fields: WrittenContact = {
      name,
      role,
      organisation,
      place,
      link,
      addresses,
      phones,
      notes: this.notes(),
      categories: this.categories(),
      visibility: this.visibility(),
    };
    // Another form of the same: it stands as long as what it is another form of.
    for (const other of ['N', 'SORT-STRING']) this.says(this.of(other), 'name', name);
    this.says(this.of('LABEL'), 'place', place);
    return fields;
  }

  private readonly of = (name: string): CardLine[] => this.lines.filter((line) => line.name === name);

  private says(lines: readonly CardLine[], of: string, value: unknown): void {
    for (const line of lines) this.fieldOf.set(line, saidOf(of, value));
  }

  /** What the first line of a name says that fits its field. */
  private first<F extends 'name' | 'role' | 'organisation' | 'place' | 'link'>(
    name: string,
    field: F,
    read: (line: CardLine) => string | null,
  ): string | null {
    for (const line of this.of(name)) {
      const value = read(line);
      if (value === null) continue;
      this.says([line], field, value);
      return value;
    }
    return null;
  }

  /** A text on one line, as its field takes it; `null` where it can’t. */
  private text(line: CardLine, field: keyof typeof contactFields, value = unescaped(line.value)): string | null {
    const plain = (value ?? '').replace(/\s+/g, ' ').trim();
    return plain !== '' && contactFields[field].safeParse(plain).success ? plain : null;
  }

  /** The parts of a value that has several, each as text; none of what can’t be read. */
  private parts(line: CardLine): string[] {
    const card = `BEGIN:VCARD\r\nVERSION:${this.version}\r\n${line.name}:${line.value}\r\nEND:VCARD`;
    let properties: [string, unknown, string, ...unknown[]][];
    try {
      [, properties] = ICAL.parse(card) as unknown as [string, typeof properties];
    } catch {
      return [];
    }
    const value = properties.at(-1)?.[3];
    return [value ?? '']
      .flat()
      .map((part) => (Array.isArray(part) ? part.join(', ') : String(part)).replace(/\s+/g, ' ').trim());
  }

  /** What they are called: as it is written out, or put together, or what they are of. */
  private name(otherwise: string | null): string {
    const written = this.first('FN', 'name', (line) => this.text(line, 'name'));
    if (written !== null) return written;
    const [full] = this.of('FN');
    const [cut] = this.of('N');
    const [family = '', given = '', more = '', before = '', after = ''] = cut ? this.parts(cut) : [];
    const together = [before, given, more, family, after].filter(Boolean).join(' ').slice(0, LIMITS.title);
    const name = together || otherwise;
    if (!name) throw new Refused('nameless');
    if (full) this.says([full], 'name', name);
    return name;
  }

  private ways<F extends 'addresses' | 'phones', W extends string>(
    name: string,
    field: F,
    places: readonly W[],
  ): { readonly value: string; readonly as: W }[] {
    const found: { value: string; as: W }[] = [];
    for (const line of this.of(name)) {
      const value = unescaped(line.value)
        .replace(/^(tel|mailto):/i, '')
        .replace(/\s+/g, ' ')
        .trim();
      const types = typesOf(line).map((word) => (word === 'cell' ? 'mobile' : word));
      const as = (places.toSorted(byUse).find((place) => place !== '' && types.includes(place)) ?? '') as W;
      const known = found.find((one) => one.value === value);
      const way = known ?? { value, as };
      if (value === '' || !contactFields[field].safeParse(known ? found : [...found, way]).success) continue;
      if (!known) found.push(way);
      this.says([line], field, way);
    }
    return found;
  }

  private notes(): string | null {
    const lines = this.of('NOTE');
    const text = lines
      .map((line) => unescaped(line.value).trim())
      .filter(Boolean)
      .join('\n\n');
    if (text === '') return null;
    const notes = text.slice(0, LIMITS.notes);
    // What there is no room for stands in its line as long as the rest is as it was.
    this.says(lines, 'notes', notes);
    return notes;
  }

  private categories(): string[] {
    const lines = this.of('CATEGORIES');
    const all = lines
      .flatMap((line) => line.value.match(/(?:\\.|[^\\,])+/gs) ?? [])
      .map((one) => unescaped(one).replace(/\s+/g, ' ').trim());
    const categories = [...new Set(all.filter((one) => one !== '' && one.length <= LIMITS.category))].slice(
      0,
      LIMITS.categories,
    );
    this.says(lines, 'categories', categories);
    return categories;
  }

  /** Ours wins; of a class that isn’t public it is private. */
  private visibility(): WrittenContact['visibility'] {
    const [own] = this.of('X-PARAMO-VISIBILITY');
    const classes = [...this.of('CLASS'), ...this.of('X-PARAMO-3-CLASS')];
    const said = VISIBILITIES.find((one) => one === own?.value.trim().toLowerCase());
    const visibility = said ?? (classes.some((line) => !/^\s*public\s*$/i.test(line.value)) ? 'private' : 'follow');
    this.says([...(own ? [own] : []), ...classes], 'visibility', visibility);
    return visibility;
  }
}

/** Where a number is both at work and in a pocket, or a fax, that says more than where it belongs. */
const byUse = (a: string, b: string): number =>
  Number(b === 'mobile' || b === 'fax') - Number(a === 'mobile' || a === 'fax');
