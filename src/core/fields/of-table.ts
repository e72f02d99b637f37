import type { z } from 'zod';
import { freshOf, type Holds, type WrittenValue } from './holds.ts';
import { sentSchema, writtenSchema } from './schemas.ts';

/** A field of what somebody keeps: what it holds, from which sight on it is sent (docs/access.md), whether a search finds its words, and the property of a file it stands in. */
export type FieldSpec = Holds & {
  readonly sight: 'title' | 'outline' | 'full';
  readonly decides?: true;
  readonly searched?: true;
  readonly file?: string;
};
type Table = Readonly<Record<string, FieldSpec>>;

type NamesWith<T extends Table, Trait> = { [K in keyof T & string]: T[K] extends Trait ? K : never }[keyof T & string];
/** Fields that somebody writes; the others are made. */
type WrittenName<T extends Table> = Exclude<keyof T & string, NamesWith<T, { type: 'made' }>>;
/** The fields that are sent from a sight on, and not below it. */
export type SeenAt<T extends Table, S> = NamesWith<T, { sight: S }>;
/** What is kept of the fields that somebody writes. */
export type WrittenOf<T extends Table> = { readonly [K in WrittenName<T>]: WrittenValue<T[K]> };

type Schema<V> = z.ZodType<V, V>;
type Schemas<T extends Table> = { readonly [K in WrittenName<T>]: Schema<WrittenOf<T>[K]> };
type FreshSchemas<T extends Table> = {
  readonly [K in WrittenName<T>]: T[K] extends { required: true }
    ? Schema<WrittenOf<T>[K]>
    : z.ZodDefault<Schema<WrittenOf<T>[K]>>;
};

/** What follows from a table of fields: names, sights, and the schemas of what is written and sent. */
export interface FieldsOf<T extends Table> {
  readonly written: readonly WrittenName<T>[];
  /** Fields whose words a search finds. */
  readonly searched: readonly NamesWith<T, { searched: true }>[];
  readonly sights: { readonly [K in keyof T]: T[K]['sight'] };
  /** Every field as a person writes it, with its limits. */
  readonly schemas: Schemas<T>;
  /** The same of something new: what isn't said is as it is to begin with. */
  readonly fresh: FreshSchemas<T>;
  /** Every written field as it is sent: empty is only what may be. */
  readonly sent: Schemas<T>;
}

export function fieldsOf<T extends Table>(table: T): FieldsOf<T> {
  const namesWith = (has: (spec: FieldSpec) => boolean) =>
    Object.entries(table)
      .filter(([, spec]) => has(spec))
      .map(([name]) => name);
  const written = namesWith((spec) => spec.type !== 'made');
  const each = (schema: (name: string, spec: FieldSpec) => z.ZodType) =>
    Object.fromEntries(written.map((name) => [name, schema(name, table[name] as FieldSpec)]));
  return {
    written,
    searched: namesWith((spec) => spec.searched === true),
    sights: Object.fromEntries(Object.entries(table).map(([name, { sight }]) => [name, sight])),
    schemas: each(writtenSchema),
    fresh: each((name, spec) => {
      const fresh = freshOf(spec);
      return fresh === undefined ? writtenSchema(name, spec) : writtenSchema(name, spec).default(fresh);
    }),
    sent: each((_, spec) => sentSchema(spec, freshOf(spec) !== null)),
  } as unknown as FieldsOf<T>;
}
