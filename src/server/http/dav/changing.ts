import { calendarBody } from '@/contract/people/people.ts';
import { type ProgramCalendar, readProgramCalendar } from '../../operations/dav/index.ts';
import type { Context } from '../../operations/deciding/context/context.ts';
import { moveObjectInWorker } from '../../operations/in-worker/in-worker.ts';
import { changeList } from '../../operations/lists/index.ts';
import { changeCalendar } from '../../operations/people/own-calendar.ts';
import { beginCalendar, isCalendarKeyFree } from '../../operations/people/people.ts';
import { must, ok, type Result, refuse } from '../../result.ts';
import { bare, conditionFailed, multistatus, refused, xml } from './answers.ts';
import { type DavCall, hrefOf, tooManyProperties, xmlIn } from './dav-call.ts';
import { knownOf } from './find-properties.ts';
import { seenBy } from './objects.ts';
import { allProtected, allSet, propstats } from './properties.ts';
import { MOST_PROPERTIES } from './requests.ts';
import { resourceAt } from './resource.ts';
import { writing } from './writing.ts';
import { cal, childOf, childrenOf, dav, el, type Name, type Xml } from './xml.ts';

/*
 * What a program does to a calendar itself, and to where a thing stands: its name and its words (PROPPATCH), a further one (MKCALENDAR), and one
 * thing moved or copied from one to another (MOVE, COPY).
 */

/** A property that is to be another; `null` is one that is to be taken away. */
interface Setting {
  readonly name: Name;
  readonly value: string | null;
}

function settingsIn(body: Xml): Setting[] {
  return body.children.flatMap((way) =>
    childrenOf(way, dav('prop')).flatMap((prop) =>
      prop.children.map(({ name, text }) => ({ name, value: way.name === dav('remove') ? null : text.trim() })),
    ),
  );
}

const NAME = dav('displayname');
const WORDS = cal('calendar-description');

/**
 * Whether whoever owns a calendar, a list or an address book may set a property of it. What stands there first is called as it is, and what others
 * are called can't be taken away.
 */
const isSettable = ({ own, main, holds }: ProgramCalendar, { name, value }: Setting): boolean =>
  own && ((name === NAME && !main && value !== null && value !== '') || (name === WORDS && holds === 'VEVENT'));

/** What a calendar is called and what it is for, set by its owner: all of what is asked, or nothing (RFC 4918 9.2). */
export async function proppatch(call: DavCall): Promise<Response> {
  const { ctx, body, me, resource, path } = call;
  const known = await knownOf(call, resource);
  if (!known.ok) return refused(ctx, known);
  const read = xmlIn(body);
  if (read === 'broken' || read?.name !== dav('propertyupdate')) return bare(400);
  const settings = settingsIn(read);
  if (settings.length > MOST_PROPERTIES) return tooManyProperties();
  const href = hrefOf(resource, me, path);
  const calendar = known.value.kind === 'calendar' ? known.value.calendar : null;
  const wrong = settings.filter((one) => !calendar || !isSettable(calendar, one)).map(({ name }) => name);
  const names = settings.map(({ name }) => name);
  // Nothing that is to be set is set at once, and leaves no trail.
  if (names.length === 0) return multistatus(allSet(href, []));
  if (!calendar || wrong.length > 0) return multistatus(allProtected(href, wrong, names));
  const done = await writing(ctx, (now) => set(now, calendar, settings));
  // What it can't be called is a conflict with what is there (RFC 4918 9.2.1).
  return done.ok ? multistatus(allSet(href, names)) : refused(ctx, done);
}

function set(ctx: Context, calendar: ProgramCalendar, settings: readonly Setting[]): Result<unknown> {
  const to = new Map(settings.map(({ name, value }) => [name, value ?? '']));
  const name = to.get(NAME) ?? calendar.name;
  if (calendar.holds !== 'VEVENT') {
    const read = calendarBody.shape.name.safeParse(name);
    return read.success
      ? changeList(ctx, calendar.key, { name: read.data })
      : refuse('badInput', { fields: { name: 'unclear' } });
  }
  const read = calendarBody.safeParse({ name, description: to.get(WORDS) ?? calendar.description });
  if (!read.success) return refuse('badInput', { fields: { name: 'unclear' } });
  return changeCalendar(ctx, calendar.key, read.data);
}

/** An address that nobody guesses, as programs make them: it is the new calendar's key. */
const KEY = /^[A-Za-z0-9_-]{20,64}$/;

/** Makes a further calendar at the address that is asked for (RFC 4791 5.3.1). */
export async function mkcalendar({ ctx, me, resource, body: sent }: DavCall): Promise<Response> {
  if (resource.kind !== 'calendar') return conditionFailed(cal('calendar-collection-location-ok'));
  const read = xmlIn(sent);
  if (read === 'broken' || (read && read.name !== cal('mkcalendar'))) return bare(400);
  const settings = read ? settingsIn(read) : [];
  if (settings.length > MOST_PROPERTIES) return tooManyProperties();
  const holds = childOf(childOf(childOf(read, dav('set')), dav('prop')), cal('supported-calendar-component-set'));
  if (holds?.children.some(({ attributes }) => attributes.name !== 'VEVENT'))
    return conditionFailed(cal('supported-calendar-component'));
  const known = [NAME, WORDS, cal('supported-calendar-component-set')];
  const wrong = settings.filter(({ name }) => !known.includes(name)).map(({ name }) => name);
  const names = settings.map(({ name }) => name);
  if (wrong.length > 0) return xml(403, el(cal('mkcalendar-response'), ...propstats(wrong, names)));
  const { calendar: key } = resource;
  if (!KEY.test(key)) return conditionFailed(cal('calendar-collection-location-ok'));
  const to = new Map(settings.map(({ name, value }) => [name, value ?? '']));
  const body = calendarBody.safeParse({ name: to.get(NAME) || key, description: to.get(WORDS) ?? '' });
  if (!body.success) return refused(ctx, refuse('badInput', { fields: { name: 'unclear' } }));
  const made = await writing(ctx, (now) => {
    if (now.token?.only != null) return refuse('tokenOnly');
    if (!isCalendarKeyFree(now, key)) return ok({ there: true });
    must(beginCalendar(now, { of: me, name: body.data.name }, key));
    if (body.data.description !== '') must(changeCalendar(now, key, body.data));
    return ok({ there: false });
  });
  if (!made.ok) return refused(ctx, made);
  return made.value.there ? conditionFailed(dav('resource-must-be-null')) : bare(201);
}

/** Moves or copies one thing of a calendar to another address of theirs (RFC 4918 9.8, 9.9); tasks and contacts stay in their list. */
export async function move({ ctx, me, resource, request }: DavCall, copy: boolean): Promise<Response> {
  const header = request.headers.get('destination');
  const to = header === null ? null : resourceAt(header, me);
  if (resource.kind !== 'object' || !header) return bare(400);
  if (to?.kind !== 'object') return bare(403);
  const [from, into] = [readProgramCalendar(ctx, resource.calendar), readProgramCalendar(ctx, to.calendar)];
  if (!from.ok) return refused(ctx, from);
  if (!into.ok) return bare(409);
  if (from.value.holds !== 'VEVENT' || into.value.holds !== 'VEVENT')
    return conditionFailed(cal('supported-calendar-component'));
  const done = await moveObjectInWorker(ctx, {
    from: { key: resource.calendar, name: resource.name },
    to: { key: to.calendar, name: to.name },
    copy,
    overwrite: request.headers.get('overwrite')?.trim().toUpperCase() !== 'F',
    seen: seenBy(request),
  });
  return done.ok ? bare(done.value.added ? 201 : 204) : refused(ctx, done);
}
