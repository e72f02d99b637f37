export type { OtherItems, OtherKind } from './fields.ts';
export { COLLECTION_KINDS, type CollectionKind, GIVEN_KINDS, type GivenKind } from './kind.ts';
