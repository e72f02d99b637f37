export { readAskedMeeting } from './asked-meeting.ts';
export { fitting } from './filing.ts';
export { firstLineOf, partsOf } from './quoted.ts';
