/** What is fetched of one calendar. */
type OfCalendar =
  | 'absences'
  | 'apart'
  | 'files'
  | 'ask'
  | 'check'
  | 'coming'
  | 'finding'
  | 'findings'
  | 'found days'
  | 'history'
  | 'met'
  | 'item'
  | 'item-sight'
  | 'items'
  | 'keeps'
  | 'layers'
  | 'least'
  | 'load'
  | 'message'
  | 'openings'
  | 'preview'
  | 'removed'
  | 'room'
  | 'round'
  | 'row'
  | 'sightlines'
  | 'trail';

/**
 * The names under which a window keeps what it fetched. Whatever stands below a name is fetched again, or forgotten, with it: what hears of
 * changes (`live.ts`) and what makes them name the same.
 */
export const KEYS = {
  accounts: ['accounts'],
  days: ['days'],
  day: (of: string, whom: string) => ['days', of, whom],
  dayLetters: ['day letters'],
  timeUses: (handle: string) => ['time use', handle],
  timeUse: (handle: string, query: object) => ['time use', handle, query],
  trails: ['trail'],
  trail: (filters: object) => ['trail', filters],
  trailDigest: ['trail digest'],
  accessRequests: ['asks'],
  desks: ['desk'],
  desk: (handle: string) => ['desk', handle],
  deskGone: (row: string) => ['desk gone', row],
  deskPreferences: (handle: string) => ['desk weights', handle],
  domains: ['domains'],
  frame: ['frame'],
  /** Asked for again with the frame: both follow what one was given. */
  targets: ['frame', 'targets'],
  groups: ['groups'],
  everythings: ['everything'],
  everything: (who: string) => ['everything', who],
  houseRules: ['house-rules'],
  journeys: ['journeys'],
  lanes: ['lanes'],
  notices: ['notices'],
  people: ['people'],
  sessions: ['sessions'],
  suggestions: ['suggestions'],
  tokens: ['tokens'],
  /** All of everybody’s tasks: lists, and what is in them. */
  everyTask: ['tasks'],
  taskLists: (handle: string) => ['tasks', 'lists', handle],
  tasksOfItem: (item: string) => ['tasks', 'item', item],
  tasks: (list: string, done: boolean, ...of: readonly ('beside' | 'sheet')[]) => ['tasks', 'list', list, done, ...of],
  /** All of everybody’s contacts: address books, and what is in them. */
  everyContact: ['contacts'],
  addressBooks: (handle: string) => ['contacts', 'books', handle],
  contacts: (book: string, words: string) => ['contacts', 'book', book, words],
  alikeContacts: (book: string) => ['contacts', 'alike', book],
  contact: (id: string) => ['contacts', 'one', id],
  contactsLike: (words: string) => ['contacts', 'like', words],
  aroundContact: (id: string) => ['contacts', 'around', id],
  /** Everything of every calendar, and what is found or held across them. */
  calendars: ['calendar'],
  found: (...words: readonly unknown[]) => ['calendar', 'search', ...words],
  holds: (...of: readonly unknown[]) => ['calendar', 'holds', ...of],
  calendar: (key: string | undefined, ...of: readonly [] | readonly [OfCalendar, ...unknown[]]) => [
    'calendar',
    key,
    ...of,
  ],
  meetings: ['meeting'],
  meeting: (item: string | null) => ['meeting', item],
  everyonesMessages: ['messages'],
  messages: (who: string) => ['messages', who],
  folders: (who: string, of: string | null) => ['messages', who, 'folders', of],
  folderMessages: (who: string, folder: string, removed: boolean) => ['messages', who, 'folder', folder, removed],
  thread: (who: string, message: string, at: string) => ['messages', who, 'thread', message, at],
  mailRules: (who: string) => ['messages', who, 'rules'],
  reminders: (...of: readonly [] | readonly ['due' | 'wishes'] | readonly ['item', string]) => ['reminders', ...of],
  looking: (item: string | undefined, ...doing: readonly string[]) => ['looking', item, ...doing],
  link: (link: string, ...of: readonly unknown[]) => ['link', link, ...of],
  offer: (offer: string) => ['offer', offer],
  person: (handle: string) => ['person', handle],
  phones: (addresses: readonly string[]) => ['phones', addresses],
  pickedDays: (picked: unknown) => ['picked days', picked],
  repeat: (of: unknown) => ['repeat', of],
  requestChoices: (rights: unknown, kind: string) => ['ask choices', kind, rights],
  severalComesTo: (changes: string) => ['several comes to', changes],
  tokenActs: (token: string) => ['token-acts', token],
} as const;
