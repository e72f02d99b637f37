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
  /** The key of an ask for more of it. */
  readonly ask: string;
}
export const RANGE = 'from=2027-06-07&to=2027-06-14&zone=Europe%2FLisbon';

export type Ask = { method: string; path: string; body?: unknown; headers?: Record<string, string> };
const get = (path: string): Ask[] => [{ method: 'GET', path }];
/** A page as a browser first gets it, and as the router asks for it afterwards. */
const page = (path: string): Ask[] => [...get(path), { method: 'GET', path, headers: { RSC: '1' } }];
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
};
export const wholly = { audience: { kind: 'person', id: 'wren' }, rights };

/** A search for times of three people. */
const TIMES = {
  people: ['ines', 'amara', 'bruno'].map((h) => ({ address: `${h}@cloudmoor.example`, must: true })),
  length: 60,
  from: '2027-06-07',
  days: 7,
  zone: 'Europe/Lisbon',
};

const { length: _length, ...ROUND } = TIMES;

const CALDAV = 'xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav"';

/** Everything that a calendar program of somebody's can ask of a calendar, and of whose it is. Nothing here changes anything: tags are stale. */
export function programAsks(me: string, calendar: string, ids: readonly string[]): Ask[] {
  const at = `/dav/calendars/${me}/${calendar}/`;
  const find = (path: string, depth: string, body?: string): Ask => ({
    method: 'PROPFIND',
    path,
    headers: { depth },
    ...(body ? { body } : {}),
  });
  const report = (body: string): Ask => ({ method: 'REPORT', path: at, headers: { depth: '1' }, body });
  const query = (filter: string, data = '<c:calendar-data/>') =>
    report(
      `<c:calendar-query ${CALDAV}><d:prop><d:getetag/>${data}</d:prop><c:filter><c:comp-filter name="VCALENDAR"><c:comp-filter name="VEVENT">${filter}</c:comp-filter></c:comp-filter></c:filter></c:calendar-query>`,
    );
  const span = 'start="20270601T000000Z" end="20270701T000000Z"';
  const names = ids.map((id) => `<d:href>${at}${id}.ics</d:href>`).join('');
  const text = 'BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n';
  const stale = { 'if-match': '"none"', 'content-type': 'text/calendar' };
  return [
    find('/dav/', '1'),
    find(`/dav/people/${me}/`, '0'),
    find('/dav/people/ines/', '0'),
    find(`/dav/calendars/${me}/`, '1'),
    find(`/dav/inbox/${me}/`, '1'),
    find(`/dav/outbox/${me}/`, '0'),
    find(at, '1'),
    find(at, '1', '<propfind xmlns="DAV:"><propname/></propfind>'),
    find(
      at,
      '0',
      `<d:propfind ${CALDAV}><d:prop><d:displayname/><d:owner/><c:calendar-description/><d:current-user-privilege-set/><c:calendar-timezone/></d:prop></d:propfind>`,
    ),
    query(''),
    query(`<c:time-range ${span}/>`),
    query(`<c:time-range ${span}/>`, `<c:calendar-data><c:expand ${span}/></c:calendar-data>`),
    query('<c:prop-filter name="DESCRIPTION"><c:text-match>notesqz</c:text-match></c:prop-filter>'),
    report(
      `<c:calendar-multiget ${CALDAV}><d:prop><d:getetag/><c:calendar-data/></d:prop>${names}</c:calendar-multiget>`,
    ),
    report(`<c:free-busy-query ${CALDAV}><c:time-range ${span}/></c:free-busy-query>`),
    ...ids.flatMap((id): Ask[] => [
      { method: 'GET', path: `${at}${id}.ics` },
      { method: 'PUT', path: `${at}${id}.ics`, body: text, headers: stale },
      { method: 'DELETE', path: `${at}${id}.ics`, headers: stale },
    ]),
    { method: 'PROPPATCH', path: at, body: '<propertyupdate xmlns="DAV:"/>' },
    { method: 'OPTIONS', path: at },
    {
      method: 'POST',
      path: `/dav/outbox/${me}/`,
      headers: { 'content-type': 'text/calendar' },
      body: [
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        'METHOD:REQUEST',
        'BEGIN:VFREEBUSY',
        'UID:q',
        'DTSTART:20270601T000000Z',
        'DTEND:20270701T000000Z',
        'ORGANIZER:mailto:ORGANISER',
        'ATTENDEE:mailto:i.varga@cloudmoor.example',
        'END:VFREEBUSY',
        'END:VCALENDAR',
        '',
      ].join('\r\n'),
    },
  ];
}

/** How each exit is asked, by file and method. Nothing here changes anything for those who may: versions are stale. */
export const exitsOf = ({
  calendar,
  ids,
  link,
  suggestion,
  preview,
  files,
  offer,
  ask,
}: Marked): Record<string, () => Ask[]> => ({
  'page.tsx': () => page('/'),
  'sign-in/page.tsx': () => page('/sign-in?to=%2Ffor%2Fines%2Fcalendar'),
  'welcome/page.tsx': () => page('/welcome'),
  'api/accounts/route.ts GET': () => get('/api/accounts'),
  'api/accounts/route.ts POST': () => [{ method: 'POST', path: '/api/accounts' }],
  'api/accounts/route.ts PUT': () => [{ method: 'PUT', path: '/api/accounts', body: { code: 'NONE' } }],
  'api/accounts/[person]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/accounts/nobody' }],
  'api/hands/route.ts POST': () => [{ method: 'POST', path: '/api/hands', body: { name: 'x' } }],
  'api/tokens/route.ts GET': () => get('/api/tokens'),
  'api/tokens/route.ts POST': () => [
    { method: 'POST', path: '/api/tokens', body: { name: '', reads: true, calendar, until: null } },
  ],
  'api/tokens/[token]/route.ts GET': () => [{ method: 'GET', path: '/api/tokens/none' }],
  'api/tokens/[token]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/tokens/none' }],
  'api/grants/route.ts POST': () => [
    { method: 'POST', path: '/api/grants', body: { dryRun: true, changes: [{ calendar, ...wholly }] } },
    { method: 'POST', path: '/api/grants', body: { dryRun: true, changes: [{ of: 'ines', ...wholly }] } },
  ],
  // To a window's session there is nothing of a calendar program's: what its tokens get is asked in a test of its own.
  'api/dav/route.ts POST': () => [
    ...get('/.well-known/caldav'),
    ...programAsks('ines', calendar, ids),
    { method: 'POST', path: '/api/dav', headers: { 'x-dav-method': 'PROPFIND', 'x-dav-path': '/dav/' } },
  ],
  'api/dav/route.ts GET': () => get('/api/dav'),
  'api/dav/route.ts PUT': () => [{ method: 'PUT', path: '/api/dav' }],
  'api/dav/route.ts PATCH': () => [{ method: 'PATCH', path: '/api/dav' }],
  'api/dav/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/dav' }],
  'ask/page.tsx': () => page('/ask'),
  'look/page.tsx': () => [...page('/look?of=ines'), ...page(`/look?of=ines&c=${calendar}`)],
  'shown/[link]/route.ts GET': () => [...get(`/shown/${link}?from=2027-06-07`)],
  'api/links/[link]/calendar.ics/route.ts GET': () => [...get(`/api/links/${link}/calendar.ics`)],
  'api/links/[link]/free-busy.ifb/route.ts GET': () => [...get(`/api/links/${link}/free-busy.ifb`)],
  'api/calendars/[calendar]/links/[link]/route.ts PUT': () => [
    {
      method: 'PUT',
      path: `/api/calendars/${calendar}/links/${link.split('.')[0]}`,
      body: { ahead: 366, language: null, zone: 'Nowhere', framedBy: null },
    },
  ],
  'api/asks/route.ts GET': () => get('/api/asks'),
  'api/asks/route.ts POST': () => [
    { method: 'POST', path: '/api/asks', body: { to: ['ines', 'nobody'], rights } },
    { method: 'POST', path: '/api/asks', body: { to: ['ines'], calendar, rights: { ...rights, change: 'all' } } },
  ],
  'api/asks/choices/route.ts POST': () => [{ method: 'POST', path: '/api/asks/choices', body: { rights } }],
  'api/asks/[ask]/route.ts POST': () => [
    { method: 'POST', path: `/api/asks/${ask}`, body: { answer: 'give', turns: 999, rights, seen: null } },
    { method: 'POST', path: `/api/asks/${ask}`, body: { answer: 'refuse', turns: 999 } },
  ],
  'api/asks/[ask]/route.ts PUT': () => [{ method: 'PUT', path: `/api/asks/${ask}` }],
  'api/asks/[ask]/route.ts DELETE': () => [{ method: 'DELETE', path: `/api/asks/${ask}-` }],
  'api/calendars/[calendar]/least/route.ts POST': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/least`, body: { audience: { kind: 'person', id: 'elin' } } },
  ],
  'api/calendars/[calendar]/message/route.ts POST': () => [
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
  'for/[who]/messages/page.tsx': () => page('/for/ines/messages'),
  'for/[who]/house-rules/page.tsx': () => page('/for/ines/house-rules'),
  'for/[who]/day-sheet/page.tsx': () => page('/for/ines/day-sheet?day=2027-06-08'),
  'for/[who]/settings/page.tsx': () => page('/for/ines/settings'),
  'api/frame/route.ts GET': () => get('/api/frame'),
  'api/people/route.ts GET': () => get('/api/people'),
  'api/groups/route.ts GET': () => get('/api/groups'),
  'api/groups/route.ts POST': () => [{ method: 'POST', path: '/api/groups', body: { name: '' } }],
  'api/groups/[group]/members/route.ts PUT': () => [
    { method: 'PUT', path: '/api/groups/none/members', body: { handle: 'nobody', member: true } },
  ],
  'api/groups/[group]/within/route.ts PUT': () => [
    { method: 'PUT', path: '/api/groups/none/within', body: { group: 'none', within: true } },
  ],
  'api/people/[person]/route.ts GET': () => [...get('/api/people/bruno'), ...get('/api/people/nobody')],
  'api/people/[person]/route.ts PUT': () => [{ method: 'PUT', path: '/api/people/bruno', body: { name: '' } }],
  'api/directory/phones/route.ts POST': () => [
    {
      method: 'POST',
      path: '/api/directory/phones',
      body: { addresses: ['i.varga@cloudmoor.example', 'b.keane@cloudmoor.example', 'nobody@cloudmoor.example'] },
    },
  ],
  'api/people/[person]/leaving/route.ts POST': () => [
    { method: 'POST', path: '/api/people/bruno/leaving', body: { to: null } },
  ],
  'api/people/[person]/way-in/route.ts POST': () => [{ method: 'POST', path: '/api/people/nobody/way-in' }],
  'api/way-in/route.ts POST': () => [
    { method: 'POST', path: '/api/way-in', body: { token: 'none', password: 'long enough indeed' } },
  ],
  'api/directory/route.ts GET': () => get('/api/directory'),
  'api/directory/route.ts POST': () => [
    { method: 'POST', path: '/api/directory', body: { text: 'name,address\nX,x@cloudmoor.example', apply: false } },
  ],
  'api/domains/route.ts GET': () => get('/api/domains'),
  'api/domains/route.ts PUT': () => [{ method: 'PUT', path: '/api/domains', body: { domains: ['no domain'] } }],
  'api/calendars/route.ts POST': () => [{ method: 'POST', path: '/api/calendars', body: { of: 'nobody', name: 'x' } }],
  'api/calendars/[calendar]/grants/several/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/grants/several`,
      body: { gives: [{ ...wholly, seen: 'stale' }] },
    },
  ],
  'api/calendars/[calendar]/grants/several/route.ts DELETE': () => [
    {
      method: 'DELETE',
      path: `/api/calendars/${calendar}/grants/several`,
      body: { takes: [{ audience: wholly.audience, seen: 'stale' }] },
    },
  ],
  'api/words/route.ts PUT': () => [
    { method: 'PUT', path: '/api/words', body: { words: [{ word: '', topic: 'own' }] } },
  ],
  'api/rule-wishes/route.ts POST': () => [{ method: 'POST', path: '/api/rule-wishes', body: {} }],
  'api/rule-wishes/[wish]/route.ts PUT': () => [
    { method: 'PUT', path: '/api/rule-wishes/none', body: { answer: 'left', note: '' } },
  ],
  'api/guest/route.ts POST': () => [
    { method: 'POST', path: '/api/guest', body: { address: 'stranger@elsewhere.example' } },
  ],
  'api/guest/route.ts PUT': () => [{ method: 'PUT', path: '/api/guest', body: { token: 'none' } }],
  'api/links/[link]/items/route.ts GET': () => [
    ...get(`/api/links/${link}/items?${RANGE}`),
    ...get(`/api/links/none/items?${RANGE}`),
  ],
  // Heard in a test of its own.
  'api/links/[link]/live/route.ts GET': () => [],
  'api/people/route.ts POST': () => [{ method: 'POST', path: '/api/people', body: { name: '' } }],
  'api/preferences/route.ts PUT': () => [{ method: 'PUT', path: '/api/preferences', body: { zone: 'x' } }],
  'api/calendars/[calendar]/items/route.ts GET': () => [
    ...get(`/api/calendars/${calendar}/items?${RANGE}`),
    ...get(`/api/calendars/${calendar}/items?${RANGE}&as=everyone`),
    ...get(`/api/calendars/${calendar}/items?${RANGE}&as=person%3Abruno`),
    ...get(`/api/calendars/${calendar}/items?${RANGE}&as=link%3A${link.split('.')[0]}`),
  ],
  'api/calendars/[calendar]/items/route.ts POST': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/items`, body: { title: '', when: {} } },
  ],
  'api/calendars/[calendar]/load/route.ts GET': () => get(`/api/calendars/${calendar}/load?${RANGE}`),
  'api/calendars/[calendar]/file/route.ts GET': () => get(`/api/calendars/${calendar}/file`),
  'api/calendars/[calendar]/sightlines/route.ts GET': () => get(`/api/calendars/${calendar}/sightlines`),
  'api/calendars/[calendar]/preview/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/preview`,
      body: { ...wholly, seen: null, range: { from: '2027-06-07', to: '2027-06-14', zone: 'Europe/Lisbon' } },
    },
  ],
  'api/calendars/[calendar]/grants/route.ts PUT': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/grants`, body: { ...wholly, seen: 'stale' } },
  ],
  'api/calendars/[calendar]/grants/route.ts DELETE': () => [
    { method: 'DELETE', path: `/api/calendars/${calendar}/grants`, body: { audience: wholly.audience, seen: 'stale' } },
  ],
  'api/calendars/[calendar]/grants/route.ts POST': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/grants`, body: { seen: 'stale', note: '' } },
  ],
  'api/calendars/[calendar]/findings/route.ts GET': () => get(`/api/calendars/${calendar}/findings`),
  'api/calendars/[calendar]/history/route.ts GET': () => get(`/api/calendars/${calendar}/history`),
  // Only the owner may: and she is asked to leave it as it is.
  'api/calendars/[calendar]/suspension/route.ts PUT': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/suspension`, body: { suspended: false } },
  ],
  'api/calendars/[calendar]/ask/route.ts POST': () =>
    ids.map((item) => ({
      method: 'POST',
      path: `/api/calendars/${calendar}/ask`,
      body: { audience: { kind: 'person', id: 'bruno' }, item, at: null },
    })),
  'api/items/[item]/sight/route.ts GET': () => ids.flatMap((id) => get(`/api/items/${id}/sight`)),
  'api/notices/route.ts GET': () => get('/api/notices'),
  'api/notices/route.ts POST': () => [{ method: 'POST', path: '/api/notices' }],
  'api/house-rules/route.ts GET': () => get('/api/house-rules'),
  'api/house-rules/route.ts PUT': () => [{ method: 'PUT', path: '/api/house-rules', body: {} }],
  'api/calendars/[calendar]/imports/route.ts POST': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/imports`, body: 'BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n' },
  ],
  'api/imports/[preview]/route.ts GET': () => get(`/api/imports/${preview}`),
  'api/imports/[preview]/route.ts POST': () => [{ method: 'POST', path: '/api/imports/none' }],
  'api/imports/[preview]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/imports/none' }],
  'api/items/[item]/route.ts GET': () => ids.flatMap((id) => get(`/api/items/${id}`)),
  'api/items/[item]/route.ts PATCH': () =>
    ids.map((id) => ({ method: 'PATCH', path: `/api/items/${id}`, body: { version: 999, fields: { title: 'x' } } })),
  'api/items/[item]/route.ts DELETE': () =>
    ids.map((id) => ({ method: 'DELETE', path: `/api/items/${id}?version=999` })),
  'api/calendars/[calendar]/suggestions/route.ts POST': () =>
    ids.map((item) => ({
      method: 'POST',
      path: `/api/calendars/${calendar}/suggestions`,
      // An id nobody gave out in this form, so that nothing is put forward.
      body: { kind: 'remove', item: `${item}~` },
    })),
  'api/suggestions/route.ts GET': () => get('/api/suggestions'),
  'api/suggestions/[suggestion]/route.ts PUT': () => [
    { method: 'PUT', path: `/api/suggestions/${suggestion}`, body: { answer: 'yes', version: 999 } },
  ],
  'api/items/[item]/meeting/route.ts GET': () => ids.flatMap((id) => get(`/api/items/${id}/meeting`)),
  'api/items/[item]/meeting/route.ts POST': () =>
    ids.map((id) => ({
      method: 'POST',
      path: `/api/items/${id}/meeting`,
      body: { act: 'mailAgain', attendee: 'none' },
    })),
  'api/items/[item]/answer/route.ts POST': () =>
    ids.map((id) => ({
      method: 'POST',
      path: `/api/items/${id}/answer`,
      body: { answer: 'accepted', seen: 'declined' },
    })),
  'api/items/[item]/calendar/route.ts POST': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/calendar`, body: { to: calendar, version: 999 } })),
  'api/answers/route.ts POST': () => [
    {
      method: 'POST',
      path: '/api/answers',
      body: { answers: ids.map((item) => ({ item, answer: 'accepted', seen: 'declined' })) },
    },
  ],
  'api/calendars/[calendar]/coming/route.ts POST': () => [
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
  'api/calendars/[calendar]/told/route.ts PUT': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/told`, body: { owner: true } },
  ],
  'api/rooms/route.ts POST': () => [{ method: 'POST', path: '/api/rooms', body: { name: '' } }],
  'api/calendars/[calendar]/check/route.ts POST': () => [
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
  'api/calendars/[calendar]/openings/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/openings`,
      body: { ...TIMES, tentative: 'counts', sheet: true, room: { seats: 2, site: null } },
    },
  ],
  'api/calendars/[calendar]/openings/day/route.ts POST': () =>
    ['2027-06-07', '2027-06-09', '2027-06-11'].map((from) => ({
      method: 'POST' as const,
      path: `/api/calendars/${calendar}/openings/day`,
      body: { ...TIMES, from },
    })),
  'api/calendars/[calendar]/round/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/round`,
      body: { ...ROUND, meetings: [{ length: 60 }, { length: 30 }] },
    },
  ],
  'api/calendars/[calendar]/round/made/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/round/made`,
      body: { as: 'holds', meetings: [], zone: 'UTC', lapses: '2027-06-30T09:00:00Z' },
    },
  ],
  'api/calendars/[calendar]/openings/series/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/openings/series`,
      body: { ...TIMES, every: 1, times: 3 },
    },
  ],
  'api/journeys/route.ts GET': () => get('/api/journeys'),
  'api/journeys/route.ts POST': () => [
    { method: 'POST', path: '/api/journeys', body: { text: 'a,b,c', apply: false } },
  ],
  'api/journeys/file/route.ts GET': () => get('/api/journeys/file'),
  // Every word that is marked, in every field, by its beginning and in whole.
  'api/search/route.ts GET': () =>
    ['zq', 'weir', 'ines', 'river', 'cloudmoor', 'https'].flatMap((words) => [
      ...get(`/api/search?words=${words}`),
      ...get(`/api/search?words=${words}&everywhere=1`),
    ]),
  'api/calendars/[calendar]/room/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/calendars/${calendar}/room`,
      body: TIMES,
    },
  ],
  'api/calendars/[calendar]/keeps/route.ts GET': () => get(`/api/calendars/${calendar}/keeps`),
  'api/calendars/[calendar]/keeps/route.ts PUT': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/keeps`, body: { keeps: [], version: 999 } },
  ],
  'api/calendars/[calendar]/holds/route.ts POST': () => [
    { method: 'POST', path: `/api/calendars/${calendar}/holds`, body: { title: 'x', length: 60, starts: [] } },
  ],
  'api/items/[item]/offer/route.ts POST': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/offer`, body: { words: '' } })),
  'api/items/[item]/offer/route.ts DELETE': () =>
    ids.map((id) => ({ method: 'DELETE', path: `/api/items/${id}/offer` })),
  'api/offers/[offer]/route.ts GET': () => get(`/api/offers/${offer}`),
  'api/offers/[offer]/route.ts POST': () => [
    {
      method: 'POST',
      path: `/api/offers/${offer}`,
      body: { start: '2027-03-03T10:00:00Z', name: 'x', address: 'x@x.example' },
    },
  ],
  'api/items/[item]/holds/route.ts GET': () => ids.flatMap((id) => get(`/api/items/${id}/holds`)),
  'api/items/[item]/holds/route.ts POST': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/holds`, body: { version: -1 } })),
  'api/calendars/[calendar]/found-days/route.ts GET': () =>
    ['zq', 'weir'].flatMap((words) =>
      get(`/api/calendars/${calendar}/found-days?words=${words}&from=2027-03-01&to=2027-03-15&zone=Europe/Lisbon`),
    ),
  'api/items/[item]/attachments/route.ts GET': () => ids.flatMap((id) => get(`/api/items/${id}/attachments`)),
  'api/items/[item]/attachments/route.ts POST': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/attachments?name=x`, body: '' })),
  'api/attachments/[attachment]/route.ts GET': () => files.flatMap((file) => get(`/api/attachments/${file}`)),
  'api/attachments/[attachment]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/attachments/none' }],
  'api/attachments/[attachment]/route.ts POST': () => [{ method: 'POST', path: '/api/attachments/none' }],
  'api/items/[item]/looking/route.ts POST': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/looking`, body: { doing: 'looks' } })),
  'api/items/[item]/apart/route.ts GET': () => ids.flatMap((id) => get(`/api/items/${id}/apart`)),
  'api/items/[item]/apart/route.ts POST': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/apart`, body: { version: -1 } })),
  'api/items/[item]/copies/route.ts POST': () =>
    ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/copies`, body: { dates: ['2200-99-99'] } })),
  'api/several/route.ts POST': () => [
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
  'api/items/[item]/trail/route.ts GET': () => ids.map((id) => ({ method: 'GET', path: `/api/items/${id}/trail` })),
  'api/items/[item]/trail/route.ts POST': () => ids.map((id) => ({ method: 'POST', path: `/api/items/${id}/trail` })),
  'api/calendars/[calendar]/removed/route.ts GET': () => get(`/api/calendars/${calendar}/removed`),
  'api/repeats/route.ts POST': () => [
    {
      method: 'POST',
      path: '/api/repeats',
      body: {
        when: { start: '2027-06-08T09:00', end: '2027-06-08T10:00', allDay: false, zone: 'Europe/Lisbon' },
        rule: 'FREQ=DAILY',
      },
    },
  ],
  'api/calendars/[calendar]/route.ts PUT': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}`, body: { name: '', description: '' } },
  ],
  // The main calendar stays, whoever asks.
  'api/calendars/[calendar]/route.ts DELETE': () => [{ method: 'DELETE', path: `/api/calendars/${calendar}` }],
  'api/calendars/[calendar]/route.ts POST': () => [{ method: 'POST', path: `/api/calendars/${calendar}` }],
  'api/lanes/route.ts GET': () => get('/api/lanes'),
  'api/lanes/route.ts POST': () => [
    { method: 'POST', path: '/api/lanes', body: { people: ['nobody'], group: null, calendars: [] } },
    { method: 'POST', path: '/api/lanes', body: { people: [], group: 'none', calendars: [] } },
  ],
  'api/lanes/[lane]/route.ts PATCH': () => [{ method: 'PATCH', path: '/api/lanes/none', body: { shown: true } }],
  'api/lanes/[lane]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/lanes/none' }],
  'api/lanes/order/route.ts PUT': () => [{ method: 'PUT', path: '/api/lanes/order', body: { lanes: ['none'] } }],
  'api/boards/route.ts POST': () => [
    {
      method: 'POST',
      path: '/api/boards',
      body: { calendars: [calendar, 'none'], from: '2027-06-07', to: '2027-06-14', zone: 'Europe/Lisbon' },
    },
  ],
  'api/reminders/route.ts GET': () => get('/api/reminders'),
  'api/reminders/wishes/route.ts GET': () => get('/api/reminders/wishes'),
  'api/reminders/[reminder]/route.ts POST': () => [
    { method: 'POST', path: '/api/reminders/none', body: { act: 'done' } },
  ],
  'api/calendars/[calendar]/reminder/route.ts PUT': () => [
    { method: 'PUT', path: `/api/calendars/${calendar}/reminder`, body: { minutes: -1, byMail: false } },
  ],
  'api/items/[item]/reminder/route.ts GET': () =>
    ids.map((id) => ({ method: 'GET', path: `/api/items/${id}/reminder` })),
  'api/items/[item]/reminder/route.ts PUT': () =>
    ids.map((id) => ({ method: 'PUT', path: `/api/items/${id}/reminder`, body: { minutes: -1, byMail: false } })),
  'api/sendings/[sending]/route.ts POST': () => [{ method: 'POST', path: '/api/sendings/none' }],
  'api/sendings/[sending]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/sendings/none' }],
  'api/people/[person]/messages/route.ts GET': () => [
    ...get('/api/people/ines/messages'),
    ...get('/api/people/bruno/messages'),
    ...get('/api/people/nobody/messages'),
  ],
  'api/people/[person]/messages/route.ts POST': () => [
    { method: 'POST', path: '/api/people/ines/messages', body: { messages: ['none'] } },
  ],
  'api/people/[person]/mail/route.ts POST': () => [
    { method: 'POST', path: '/api/people/ines/mail', body: { to: [], subject: '', text: '' } },
  ],
  'api/messages/[message]/route.ts POST': () => [{ method: 'POST', path: '/api/messages/none' }],
  // Unsigned, there is nothing at it; signed mail is sent by the tests of mail.
  'api/inbound/route.ts POST': () => [{ method: 'POST', path: '/api/inbound', body: 'Subject: x' }],
  'api/inbound/route.ts GET': () => get('/api/inbound'),
  'api/inbound/route.ts PUT': () => [{ method: 'PUT', path: '/api/inbound', body: 'x' }],
  'api/inbound/route.ts PATCH': () => [{ method: 'PATCH', path: '/api/inbound', body: 'x' }],
  'api/inbound/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/inbound' }],
  'api/[...nothing]/route.ts GET': () => get('/api/nothing/here'),
  'api/[...nothing]/route.ts POST': () => [{ method: 'POST', path: '/api/nothing/here', body: {} }],
  'api/[...nothing]/route.ts PUT': () => [{ method: 'PUT', path: '/api/nothing/here', body: {} }],
  'api/[...nothing]/route.ts PATCH': () => [{ method: 'PATCH', path: '/api/nothing/here', body: {} }],
  'api/[...nothing]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/nothing/here' }],
  'correspondents/page.tsx': () => page('/correspondents'),
  'api/undo/route.ts POST': () => [{ method: 'POST', path: '/api/undo', body: { undo: 'none' } }],
  'api/session/route.ts POST': () => [
    {
      method: 'POST',
      path: '/api/session',
      body: { address: 'stranger@elsewhere.example', password: 'not theirs at all' },
    },
  ],
  // Signing out and withdrawing end the session this test stands on; they answer `done` and are driven elsewhere.
  'api/session/route.ts DELETE': () => [],
  'api/sessions/route.ts GET': () => get('/api/sessions'),
  'api/sessions/[session]/route.ts DELETE': () => [{ method: 'DELETE', path: '/api/sessions/none' }],
  'api/start/route.ts POST': () => [{ method: 'POST', path: '/api/start', body: {} }],
  'api/demo/step-in/route.ts POST': () => [{ method: 'POST', path: '/api/demo/step-in', body: { handle: 'nobody' } }],
  'api/openapi.json/route.ts GET': () => get('/api/openapi.json'),
  // The stream is heard in a test of its own.
  'api/live/route.ts GET': () => [],
});
