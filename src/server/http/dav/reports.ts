import {
  changesSince,
  MOST_OBJECTS,
  type ObjectsWanted,
  type ProgramCalendar,
  readProgramCalendar,
} from '../../operations/dav/index.ts';
import { listObjectsInWorker, queryFreeBusyInWorker } from '../../operations/in-worker/in-worker.ts';
import { bare, calendarResponse, conditionFailed, multistatusInTurns, refused } from './answers.ts';
import { type DavCall, mapped, objectsIn, tooManyProperties, xmlIn } from './dav-call.ts';
import { statusFor, syncToken, tagIn, type Wanted } from './properties.ts';
import {
  cardDataIn,
  cardFilterIn,
  dataIn,
  filterIn,
  freeBusyIn,
  hrefsIn,
  limitIn,
  MOST_NAMED,
  type Read,
  wantedIn,
} from './requests.ts';
import { hrefs, resourceAt } from './resource.ts';
import { searchedBy, searchPeople } from './search-people.ts';
import { cal, card, childOf, dav, el, type Xml } from './xml.ts';

export async function report(call: DavCall): Promise<Response> {
  const { ctx, resource } = call;
  const body = xmlIn(call.body);
  if (body === 'broken' || body === null) return bare(400);
  // People are looked for among all of them, wherever that is asked (RFC 3744 9.4).
  if (body.name === dav('principal-search-property-set')) return searchedBy();
  if (body.name === dav('principal-property-search') && (resource.kind === 'people' || resource.kind === 'root'))
    return searchPeople(call, body);
  if (resource.kind !== 'calendar') return conditionFailed(dav('supported-report'));
  const calendar = readProgramCalendar(ctx, resource.calendar);
  if (!calendar.ok) return refused(ctx, calendar);
  if (body.name === dav('sync-collection')) return sync(call, calendar.value, body);
  if (calendar.value.holds === 'VCARD') {
    if (body.name === card('addressbook-query')) return queryCards(call, calendar.value, body);
    if (body.name === card('addressbook-multiget')) return multiget(call, calendar.value, body);
    return conditionFailed(dav('supported-report'));
  }
  switch (body.name) {
    case cal('calendar-query'):
      return query(call, calendar.value, body);
    case cal('calendar-multiget'):
      return multiget(call, calendar.value, body);
    case cal('free-busy-query'): {
      if (calendar.value.holds === 'VTODO') return conditionFailed(dav('supported-report'));
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

async function query(call: DavCall, calendar: ProgramCalendar, body: Xml): Promise<Response> {
  const { ctx, me } = call;
  const data = dataIn(body);
  const holds = calendar.holds === 'VTODO' ? 'VTODO' : 'VEVENT';
  const filter = filterIn(childOf(body, cal('filter')), holds);
  if (isFailed(data)) return conditionFailed(data.failed);
  if (isFailed(filter)) return conditionFailed(filter.failed);
  const wanted = wantedIn(body);
  if (!wanted) return tooManyProperties();
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
  const all = objectsIn(call, calendar, objects, wanted, texts);
  return multistatusInTurns(hrefs.calendar(me, calendar.key), all, cut);
}

async function queryCards(call: DavCall, book: ProgramCalendar, body: Xml): Promise<Response> {
  const { ctx, me } = call;
  const data = cardDataIn(body);
  const filter = cardFilterIn(childOf(body, card('filter')));
  if (isFailed(data)) return conditionFailed(data.failed);
  if (isFailed(filter)) return conditionFailed(filter.failed);
  const wanted = wantedIn(body);
  if (!wanted) return tooManyProperties();
  const { wanted: texts, version } = data.value;
  const listed = await listObjectsInWorker(ctx, book.key, { texts, cards: { filter: filter.value, version } });
  if (!listed.ok) return refused(ctx, listed);
  const { objects, cut } = listed.value;
  const most = limitIn(body) ?? objects.length;
  const all = objectsIn(call, book, objects.slice(0, most), wanted, texts);
  return multistatusInTurns(hrefs.calendar(me, book.key), all, cut || objects.length > most);
}

/** What changed of a calendar, a list or an address book since a program last asked (RFC 6578 3.2). */
async function sync(call: DavCall, calendar: ProgramCalendar, body: Xml): Promise<Response> {
  const { ctx, me } = call;
  const data = textsIn(body, calendar);
  if (isFailed(data)) return conditionFailed(data.failed);
  const wanted = wantedIn(body);
  if (!wanted) return tooManyProperties();
  const token = childOf(body, dav('sync-token'))?.text.trim() ?? '';
  const since = token === '' ? null : tagIn(token);
  if (token !== '' && since === null) return conditionFailed(dav('valid-sync-token'));
  const all = await listObjectsInWorker(ctx, calendar.key, { texts: false });
  if (!all.ok) return refused(ctx, all);
  const { wanted: texts, ...more } = data.value;
  const most = Math.min(limitIn(body, dav) ?? MOST_OBJECTS, texts ? MOST_NAMED : MOST_OBJECTS);
  const { objects, cut: partial } = all.value;
  const changes = changesSince(ctx, calendar.key, { since, now: calendar.tag, objects, partial, most });
  if (!changes.ok)
    return changes.code === 'changedMeanwhile' ? conditionFailed(dav('valid-sync-token')) : refused(ctx, changes);
  const { changed, gone, token: next, cut } = changes.value;
  const written =
    texts && changed.length > 0
      ? await listObjectsInWorker(ctx, calendar.key, { names: changed.map(({ name }) => name), texts, ...more })
      : null;
  if (written && !written.ok) return refused(ctx, written);
  const shown = written ? written.value.objects : changed;
  function* answers() {
    yield* objectsIn(call, calendar, shown, wanted as Wanted, texts);
    yield* mapped(gone, (name) => statusFor(hrefs.object(me, calendar.key, name), 404));
  }
  const path = hrefs.calendar(me, calendar.key);
  return multistatusInTurns(path, answers(), cut || partial, el(dav('sync-token'), syncToken(next)));
}

/** What one report wants of each thing's text. */
function textsIn(body: Xml, { holds }: ProgramCalendar): Read<{ wanted: boolean } & Omit<ObjectsWanted, 'texts'>> {
  if (holds !== 'VCARD') return dataIn(body);
  const data = cardDataIn(body);
  return data.ok ? { ok: true, value: { wanted: data.value.wanted, cards: { version: data.value.version } } } : data;
}

async function multiget(call: DavCall, calendar: ProgramCalendar, body: Xml): Promise<Response> {
  const { ctx, me } = call;
  const data = textsIn(body, calendar);
  if (isFailed(data)) return conditionFailed(data.failed);
  const wanted = wantedIn(body);
  if (!wanted) return tooManyProperties();
  const named = hrefsIn(body);
  if (named.length > MOST_NAMED) return conditionFailed(dav('number-of-matches-within-limits'));
  const byName = new Map<string, string>();
  const elsewhere: string[] = [];
  for (const href of named) {
    const at = resourceAt(href, me);
    if (at?.kind === 'object' && at.calendar === calendar.key) byName.set(at.name, href);
    else elsewhere.push(href);
  }
  const { wanted: texts, ...more } = data.value;
  const wants = { names: [...byName.keys()], texts, ...more };
  const listed = await listObjectsInWorker(ctx, calendar.key, wants);
  if (!listed.ok) return refused(ctx, listed);
  const { objects, missing, cut } = listed.value;
  const gone = [...missing.map((name) => byName.get(name) ?? name), ...elsewhere];
  function* all() {
    yield* objectsIn(call, calendar, objects, wanted as Wanted, texts);
    yield* mapped(
      gone.map((href) => [href]),
      ([href = '']) => statusFor(href, 404),
    );
  }
  return multistatusInTurns(hrefs.calendar(me, calendar.key), all(), cut);
}
