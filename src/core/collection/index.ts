export type { OtherItems, OtherKind } from './fields.ts';
export { COLLECTION_KINDS, type CollectionKind } from './kind.ts';
