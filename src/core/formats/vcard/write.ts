import ICAL from 'ical.js';
import type { CardVersion, WrittenContact } from '../../contacts/index.ts';
import { wallText } from '../../time/index.ts';
import { fold, plainText } from '../ical/property.ts';
import type { UnmodelledLine } from '../ical/unmodelled.ts';
import { unfolded } from './lines.ts';
import { saidOf } from './read.ts';
import { inVersion } from './versions.ts';

/** A contact as it is written. */
export interface WrittenCard extends WrittenContact {
  readonly uid: string;
  /** Lines it was read with, and the version they are of. */
  readonly version: CardVersion;
  readonly kept: readonly UnmodelledLine[];
  /** When it was last changed, epoch milliseconds; `null`: not since it was read. */
  readonly changedAt: number | null;
}

/**
 * Writes contacts as vCard text of a version, lines folded at 75 octets. What was read stands as it stood, in its order, as long as the field it
 * says is what it was; the rest follows.
 */
export function writeCards(contacts: readonly WrittenCard[], version: CardVersion): string {
  const lines = contacts.flatMap((contact) => [
    'BEGIN:VCARD',
    `VERSION:${version}`,
    'PRODID:-//Paramo//Contacts//EN',
    `UID:${plainText(contact.uid).replace(/\n/g, ' ')}`,
    ...bodyOf(contact, version),
    'END:VCARD',
  ]);
  return lines.map((line) => `${fold(line)}\r\n`).join('');
}

function bodyOf(contact: WrittenCard, version: CardVersion): string[] {
  const own = ownLines(contact, version);
  const saying = new Set(own.map(({ of, was }) => `${of} ${was}`));
  const covered = new Set<string>();
  const unmodelled = contact.kept.flatMap(({ line, of, was }) => {
    if (of !== undefined && !saying.has(`${of} ${was}`)) return [];
    if (of !== undefined) covered.add(`${of} ${was}`);
    if (/^(?:[\w-]+\.)?REV[;:]/i.test(line) && contact.changedAt !== null) return [];
    return [inVersion(line, contact.version, version)];
  });
  return [...unmodelled, ...own.filter(({ of, was }) => !covered.has(`${of} ${was}`)).flatMap(({ lines }) => lines)];
}

/** What a card says of each field, with what that is held against. */
interface Own {
  readonly of: string;
  readonly was: string;
  readonly lines: readonly string[];
}
type Json = [string, Record<string, string>, string, ...unknown[]];

function ownLines(contact: WrittenCard, version: CardVersion): Own[] {
  const text = (value: string) => plainText(value);
  const own = (of: string, value: unknown, ...said: Json[]): Own => ({
    ...saidOf(of, value),
    lines: linesOf(said, version),
  });
  const said = (value: string | null, as: (value: string) => Json): Json[] => (value === null ? [] : [as(text(value))]);
  const listed = (values: readonly string[]): Json => ['categories', {}, 'text', ...values.map(text)];
  const { name, role, organisation, place, link, notes, categories, visibility } = contact;
  // Who goes by one name has no other; of several the last is taken for that of the family.
  const words = text(name).split(' ');
  const family = words.length > 1 ? (words.pop() ?? '') : '';
  const cut: Json = ['n', {}, 'text', [family, words.join(' '), '', '', '']];
  const plain = (property: string, value: string): Json => [property, {}, 'text', text(value)];
  return [
    own('name', name, plain('fn', name), cut),
    own('role', role, ...said(role, (text) => ['title', {}, 'text', text])),
    own('organisation', organisation, ...said(organisation, (text) => ['org', {}, 'text', [text]])),
    own('place', place, ...said(place, (text) => ['adr', {}, 'text', ['', '', text, '', '', '', '']])),
    ...contact.addresses.map((way) =>
      own('addresses', way, ['email', way.as ? { type: way.as } : {}, 'text', text(way.value)]),
    ),
    ...contact.phones.map((way) => own('phones', way, ['tel', typed(way.as), 'text', text(way.value)])),
    own('link', link, ...said(link, (text) => ['url', {}, 'uri', text])),
    own('notes', notes, ...said(notes, (text) => ['note', {}, 'text', text])),
    own('categories', categories, ...(categories.length === 0 ? [] : [listed(categories)])),
    own(
      'visibility',
      visibility,
      ...(visibility === 'follow' ? [] : [plain('x-paramo-visibility', visibility)]),
      ...(visibility === 'private' && version === '3.0' ? [plain('class', 'PRIVATE')] : []),
    ),
    ...(contact.changedAt === null
      ? []
      : [{ of: 'rev', was: '', lines: [`REV:${stamp(contact.changedAt, version)}`] }]),
  ];
}

const typed = (as: string): Record<string, string> => (as === '' ? {} : { type: as === 'mobile' ? 'cell' : as });

const stamp = (at: number, version: CardVersion): string => {
  const text = `${wallText(at)}Z`;
  return version === '4.0' ? text.replace(/[-:]/g, '') : text;
};

/** Properties as content lines of a version, unfolded. */
function linesOf(properties: readonly Json[], version: CardVersion): string[] {
  if (properties.length === 0) return [];
  const card = ['vcard', [['version', {}, 'text', version], ...properties], []];
  return unfolded(ICAL.stringify(card as never)).slice(2, -1);
}
