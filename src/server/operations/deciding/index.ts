export {
  audienceNamed,
  audienceOf,
  domainOf,
  type FoundAudience,
  findAudience,
  findAudienceParam,
  sameAudience,
} from './access/audience.ts';
export {
  ceilingsOn,
  collectionOf,
  type Decided,
  type DecidedAlone,
  decideOn,
  decideOnAll,
  decideOnSeveral,
  decideOnShared,
  findCalendar,
  type GrantRead,
  isRefusal,
  nextRights,
  rulesOf,
  storedRules,
  viewerOf,
} from './access/deciding.ts';
export { type FoundContact, findContact } from './access/find-contact.ts';
export { type FoundItem, findByAnyId, findItem, findSeen, readItem } from './access/find-item.ts';
export {
  type DecidedList,
  decideOnList,
  type FoundTask,
  findList,
  findTask,
  listReaderFor,
} from './access/find-list.ts';
export {
  findShared,
  findSharedCalendar,
  isCalendar,
  type Shared,
  type SharedCalendar,
} from './access/find-shared.ts';
export { linkEnds, linkZone } from './access/link-ends.ts';
export { noteUse } from './access/note-use.ts';
export { type ActedFor, actsBy, principalsOf } from './access/principals.ts';
export {
  MOST_ADDED_A_DAY,
  MOST_ITEMS_IN_CALENDAR,
  MOST_ITEMS_IN_FILE,
  MOST_OCCURRENCES_IN_CALENDAR,
  MOST_OCCURRENCES_OF_ITEM,
} from './budgets.ts';
export { again } from './context/again.ts';
export { type Context, contextFor } from './context/context.ts';
export { Directory } from './context/directory.ts';
export { operatorHere, operatorOf } from './context/operator.ts';
export { noteTokenAct } from './context/token-acts.ts';
export { type About, aboutItem, withoutCopy } from './reading/about.ts';
export { blockWords, takenIn } from './reading/block-words.ts';
export { ContactReading, contactsAs, mayOnContact } from './reading/contact-views.ts';
export { loadOf } from './reading/load.ts';
export {
  type MessageView,
  mayOnMessage,
  messagesAs,
  viewOfMessage,
} from './reading/message-views.ts';
export { rangeOf, readRange } from './reading/range.ts';
export { RowItem, rowOf, standingOf } from './reading/row-item.ts';
export { isHeavy, type Range } from './reading/rows-in.ts';
export { mayOnTask, TaskReading, tasksAs } from './reading/task-views.ts';
export {
  readViews,
  readViewsOf,
  sealedForLink,
  type ViewedOccurrence,
  type Views,
  viewOfRow,
  viewsIn,
} from './reading/views.ts';
export { viewsAs } from './reading/views-as.ts';
export { announceAccess, everythingTold, whoSees } from './writing/announce.ts';
export { fileOnArrival } from './writing/file-on-arrival.ts';
export {
  AHEAD,
  BACK,
  indexItem,
  indexingOnce,
  noRoomFor,
  occurrenceAt,
  occurrencesBetween,
  repeats,
  seriesOf,
} from './writing/indexing.ts';
export { freeLapsed } from './writing/lapse.ts';
export { tell, tellPeople } from './writing/tell.ts';
export { trailOn, trailOwn } from './writing/trail.ts';
export { type ContactToWrite, UNDOABLE_ON_CONTACTS, writeContacts } from './writing/write-contacts.ts';
export { type Acting, type ItemToWrite, moveItems, writeItems } from './writing/write-items.ts';
export { addMessage, writeMessages } from './writing/write-messages.ts';
export { type TaskToWrite, UNDOABLE_ON_TASKS, writeTasks } from './writing/write-tasks.ts';
export { authorship, type ItemsWritten, mayOn, viewFor, written } from './writing/writing.ts';
export type { ItemChange } from './writing/written.ts';
