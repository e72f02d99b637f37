export type { OtherItems, OtherKind } from './fields.ts';
export {
  COLLECTION_KINDS,
  type CollectionKind,
  FIRST_COLLECTIONS,
  type FirstCollection,
  kindOfFirst,
} from './kind.ts';
