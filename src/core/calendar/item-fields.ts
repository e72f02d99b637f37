import { freshOf, type SentValue, type WrittenValue } from '../fields/index.ts';
import { type FieldSpec, ITEM_FIELDS } from './item-table.ts';

/*
 * What is made of the table of fields, by name and by trait.
 */

type Table = typeof ITEM_FIELDS;
export type FieldName = keyof Table;
type NamesWith<Trait> = { [K in FieldName]: Table[K] extends Trait ? K : never }[FieldName];

/** A field as somebody writes it. */
export type WrittenField = Exclude<FieldName, NamesWith<{ type: 'made' }>>;
/** A written field that stands in what is seen of an item. */
export type ContentField = Exclude<WrittenField, NamesWith<{ sight: 'asSet' }>>;
export type FieldSeenAt<S> = NamesWith<{ sight: S }>;
export type CopiedField = NamesWith<{ copied: string }>;
export type SaidField = NamesWith<{ said: true }>;
export type SearchedField = NamesWith<{ searched: true }>;
export type FiledField = NamesWith<{ file: string }>;
/** A field that a form holds as text or as one of some words. */
export type FormField = Extract<ContentField, NamesWith<{ type: 'line' | 'text' | 'link' | 'choice' }>>;

/** What a field holds where the item is kept: `null` is an empty line or text. */
export type FieldValue<K extends WrittenField> = WrittenValue<Table[K]>;
/** What a field holds in what is seen of an item: only what decides is always there. */
export type SeenValue<K extends WrittenField> = SentValue<Table[K]>;
/** The written fields of an item, as they are kept. */
export type WrittenFields = { readonly [K in WrittenField]: FieldValue<K> };

/** Fields of the table with all of some traits, in its order. */
function namesWith<K extends FieldName>(has: (spec: FieldSpec) => boolean): readonly K[] {
  return (Object.entries(ITEM_FIELDS) as [FieldName, FieldSpec][])
    .filter(([, spec]) => has(spec))
    .map(([name]) => name as K);
}

export const specOf = (name: FieldName): FieldSpec => ITEM_FIELDS[name];
export const WRITTEN_FIELDS = namesWith<WrittenField>((spec) => spec.type !== 'made');
export const CONTENT_FIELDS = namesWith<ContentField>((spec) => spec.type !== 'made' && spec.sight !== 'asSet');
/** Fields among the values as they are set: for the owner and whoever changes all. */
export const AS_SET_FIELDS = namesWith<Extract<WrittenField, NamesWith<{ sight: 'asSet' }>>>(
  (spec) => spec.sight === 'asSet',
);
export const COPIED_FIELDS = namesWith<CopiedField>((spec) => spec.copied !== undefined);
export const SAID_FIELDS = namesWith<SaidField>((spec) => spec.said === true);
export const FILED_FIELDS = namesWith<FiledField>((spec) => typeof spec.file === 'string');
/** Fields of an item that somebody who may not change it may put another value forward for. */
export const FORWARD_CHANGED = namesWith<NamesWith<{ forward: 'change' }>>((spec) => spec.forward === 'change');
/** Content fields that nobody puts forward, for an item that isn't there yet either. */
export const NOT_FORWARD = Object.fromEntries(
  CONTENT_FIELDS.filter((name) => specOf(name).forward === undefined).map((name) => [name, true]),
) as { readonly [K in Exclude<ContentField, NamesWith<{ forward: string }>>]: true };
/** Fields whose words a search finds: each has a column of its name in the index of words. */
export const SEARCHED_FIELDS = namesWith<SearchedField>((spec) => spec.searched === true);
export const LONG_TEXTS = namesWith<Extract<WrittenField, NamesWith<{ type: 'text' }>>>((spec) => spec.type === 'text');
export const FORM_FIELDS = namesWith<FormField>(
  (spec) => spec.type !== 'made' && spec.type !== 'list' && spec.type !== 'flag',
);
/** Fields of which what is seen is told in words, in the trail. */
export const TOLD_FIELDS = namesWith<FieldName>((spec) => spec.sight !== 'never' && spec.sight !== 'asSet').filter(
  (name) => !['allDay', 'organiser', 'attendees', 'createdBy'].includes(name),
);

/** What a field of a new item holds where nothing is said of it; `undefined` where something has to be. */
export const freshValue = (name: FieldName): unknown => freshOf(specOf(name));

/** The written fields of a new item of which nothing is said but its title. */
export const freshFields = (title: string): WrittenFields =>
  ({
    ...Object.fromEntries(WRITTEN_FIELDS.map((name) => [name, freshValue(name)])),
    title,
  }) as unknown as WrittenFields;

/** The same fields with every emptied line or text as none. */
export const withoutEmpty = <T extends object>(fields: T): T =>
  Object.fromEntries(Object.entries(fields).map(([name, value]) => [name, value === '' ? null : value])) as T;

/** Some fields of something that has them. */
export function pick<T extends object, K extends keyof T>(of: T, names: readonly K[]): Pick<T, K> {
  const picked = {} as Pick<T, K>;
  for (const name of names) picked[name] = of[name];
  return picked;
}
