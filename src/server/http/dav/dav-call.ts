import type { ProgramCalendar, ProgramObject } from '../../operations/dav/index.ts';
import type { Context } from '../../operations/deciding/context/context.ts';
import { utf8 } from '../body.ts';
import { xml } from './answers.ts';
import { responseFor, type Wanted } from './properties.ts';
import { MOST_PROPERTIES } from './requests.ts';
import { hrefs, type Resource, ROOT } from './resource.ts';
import { dav, el, readXml, type Written, type Xml } from './xml.ts';

/** A request for a resource, once its sender is known. */
export interface DavCall {
  readonly ctx: Context;
  readonly me: string;
  readonly resource: Resource;
  readonly path: string;
  readonly request: Request;
  readonly body: Uint8Array;
}

/** The XML of a body: `null` for an empty one, `broken` for what is none. */
export function xmlIn(body: Uint8Array): Xml | null | 'broken' {
  if (body.length === 0) return null;
  const text = utf8(body);
  return (text === null ? null : readXml(text)) ?? 'broken';
}

/** More properties are named than one request may name. */
export const tooManyProperties = (): Response =>
  xml(400, el(dav('error'), el(dav('responsedescription'), `A request names at most ${MOST_PROPERTIES} properties.`)));

export function hrefOf(resource: Resource, me: string, path: string): string {
  switch (resource.kind) {
    case 'root':
      return ROOT;
    case 'people':
      return hrefs.people;
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
export function* objectsIn(
  { ctx, me }: DavCall,
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

export function* mapped<T>(all: readonly T[], work: (one: T) => Written): Generator<Written> {
  for (const one of all) yield work(one);
}
