import type { Message } from '@/core/meetings/index.ts';

/** What a message is: of a meeting, by what it does, or plain mail. */
export type MessageKind =
  | 'invitation'
  | 'change'
  | 'calledOff'
  | 'answer'
  | 'counter'
  | 'counterDeclined'
  | 'stateAsked'
  | 'forInformation'
  | 'chosen'
  | 'question'
  | 'mail';

/** A file that came with a message: its bytes stand in the data folder under the digest, where there is one. */
export interface MessageFile {
  readonly name: string;
  readonly bytes: number;
  readonly type?: string;
  readonly digest?: string;
}

/** What matters of a message beside who, when and its words; times as texts on the clock of `zone`. */
export interface MessageFacts {
  readonly title?: string;
  readonly time?: { readonly start: string; readonly end: string; readonly allDay: boolean; readonly zone: string };
  readonly place?: string | null;
  readonly answer?: 'accepted' | 'declined' | 'tentative' | 'needs-action';
  readonly attendee?: string;
  /** Its sender marked what it is about as private. */
  readonly private?: true;
  readonly why?: string;
  /** A scheduling message that does what it says only once a person says so. */
  readonly pending?: Message;
  /** Whether the mail service vouches for its sender; absent for what never left the house. */
  readonly checked?: boolean;
  /** What couldn't be read of it. */
  readonly mark?: 'unreadable' | 'tooDeep' | 'leftOut';
  /** How many calendar parts and items of the mail were left out, since one mail has a most. */
  readonly leftOut?: number;
  /** Whom an attendee would send instead of themselves. */
  readonly sentInstead?: string;
  /** Nobody wrote it at that moment: the answer of an away notice. */
  readonly automatic?: true;
  readonly files?: readonly MessageFile[];
  /** Of what is still being written: what it answers. */
  readonly answers?: string;
}

export interface StoredMessage {
  readonly id: number;
  readonly key: string;
  readonly collectionId: number;
  readonly at: number;
  readonly thread: string;
  readonly kind: MessageKind;
  readonly meetingId: number | null;
  readonly fromAddress: string;
  readonly fromName: string | null;
  /** Who sent it in that one's name. */
  readonly byAddress: string | null;
  readonly byName: string | null;
  readonly recipients: readonly { readonly address: string; readonly name: string | null }[];
  readonly subject: string;
  readonly body: string;
  readonly facts: MessageFacts;
  readonly messageId: string | null;
  readonly inReplyTo: string | null;
  readonly refs: readonly string[];
  /** Who of ours wrote it. */
  readonly actorId: number | null;
  readonly flagged: boolean;
  readonly removedAt: number | null;
  readonly version: number;
}
/** A message that is about to be kept. */
export type NewMessage = Omit<StoredMessage, 'id' | 'key' | 'flagged' | 'removedAt' | 'version'>;

/** What is read of a message: without what is worked out of its facts for the conditions of queries. */
export const COLUMNS = (
  'id key collection_id at thread kind meeting_id from_address from_name by_address by_name recipients subject body facts ' +
  'message_id in_reply_to refs actor_id flagged removed_at version'
)
  .split(' ')
  .map((name) => `m.${name}`)
  .join(', ');

/** Whether a message is about a meeting, and so belongs to the thread of that. */
export const isAboutMeeting = (m: Pick<StoredMessage, 'thread'>): boolean => m.thread.startsWith('meeting ');

export interface MessageRow {
  id: number;
  key: string;
  collection_id: number;
  at: number;
  thread: string;
  kind: MessageKind;
  meeting_id: number | null;
  from_address: string;
  from_name: string | null;
  by_address: string | null;
  by_name: string | null;
  recipients: string;
  subject: string;
  body: string;
  facts: string;
  message_id: string | null;
  in_reply_to: string | null;
  refs: string;
  actor_id: number | null;
  flagged: 0 | 1;
  removed_at: number | null;
  version: number;
}

export const decode = (r: MessageRow): StoredMessage => ({
  id: r.id,
  key: r.key,
  collectionId: r.collection_id,
  at: r.at,
  thread: r.thread,
  kind: r.kind,
  meetingId: r.meeting_id,
  fromAddress: r.from_address,
  fromName: r.from_name,
  byAddress: r.by_address,
  byName: r.by_name,
  recipients: JSON.parse(r.recipients),
  subject: r.subject,
  body: r.body,
  facts: JSON.parse(r.facts),
  messageId: r.message_id,
  inReplyTo: r.in_reply_to,
  refs: JSON.parse(r.refs),
  actorId: r.actor_id,
  flagged: r.flagged === 1,
  removedAt: r.removed_at,
  version: r.version,
});
