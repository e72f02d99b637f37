/** One request, as a test sends it. */
export type ProgramRequest = { method: string; path: string; body?: unknown; headers?: Record<string, string> };

const CALDAV = 'xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav"';

/** Everything that a calendar program of somebody's can ask of a calendar or a list of tasks, and of whose it is. Nothing here changes anything: tags are stale. */
export function programRequests(
  me: string,
  calendar: string,
  ids: readonly string[],
  holds: 'VEVENT' | 'VTODO' = 'VEVENT',
): ProgramRequest[] {
  const at = `/dav/calendars/${me}/${calendar}/`;
  const find = (path: string, depth: string, body?: string): ProgramRequest => ({
    method: 'PROPFIND',
    path,
    headers: { depth },
    ...(body ? { body } : {}),
  });
  const report = (body: string): ProgramRequest => ({ method: 'REPORT', path: at, headers: { depth: '1' }, body });
  const query = (filter: string, data = '<c:calendar-data/>') =>
    report(
      `<c:calendar-query ${CALDAV}><d:prop><d:getetag/>${data}</d:prop><c:filter><c:comp-filter name="VCALENDAR"><c:comp-filter name="${holds}">${filter}</c:comp-filter></c:comp-filter></c:filter></c:calendar-query>`,
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
    report(syncRequest(CALDAV, '<c:calendar-data/>')),
    find(at, '0', '<propfind xmlns="DAV:"><prop><sync-token/></prop></propfind>'),
    ...ids.flatMap((id): ProgramRequest[] => [
      { method: 'GET', path: `${at}${id}.ics` },
      { method: 'PUT', path: `${at}${id}.ics`, body: text, headers: stale },
      { method: 'DELETE', path: `${at}${id}.ics`, headers: stale },
      { method: 'MOVE', path: `${at}${id}.ics`, headers: { ...stale, destination: `${at}elsewhere.ics` } },
      { method: 'COPY', path: `${at}${id}.ics`, headers: { ...stale, destination: `${at}elsewhere.ics` } },
    ]),
    { method: 'PROPPATCH', path: at, body: '<propertyupdate xmlns="DAV:"/>' },
    ...(me === 'ines'
      ? []
      : [
          {
            method: 'PROPPATCH',
            path: at,
            body: `<d:propertyupdate ${CALDAV}><d:set><d:prop><d:displayname>x</d:displayname></d:prop></d:set></d:propertyupdate>`,
          },
        ]),
    {
      method: 'REPORT',
      path: '/dav/people/',
      headers: { depth: '0' },
      body: `<d:principal-property-search ${CALDAV}><d:property-search><d:prop><d:displayname/></d:prop><d:match>a</d:match></d:property-search><d:prop><d:displayname/><c:calendar-user-address-set/></d:prop></d:principal-property-search>`,
    },
    { method: 'REPORT', path: '/dav/people/', body: '<principal-search-property-set xmlns="DAV:"/>' },
    find('/dav/people/', '1'),
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

/** What changed since the beginning, with its text. */
const syncRequest = (space: string, data: string): string =>
  `<d:sync-collection ${space}><d:sync-token/><d:sync-level>1</d:sync-level><d:prop><d:getetag/>${data}</d:prop></d:sync-collection>`;

const CARDDAV = 'xmlns:d="DAV:" xmlns:a="urn:ietf:params:xml:ns:carddav"';

/** The same of an address book. */
export function bookRequests(me: string, book: string, ids: readonly string[]): ProgramRequest[] {
  const at = `/dav/calendars/${me}/${book}/`;
  const find = (depth: string, props: string): ProgramRequest => ({
    method: 'PROPFIND',
    path: at,
    headers: { depth },
    body: `<d:propfind ${CARDDAV}><d:prop>${props}</d:prop></d:propfind>`,
  });
  const report = (body: string): ProgramRequest => ({ method: 'REPORT', path: at, headers: { depth: '1' }, body });
  const query = (filter: string, version = '3.0') =>
    report(
      `<a:addressbook-query ${CARDDAV}><d:prop><d:getetag/><a:address-data content-type="text/vcard" version="${version}"/></d:prop><a:filter>${filter}</a:filter></a:addressbook-query>`,
    );
  const names = ids.map((id) => `<d:href>${at}${id}.vcf</d:href>`).join('');
  const stale = { 'if-match': '"none"', 'content-type': 'text/vcard' };
  return [
    find('0', '<d:displayname/><d:owner/><d:resourcetype/><a:supported-address-data/>'),
    find('1', '<d:getetag/><d:getcontenttype/>'),
    query(''),
    query('', '4.0'),
    query('<a:prop-filter name="NOTE"><a:text-match>zqcont</a:text-match></a:prop-filter>'),
    report(
      `<a:addressbook-multiget ${CARDDAV}><d:prop><d:getetag/><a:address-data/></d:prop>${names}</a:addressbook-multiget>`,
    ),
    report(syncRequest(CARDDAV, '<a:address-data/>')),
    ...ids.flatMap((id): ProgramRequest[] => [
      { method: 'GET', path: `${at}${id}.vcf` },
      { method: 'PUT', path: `${at}${id}.vcf`, body: 'BEGIN:VCARD\r\nEND:VCARD\r\n', headers: stale },
      { method: 'DELETE', path: `${at}${id}.vcf`, headers: stale },
    ]),
  ];
}
