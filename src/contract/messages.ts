import { z } from 'zod';
import { ANSWERS, LIMITS } from '@/core/calendar/index.ts';
import { list, listName, listsAnswerOf } from './lists.ts';
import { sendingWire } from './meetings/meetings.ts';
import { at, done, type Routes } from './route.ts';
import { instant } from './sharing/sharing.ts';

const box = z.strictObject({ name: z.string().nullable(), address: z.string() });
const times = z.strictObject({ start: z.string(), end: z.string(), allDay: z.boolean() });
const MESSAGE_KINDS = [
  'invitation',
  'change',
  'calledOff',
  'answer',
  'counter',
  'counterDeclined',
  'stateAsked',
  'forInformation',
  'chosen',
  'question',
  'mail',
] as const;

const messageWire = z.strictObject({
  key: z.string(),
  at: instant,
  kind: z.enum(MESSAGE_KINDS),
  sent: z.boolean(),
  from: box,
  /** Who sent it, where that is somebody acting for the sender. */
  by: box.nullable(),
  to: z.array(box),
  subject: z.string(),
  says: z.string(),
  when: times.nullable(),
  answer: z.enum(ANSWERS).nullable(),
  why: z.string().nullable(),
  /** Whom it speaks for, where that isn't the sender. */
  attendee: z.string().nullable(),
  /** Whether the mail host vouches for its sender; `null` for what never left the house. */
  checked: z.boolean().nullable(),
  mark: z.string().nullable(),
  /** How many calendar parts and items of a mail were left out, since one mail has a most. */
  leftOut: z.number(),
  /** Whom an attendee would send instead of themselves, where that waits for a yes. */
  sentInstead: z.string().nullable(),
  /** What came with it; a file that wasn't kept has no key. */
  files: z.array(z.strictObject({ key: z.string().nullable(), name: z.string(), bytes: z.number() })),
  /** How far the viewer sees it: below `full` there is nothing of what isn't seen, and its key leads nowhere. */
  sight: z.enum(['title', 'outline', 'full']),
  /** Its first line, and whether something is attached; `null` where that isn't seen. */
  firstLine: z.string().nullable(),
  attached: z.boolean().nullable(),
  /** The folder it is in, where one sees that by itself. */
  folder: z.string().nullable(),
  flagged: z.boolean(),
  private: z.boolean(),
  may: z.strictObject({ change: z.boolean(), remove: z.boolean() }),
  unread: z.boolean(),
  /** It has its effect only after somebody who may do so has said yes. */
  pending: z.boolean(),
});
export type MessageWire = z.infer<typeof messageWire>;

/** What belongs together: a meeting's messages, or a mail and what answers it. */
const thread = z.strictObject({
  key: z.string(),
  kind: z.enum(['meeting', 'mail']),
  /** The meeting is private and not for the viewer: no more is said of it than that its time is taken. */
  withheld: z.boolean(),
  title: z.string().nullable(),
  when: times.nullable(),
  place: z.string().nullable(),
  item: z.string().nullable(),
  part: z.enum(['organiser', 'attendee']).nullable(),
  organiser: box.nullable(),
  needs: z.enum(['answer', 'counter', 'question', 'say', 'mail']).nullable(),
  answered: z.strictObject({ answer: z.enum([...ANSWERS, 'another']), name: z.string(), at: instant }).nullable(),
  cancelled: z.boolean(),
  repeats: z.boolean(),
  mayAnswer: z.boolean(),
  unread: z.number(),
  at: instant,
  waiting: z.array(sendingWire),
  messages: z.array(messageWire),
});
export type ThreadWire = z.infer<typeof thread>;

/** The messages of one person: theirs, or for whoever acts for them those of their meetings. */
const messagesAnswer = z.strictObject({
  owner: z.strictObject({ handle: z.string(), name: z.string(), address: z.string(), colour: z.number() }),
  own: z.boolean(),
  maySpeak: z.boolean(),
  /** Whether one reads what is said of their meetings, by what one may do on their calendar. */
  meetings: z.boolean(),
  threads: z.array(thread),
  /** Behind which message to ask on; `null` where that is all. */
  more: z.string().nullable(),
  /** For an administrator: how many mails came for nobody who is here; their content is unseen. */
  forNobody: z.number(),
});
export type MessagesAnswer = z.infer<typeof messagesAnswer>;

const messagesQuery = z.strictObject({
  before: z.string().max(64).optional(),
  /** Of one folder alone. */
  folder: z.string().max(64).optional(),
  /** What was removed from it in the last thirty days. */
  removed: z.enum(['yes']).optional(),
});
const readBody = z.strictObject({
  messages: z.array(z.string().max(64)).max(500),
  /** As if one hadn't read them. */
  unread: z.boolean().default(false),
});

/** A folder, with what one may do in it. Those everybody begins with have a role, and no name of their own. */
const folderWire = list({
  role: z.enum(['arrived', 'sent', 'drafts', 'filed']).nullable(),
  /** The folder it stands in; `null` for those on top, and where one doesn't see that one. */
  parent: z.string().nullable(),
  /** Whether there are folders in it that one sees. */
  inner: z.boolean(),
  /** How many one hasn't read, of drafts how many there are; to one more than 99. */
  unread: z.number(),
});
export type FolderWire = z.infer<typeof folderWire>;
const foldersAnswer = listsAnswerOf(folderWire);
export type FoldersAnswer = z.infer<typeof foldersAnswer>;

const folderBody = listName.extend({
  /** The folder it is made in. */
  parent: z.string().max(64).nullable().default(null),
});
const parentBody = z.strictObject({ parent: z.string().max(64).nullable() });
const foldersQuery = z.strictObject({
  /** The folders in this one. */
  in: z.string().max(64).optional(),
  /** All of them, wherever they stand. */
  all: z.enum(['yes']).optional(),
});

/** What is done to some messages of one folder at once. */
const changeBody = z
  .strictObject({
    messages: z.array(z.string().max(64)).min(1).max(500),
    /** Filed into another folder of the same owner. */
    to: z.string().max(64).optional(),
    flagged: z.boolean().optional(),
    private: z.boolean().optional(),
    removed: z.boolean().optional(),
  })
  .refine(
    ({ to, flagged, private: priv, removed }) =>
      [to, flagged, priv, removed].filter((one) => one !== undefined).length === 1,
    {
      message: 'unclear',
      path: ['to'],
    },
  );
export type ChangeMessagesBody = z.infer<typeof changeBody>;

/** A mail that is being written, as it was typed so far: nothing of it has to be right yet. */
const draftBody = z.strictObject({
  draft: z.string().max(64).nullable().default(null),
  /** The version that was last seen; 0 for a new one. */
  version: z.number().int().min(0),
  to: z.string().max(20_000, 'tooLong:20000'),
  subject: z.string().max(300, 'tooLong:300'),
  text: z.string().max(50_000, 'tooLong:50000'),
  answers: z.string().max(64).nullable().default(null),
});
export type DraftBody = z.infer<typeof draftBody>;
const draftAnswer = z.strictObject({ draft: z.string(), version: z.number(), folder: z.string() });

/** One thread whole, as far as one sees it: what else of it there is in other folders too. */
const threadAnswer = z.strictObject({
  thread,
  /** A mail that is being written: what was typed so far. */
  draft: z
    .strictObject({
      key: z.string(),
      version: z.number(),
      /** In whose name it is written: not always whose draft it is. */
      owner: z.strictObject({ handle: z.string(), name: z.string(), address: z.string() }),
      to: z.string(),
      subject: z.string(),
      text: z.string(),
      answers: z.string().nullable(),
    })
    .nullable(),
});
export type ThreadAnswer = z.infer<typeof threadAnswer>;

const ruleText = (most: number) =>
  z
    .string()
    .trim()
    .max(most, `tooLong:${most}`)
    .transform((text) => text || null)
    .nullable();
const mailRule = z
  .strictObject({
    sender: ruleText(200),
    words: ruleText(200),
    meeting: z.boolean(),
    folder: z.string().max(64),
  })
  .refine(({ sender, words, meeting }) => sender !== null || words !== null || meeting, {
    message: 'ruleEmpty',
    path: ['sender'],
  });
export type MailRuleWire = z.infer<typeof mailRule>;
const rulesBody = z.strictObject({ rules: z.array(mailRule).max(50, 'rulesMost:50') });
const rulesAnswer = z.strictObject({ rules: z.array(mailRule) });

/** A mail in the principal's name: new, or an answer to one that is there. */
const mailBody = z.strictObject({
  to: z
    .array(
      z.strictObject({
        address: z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address')),
        name: z.string().trim().max(LIMITS.name).nullable().default(null),
      }),
    )
    .min(1, 'nobody')
    .max(50, 'tooManyPeople:50'),
  subject: z.string().trim().min(1, 'subjectMissing').max(300, 'tooLong:300'),
  text: z.string().trim().min(1, 'textMissing').max(50_000, 'tooLong:50000'),
  answers: z.string().max(64).nullable().default(null),
  /** The draft it was written as, which goes with it. */
  draft: z.string().max(64).nullable().default(null),
});
export type MailBody = z.infer<typeof mailBody>;

/** What one was told. */
export const messageRoutes = {
  listMessages: {
    ...at('listMessages'),
    who: 'person',
    summary: 'The messages of a person, by thread, what needs an answer first',
    query: messagesQuery,
    answer: messagesAnswer,
  },
  readMessages: {
    ...at('readMessages'),
    who: 'person',
    summary: 'Mark messages as read by oneself',
    body: readBody,
    answer: done,
  },
  listFolders: {
    ...at('listFolders'),
    who: 'person',
    summary: 'The message folders of a person that one sees, and with one’s own those of others',
    query: foldersQuery,
    answer: foldersAnswer,
  },
  addFolder: {
    ...at('addFolder'),
    who: 'person',
    summary: 'Begin a message folder, in another or beside them',
    body: folderBody,
    answer: z.strictObject({ list: z.string() }),
  },
  changeFolder: {
    ...at('changeFolder'),
    who: 'person',
    summary: 'Name a message folder of one’s own otherwise',
    body: listName,
    answer: done,
  },
  removeFolder: {
    ...at('removeFolder'),
    who: 'person',
    summary: 'Remove a message folder of one’s own with what is in it; it can be brought back for thirty days',
    answer: done,
  },
  bringFolderBack: {
    ...at('bringFolderBack'),
    who: 'person',
    summary: 'Bring back a message folder that was removed',
    answer: done,
  },
  moveFolder: {
    ...at('moveFolder'),
    who: 'person',
    summary: 'Put a message folder of one’s own into another',
    body: parentBody,
    answer: done,
  },
  readThread: {
    ...at('readThread'),
    who: 'person',
    summary: 'The thread of a message, as far as one sees it',
    answer: threadAnswer,
  },
  changeMessages: {
    ...at('changeMessages'),
    who: 'person',
    summary: 'File, flag, mark private, remove or bring back messages of a folder',
    body: changeBody,
    answer: done,
  },
  saveDraft: {
    ...at('saveDraft'),
    who: 'person',
    summary: 'Keep a mail as it was typed so far',
    body: draftBody,
    answer: draftAnswer,
  },
  readMessageFile: {
    ...at('readMessageFile'),
    who: 'person',
    summary: 'A file that came with a message, shown in a sandbox or saved',
    rawAnswer: 'application/octet-stream',
  },
  listMailRules: {
    ...at('listMailRules'),
    who: 'person',
    summary: 'Where one’s mail is filed as it arrives',
    answer: rulesAnswer,
  },
  saveMailRules: {
    ...at('saveMailRules'),
    who: 'person',
    summary: 'Say where one’s mail is filed as it arrives',
    body: rulesBody,
    answer: rulesAnswer,
  },
  writeMail: {
    ...at('writeMail'),
    who: 'person',
    summary: 'Write a mail in a person’s name',
    body: mailBody,
    answer: done,
  },
  takeMessage: {
    ...at('takeMessage'),
    who: 'person',
    summary: 'Let a message whose sender isn’t vouched for do what it says',
    answer: done,
  },
} as const satisfies Routes;
