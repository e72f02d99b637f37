export {
  type Answered,
  answerMeeting,
  type Copy,
  myAnswer,
  myProposal,
  proposeTime,
  receiveAsAttendee,
  requestRefresh,
  stateOf,
} from './attendee.ts';
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
export { copyOfOccurrence, leaveOut, meetingOfOccurrence } from './occurrence.ts';
export {
  answerOf,
  callMeeting,
  callOff,
  changeMeeting,
  declineCounter,
  type Meeting,
  nudge,
  type Origin,
  type Outcome,
  receiveAsOrganiser,
  takeCounter,
} from './organiser.ts';
export { whoHears } from './who-hears.ts';
