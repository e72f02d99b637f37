export { type About, aboutItem, withoutCopy } from './about.ts';
export { again } from './again.ts';
export { announceAccess, everythingTold, whoSees } from './announce.ts';
export { audienceOf, domainOf, type FoundAudience, findAudience, findAudienceParam, sameAudience } from './audience.ts';
export { blockWords, takenIn } from './block-words.ts';
export {
  MOST_ADDED_A_DAY,
  MOST_HAPPENINGS_IN_CALENDAR,
  MOST_HAPPENINGS_OF_ITEM,
  MOST_ITEMS_IN_CALENDAR,
  MOST_ITEMS_IN_FILE,
} from './budgets.ts';
export { type Context, contextFor } from './context.ts';
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
} from './deciding.ts';
export { Directory } from './directory.ts';
export { type FoundItem, findByAnyId, findItem, findSeen } from './find-item.ts';
export { findShared, type Shared } from './find-shared.ts';
export { handsHere, handsOf } from './hands.ts';
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
} from './indexing.ts';
export { freeLapsed } from './lapse.ts';
export { linkEnds, linkZone } from './link-ends.ts';
export { loadOf } from './load.ts';
export { noteUse } from './note-use.ts';
export { rangeOf, readRange } from './range.ts';
export { RowItem, rowOf, standingOf } from './row-item.ts';
export { isHeavy, type Range } from './rows-in.ts';
export { tell, tellPeople } from './tell.ts';
export { noteTokenAct } from './token-acts.ts';
export { trailOn, trailOwn } from './trail.ts';
export { readViews, sealedForLink, type Views, viewOfRow, viewsIn } from './views.ts';
export { viewsAs } from './views-as.ts';
export { type Acting, type ItemChange, type ItemToWrite, moveItems, writeItems } from './write-items.ts';
export { hands, type ItemsWritten, mayOn, viewFor, written } from './writing.ts';
