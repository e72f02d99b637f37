export { accessRequestsToAnswer, accessRequestsWaiting } from './access-requests.ts';
export { changeGrants, changeGrantsAlone } from './change-grants.ts';
export {
  countFindings,
  findingsCounted,
  findingsTold,
  findingsUnread,
  noteFindings,
  readFindingsTold,
} from './count-findings.ts';
export { comingRange, readFindings } from './findings.ts';
export { giveAccess, takeAccess } from './give-access.ts';
export { freeHandle } from './handles.ts';
export { endWhatHung, holdsUntil } from './holding.ts';
export { admitToLink, type LinkQueries, type LinkReadings, readLink } from './link-feeds.ts';
export type { OpenLink } from './links.ts';
export { type Access, accessLines, dayText, whichOf, wholeAccess } from './message-text.ts';
export { previewAccess } from './preview-access.ts';
export { wishesFor, wishesWaiting } from './rule-wishes.ts';
export { listSightlines } from './sightlines.ts';
export { suggestLevel } from './suggest-level.ts';
export { MOST_TOLD, rightsOf, tellConcerned, tellOfCalendar, tellOfJoining, tellOfSignIn } from './tell.ts';
