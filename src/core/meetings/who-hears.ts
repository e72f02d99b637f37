import { callMeeting, changeMeeting, type Meeting, type MeetingChange } from './organiser.ts';

/** Whom a change of a meeting would be said to, as addresses in the order they are asked: worked out by making it. */
export function whoHears(meeting: Meeting, change: MeetingChange): readonly string[] {
  const origin = { sentBy: null, stamp: meeting.stamp + 1 };
  const changed =
    meeting.state === 'draft'
      ? callMeeting(changeMeeting(meeting, change, origin).meeting, origin)
      : changeMeeting(meeting, change, origin);
  return [...new Set(changed.messages.flatMap((message) => message.to))];
}
