import { FILED_FIELDS, type FiledField, specOf, type WrittenFields } from '../../calendar/index.ts';
import { insideOf, type Property, plainText, propertyOf, withoutParameter } from './property.ts';

/**
 * Something a file said of an item that isn't modelled, as it came: a content line, or a component within it. `of` names the field
 * it depends on and `was` that field's value then: written back only while it still is.
 */
export interface UnmodelledLine {
  readonly line: string;
  readonly of?: string;
  readonly was?: string;
}

/** What the fields of an item are, as far as unmodelled lines depend on them. */
export interface UnmodelledFields extends Pick<WrittenFields, FiledField> {
  readonly cancelled: boolean;
  readonly organiser: { readonly address: string; readonly name: string | null } | null;
  readonly attendees: readonly {
    readonly address: string;
    readonly name: string | null;
    readonly answer: string;
    readonly role?: 'may' | undefined;
  }[];
  /** Whether anything was changed since it was read. */
  readonly touched: boolean;
}

/** Properties whose meaning is in an item's times and identity: written anew, never kept. */
const OURS = new Set([
  'UID',
  'DTSTAMP',
  'SEQUENCE',
  'DTSTART',
  'DTEND',
  'DURATION',
  'RRULE',
  'EXRULE',
  'RDATE',
  'EXDATE',
  'RECURRENCE-ID',
]);

/** The most of what a file said of one item that is kept, in UTF-16 units. */
const MOST_KEPT = 32_000;

const DEPENDS: Record<string, (fields: UnmodelledFields) => unknown> = {
  ...Object.fromEntries(FILED_FIELDS.map((name) => [specOf(name).file ?? '', (f: UnmodelledFields) => f[name]])),
  GEO: (f) => f.place,
  CLASS: (f) => f.visibility,
  TRANSP: (f) => f.shows,
  STATUS: (f) => [f.shows, f.cancelled],
  ORGANIZER: (f) => f.organiser,
  'LAST-MODIFIED': (f) => f.touched,
};

/** The address that an ORGANIZER's or ATTENDEE's value stands for: a mail address without its scheme, any other as it is. */
export function addressOf(value: string): string {
  const mail = /^\s*mailto:(.+)$/i.exec(value)?.[1] ?? (/^\s*[^\s@:]+@[^\s@:]+\s*$/.test(value) ? value : null);
  return mail === null ? value.trim() : mail.trim().toLowerCase();
}

/** What a property depends on: a field's name for the record, and its value; `null` for nothing. */
function dependence({ name, value }: Property): { of: string; read: (f: UnmodelledFields) => unknown } | null {
  if (name === 'ATTENDEE') {
    const address = addressOf(value);
    return { of: `ATTENDEE ${address}`, read: (f) => f.attendees.find((a) => a.address === address) ?? null };
  }
  const read = DEPENDS[name];
  if (read) return { of: name, read };
  // Text that repeats the notes in another form.
  if (/^X-.*DESC/.test(name))
    return { of: 'DESCRIPTION', read: DEPENDS.DESCRIPTION as (f: UnmodelledFields) => unknown };
  return null;
}

const text = (value: unknown): string => JSON.stringify(value ?? null);

/**
 * Picks out of an item's block what our own lines for it wouldn't say. `ours` are those lines. What is too long to keep is named in
 * `dropped`.
 */
export function unmodelledOf(
  block: string,
  fields: UnmodelledFields,
  ours: readonly string[],
): { readonly unmodelled: UnmodelledLine[]; readonly dropped: string[] } {
  const said = new Set(ours);
  const unmodelled: UnmodelledLine[] = [];
  const dropped: string[] = [];
  let size = 0;
  const add = (name: string, entry: UnmodelledLine) => {
    size += entry.line.length + (entry.was?.length ?? 0);
    if (size > MOST_KEPT) {
      size -= entry.line.length + (entry.was?.length ?? 0);
      dropped.push(name);
    } else unmodelled.push(entry);
  };
  const { properties, parts } = insideOf(block);
  for (const property of properties) {
    const { name } = property;
    if (OURS.has(name) || name.startsWith('X-PARAMO-')) continue;
    // How far a message has come to whom it names is ours to say.
    const plain = plainText(property.line).replace(/\n/g, ' ');
    const line = property.params.has('SCHEDULE-STATUS') ? withoutParameter(plain, 'SCHEDULE-STATUS') : plain;
    if (said.has(line)) continue;
    const depends = dependence(property);
    add(name, depends ? { line, of: depends.of, was: text(depends.read(fields)) } : { line });
  }
  for (const part of parts) add(part.slice(6, part.indexOf('\r\n')), { line: part });
  return { unmodelled, dropped };
}

/** Our own lines with what was kept put in place of what it says better, and beside them what nothing of ours says. */
export function withUnmodelled(
  ours: readonly string[],
  unmodelled: readonly UnmodelledLine[],
  fields: UnmodelledFields,
): string[] {
  const standing = unmodelled.filter(({ line, of, was }) => {
    if (of === undefined) return true;
    const property = propertyOf(line);
    const depends = property && dependence(property);
    return depends !== null && text(depends.read(fields)) === was;
  });
  const replaced = new Set(standing.flatMap(({ line }) => keyOf(line) ?? []));
  return [
    ...ours.filter((line) => !replaced.has(keyOf(line) ?? '')),
    ...standing.flatMap(({ line }) => line.split('\r\n')),
  ];
}

/** Lines of an item with how far the last message has come to each attendee (RFC 6638 3.2.9), by address. */
export function withStatuses(lines: readonly string[], statuses?: ReadonlyMap<string, string>): readonly string[] {
  if (!statuses || statuses.size === 0) return lines;
  return lines.map((line) => {
    const property = /^ATTENDEE[;:]/i.test(line) ? propertyOf(line) : null;
    const status = property && statuses.get(addressOf(property.value));
    return status ? line.replace(/^ATTENDEE/i, `ATTENDEE;SCHEDULE-STATUS="${status}"`) : line;
  });
}

/** What a line says something of, so that two lines for one thing are known; `null` where several may stand side by side. */
function keyOf(line: string): string | null {
  const property = propertyOf(line);
  if (!property) return null;
  if (property.name === 'ATTENDEE') return `ATTENDEE ${addressOf(property.value)}`;
  return property.name in DEPENDS ? property.name : null;
}
