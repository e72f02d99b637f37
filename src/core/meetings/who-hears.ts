import { callMeeting, changeMeeting, type Meeting, type MeetingChange } from './organiser.ts';

/** Whom a change of a meeting would be said to, as addresses in the order they are asked: worked out by making it. */
export function whoHears(meeting: Meeting, change: MeetingChange): readonly string[] {
  const hand = { sentBy: null, stamp: meeting.stamp + 1 };
  const changed =
    meeting.state === 'draft'
      ? callMeeting(changeMeeting(meeting, change, hand).meeting, hand)
      : changeMeeting(meeting, change, hand);
  return [...new Set(changed.messages.flatMap((message) => message.to))];
}
