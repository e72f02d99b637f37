export type { Contact, Message, OtherItems, OtherKind, Task } from './fields.ts';
export { COLLECTION_KINDS, type CollectionKind } from './kind.ts';
