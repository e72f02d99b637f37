export {
  type Answered,
  answerMeeting,
  askForState,
  type Copy,
  myAnswer,
  myProposal,
  proposeTime,
  receiveAsAttendee,
  stateOf,
} from './attendee.ts';
export { copyOfHappening, happeningOf, leaveOut } from './happening.ts';
export {
  type Classification,
  type Cover,
  type Invited,
  type MeetingMatter,
  type MeetingTime,
  type Message,
  saidOf,
  sameAddress,
} from './meeting.ts';
export {
  answerOf,
  callMeeting,
  callOff,
  changeMeeting,
  declineCounter,
  type Hand,
  type Meeting,
  nudge,
  type Outcome,
  receiveAsOrganiser,
  takeCounter,
} from './organiser.ts';
export { whoHears } from './who-hears.ts';
