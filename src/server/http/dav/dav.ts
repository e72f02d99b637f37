import { readFreeBusyQuestion } from '@/core/formats/index.ts';
import { now as clock } from '../../clock.ts';
import { writingIsFree } from '../../db/gate.ts';
import { database } from '../../db/index.ts';
import { log } from '../../log.ts';
import {
  clearInbox,
  listProgramCalendars,
  MOST_ASKED,
  MOST_ASKED_DAYS,
  type ProgramCalendar,
  type ProgramObject,
  readInbox,
  readProgramCalendar,
  readProgramPerson,
} from '../../operations/dav/index.ts';
import { again } from '../../operations/deciding/context/again.ts';
import { type Context, contextFor } from '../../operations/deciding/context/context.ts';
import { freeLapsed } from '../../operations/deciding/writing/lapse.ts';
import {
  askFreeBusyInWorker,
  deleteObjectInWorker,
  listInboxInWorker,
  listObjectsInWorker,
  putObjectInWorker,
  queryFreeBusyInWorker,
  readObjectInWorker,
} from '../../operations/in-worker/in-worker.ts';
import { signedIn } from '../../operations/people/session.ts';
import { type Result, refuse } from '../../result.ts';
import { readLimited } from '../body.ts';
import { nothingThere } from '../inbound.ts';
import { evenOut } from '../route.ts';
import {
  bare,
  calendarResponse,
  conditionFailed,
  multistatus,
  multistatusInTurns,
  notLetIn,
  refused,
  xml,
} from './answers.ts';
import { allProtected, type Known, MOST_TEXT, responseFor, statusFor, type Wanted } from './properties.ts';
import { dataIn, filterIn, freeBusyIn, hrefsIn, MOST_NAMED, MOST_PROPERTIES, type Read, wantedIn } from './requests.ts';
import { hrefs, type Resource, ROOT, resourceAt } from './resource.ts';
import { cal, dav, el, readXml, type Written, type Xml } from './xml.ts';

/*
 * The calendar protocol (RFC 4791, with 4918, 3744 as far as reading one's privileges goes, 5397 and 6638): what a program of one's own reads and
 * writes, by a token and by nothing else. It decides nothing: everything it says is what an operation answered for whoever the token is of.
 */

const READS = ['OPTIONS', 'GET', 'HEAD', 'PROPFIND', 'REPORT'];
/** What a request's body may have, in bytes. */
const MOST_BODY = 256_000;

const ALLOWED: Readonly<Record<Resource['kind'], readonly string[]>> = {
  root: ['OPTIONS', 'PROPFIND', 'REPORT'],
  home: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT'],
  person: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT'],
  calendar: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT'],
  object: ['OPTIONS', 'GET', 'HEAD', 'PUT', 'DELETE', 'PROPFIND', 'PROPPATCH'],
  inbox: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT'],
  invitation: ['OPTIONS', 'GET', 'HEAD', 'DELETE', 'PROPFIND'],
  outbox: ['OPTIONS', 'POST', 'PROPFIND', 'PROPPATCH'],
};

/** What a request asks of a resource, once it is known who asks. */
interface Asked {
  readonly ctx: Context;
  readonly me: string;
  readonly resource: Resource;
  readonly path: string;
  readonly request: Request;
  readonly body: Uint8Array;
}

/**
 * Answers a request of the calendar protocol. The web server hands it on as a POST, with the method and the address it came with beside it;
 * without those there is nothing at this address.
 */
export async function davAnswer(request: Request): Promise<Response> {
  const started = performance.now();
  const method = request.headers.get('x-dav-method');
  const path = request.headers.get('x-dav-path');
  if (method === null || path === null) return nothingThere(started);
  let answer: Response;
  try {
    answer = await respond(request, method, path);
  } catch (error) {
    log().error({ route: 'dav', error: error instanceof Error ? error.stack : String(error) }, 'broken');
    answer = refused(null, refuse('broken'));
  }
  if (answer.status === 404) await evenOut(started);
  log().debug({ route: 'dav', method, status: answer.status, ms: Math.round(performance.now() - started) });
  return answer;
}

async function respond(request: Request, method: string, path: string): Promise<Response> {
  // A window's cookie opens nothing here: no page of another site can ask in its name.
  const here = request.headers.has('authorization') ? await signedIn(request.headers) : null;
  if (!here?.token) return notLetIn();
  const most = method === 'PUT' || method === 'POST' ? MOST_TEXT : MOST_BODY;
  const body = await readLimited(request.body, most);
  freeLapsed({ db: database(), now: clock() });
  // A body takes its time to arrive: the token may be withdrawn by now.
  const still = await signedIn(request.headers);
  if (!still?.token) return notLetIn();
  const token = { key: still.token.key, only: still.token.collectionId };
  const ctx = contextFor(still.person, undefined, null, token);
  if (body === null) return refused(ctx, refuse('fileTooLarge', { facts: { most: most / 1_000_000 } }));
  const me = ctx.viewer.handle;
  const resource = resourceAt(path, me);
  if (!resource) return refused(ctx, refuse('notFound'));
  const allowed = ALLOWED[resource.kind];
  if (!allowed.includes(method)) return bare(405, { allow: allowed.join(', ') });
  if (method === 'OPTIONS') return bare(200, { allow: allowed.join(', ') });
  if (still.token.reads && !READS.includes(method) && method !== 'POST') return refused(ctx, refuse('tokenReads'));
  const asked: Asked = { ctx, me, resource, path, request, body };
  switch (method) {
    case 'PROPFIND':
      return propfind(asked);
    case 'REPORT':
      return report(asked);
    case 'PROPPATCH':
      return proppatch(asked);
    case 'POST':
      return outbox(asked);
    case 'PUT':
      return put(asked);
    case 'DELETE':
      return remove(asked);
    default:
      return get(asked, method === 'HEAD');
  }
}

const utf8 = (bytes: Uint8Array): string | null => {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
};

/** The XML of a body: `null` for an empty one, `broken` for what is none. */
function xmlIn(body: Uint8Array): Xml | null | 'broken' {
  if (body.length === 0) return null;
  const text = utf8(body);
  return (text === null ? null : readXml(text)) ?? 'broken';
}

/** What is known of a resource that isn't one of many: for its own properties. */
async function knownOf({ ctx, me }: Pick<Asked, 'ctx' | 'me'>, resource: Resource): Promise<Result<Known>> {
  const base = { me, now: ctx.now };
  const known = <T, K extends Known>(result: Result<T>, as: (value: T) => K): Result<Known> =>
    result.ok ? { ok: true, value: as(result.value) } : result;
  switch (resource.kind) {
    case 'person':
      return known(readProgramPerson(ctx, resource.handle), (person) => ({ ...base, kind: 'person', person }));
    case 'calendar':
      return known(readProgramCalendar(ctx, resource.calendar), (calendar) => ({
        ...base,
        kind: 'calendar',
        calendar,
      }));
    case 'object': {
      const calendar = readProgramCalendar(ctx, resource.calendar);
      if (!calendar.ok) return calendar;
      return known(await readObjectInWorker(ctx, resource.calendar, resource.name), (object) => ({
        ...base,
        kind: 'object',
        calendar: calendar.value,
        object,
      }));
    }
    case 'invitation':
      return known(readInbox(ctx, resource.name), (invitation) => ({ ...base, kind: 'invitation', invitation }));
    default: {
      const own = readProgramPerson(ctx, me);
      const calendar = own.ok ? own.value.calendar : null;
      // A token for one calendar finds no inbox: that is about something else.
      const reached = calendar !== null && readProgramCalendar(ctx, calendar).ok;
      if (!reached && (resource.kind === 'inbox' || resource.kind === 'outbox')) return refuse('notFound');
      return { ok: true, value: { ...base, kind: resource.kind, calendar: reached ? calendar : null } };
    }
  }
}

async function propfind(asked: Asked): Promise<Response> {
  const { ctx, me, resource, path, request } = asked;
  const depth = request.headers.get('depth') ?? 'infinity';
  if (depth !== '0' && depth !== '1') return conditionFailed(dav('propfind-finite-depth'));
  const body = xmlIn(asked.body);
  if (body === 'broken' || (body && body.name !== dav('propfind'))) return bare(400);
  const wanted = wantedIn(body);
  if (!wanted) return askedTooMuch();
  const known = await knownOf(asked, resource);
  if (!known.ok) return refused(ctx, known);
  const own = responseFor(hrefOf(resource, me, path), known.value, wanted);
  if (depth === '0') return multistatus(own);
  const beneath = await beneathOf(asked, known.value, wanted);
  if (!beneath.ok) return refused(ctx, beneath);
  const { responses, cut } = beneath.value;
  return multistatusInTurns(hrefOf(resource, me, path), after(own, responses), cut);
}

function* after(first: Written, others: Iterable<Written>): Generator<Written> {
  yield first;
  yield* others;
}

/** More properties are named than one request may name. */
const askedTooMuch = (): Response =>
  xml(400, el(dav('error'), el(dav('responsedescription'), `A request names at most ${MOST_PROPERTIES} properties.`)));

function hrefOf(resource: Resource, me: string, path: string): string {
  switch (resource.kind) {
    case 'root':
      return ROOT;
    case 'home':
      return hrefs.home(me);
    case 'inbox':
      return hrefs.inbox(me);
    case 'outbox':
      return hrefs.outbox(me);
    case 'person':
      return hrefs.person(resource.handle);
    case 'calendar':
      return hrefs.calendar(me, resource.calendar);
    default:
      return new URL(path, 'http://here').pathname;
  }
}

/** The things of a calendar, each with the wanted properties, and with its text where that is wanted. */
function* objectsIn(
  { ctx, me }: Asked,
  calendar: ProgramCalendar,
  objects: readonly ProgramObject[],
  wanted: Wanted,
  texts: boolean,
): Generator<Written> {
  for (const object of objects)
    yield responseFor(
      hrefs.object(me, calendar.key, object.name),
      { me, now: ctx.now, kind: 'object', calendar, object },
      wanted,
      texts ? object.text : null,
    );
}

/** What lies beneath a resource, each with the wanted properties; `cut` says that there is more. */
async function beneathOf(
  asked: Asked,
  known: Known,
  wanted: Wanted,
): Promise<Result<{ responses: Iterable<Written>; cut: boolean }>> {
  const { ctx, me } = asked;
  const base = { me, now: ctx.now };
  if (known.kind === 'home') {
    const { calendars, cut } = listProgramCalendars(ctx);
    const responses = mapped(calendars, (calendar) =>
      responseFor(hrefs.calendar(me, calendar.key), { ...base, kind: 'calendar', calendar }, wanted),
    );
    return { ok: true, value: { responses, cut } };
  }
  if (known.kind === 'inbox') {
    const listed = await listInboxInWorker(ctx);
    if (!listed.ok) return listed;
    const responses = mapped(listed.value, (invitation) =>
      responseFor(hrefs.invitation(me, invitation.name), { ...base, kind: 'invitation', invitation }, wanted),
    );
    return { ok: true, value: { responses, cut: false } };
  }
  if (known.kind !== 'calendar') return { ok: true, value: { responses: [], cut: false } };
  const { calendar } = known;
  const listed = await listObjectsInWorker(ctx, calendar.key, { texts: false });
  if (!listed.ok) return listed;
  const { objects, cut } = listed.value;
  return { ok: true, value: { responses: objectsIn(asked, calendar, objects, wanted, false), cut } };
}

function* mapped<T>(all: readonly T[], work: (one: T) => Written): Generator<Written> {
  for (const one of all) yield work(one);
}

async function proppatch(asked: Asked): Promise<Response> {
  const { ctx, body, me, resource, path } = asked;
  const known = await knownOf(asked, resource);
  if (!known.ok) return refused(ctx, known);
  const read = xmlIn(body);
  if (read === 'broken' || read?.name !== dav('propertyupdate')) return bare(400);
  const names = read.children.flatMap((set) => set.children.flatMap((prop) => prop.children.map((one) => one.name)));
  if (names.length > MOST_PROPERTIES) return askedTooMuch();
  return multistatus(allProtected(hrefOf(resource, me, path), names));
}

async function report(asked: Asked): Promise<Response> {
  const { ctx, resource } = asked;
  const body = xmlIn(asked.body);
  if (body === 'broken' || body === null) return bare(400);
  if (resource.kind !== 'calendar') return conditionFailed(dav('supported-report'));
  const calendar = readProgramCalendar(ctx, resource.calendar);
  if (!calendar.ok) return refused(ctx, calendar);
  switch (body.name) {
    case cal('calendar-query'):
      return query(asked, calendar.value, body);
    case cal('calendar-multiget'):
      return multiget(asked, calendar.value, body);
    case cal('free-busy-query'): {
      const instants = freeBusyIn(body);
      if (!instants.ok) return conditionFailed(instants.failed);
      const answer = await queryFreeBusyInWorker(ctx, calendar.value.key, instants.value);
      return answer.ok ? calendarResponse(answer.value, null, false) : refused(ctx, answer);
    }
    default:
      return conditionFailed(dav('supported-report'));
  }
}

const isFailed = <T>(read: Read<T>): read is Extract<Read<T>, { ok: false }> => !read.ok;

async function query(asked: Asked, calendar: ProgramCalendar, body: Xml): Promise<Response> {
  const { ctx, me } = asked;
  const data = dataIn(body);
  const filter = filterIn(body.children.find((child) => child.name === cal('filter')) ?? null);
  if (isFailed(data)) return conditionFailed(data.failed);
  if (isFailed(filter)) return conditionFailed(filter.failed);
  const wanted = wantedIn(body);
  if (!wanted) return askedTooMuch();
  const { range, filter: comps } = filter.value;
  const texts = data.value.wanted;
  const listed = await listObjectsInWorker(ctx, calendar.key, {
    range,
    filter: comps,
    texts,
    expand: data.value.expand,
  });
  if (!listed.ok) return refused(ctx, listed);
  const { objects, cut } = listed.value;
  const all = objectsIn(asked, calendar, objects, wanted, texts);
  return multistatusInTurns(hrefs.calendar(me, calendar.key), all, cut);
}

async function multiget(asked: Asked, calendar: ProgramCalendar, body: Xml): Promise<Response> {
  const { ctx, me } = asked;
  const data = dataIn(body);
  if (isFailed(data)) return conditionFailed(data.failed);
  const wanted = wantedIn(body);
  if (!wanted) return askedTooMuch();
  const named = hrefsIn(body);
  if (named.length > MOST_NAMED) return conditionFailed(dav('number-of-matches-within-limits'));
  const byName = new Map<string, string>();
  const elsewhere: string[] = [];
  for (const href of named) {
    const at = resourceAt(href, me);
    if (at?.kind === 'object' && at.calendar === calendar.key) byName.set(at.name, href);
    else elsewhere.push(href);
  }
  const wants = { names: [...byName.keys()], texts: data.value.wanted, expand: data.value.expand };
  const listed = await listObjectsInWorker(ctx, calendar.key, wants);
  if (!listed.ok) return refused(ctx, listed);
  const { objects, missing, cut } = listed.value;
  const gone = [...missing.map((name) => byName.get(name) ?? name), ...elsewhere];
  function* all() {
    yield* objectsIn(asked, calendar, objects, wanted as Wanted, data.ok && data.value.wanted);
    yield* mapped(
      gone.map((href) => [href]),
      ([href = '']) => statusFor(href, 404),
    );
  }
  return multistatusInTurns(hrefs.calendar(me, calendar.key), all(), cut);
}

async function get({ ctx, resource, request }: Asked, head: boolean): Promise<Response> {
  const read =
    resource.kind === 'object'
      ? await readObjectInWorker(ctx, resource.calendar, resource.name)
      : resource.kind === 'invitation'
        ? readInbox(ctx, resource.name)
        : refuse('notFound');
  if (!read.ok) return refused(ctx, read);
  const { tag, text } = read.value;
  const scheduleTag = 'scheduleTag' in read.value ? read.value.scheduleTag : tag;
  const known = (request.headers.get('if-none-match') ?? '').split(',').map((one) => one.trim().replace(/^W\//, ''));
  if (known.includes(`"${tag}"`)) return bare(304, { etag: `"${tag}"` });
  return calendarResponse(text ?? '', { tag, scheduleTag }, head);
}

/** Does a write in one transaction, in which who asks is read once more. */
async function writing<T>(ctx: Context, work: (ctx: Context) => Result<T>): Promise<Result<T>> {
  await writingIsFree();
  return ctx.db.write(() => {
    const now = again(ctx);
    return 'ok' in now ? now : work(now);
  });
}

const seenBy = ({ headers }: Request) => ({
  match: headers.get('if-match'),
  noneMatch: headers.get('if-none-match'),
  scheduleTag: headers.get('if-schedule-tag-match')?.trim().replace(/^"|"$/g, '') ?? null,
});

async function put({ ctx, resource, request, body }: Asked): Promise<Response> {
  if (resource.kind !== 'object') return bare(405);
  const type = request.headers.get('content-type') ?? 'text/calendar';
  if (!/^text\/calendar\s*(;|$)/i.test(type)) return conditionFailed(cal('supported-calendar-data'));
  const text = utf8(body);
  if (text === null || text.includes('\u0000')) return refused(ctx, refuse('wrongEncoding'));
  if (/^BEGIN:(VTODO|VJOURNAL|VFREEBUSY|VAVAILABILITY)/im.test(text))
    return conditionFailed(cal('supported-calendar-component'));
  const { calendar, name } = resource;
  const done = await putObjectInWorker(ctx, { key: calendar, name, text, seen: seenBy(request) });
  // What is kept is what it means, and not its letters: a program reads what it comes to (RFC 4791 5.3.4).
  return done.ok ? bare(done.value.added ? 201 : 204) : refused(ctx, done);
}

async function remove({ ctx, resource, request }: Asked): Promise<Response> {
  const done =
    resource.kind === 'object'
      ? await deleteObjectInWorker(ctx, { key: resource.calendar, name: resource.name, seen: seenBy(request) })
      : resource.kind === 'invitation'
        ? await writing(ctx, (now) => clearInbox(now, resource.name))
        : refuse('notFound');
  return done.ok ? bare(204) : refused(ctx, done);
}

/** The question when others are free (RFC 6638 5): of whom one sees nothing, the answer is that of whom nobody knows. */
async function outbox(post: Asked): Promise<Response> {
  const { ctx, resource } = post;
  const known = await knownOf(post, resource);
  if (!known.ok) return refused(ctx, known);
  const text = utf8(post.body);
  const question = text === null ? null : readFreeBusyQuestion(text);
  if (!question) return conditionFailed(cal('valid-scheduling-message'));
  if (question.organiser !== ctx.viewer.address) return conditionFailed(cal('organizer-allowed'));
  if (question.attendees.length > MOST_ASKED) return conditionFailed(cal('max-attendees-per-instance'));
  const { attendees, uid } = question;
  const { from, to } = question;
  if (to - from > MOST_ASKED_DAYS * 86_400_000)
    return refused(ctx, refuse('tooLong', { facts: { most: MOST_ASKED_DAYS } }));
  const asked = { addresses: attendees, instants: { from, to }, uid: uid.replace(/[^\x21-\x7e]/g, '') };
  const answered = await askFreeBusyInWorker(ctx, asked);
  if (!answered.ok) return refused(ctx, answered);
  const answers = answered.value;
  return xml(
    200,
    el(
      cal('schedule-response'),
      ...answers.map(({ address, text: answer }) =>
        el(
          cal('response'),
          el(cal('recipient'), el(dav('href'), `mailto:${address}`)),
          el(cal('request-status'), answer === null ? '3.7;Invalid calendar user' : '2.0;Success'),
          answer === null ? null : el(cal('calendar-data'), answer),
        ),
      ),
    ),
  );
}
