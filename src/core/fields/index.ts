export { freshOf, type Holds, type SentValue, type Way, type WrittenValue } from './holds.ts';
export { type FieldSpec, fieldsOf, type SeenAt, type WrittenOf } from './of-table.ts';
export { sentSchema, writtenSchema } from './schemas.ts';
