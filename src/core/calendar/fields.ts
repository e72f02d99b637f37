import type { z } from 'zod';
import { sentSchema, writtenSchema } from '../fields/index.ts';
import {
  CONTENT_FIELDS,
  type ContentField,
  type FieldValue,
  freshValue,
  type SeenValue,
  specOf,
  WRITTEN_FIELDS,
  type WrittenField,
} from './item-fields.ts';
import type { ITEM_FIELDS } from './item-table.ts';

type Schema<T> = z.ZodType<T, T>;
type Written = { readonly [K in WrittenField]: Schema<FieldValue<K>> };
type Fresh = {
  readonly [K in ContentField]: (typeof ITEM_FIELDS)[K] extends { required: true }
    ? Schema<FieldValue<K>>
    : z.ZodDefault<Schema<FieldValue<K>>>;
};
type Sent = { readonly [K in WrittenField]: Schema<SeenValue<K>> };

const each = (names: readonly WrittenField[], schema: (name: WrittenField) => z.ZodType) =>
  Object.fromEntries(names.map((name) => [name, schema(name)]));

/** Every field a person may write on an item, with its limits. Messages are codes that screens turn into sentences. */
export const itemFields = each(WRITTEN_FIELDS, (name) => writtenSchema(name, specOf(name))) as Written;

/** The same of a new item: what isn't said is as it is to begin with. */
export const newItemFields = each(CONTENT_FIELDS, (name) => {
  const fresh = freshValue(name);
  const schema = writtenSchema(name, specOf(name));
  return fresh === undefined ? schema : schema.default(fresh);
}) as Fresh;

/** Every written field as it is sent. */
export const sentFields = each(WRITTEN_FIELDS, (name) => {
  const spec = specOf(name);
  return sentSchema(spec, spec.decides === true || spec.sight === 'asSet');
}) as Sent;
