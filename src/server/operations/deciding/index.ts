export {
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
  decideOn,
  decideOnSeveral,
  findCalendar,
  isRefusal,
  rulesOf,
  storedRules,
  viewerOf,
} from './access/deciding.ts';
export { type FoundItem, findByAnyId, findItem, findSeen } from './access/find-item.ts';
export { findShared, type Shared } from './access/find-shared.ts';
export { linkEnds, linkZone } from './access/link-ends.ts';
export { noteUse } from './access/note-use.ts';
export {
  MOST_ADDED_A_DAY,
  MOST_HAPPENINGS_IN_CALENDAR,
  MOST_HAPPENINGS_OF_ITEM,
  MOST_ITEMS_IN_CALENDAR,
  MOST_ITEMS_IN_FILE,
} from './budgets.ts';
export { again } from './context/again.ts';
export { type Context, contextFor } from './context/context.ts';
export { Directory } from './context/directory.ts';
export { operatorHere, operatorOf } from './context/operator.ts';
export { noteTokenAct } from './context/token-acts.ts';
export { type About, aboutItem, withoutCopy } from './reading/about.ts';
export { blockWords, takenIn } from './reading/block-words.ts';
export { loadOf } from './reading/load.ts';
export { rangeOf, readRange } from './reading/range.ts';
export { RowItem, rowOf, standingOf } from './reading/row-item.ts';
export { isHeavy, type Range } from './reading/rows-in.ts';
export { readViews, sealedForLink, type Views, viewOfRow, viewsIn } from './reading/views.ts';
export { viewsAs } from './reading/views-as.ts';
export { announceAccess, everythingTold, whoSees } from './writing/announce.ts';
export {
  AHEAD,
  BACK,
  happeningAt,
  happeningsBetween,
  indexItem,
  indexingOnce,
  noRoomFor,
  repeats,
  seriesOf,
} from './writing/indexing.ts';
export { freeLapsed } from './writing/lapse.ts';
export { tell, tellPeople } from './writing/tell.ts';
export { trailOn, trailOwn } from './writing/trail.ts';
export { type Acting, type ItemChange, type ItemToWrite, moveItems, writeItems } from './writing/write-items.ts';
export { authorship, type ItemsWritten, mayOn, viewFor, written } from './writing/writing.ts';
