export {
  answerMeeting,
  askForState,
  type Copy,
  myAnswer,
  myProposal,
  proposeTime,
  receiveAsAttendee,
  stateOf,
} from './attendee.ts';
export type { Invited, MeetingTime, Message } from './meeting.ts';
export {
  answerOf,
  callMeeting,
  callOff,
  changeMeeting,
  declineCounter,
  type Meeting,
  nudge,
  receiveAsOrganiser,
  takeCounter,
} from './organiser.ts';
