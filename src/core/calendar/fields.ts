import { z } from 'zod';
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

// Line breaks and tabs may stand in longer texts; every other control character is refused.
// biome-ignore lint/suspicious/noControlCharactersInRegex: exactly these are refused
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const line = (max: number) =>
  z
    .string()
    .trim()
    .max(max, `tooLong:${max}`)
    .refine((s) => !CONTROL.test(s) && !/[\r\n\t]/.test(s), 'control');
const text = (max: number) =>
  z
    .string()
    .max(max, `tooLong:${max}`)
    .refine((s) => !CONTROL.test(s), 'control')
    // One kind of line end, so that nothing that is written from it can begin a line of its own.
    .transform((s) => s.replace(/\r\n?/g, '\n'));
const link = (max: number) =>
  z
    .string()
    .trim()
    .max(max, `tooLong:${max}`)
    .refine((s) => /^https?:\/\/[^\s/]+/i.test(s), 'link');

/** The schema of a field as it is written, with its limits. */
function writtenSchema(name: WrittenField): z.ZodType {
  const spec = specOf(name);
  switch (spec.type) {
    case 'line':
      return spec.required ? line(spec.most).min(1, `${name}Missing`) : line(spec.most).nullable();
    case 'text':
      return text(spec.most).nullable();
    case 'link':
      return link(spec.most).nullable();
    case 'choice':
      return z.enum(spec.of);
    case 'list':
      return z.array(line(spec.each).min(1)).max(spec.most);
    case 'flag':
      return z.boolean();
    case 'made':
      throw new Error(`${name} is not written`);
    default:
      return spec satisfies never;
  }
}

/** The schema of a field as it is sent: what it holds, without the limits of writing. */
function sentSchema(name: WrittenField): z.ZodType {
  const spec = specOf(name);
  const plain =
    spec.type === 'choice'
      ? z.enum(spec.of)
      : spec.type === 'list'
        ? z.array(z.string())
        : spec.type === 'flag'
          ? z.boolean()
          : z.string();
  return spec.decides || spec.sight === 'asSet' ? plain : plain.nullable();
}

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
export const itemFields = each(WRITTEN_FIELDS, writtenSchema) as Written;

/** The same of a new item: what isn't said is as it is to begin with. */
export const newItemFields = each(CONTENT_FIELDS, (name) => {
  const fresh = freshValue(name);
  return fresh === undefined ? writtenSchema(name) : writtenSchema(name).default(fresh);
}) as Fresh;

/** Every written field as it is sent. */
export const sentFields = each(WRITTEN_FIELDS, sentSchema) as Sent;
