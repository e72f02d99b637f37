export { booksKnown, contactFinder, numberOf } from './known-contacts.ts';
export {
  addList,
  bringListBack,
  changeList,
  holdsAll,
  listsSeen,
  listWire,
  removeList,
  seesListsOf,
  sharedWith,
} from './lists.ts';
export { undoInList } from './undo.ts';
