import type { Copy } from './attendee.ts';
import type { MeetingTime, Message } from './meeting.ts';
import { sameAddress } from './meeting.ts';
import type { Meeting, Origin, Outcome } from './organiser.ts';

/**
 * One occurrence of a called series as a meeting of its own, as everybody on it knows it until it is changed: asked like the series, at
 * its own time, with the answers that were given to the series.
 */
export const meetingOfOccurrence = (series: Meeting, recurrence: string, time: MeetingTime): Meeting => ({
  ...series,
  recurrence,
  time,
  counters: [],
  questions: [],
});

/** The same for an attendee: their answer to the series counts for its occurrence. */
export const copyOfOccurrence = (series: Copy, recurrence: string, time: MeetingTime): Copy => ({
  ...series,
  recurrence,
  on: series.on && { ...series.on, time },
  times: [{ ...series.said, time }],
  proposed: null,
  claims: [],
});

/**
 * Leaves one occurrence out of a called series: everybody asked is told that it is called off, and of the series nothing else changes
 * (RFC 5546, 3.2.5). Of a draft nobody knew.
 */
export function leaveOut(series: Meeting, recurrence: string, origin: Origin): Outcome {
  if (series.time.left.includes(recurrence)) return { meeting: series, messages: [] };
  const time = { ...series.time, left: [...series.time.left, recurrence] };
  if (series.state !== 'sent') return { meeting: { ...series, time }, messages: [] };
  const meeting: Meeting = { ...series, time, sequence: series.sequence + 1, stamp: origin.stamp };
  const to = series.invited.map((one) => one.address).filter((one) => !sameAddress(one, series.organiser));
  const off: Message = {
    method: 'CANCEL',
    uid: series.uid,
    recurrence,
    organiser: series.organiser,
    sender: series.organiser,
    sentBy: origin.sentBy,
    sequence: meeting.sequence,
    stamp: origin.stamp,
    to,
  };
  return { meeting, messages: to.length === 0 ? [] : [off] };
}
