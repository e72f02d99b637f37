import { listProgramCalendars, readInbox, readProgramCalendar, readProgramPerson } from '../../operations/dav/index.ts';
import { listInboxInWorker, listObjectsInWorker, readObjectInWorker } from '../../operations/in-worker/in-worker.ts';
import { type Result, refuse } from '../../result.ts';
import { bare, conditionFailed, multistatus, multistatusInTurns, refused } from './answers.ts';
import { type DavCall, hrefOf, mapped, objectsIn, tooManyProperties, xmlIn } from './dav-call.ts';
import { type Known, responseFor, type Wanted } from './properties.ts';
import { wantedIn } from './requests.ts';
import { hrefs, type Resource } from './resource.ts';
import { dav, type Written } from './xml.ts';

/** What is known of a resource that isn't one of many: for its own properties. */
export async function knownOf({ ctx, me }: Pick<DavCall, 'ctx' | 'me'>, resource: Resource): Promise<Result<Known>> {
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
      // A token for a single calendar has no inbox, which is about other calendars too.
      const reached = calendar !== null && readProgramCalendar(ctx, calendar).ok;
      if (!reached && (resource.kind === 'inbox' || resource.kind === 'outbox')) return refuse('notFound');
      return { ok: true, value: { ...base, kind: resource.kind, calendar: reached ? calendar : null } };
    }
  }
}

export async function propfind(call: DavCall): Promise<Response> {
  const { ctx, me, resource, path, request } = call;
  const depth = request.headers.get('depth') ?? 'infinity';
  if (depth !== '0' && depth !== '1') return conditionFailed(dav('propfind-finite-depth'));
  const body = xmlIn(call.body);
  if (body === 'broken' || (body && body.name !== dav('propfind'))) return bare(400);
  const wanted = wantedIn(body);
  if (!wanted) return tooManyProperties();
  const known = await knownOf(call, resource);
  if (!known.ok) return refused(ctx, known);
  const own = responseFor(hrefOf(resource, me, path), known.value, wanted);
  if (depth === '0') return multistatus(own);
  const beneath = await beneathOf(call, known.value, wanted);
  if (!beneath.ok) return refused(ctx, beneath);
  const { responses, cut } = beneath.value;
  return multistatusInTurns(hrefOf(resource, me, path), after(own, responses), cut);
}

function* after(first: Written, others: Iterable<Written>): Generator<Written> {
  yield first;
  yield* others;
}

/** What lies beneath a resource, each with the wanted properties; `cut` says that there is more. */
async function beneathOf(
  call: DavCall,
  known: Known,
  wanted: Wanted,
): Promise<Result<{ responses: Iterable<Written>; cut: boolean }>> {
  const { ctx, me } = call;
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
  return { ok: true, value: { responses: objectsIn(call, calendar, objects, wanted, false), cut } };
}
