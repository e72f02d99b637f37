import { CARD_VERSIONS } from '@/core/contacts/index.ts';
import { calendarText, zoneLines } from '@/core/formats/index.ts';
import { EARLIEST, LATEST } from '@/core/time/index.ts';
import {
  type InboxObject,
  MOST_OBJECTS,
  type ProgramCalendar,
  type ProgramObject,
  type ProgramPerson,
} from '../../operations/dav/index.ts';
import { hrefs } from './resource.ts';
import { cal, card, dav, el, leaf, type Name, type Written } from './xml.ts';

/*
 * What each resource says of itself: the properties of RFC 4918, 4791, 5397 and 6638, and of RFC 3744 those by which one reads what one may do.
 * Each is worked out from what the operations answered for the viewer, and from nothing else.
 */

/** The most bytes of one thing that is written. */
export const MOST_TEXT = 256_000;

/** What is known of a resource, by what it is. `me` is the handle of the viewer. */
export type Known = { readonly me: string; readonly now: number } & (
  | { readonly kind: 'root' | 'home' | 'inbox' | 'outbox' | 'people'; readonly calendar: string | null }
  | { readonly kind: 'person'; readonly person: ProgramPerson }
  | { readonly kind: 'calendar'; readonly calendar: ProgramCalendar }
  | { readonly kind: 'object'; readonly calendar: ProgramCalendar; readonly object: ProgramObject }
  | { readonly kind: 'invitation'; readonly invitation: InboxObject }
);

const CTAG: Name = '{http://calendarserver.org/ns/}getctag';

type Property = (known: Known) => Written | null;

const href = (path: string): Written => el(dav('href'), path);
const basic = (ms: number): string => `${new Date(ms).toISOString().replace(/[-:]|\.\d+/g, '')}`;

const isCollection = ({ kind }: Known): boolean => kind !== 'object' && kind !== 'invitation';

function resourceType(known: Known): Written {
  const kinds: Partial<Record<Known['kind'], Name>> = {
    person: dav('principal'),
    calendar: known.kind === 'calendar' && known.calendar.holds === 'VCARD' ? card('addressbook') : cal('calendar'),
    inbox: cal('schedule-inbox'),
    outbox: cal('schedule-outbox'),
  };
  const own = kinds[known.kind];
  return el(dav('resourcetype'), isCollection(known) ? el(dav('collection')) : null, own ? el(own) : null);
}

function displayName(known: Known): string | null {
  switch (known.kind) {
    case 'person':
      return known.person.name;
    case 'calendar':
      return known.calendar.name;
    default:
      return null;
  }
}

/** What the viewer may do with a resource, by the names of RFC 3744 and RFC 4791. */
function privilegesOn(known: Known): Name[] {
  const reading = [dav('read'), dav('read-current-user-privilege-set')];
  if (known.kind === 'object') return known.object.mayChange ? [...reading, dav('write-content')] : reading;
  if (known.kind === 'inbox') return [...reading, dav('unbind'), cal('schedule-deliver')];
  if (known.kind === 'outbox') return [...reading, cal('schedule-send'), cal('schedule-send-freebusy')];
  if (known.kind !== 'calendar') return reading;
  const { rights, own } = known.calendar;
  const adds = own || rights.add;
  const changes = own || rights.change !== 'none';
  const removes = own || rights.remove !== 'none';
  const all = own || (rights.add && rights.change === 'all' && rights.remove === 'all');
  return [
    ...reading,
    ...(known.calendar.holds === 'VEVENT' ? [cal('read-free-busy')] : []),
    ...(all ? [dav('write')] : []),
    ...(adds ? [dav('bind')] : []),
    ...(changes ? [dav('write-content')] : []),
    ...(removes ? [dav('unbind')] : []),
  ];
}

/** Which privileges there are, and which hold others (RFC 3744 5.3). */
function supportedPrivileges(): Written {
  const one = (name: Name, says: string, ...inside: Written[]): Written =>
    el(dav('supported-privilege'), el(dav('privilege'), el(name)), el(dav('description'), says), ...inside);
  return el(
    dav('supported-privilege-set'),
    one(
      dav('all'),
      'Everything',
      one(
        dav('read'),
        'See what is shared with you',
        one(cal('read-free-busy'), 'See when time is taken'),
        one(dav('read-current-user-privilege-set'), 'See what you may do'),
      ),
      one(
        dav('write'),
        'Add, change and remove items',
        one(dav('bind'), 'Add items'),
        one(dav('write-content'), 'Change items'),
        one(dav('unbind'), 'Remove items'),
      ),
    ),
  );
}

const ofCalendar =
  (work: (calendar: ProgramCalendar, known: Known) => Written | null): Property =>
  (known) =>
    known.kind === 'calendar' && known.calendar.holds !== 'VCARD' ? work(known.calendar, known) : null;

const ofBook =
  (work: () => Written): Property =>
  (known) =>
    known.kind === 'calendar' && known.calendar.holds === 'VCARD' ? work() : null;

const ofObject =
  (work: (tag: string, scheduleTag: string) => Written): Property =>
  (known) =>
    known.kind === 'object'
      ? work(known.object.tag, known.object.scheduleTag)
      : known.kind === 'invitation'
        ? work(known.invitation.tag, known.invitation.tag)
        : null;

const ofMe =
  (work: (person: ProgramPerson) => Written | null): Property =>
  (known) =>
    known.kind === 'person' && known.person.handle === known.me ? work(known.person) : null;

/** The reports on what a calendar or an address book holds. */
const REPORTS: Readonly<Record<ProgramCalendar['holds'], readonly Name[]>> = {
  VEVENT: [cal('calendar-query'), cal('calendar-multiget'), cal('free-busy-query'), dav('sync-collection')],
  VTODO: [cal('calendar-query'), cal('calendar-multiget'), dav('sync-collection')],
  VCARD: [card('addressbook-query'), card('addressbook-multiget'), dav('sync-collection')],
};

/** Those by which people are looked for (RFC 3744 9.4, 9.5). */
const ON_PEOPLE = [dav('principal-property-search'), dav('principal-search-property-set')];

/** A state of a collection as a token is written (RFC 6578 4): a URI that leads nowhere. */
export const syncToken = (tag: string): string => `urn:paramo:sync:${tag}`;

/** The tag of a state by its token; `null` for what is no token of ours. */
export const tagIn = (token: string): string | null =>
  /^urn:paramo:sync:([\w-]{1,60})$/.exec(token.trim())?.[1] ?? null;

/** Properties that are asked for by name, but not with all (RFC 4791 and 6638 leave theirs out of `allprop`). */
const BY_NAME: Readonly<Record<Name, Property>> = {
  [dav('current-user-principal')]: ({ me }) => el(dav('current-user-principal'), href(hrefs.person(me))),
  [dav('principal-collection-set')]: () => el(dav('principal-collection-set'), href(hrefs.people)),
  [dav('current-user-privilege-set')]: (known) =>
    el(dav('current-user-privilege-set'), ...privilegesOn(known).map((name) => el(dav('privilege'), el(name)))),
  [dav('supported-privilege-set')]: (known) => (known.kind === 'person' ? null : supportedPrivileges()),
  [dav('owner')]: (known) => {
    const owner =
      known.kind === 'calendar' || known.kind === 'object'
        ? known.calendar.owner.handle
        : known.kind === 'person'
          ? known.person.handle
          : known.kind === 'root' || known.kind === 'people'
            ? null
            : known.me;
    return owner === null ? null : el(dav('owner'), href(hrefs.person(owner)));
  },
  [dav('principal-URL')]: (known) =>
    known.kind === 'person' ? el(dav('principal-URL'), href(hrefs.person(known.person.handle))) : null,
  [dav('supported-report-set')]: (known) =>
    el(
      dav('supported-report-set'),
      ...(known.kind === 'calendar' ? REPORTS[known.calendar.holds] : known.kind === 'people' ? ON_PEOPLE : []).map(
        (name) => el(dav('supported-report'), el(dav('report'), el(name))),
      ),
    ),
  [dav('sync-token')]: (known) =>
    known.kind === 'calendar' && known.calendar.tag !== null
      ? el(dav('sync-token'), syncToken(known.calendar.tag))
      : null,
  // What programs ask for that don't know the report of RFC 6578: the same, under the name they gave it.
  [CTAG]: (known) => (known.kind === 'calendar' && known.calendar.tag !== null ? el(CTAG, known.calendar.tag) : null),
  // One home holds both: each program takes from it what it knows (RFC 6352 7.1.1).
  [card('addressbook-home-set')]: ofMe(({ handle }) => el(card('addressbook-home-set'), href(hrefs.home(handle)))),
  [card('supported-address-data')]: ofBook(() =>
    el(
      card('supported-address-data'),
      ...CARD_VERSIONS.map((version) => leaf(card('address-data-type'), { 'content-type': 'text/vcard', version })),
    ),
  ),
  [card('supported-collation-set')]: ofBook(() =>
    el(
      card('supported-collation-set'),
      ...['i;ascii-casemap', 'i;octet', 'i;unicode-casemap'].map((name) => el(card('supported-collation'), name)),
    ),
  ),
  [card('max-resource-size')]: ofBook(() => el(card('max-resource-size'), String(MOST_TEXT))),
  [cal('calendar-home-set')]: ofMe(({ handle }) => el(cal('calendar-home-set'), href(hrefs.home(handle)))),
  [cal('calendar-user-address-set')]: ofMe(({ handle, address }) =>
    el(
      cal('calendar-user-address-set'),
      address === null ? null : href(`mailto:${address}`),
      href(hrefs.person(handle)),
    ),
  ),
  [cal('calendar-user-type')]: (known) =>
    known.kind === 'person' ? el(cal('calendar-user-type'), 'INDIVIDUAL') : null,
  [cal('schedule-inbox-URL')]: ofMe(({ handle }) => el(cal('schedule-inbox-URL'), href(hrefs.inbox(handle)))),
  [cal('schedule-outbox-URL')]: ofMe(({ handle }) => el(cal('schedule-outbox-URL'), href(hrefs.outbox(handle)))),
  [cal('schedule-default-calendar-URL')]: (known) =>
    known.kind === 'inbox' && known.calendar !== null
      ? el(cal('schedule-default-calendar-URL'), href(hrefs.calendar(known.me, known.calendar)))
      : null,
  [cal('schedule-calendar-transp')]: ofCalendar(({ holds }) =>
    el(cal('schedule-calendar-transp'), el(cal(holds === 'VEVENT' ? 'opaque' : 'transparent'))),
  ),
  [cal('schedule-tag')]: ofObject((_tag, scheduleTag) => el(cal('schedule-tag'), `"${scheduleTag}"`)),
  [cal('calendar-description')]: ofCalendar(({ description }) =>
    description === '' ? null : el(cal('calendar-description'), description),
  ),
  [cal('calendar-timezone')]: ofCalendar(({ zone }, { now }) =>
    el(cal('calendar-timezone'), calendarText(zone === 'UTC' ? [] : zoneLines(zone, now), {})),
  ),
  [cal('supported-calendar-component-set')]: (known) =>
    (known.kind === 'calendar' && known.calendar.holds !== 'VCARD') || known.kind === 'inbox'
      ? el(
          cal('supported-calendar-component-set'),
          leaf(cal('comp'), { name: known.kind === 'calendar' ? known.calendar.holds : 'VEVENT' }),
        )
      : null,
  [cal('supported-calendar-data')]: ofCalendar(() =>
    el(cal('supported-calendar-data'), leaf(cal('calendar-data'), { 'content-type': 'text/calendar', version: '2.0' })),
  ),
  [cal('supported-collation-set')]: ofCalendar(() =>
    el(
      cal('supported-collation-set'),
      el(cal('supported-collation'), 'i;ascii-casemap'),
      el(cal('supported-collation'), 'i;octet'),
    ),
  ),
  [cal('max-resource-size')]: ofCalendar(() => el(cal('max-resource-size'), String(MOST_TEXT))),
  [cal('max-instances')]: ofCalendar(() => el(cal('max-instances'), String(MOST_OBJECTS))),
  // What is accepted (RFC 4791 5.2.6, 5.2.7).
  [cal('min-date-time')]: ofCalendar(({ holds }) =>
    holds === 'VTODO' ? null : el(cal('min-date-time'), basic(EARLIEST)),
  ),
  [cal('max-date-time')]: ofCalendar(({ holds }) =>
    holds === 'VTODO' ? null : el(cal('max-date-time'), basic(LATEST)),
  ),
};

/** The properties that come with all (RFC 4918 9.1). */
const WITH_ALL: Readonly<Record<Name, Property>> = {
  [dav('resourcetype')]: resourceType,
  [dav('displayname')]: (known) => {
    const name = displayName(known);
    return name === null ? null : el(dav('displayname'), name);
  },
  [dav('getetag')]: ofObject((tag) => el(dav('getetag'), `"${tag}"`)),
  [dav('getcontenttype')]: (known) =>
    isCollection(known)
      ? null
      : el(
          dav('getcontenttype'),
          known.kind === 'object' && known.calendar.holds === 'VCARD'
            ? 'text/vcard; charset=utf-8'
            : `text/calendar; charset=utf-8; component=${known.kind === 'object' ? known.calendar.holds.toLowerCase() : 'vevent'}`,
        ),
};

const PROPERTIES: Readonly<Record<Name, Property>> = { ...BY_NAME, ...WITH_ALL };

/** Which properties are wanted: some by name, all, or only what they are called. */
export type Wanted =
  | { readonly kind: 'some'; readonly names: readonly Name[] }
  | { readonly kind: 'all'; readonly names: readonly Name[] }
  | { readonly kind: 'names' };

/** A resource with its properties, as one `response` of a multistatus (RFC 4918 13). `data` is the calendar text, where that is wanted. */
export function responseFor(path: string, known: Known, wanted: Wanted, data: string | null = null): Written {
  const names =
    wanted.kind === 'some'
      ? wanted.names
      : [...(Object.keys(WITH_ALL) as Name[]), ...(wanted.kind === 'all' ? wanted.names : [])];
  if (wanted.kind === 'names') {
    const there = (Object.keys(PROPERTIES) as Name[]).filter((name) => PROPERTIES[name]?.(known) != null);
    return response(path, [
      propstat(
        200,
        there.map((name) => el(name)),
      ),
    ]);
  }
  const found: Written[] = [];
  const missing: Written[] = [];
  for (const name of new Set(names)) {
    const value =
      name === cal('calendar-data') || name === card('address-data')
        ? data === null
          ? null
          : el(name, data)
        : (PROPERTIES[name]?.(known) ?? null);
    if (value) found.push(value);
    else if (wanted.kind === 'some' || !(name in WITH_ALL)) missing.push(el(name));
  }
  return response(path, [
    ...(found.length > 0 || missing.length === 0 ? [propstat(200, found)] : []),
    ...(missing.length > 0 ? [propstat(404, missing)] : []),
  ]);
}

const STATUS = {
  200: 'OK',
  403: 'Forbidden',
  404: 'Not Found',
  424: 'Failed Dependency',
  507: 'Insufficient Storage',
} as const;
const statusLine = (status: keyof typeof STATUS): Written => el(dav('status'), `HTTP/1.1 ${status} ${STATUS[status]}`);

const response = (path: string, inside: readonly Written[]): Written => el(dav('response'), href(path), ...inside);

/** Properties that share a status. */
const propstat = (status: keyof typeof STATUS, properties: readonly Written[], ...more: Written[]): Written =>
  el(dav('propstat'), el(dav('prop'), ...properties), statusLine(status), ...more);

/** A resource of which there is nothing to say but its status. */
export const statusFor = (path: string, status: keyof typeof STATUS, ...more: Written[]): Written =>
  response(path, [statusLine(status), ...more]);

/** Of properties that were to be set: those that nobody sets, and beside them what therefore stays too (RFC 4918 9.2.1). */
export function propstats(wrong: readonly Name[], names: readonly Name[]): Written[] {
  const empty = (list: readonly Name[]) => list.map((name) => el(name));
  const others = names.filter((name) => !wrong.includes(name));
  return [
    propstat(403, empty(wrong), el(dav('error'), el(dav('cannot-modify-protected-property')))),
    ...(others.length > 0 ? [propstat(424, empty(others))] : []),
  ];
}

export const allProtected = (path: string, wrong: readonly Name[], names: readonly Name[]): Written =>
  response(path, propstats(wrong, names));

export const allSet = (path: string, names: readonly Name[]): Written =>
  response(path, [
    propstat(
      200,
      names.map((name) => el(name)),
    ),
  ]);
