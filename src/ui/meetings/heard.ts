import type { MeetingAnswer } from '@/contract/meetings/meetings.ts';
import { type Invited, type MeetingTime, whoHears } from '@/core/meetings/index.ts';

/** Somebody a form would have at a meeting. */
export interface InvitedPerson {
  readonly address: string;
  readonly name: string | null;
  readonly role: 'must' | 'may';
  /** The group they are asked as one of. */
  readonly group: { readonly key: string; readonly name: string } | null;
}

/** What of a form others would hear of. */
export interface Said {
  readonly when: { readonly start: string; readonly end: string; readonly allDay: boolean; readonly zone: string };
  readonly rule: string;
  readonly title: string;
  readonly place: string;
  readonly link: string;
  readonly notes: string;
  readonly people: readonly InvitedPerson[];
}

const asInvited = ({ address, name, role }: Omit<InvitedPerson, 'group'>): Invited => ({
  address,
  name,
  role,
  kind: 'person',
});
const timeOf = ({ when, rule }: Said): MeetingTime => ({ ...when, rule: rule || null, added: [], left: [] });
const matterOf = ({ title, place, link, notes }: Said) => ({
  title: title.trim(),
  place: place.trim() || null,
  link: link.trim() || null,
  notes: notes.trim() || null,
});

/**
 * Whom saving a form says something to, as addresses: by the same rule that sends it. `was` is what stood before, `meeting` what is known
 * of it; without either it is new, and everybody on it is asked.
 */
export function heardBy(
  was: Said | null,
  is: Said,
  meeting: Pick<MeetingAnswer, 'state' | 'people'> | null,
  tellAll: boolean,
): readonly string[] {
  const invited = is.people.map(asInvited);
  const called = was !== null && meeting?.state === 'sent';
  const before = called
    ? meeting.people.filter((p) => p.asked).map(({ address, name, role }) => asInvited({ address, name, role }))
    : [];
  const base = called ? was : is;
  return whoHears(
    {
      uid: '',
      recurrence: null,
      organiser: '',
      state: called ? 'sent' : 'draft',
      time: timeOf(base),
      matter: matterOf(base),
      invited: called ? before : invited,
      sequence: 0,
      stamp: 0,
      timeSince: 0,
      given: {},
      counters: [],
      questions: [],
    },
    { time: timeOf(is), matter: matterOf(is), invited, tellAll },
  );
}
