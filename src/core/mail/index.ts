export { fitting } from './filing.ts';
export { readProposedMeeting } from './proposed-meeting.ts';
export { firstLineOf, partsOf } from './quoted.ts';
