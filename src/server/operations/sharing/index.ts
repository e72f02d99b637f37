export { asksWaiting } from './asks.ts';
export { comingRange, readFindings } from './findings.ts';
export { freeHandle } from './handles.ts';
export { endWhatHung, holdsByThread, holdsUntil } from './holding.ts';
export { accessLines, dayText } from './message-text.ts';
export { previewAccess } from './preview-access.ts';
export { wishesFor, wishesWaiting } from './rule-wishes.ts';
export { listSightlines } from './sightlines.ts';
export { tellOfJoining, tellOfSignIn } from './tell.ts';
