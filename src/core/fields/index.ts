export { freshOf, type Holds, type SentValue, type WrittenValue } from './holds.ts';
export { sentSchema, writtenSchema } from './schemas.ts';
