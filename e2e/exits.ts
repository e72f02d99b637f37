import { type ProgramRequest, programRequests } from './program-requests.ts';

/** What the marked calendar holds that an exit can be asked for. */
export interface Marked {
  readonly calendar: string;
  readonly ids: readonly string[];
  readonly link: string;
  readonly suggestion: string;
  readonly preview: string;
  readonly files: readonly string[];
  /** The secret of times that are offered. */
  readonly offer: string;
  /** The key of an access request for more of it. */
  readonly accessRequest: string;
  /** A list of tasks of the same owner’s, and the keys of what is in it. */
  readonly list: string;
  readonly tasks: readonly string[];
  /** An address book of the same owner’s, and the keys of whom it holds. */
  readonly book: string;
  readonly contacts: readonly string[];
  /** A folder of the same owner’s, and the keys of the mails in it. */
  readonly folder: string;
  readonly mails: readonly string[];
}
export const RANGE = 'from=2027-06-07&to=2027-06-14&zone=Europe%2FLisbon';

const get = (path: string): ProgramRequest[] => [{ method: 'GET', path }];
/** A page as a browser first gets it, and as the router asks for it afterwards. */
const page = (path: string): ProgramRequest[] => [...get(path), { method: 'GET', path, headers: { RSC: '1' } }];
export const rights = {
  sight: 'full',
  add: false,
  change: 'none',
  remove: 'none',
  suggest: false,
  private: false,
  speaks: false,
  copies: false,
  shares: false,
  absence: false,
};
export const wholly = { audience: { kind: 'person', id: 'wren' }, rights };

/** Days that have passed. */
const ABSENCE = { from: '2000-01-01', until: '2000-01-02', inside: '', outside: '', cover: null, declines: false };

/** A search for times of three people. */
const TIMES = {
  people: ['ines', 'amara', 'bruno'].map((h) => ({ address: `${h}@cloudmoor.example`, must: true })),
  length: 60,
  from: '2027-06-07',
  days: 7,
  zone: 'Europe/Lisbon',
};

const { length: _length, ...ROUND } = TIMES;

/** How each exit is asked, by method and path of a route, or by the file of a page. Nothing here changes anything for those who may: versions are stale. */
export const exitsOf = ({
  calendar,
  ids,
  link,
  suggestion,
  preview,
  files,
  offer,
  accessRequest: ask,
  list,
  tasks,
  book,
  contacts,
  folder,
  mails,
}: Marked): Record<string, () => ProgramRequest[]> => ({
  'page.tsx': () => page('/'),
  'sign-in/page.tsx': () => page('/sign-in?to=%2Ffor%2Fines%2Fcalendar'),
  'welcome/page.tsx': () => page('/welcome'),
  'GET /api/accounts': () => get('/api/accounts'),
  'POST /api/accounts': () => [{ method: 'POST', path: '/api/accounts' }],
  'PUT /api/accounts': () => [{ method: 'PUT', path: '/api/accounts', body: { code: 'NONE' } }],
  'DELETE /api/accounts/{person}': () => [{ method: 'DELETE', path: '/api/accounts/nobody' }],
  'POST /api/hands': () => [{ method: 'POST', path: '/api/hands', body: { name: 'x' } }],
  'GET /api/tokens': () => get('/api/tokens'),
  'POST /api/tokens': () => [
    { method: 'POST', path: '/api/tokens', body: { name: '', reads: true, calendar, until: null } },
  ],
  'GET /api/tokens/{token}': () => [{ method: 'GET', path: '/api/tokens/none' }],
  'DELETE /api/tokens/{token}': () => [{ method: 'DELETE', path: '/api/tokens/none' }],
  'POST /api/grants': () => [
    { method: 'POST', path: '/api/grants', body: { dryRun: true, changes: [{ calendar, ...wholly }] } },
    { method: 'POST', path: '/api/grants', body: { dryRun: true, changes: [{ of: 'ines', ...wholly }] } },
  ],
  // To a window's session there is nothing of a calendar program's: what its tokens get is asked in a test of its own.
  'api/dav/route.ts POST': () => [
    ...get('/.well-known/caldav'),
    ...programRequests('ines', calendar, ids),
    { method: 'POST', path: '/api/dav', headers: { 'x-dav-method': 'PROPFIND', 'x-dav-path': '/dav/' } },
  ],
  'api/dav/route.ts GET': () => get('/api/dav'),
  'api/dav/route.ts PUT': () => [{ method: 'PUT', path: '/api/dav' }],
  'api/dav/route.ts PATCH': () => [{ method: 'PATCH', path: '/api/dav' }],
  'api/dav/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/dav' }],
  'ask/page.tsx': () => page('/ask'),
  'look/parts/page.tsx': () => page('/look/parts'),
  'look/page.tsx': () => [...page('/look?of=ines'), ...page(`/look?of=ines&c=${calendar}`)],
  'shown/[link]/route.ts GET': () => [...get(`/shown/${link}?from=2027-06-07`)],
  'GET /api/links/{link}/calendar.ics': () => [...get(`/api/links/${link}/calendar.ics`)],
  'GET /api/links/{link}/free-busy.ifb': () => [...get(`/api/links/${link}/free-busy.ifb`)],
  'PUT /api/calendars/{calendar}/links/{link}': () => [
    {
      method: 'PUT',
      path: `/api/calendars/${calendar}/links/${link.split('.')[0]}`,
      body: { ahead: 366, language: null, zone: 'Nowhere', framedBy: null },
    },
  ],
  'GET /api/asks': () => get('/api/asks'),
  'POST /api/asks': () => [
    { method: 'POST', path: '/api/asks', body: { to: ['ines', 'nobody'], rights } },
    { method: 'POST', path: '/api/asks', body: { to: ['ines'], calendar, rights: { ...rights, change: 'all' } } },
  ],
  'POST /api/asks/choices': () => [{ method: 'POST', path: '/api/asks/choices', body: { rights } }],
  'POST /api/asks/{ask}': () => [
    { method: 'POST', path: `/api/asks/${ask}`, body: { answer: 'give', turns: 999, rights, seen: null } },
    { method: 'POST', path: `/api/asks/${ask}`, body: { answer: 'refuse', turns: 999 } },
  ],
  'PUT /api/asks/{ask}': () => [{ method: 'PUT', path: `/api/asks/${ask}` }],
  'DELETE /api/asks/{ask}': () => [{ method: 'DELETE', path: `/api/asks/${ask}-` }],
  'POST /api/calendars/{calendar}/least': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/least`, body: { audience: { kind: 'person', id: 'elin' } } },
  ],
  'POST /api/calendars/{calendar}/message': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/message`, body: { ...wholly, seen: null } },
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/message`,
      body: { ...wholly, audience: { kind: 'address', address: 'p.oduya@water-ministry.example' }, seen: null },
    },
  ],
  'not-found.tsx': () => page('/nothing/at/all'),
  'error.tsx': () => [],
  'for/[who]/calendar/page.tsx': () => [
    ...page('/for/ines/calendar?week=2027-06-07'),
    ...page('/for/amara/calendar?of=ines&week=2027-06-07'),
    ...page('/for/kofi/calendar?of=ines&week=2027-06-07'),
    ...page('/for/marta/calendar?of=ines&week=2027-06-07'),
    ...page('/for/marta/calendar'),
  ],
  'for/[who]/sightlines/page.tsx': () => [
    ...page('/for/ines/sightlines'),
    ...page('/for/noor/sightlines?of=ines'),
    ...page(`/for/ines/sightlines?c=${calendar}`),
  ],
  'guest/page.tsx': () => page('/guest'),
  'guest/[token]/page.tsx': () => page('/guest/none'),
  'see/[link]/page.tsx': () => page(`/see/${link}`),
  'offer/[offer]/page.tsx': () => page(`/offer/${offer}`),
  'way-in/[token]/page.tsx': () => page('/way-in/none'),
  'letterbox/page.tsx': () => page('/letterbox'),
  'for/[who]/people/page.tsx': () => page('/for/ines/people'),
  'for/[who]/granted/page.tsx': () => page('/for/ines/granted'),
  'sightlines/page.tsx': () => [...page('/sightlines'), ...page('/sightlines?who=person%3Abruno')],
  'for/[who]/openings/round/page.tsx': () => page('/for/ines/openings/round'),
  'for/[who]/openings/page.tsx': () => [...page('/for/ines/openings'), ...page('/for/bruno/openings')],
  'for/[who]/desk/page.tsx': () => page('/for/ines/desk'),
  'for/[who]/messages/page.tsx': () => [
    ...page('/for/ines/messages'),
    ...page(`/for/ines/messages?folder=${folder}&message=${mails[0]}`),
  ],
  'GET /api/people/{person}/everything': () => [
    ...get('/api/people/ines/everything'),
    ...get('/api/people/nobody/everything'),
  ],
  'for/[who]/everything/page.tsx': () => page('/for/ines/everything'),
  'GET /api/people/{person}/folders': () => [
    ...get('/api/people/ines/folders'),
    ...get('/api/people/tomas/folders'),
    ...get('/api/people/bruno/folders?all=yes'),
    ...get('/api/people/pim/folders'),
    ...get(`/api/people/ines/folders?in=${folder}`),
  ],
  'POST /api/people/{person}/folders': () => [
    { method: 'POST', path: '/api/people/ines/folders', body: { name: '', parent: folder } },
  ],
  'PUT /api/folders/{folder}': () => [{ method: 'PUT', path: `/api/folders/${folder}`, body: { name: '' } }],
  'DELETE /api/folders/{folder}': () => [{ method: 'DELETE', path: '/api/folders/none' }],
  'POST /api/folders/{folder}': () => [{ method: 'POST', path: `/api/folders/${folder}` }],
  'PUT /api/folders/{folder}/parent': () => [
    { method: 'PUT', path: `/api/folders/${folder}/parent`, body: { parent: folder } },
  ],
  'POST /api/folders/{folder}/messages': () => [
    { method: 'POST', path: `/api/folders/${folder}/messages`, body: { messages: [...mails, 'none'], flagged: true } },
    { method: 'POST', path: `/api/folders/${folder}/messages`, body: { messages: mails, to: folder, flagged: true } },
  ],
  'GET /api/messages/{message}': () => mails.flatMap((key) => get(`/api/messages/${key}`)),
  'GET /api/messages/{message}/files/{file}': () => mails.flatMap((key) => get(`/api/messages/${key}/files/0`)),
  'PUT /api/people/{person}/drafts': () => [
    {
      method: 'PUT',
      path: '/api/people/ines/drafts',
      body: { draft: mails[0], version: 99, to: '', subject: '', text: '' },
    },
  ],
  'GET /api/people/{person}/mail-rules': () => get('/api/people/ines/mail-rules'),
  'PUT /api/people/{person}/mail-rules': () => [
    {
      method: 'PUT',
      path: '/api/people/ines/mail-rules',
      body: { rules: [{ sender: 'x', words: null, meeting: false, folder: 'none' }] },
    },
  ],
  'for/[who]/tasks/page.tsx': () => [...page('/for/ines/tasks'), ...page(`/for/ines/tasks?list=${list}`)],
  'GET /api/people/{person}/lists': () => [...get('/api/people/ines/lists'), ...get('/api/people/bruno/lists')],
  'POST /api/people/{person}/lists': () => [{ method: 'POST', path: '/api/people/ines/lists', body: { name: '' } }],
  'PUT /api/lists/{list}': () => [{ method: 'PUT', path: `/api/lists/${list}`, body: { name: '' } }],
  'DELETE /api/lists/{list}': () => [{ method: 'DELETE', path: `/api/lists/${list}` }],
  'POST /api/lists/{list}': () => [{ method: 'POST', path: `/api/lists/${list}` }],
  'GET /api/lists/{list}/tasks': () => [
    ...get(`/api/lists/${list}/tasks`),
    ...get(`/api/lists/${list}/tasks?done=1`),
    ...get(`/api/lists/${list}/tasks?after=none`),
  ],
  'POST /api/lists/{list}/tasks': () => [{ method: 'POST', path: `/api/lists/${list}/tasks`, body: { title: '' } }],
  'PATCH /api/tasks/{task}': () =>
    tasks.map((task) => ({ method: 'PATCH', path: `/api/tasks/${task}`, body: { version: 999, done: true } })),
  'DELETE /api/tasks/{task}': () => tasks.map((task) => ({ method: 'DELETE', path: `/api/tasks/${task}?version=999` })),
  'POST /api/tasks/{task}': () =>
    tasks.map((task) => ({ method: 'POST', path: `/api/tasks/${task}`, body: { yes: true } })),
  'for/[who]/house-rules/page.tsx': () => page('/for/ines/house-rules'),
  'for/[who]/day-sheet/page.tsx': () => page('/for/ines/day-sheet?day=2027-06-08'),
  'for/[who]/settings/page.tsx': () => page('/for/ines/settings'),
  'GET /api/frame': () => get('/api/frame'),
  'GET /api/people': () => get('/api/people'),
  'GET /api/groups': () => get('/api/groups'),
  'POST /api/groups': () => [{ method: 'POST', path: '/api/groups', body: { name: '' } }],
  'PUT /api/groups/{group}/members': () => [
    { method: 'PUT', path: '/api/groups/none/members', body: { handle: 'nobody', member: true } },
  ],
  'PUT /api/groups/{group}/within': () => [
    { method: 'PUT', path: '/api/groups/none/within', body: { group: 'none', within: true } },
  ],
  'GET /api/people/{person}': () => [...get('/api/people/bruno'), ...get('/api/people/nobody')],
  'PUT /api/people/{person}': () => [{ method: 'PUT', path: '/api/people/bruno', body: { name: '' } }],
  'POST /api/directory/phones': () => [
    {
      method: 'POST',
      path: '/api/directory/phones',
      body: { addresses: ['i.varga@cloudmoor.example', 'b.keane@cloudmoor.example', 'nobody@cloudmoor.example'] },
    },
  ],
  'POST /api/people/{person}/leaving': () => [
    { method: 'POST', path: '/api/people/bruno/leaving', body: { to: null } },
  ],
  'POST /api/people/{person}/way-in': () => [{ method: 'POST', path: '/api/people/nobody/way-in' }],
  'POST /api/way-in': () => [
    { method: 'POST', path: '/api/way-in', body: { token: 'none', password: 'long enough indeed' } },
  ],
  'GET /api/directory': () => get('/api/directory'),
  'POST /api/directory': () => [
    { method: 'POST', path: '/api/directory', body: { text: 'name,address\nX,x@cloudmoor.example', apply: false } },
  ],
  'GET /api/domains': () => get('/api/domains'),
  'PUT /api/domains': () => [{ method: 'PUT', path: '/api/domains', body: { domains: ['no domain'] } }],
  'POST /api/calendars': () => [{ method: 'POST', path: '/api/calendars', body: { of: 'nobody', name: 'x' } }],
  'POST /api/calendars/{calendar}/grants/several': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/grants/several`,
      body: { gives: [{ ...wholly, seen: 'stale' }] },
    },
  ],
  'DELETE /api/calendars/{calendar}/grants/several': () => [
    {
      method: 'DELETE',
      path: `/api/calendars/${calendar}/grants/several`,
      body: { takes: [{ audience: wholly.audience, seen: 'stale' }] },
    },
  ],
  'PUT /api/words': () => [{ method: 'PUT', path: '/api/words', body: { words: [{ word: '', topic: 'own' }] } }],
  'POST /api/rule-wishes': () => [{ method: 'POST', path: '/api/rule-wishes', body: {} }],
  'PUT /api/rule-wishes/{wish}': () => [
    { method: 'PUT', path: '/api/rule-wishes/none', body: { answer: 'left', note: '' } },
  ],
  'POST /api/guest': () => [{ method: 'POST', path: '/api/guest', body: { address: 'stranger@elsewhere.example' } }],
  'PUT /api/guest': () => [{ method: 'PUT', path: '/api/guest', body: { token: 'none' } }],
  'GET /api/links/{link}/items': () => [
    ...get(`/api/links/${link}/items?${RANGE}`),
    ...get(`/api/links/none/items?${RANGE}`),
  ],
  // Heard in a test of its own.
  'GET /api/links/{link}/live': () => [],
  'POST /api/people': () => [{ method: 'POST', path: '/api/people', body: { name: '' } }],
  'PUT /api/preferences': () => [{ method: 'PUT', path: '/api/preferences', body: { zone: 'x' } }],
  'GET /api/calendars/{calendar}/items': () => [
    ...get(`/api/calendars/${calendar}/items?${RANGE}`),
    ...get(`/api/calendars/${calendar}/items?${RANGE}&as=everyone`),
    ...get(`/api/calendars/${calendar}/items?${RANGE}&as=person%3Abruno`),
    ...get(`/api/calendars/${calendar}/items?${RANGE}&as=link%3A${link.split('.')[0]}`),
  ],
  'POST /api/calendars/{calendar}/items': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/items`, body: { title: '', when: {} } },
  ],
  'GET /api/calendars/{calendar}/load': () => get(`/api/calendars/${calendar}/load?${RANGE}`),
  'GET /api/calendars/{calendar}/file': () => get(`/api/calendars/${calendar}/file`),
  'for/[who]/contacts/page.tsx': () => [...page('/for/ines/contacts'), ...page(`/for/ines/contacts?list=${book}`)],
  'GET /api/people/{person}/books': () => get('/api/people/ines/books'),
  'POST /api/people/{person}/books': () => [{ method: 'POST', path: '/api/people/ines/books', body: { name: '' } }],
  'GET /api/contacts': () =>
    ['zqcont', 'address', 'zqcontprivatenotesqz'].flatMap((words) => get(`/api/contacts?words=${words}`)),
  'GET /api/books/{book}/contacts': () => [
    ...get(`/api/books/${book}/contacts`),
    ...get(`/api/books/${book}/contacts?words=zqcont`),
    ...get(`/api/books/${book}/contacts?after=none`),
  ],
  'POST /api/books/{book}/contacts': () => [
    { method: 'POST', path: `/api/books/${book}/contacts`, body: { name: '' } },
  ],
  'GET /api/books/{book}/alike': () => get(`/api/books/${book}/alike`),
  'POST /api/books/{book}/merged': () => [
    {
      method: 'POST',
      path: `/api/books/${book}/merged`,
      body: { contacts: contacts.slice(0, 2).map((id) => ({ id, version: 999 })) },
    },
    {
      method: 'POST',
      path: `/api/books/${book}/merged`,
      body: { contacts: contacts.slice(2).map((id) => ({ id, version: 999 })) },
    },
  ],
  'GET /api/books/{book}/file': () => [
    ...get(`/api/books/${book}/file`),
    ...get(`/api/books/${book}/file?version=3.0`),
  ],
  'POST /api/books/{book}/file': () => [{ method: 'POST', path: `/api/books/${book}/file`, body: 'nothing' }],
  'GET /api/contacts/{contact}': () => contacts.flatMap((contact) => get(`/api/contacts/${contact}`)),
  'PATCH /api/contacts/{contact}': () =>
    contacts.map((contact) => ({
      method: 'PATCH',
      path: `/api/contacts/${contact}`,
      body: { version: 999, fields: { role: 'x' } },
    })),
  'DELETE /api/contacts/{contact}': () =>
    contacts.map((contact) => ({ method: 'DELETE', path: `/api/contacts/${contact}?version=999` })),
  'POST /api/contacts/{contact}/copy': () =>
    contacts.map((contact) => ({ method: 'POST', path: `/api/contacts/${contact}/copy`, body: { book: 'none' } })),
  'GET /api/contacts/{contact}/picture': () => contacts.flatMap((contact) => get(`/api/contacts/${contact}/picture`)),
  'PUT /api/contacts/{contact}/picture': () =>
    contacts.map((contact) => ({
      method: 'PUT',
      path: `/api/contacts/${contact}/picture?version=999`,
      body: 'GIF89a',
    })),
  'DELETE /api/contacts/{contact}/picture': () =>
    contacts.map((contact) => ({ method: 'DELETE', path: `/api/contacts/${contact}/picture?version=999` })),
  'GET /api/contacts/{contact}/around': () => contacts.flatMap((contact) => get(`/api/contacts/${contact}/around`)),
  'GET /api/lists/{list}/file': () => get(`/api/lists/${list}/file`),
  'POST /api/lists/{list}/file': () => [
    { method: 'POST', path: `/api/lists/${list}/file`, body: 'BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n' },
  ],
  'PUT /api/tasks/{task}/time': () =>
    tasks.map((task) => ({ method: 'PUT', path: `/api/tasks/${task}/time`, body: { version: 999, when: null } })),
  'GET /api/calendars/{calendar}/sightlines': () => [
    ...get(`/api/calendars/${calendar}/sightlines`),
    ...get(`/api/calendars/${list}/sightlines`),
    ...get(`/api/calendars/${book}/sightlines`),
  ],
  'POST /api/calendars/{calendar}/preview': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/preview`,
      body: { ...wholly, seen: null, range: { from: '2027-06-07', to: '2027-06-14', zone: 'Europe/Lisbon' } },
    },
    {
      method: 'POST',
      path: `/api/calendars/${list}/preview`,
      body: { ...wholly, seen: null, range: { from: '2027-06-07', to: '2027-06-14', zone: 'Europe/Lisbon' } },
    },
    {
      method: 'POST',
      path: `/api/calendars/${book}/preview`,
      body: { ...wholly, seen: null, range: { from: '2027-06-07', to: '2027-06-14', zone: 'Europe/Lisbon' } },
    },
    {
      method: 'POST',
      path: `/api/calendars/${folder}/preview`,
      body: { ...wholly, seen: null, range: { from: '2027-06-07', to: '2027-06-14', zone: 'Europe/Lisbon' } },
    },
  ],
  'PUT /api/calendars/{calendar}/grants': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/grants`, body: { ...wholly, seen: 'stale' } },
  ],
  'DELETE /api/calendars/{calendar}/grants': () => [
    { method: 'DELETE', path: `/api/calendars/${calendar}/grants`, body: { audience: wholly.audience, seen: 'stale' } },
  ],
  'POST /api/calendars/{calendar}/grants': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/grants`, body: { seen: 'stale', note: '' } },
  ],
  'GET /api/calendars/{calendar}/findings': () => get(`/api/calendars/${calendar}/findings`),
  'GET /api/calendars/{calendar}/history': () => [
    ...get(`/api/calendars/${calendar}/history`),
    ...get(`/api/calendars/${list}/history`),
    ...get(`/api/calendars/${book}/history`),
  ],
  // Only the owner may: and she is asked to leave it as it is.
  'PUT /api/calendars/{calendar}/suspension': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/suspension`, body: { suspended: false } },
  ],
  'POST /api/calendars/{calendar}/ask': () =>
    ids.map((item) => ({
      method: 'POST',
      path: `/api/calendars/${calendar}/ask`,
      body: { audience: { kind: 'person', id: 'bruno' }, item, at: null },
    })),
  'GET /api/items/{item}/sight': () => ids.flatMap((id) => get(`/api/items/${id}/sight`)),
  'GET /api/notices': () => get('/api/notices'),
  'POST /api/notices': () => [{ method: 'POST', path: '/api/notices' }],
  'GET /api/house-rules': () => get('/api/house-rules'),
  'PUT /api/house-rules': () => [{ method: 'PUT', path: '/api/house-rules', body: {} }],
  'POST /api/calendars/{calendar}/imports': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/imports`, body: 'BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n' },
  ],
  'GET /api/imports/{preview}': () => get(`/api/imports/${preview}`),
  'POST /api/imports/{preview}': () => [{ method: 'POST', path: '/api/imports/none' }],
  'DELETE /api/imports/{preview}': () => [{ method: 'DELETE', path: '/api/imports/none' }],
  'GET /api/items/{item}': () => ids.flatMap((id) => get(`/api/items/${id}`)),
  'PATCH /api/items/{item}': () =>
    ids.map((id) => ({ method: 'PATCH', path: `/api/items/${id}`, body: { version: 999, fields: { title: 'x' } } })),
  'DELETE /api/items/{item}': () => ids.map((id) => ({ method: 'DELETE', path: `/api/items/${id}?version=999` })),
  'POST /api/calendars/{calendar}/suggestions': () =>
    ids.map((item) => ({
      method: 'POST',
      path: `/api/calendars/${calendar}/suggestions`,
      // An id nobody gave out in this form, so that nothing is put forward.
      body: { kind: 'remove', item: `${item}~` },
    })),
  'GET /api/suggestions': () => get('/api/suggestions'),
  'PUT /api/suggestions/{suggestion}': () => [
    { method: 'PUT', path: `/api/suggestions/${suggestion}`, body: { answer: 'yes', version: 999 } },
  ],
  'GET /api/items/{item}/meeting': () => ids.flatMap((id) => get(`/api/items/${id}/meeting`)),
  'POST /api/items/{item}/meeting': () =>
    ids.map((id) => ({
      method: 'POST',
      path: `/api/items/${id}/meeting`,
      body: { act: 'mailAgain', attendee: 'none' },
    })),
  'POST /api/items/{item}/answer': () =>
    ids.map((id) => ({
      method: 'POST',
      path: `/api/items/${id}/answer`,
      body: { answer: 'accepted', seen: 'declined' },
    })),
  'POST /api/items/{item}/calendar': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/calendar`, body: { to: calendar, version: 999 } })),
  'POST /api/answers': () => [
    {
      method: 'POST',
      path: '/api/answers',
      body: { answers: ids.map((item) => ({ item, answer: 'accepted', seen: 'declined' })) },
    },
  ],
  'POST /api/calendars/{calendar}/coming': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/coming`,
      body: {
        when: { start: '2027-06-09T10:00', end: '2027-06-09T12:00', allDay: false, zone: 'Europe/Lisbon' },
        people: ['i.varga@cloudmoor.example', 'b.keane@cloudmoor.example'],
        item: ids[0] ?? null,
      },
    },
  ],
  'PUT /api/calendars/{calendar}/told': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/told`, body: { owner: true } },
  ],
  'POST /api/rooms': () => [{ method: 'POST', path: '/api/rooms', body: { name: '' } }],
  'POST /api/calendars/{calendar}/check': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/check`,
      body: {
        when: { start: '2027-06-08T09:00', end: '2027-06-08T19:00', allDay: false, zone: 'Europe/Lisbon' },
        people: ['ines', 'amara', 'bruno'].map((h) => ({ address: `${h}@cloudmoor.example`, must: true })),
        place: 'Ridge House',
      },
    },
  ],
  'POST /api/calendars/{calendar}/openings': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/openings`,
      body: { ...TIMES, tentative: 'counts', sheet: true, room: { seats: 2, site: null } },
    },
  ],
  'POST /api/calendars/{calendar}/openings/day': () =>
    ['2027-06-07', '2027-06-09', '2027-06-11'].map((from) => ({
      method: 'POST' as const,
      path: `/api/calendars/${calendar}/openings/day`,
      body: { ...TIMES, from },
    })),
  'POST /api/calendars/{calendar}/round': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/round`,
      body: { ...ROUND, meetings: [{ length: 60 }, { length: 30 }] },
    },
  ],
  'POST /api/calendars/{calendar}/round/made': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/round/made`,
      body: { as: 'holds', meetings: [], zone: 'UTC', lapses: '2027-06-30T09:00:00Z' },
    },
  ],
  'POST /api/calendars/{calendar}/openings/series': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/openings/series`,
      body: { ...TIMES, every: 1, times: 3 },
    },
  ],
  'GET /api/journeys': () => get('/api/journeys'),
  'POST /api/journeys': () => [{ method: 'POST', path: '/api/journeys', body: { text: 'a,b,c', apply: false } }],
  'GET /api/journeys/file': () => get('/api/journeys/file'),
  // Every word that is marked, in every field, by its beginning and in whole.
  'GET /api/search': () =>
    ['zq', 'weir', 'ines', 'river', 'cloudmoor', 'https'].flatMap((words) => [
      ...get(`/api/search?words=${words}`),
      ...get(`/api/search?words=${words}&everywhere=1`),
    ]),
  'POST /api/calendars/{calendar}/room': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/room`,
      body: TIMES,
    },
  ],
  'GET /api/calendars/{calendar}/keeps': () => get(`/api/calendars/${calendar}/keeps`),
  'PUT /api/calendars/{calendar}/keeps': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/keeps`, body: { keeps: [], version: 999 } },
  ],
  'POST /api/calendars/{calendar}/holds': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/holds`, body: { title: 'x', length: 60, starts: [] } },
  ],
  'POST /api/items/{item}/offer': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/offer`, body: { words: '' } })),
  'DELETE /api/items/{item}/offer': () => ids.map((id) => ({ method: 'DELETE', path: `/api/items/${id}/offer` })),
  'GET /api/offers/{offer}': () => get(`/api/offers/${offer}`),
  'POST /api/offers/{offer}': () => [
    {
      method: 'POST',
      path: `/api/offers/${offer}`,
      body: { start: '2027-03-03T10:00:00Z', name: 'x', address: 'x@x.example' },
    },
  ],
  'GET /api/items/{item}/holds': () => ids.flatMap((id) => get(`/api/items/${id}/holds`)),
  'POST /api/items/{item}/holds': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/holds`, body: { version: -1 } })),
  'GET /api/calendars/{calendar}/found-days': () =>
    ['zq', 'weir'].flatMap((words) =>
      get(`/api/calendars/${calendar}/found-days?words=${words}&from=2027-03-01&to=2027-03-15&zone=Europe/Lisbon`),
    ),
  'GET /api/items/{item}/attachments': () => ids.flatMap((id) => get(`/api/items/${id}/attachments`)),
  'POST /api/items/{item}/attachments': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/attachments?name=x`, body: '' })),
  'GET /api/attachments/{attachment}': () => files.flatMap((file) => get(`/api/attachments/${file}`)),
  'DELETE /api/attachments/{attachment}': () => [{ method: 'DELETE', path: '/api/attachments/none' }],
  'POST /api/attachments/{attachment}': () => [{ method: 'POST', path: '/api/attachments/none' }],
  'POST /api/items/{item}/looking': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/looking`, body: { doing: 'looks' } })),
  'GET /api/items/{item}/tasks': () => ids.flatMap((id) => get(`/api/items/${id}/tasks`)),
  'GET /api/items/{item}/apart': () => ids.flatMap((id) => get(`/api/items/${id}/apart`)),
  'POST /api/items/{item}/apart': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/apart`, body: { version: -1 } })),
  'POST /api/items/{item}/copies': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/copies`, body: { dates: ['2200-99-99'] } })),
  'POST /api/several': () => [
    {
      method: 'POST',
      path: '/api/several',
      body: { items: ids.map((item) => ({ item, version: -1 })), change: { kind: 'remove' } },
    },
    {
      method: 'POST',
      path: '/api/several',
      body: { items: ids.map((item) => ({ item, version: -1 })), change: { kind: 'shift', days: 1, minutes: 0 } },
    },
  ],
  'for/[who]/day/page.tsx': () => [...page('/for/ines/day'), ...page('/for/me/day?of=evening')],
  'GET /api/days': () => [
    ...get('/api/days?of=morning'),
    ...get('/api/days?of=evening'),
    ...get('/api/days?of=morning&for=ines'),
    ...get('/api/days?of=evening&for=nobody'),
  ],
  'GET /api/days/letters': () => get('/api/days/letters'),
  'PUT /api/days/letters': () => [{ method: 'PUT', path: '/api/days/letters', body: { morning: 'x', evening: null } }],
  'for/[who]/time-use/page.tsx': () => page('/for/ines/time-use'),
  'GET /api/people/{person}/time-use': () => [
    ...get('/api/people/ines/time-use?from=2027-06-07&until=2027-06-13&otherFrom=2027-05-31&otherUntil=2027-06-06'),
    ...get('/api/people/nobody/time-use?from=2027-06-07&until=2027-06-13'),
  ],
  'GET /api/people/{person}/time-use/file': () =>
    get('/api/people/ines/time-use/file?from=2027-06-07&until=2027-06-13'),
  'PUT /api/people/{person}/time-use': () => [
    { method: 'PUT', path: '/api/people/ines/time-use', body: { shares: [], version: 999 } },
  ],
  'for/[who]/trail/page.tsx': () => [...page('/for/ines/trail'), ...page('/for/me/trail?of=others')],
  'GET /api/trail': () => [
    ...get('/api/trail'),
    ...get('/api/trail?of=others'),
    ...get(`/api/trail?of=calendar&calendar=${calendar}`),
    ...get(`/api/trail?of=calendar&calendar=${calendar}&kind=items&who=ines`),
    ...get('/api/trail?of=calendar&calendar=none'),
  ],
  'GET /api/trail/file': () => [...get('/api/trail/file'), ...get(`/api/trail/file?of=calendar&calendar=${calendar}`)],
  'GET /api/trail/digest': () => get('/api/trail/digest'),
  'GET /api/items/{item}/trail': () => ids.map((id) => ({ method: 'GET', path: `/api/items/${id}/trail` })),
  'POST /api/items/{item}/trail': () => ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/trail` })),
  'GET /api/calendars/{calendar}/removed': () => get(`/api/calendars/${calendar}/removed`),
  'POST /api/repeats': () => [
    {
      method: 'POST',
      path: '/api/repeats',
      body: {
        when: { start: '2027-06-08T09:00', end: '2027-06-08T10:00', allDay: false, zone: 'Europe/Lisbon' },
        rule: 'FREQ=DAILY',
      },
    },
  ],
  'PUT /api/calendars/{calendar}': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}`, body: { name: '', description: '' } },
  ],
  // The main calendar stays, whoever asks.
  'DELETE /api/calendars/{calendar}': () => [{ method: 'DELETE', path: `/api/calendars/${calendar}` }],
  'POST /api/calendars/{calendar}': () => [{ method: 'POST', path: `/api/calendars/${calendar}` }],
  'GET /api/targets': () => get('/api/targets'),
  'GET /api/lanes': () => get('/api/lanes'),
  'POST /api/lanes': () => [
    { method: 'POST', path: '/api/lanes', body: { people: ['nobody'], group: null, calendars: [] } },
    { method: 'POST', path: '/api/lanes', body: { people: [], group: 'none', calendars: [] } },
  ],
  'PATCH /api/lanes/{lane}': () => [{ method: 'PATCH', path: '/api/lanes/none', body: { shown: true } }],
  'DELETE /api/lanes/{lane}': () => [{ method: 'DELETE', path: '/api/lanes/none' }],
  'PUT /api/lanes/order': () => [{ method: 'PUT', path: '/api/lanes/order', body: { lanes: ['none'] } }],
  'POST /api/boards': () => [
    {
      method: 'POST',
      path: '/api/boards',
      body: { calendars: [calendar, 'none'], from: '2027-06-07', to: '2027-06-14', zone: 'Europe/Lisbon' },
    },
  ],
  'GET /api/reminders': () => get('/api/reminders'),
  'GET /api/reminders/wishes': () => get('/api/reminders/wishes'),
  'POST /api/reminders/{reminder}': () => [{ method: 'POST', path: '/api/reminders/none', body: { act: 'done' } }],
  'PUT /api/calendars/{calendar}/reminder': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/reminder`, body: { minutes: -1, byMail: false } },
  ],
  'GET /api/items/{item}/reminder': () => ids.map((id) => ({ method: 'GET', path: `/api/items/${id}/reminder` })),
  'PUT /api/items/{item}/reminder': () =>
    ids.map((id) => ({ method: 'PUT', path: `/api/items/${id}/reminder`, body: { minutes: -1, byMail: false } })),
  'POST /api/sendings/{sending}': () => [{ method: 'POST', path: '/api/sendings/none' }],
  'DELETE /api/sendings/{sending}': () => [{ method: 'DELETE', path: '/api/sendings/none' }],
  'GET /api/desk': () => [...get('/api/desk'), ...get('/api/desk?for=ines'), ...get('/api/desk?for=nobody')],
  'POST /api/desk/{row}': () =>
    [{ act: 'left' }, { act: 'back' }, { act: 'accepted' }].map((body) => ({
      method: 'POST',
      path: '/api/desk/none',
      body,
    })),
  'POST /api/desk/{row}/open': () => [{ method: 'POST', path: '/api/desk/none/open', body: { open: true } }],
  'GET /api/people/{person}/desk': () => [...get('/api/people/ines/desk'), ...get('/api/people/nobody/desk')],
  'PUT /api/people/{person}/desk': () => [
    { method: 'PUT', path: '/api/people/ines/desk', body: { shifts: {}, first: [], version: -1 } },
  ],
  'GET /api/people/{person}/absences': () => [
    ...get('/api/people/ines/absences'),
    ...get('/api/people/nobody/absences'),
  ],
  'POST /api/people/{person}/absences': () => [{ method: 'POST', path: '/api/people/ines/absences', body: ABSENCE }],
  'PUT /api/absences/{absence}': () => [
    { method: 'PUT', path: '/api/absences/none', body: { ...ABSENCE, version: 0 } },
  ],
  'DELETE /api/absences/{absence}': () => [{ method: 'DELETE', path: '/api/absences/none' }],
  'POST /api/absences/{absence}/cover': () => [{ method: 'POST', path: '/api/absences/none/cover' }],
  'GET /api/people/{person}/messages': () => [
    ...get('/api/people/ines/messages'),
    ...get('/api/people/bruno/messages'),
    ...get(`/api/people/ines/messages?folder=${folder}`),
    ...get(`/api/people/ines/messages?folder=${folder}&removed=yes`),
    ...get(`/api/people/ines/messages?folder=${folder}&before=none`),
    ...get('/api/people/nobody/messages'),
  ],
  'POST /api/people/{person}/messages': () => [
    { method: 'POST', path: '/api/people/ines/messages', body: { messages: ['none'] } },
  ],
  'POST /api/people/{person}/mail': () => [
    { method: 'POST', path: '/api/people/ines/mail', body: { to: [], subject: '', text: '' } },
  ],
  'POST /api/messages/{message}': () => [{ method: 'POST', path: '/api/messages/none' }],
  // Unsigned, there is nothing at it; signed mail is sent by the tests of mail.
  'api/inbound/route.ts POST': () => [{ method: 'POST', path: '/api/inbound', body: 'Subject: x' }],
  'api/inbound/route.ts GET': () => get('/api/inbound'),
  'api/inbound/route.ts PUT': () => [{ method: 'PUT', path: '/api/inbound', body: 'x' }],
  'api/inbound/route.ts PATCH': () => [{ method: 'PATCH', path: '/api/inbound', body: 'x' }],
  'api/inbound/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/inbound' }],
  'api/[...path]/route.ts GET': () => get('/api/nothing/here'),
  'api/[...path]/route.ts POST': () => [{ method: 'POST', path: '/api/nothing/here', body: {} }],
  'api/[...path]/route.ts PUT': () => [{ method: 'PUT', path: '/api/nothing/here', body: {} }],
  'api/[...path]/route.ts PATCH': () => [{ method: 'PATCH', path: '/api/nothing/here', body: {} }],
  'api/[...path]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/nothing/here' }],
  'correspondents/page.tsx': () => page('/correspondents'),
  'POST /api/undo': () => [{ method: 'POST', path: '/api/undo', body: { undo: 'none' } }],
  'POST /api/session': () => [
    {
      method: 'POST',
      path: '/api/session',
      body: { address: 'stranger@elsewhere.example', password: 'not theirs at all' },
    },
  ],
  // Signing out and withdrawing end the session this test stands on; they answer `done` and are driven elsewhere.
  'DELETE /api/session': () => [],
  'GET /api/sessions': () => get('/api/sessions'),
  'DELETE /api/sessions/{session}': () => [{ method: 'DELETE', path: '/api/sessions/none' }],
  'POST /api/start': () => [{ method: 'POST', path: '/api/start', body: {} }],
  'POST /api/demo/step-in': () => [{ method: 'POST', path: '/api/demo/step-in', body: { handle: 'nobody' } }],
  'GET /api/openapi.json': () => get('/api/openapi.json'),
  // The stream is heard in a test of its own.
  'GET /api/live': () => [],
});
