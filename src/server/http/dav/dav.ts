import { now as clock } from '../../clock.ts';
import { database } from '../../db/index.ts';
import { log } from '../../log.ts';
import { contextFor } from '../../operations/deciding/context/context.ts';
import { freeLapsed } from '../../operations/deciding/writing/lapse.ts';
import { signedIn } from '../../operations/people/session.ts';
import { refuse } from '../../result.ts';
import { readLimited } from '../body.ts';
import { nothingThere } from '../inbound.ts';
import { evenOut } from '../route.ts';
import { bare, notLetIn, refused } from './answers.ts';
import { mkcalendar, move, proppatch } from './changing.ts';
import type { DavCall } from './dav-call.ts';
import { propfind } from './find-properties.ts';
import { get, outbox, put, remove } from './objects.ts';
import { MOST_TEXT } from './properties.ts';
import { report } from './reports.ts';
import { type Resource, resourceAt } from './resource.ts';

/*
 * The calendar protocol (RFC 4791, with 4918, the part of 3744 that tells a client its privileges, 5397 and 6638): what a person's own
 * calendar programs read and write. They come in by a token and in no other way. Nothing is decided here: every answer is what an operation
 * gave the token's person.
 */

const READS = ['OPTIONS', 'GET', 'HEAD', 'PROPFIND', 'REPORT'];
/** What a request's body may have, in bytes. */
const MOST_BODY = 256_000;

const ALLOWED: Readonly<Record<Resource['kind'], readonly string[]>> = {
  root: ['OPTIONS', 'PROPFIND', 'REPORT'],
  people: ['OPTIONS', 'PROPFIND', 'REPORT'],
  home: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT'],
  person: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT'],
  calendar: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT', 'MKCALENDAR'],
  object: ['OPTIONS', 'GET', 'HEAD', 'PUT', 'DELETE', 'MOVE', 'COPY', 'PROPFIND', 'PROPPATCH'],
  inbox: ['OPTIONS', 'PROPFIND', 'PROPPATCH', 'REPORT'],
  invitation: ['OPTIONS', 'GET', 'HEAD', 'DELETE', 'PROPFIND'],
  outbox: ['OPTIONS', 'POST', 'PROPFIND', 'PROPPATCH'],
};

/**
 * Answers a request of the calendar protocol. The web server passes it on as a POST, with the original method and address in headers;
 * without those, nothing is at this address.
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
  const call: DavCall = { ctx, me, resource, path, request, body };
  switch (method) {
    case 'PROPFIND':
      return propfind(call);
    case 'REPORT':
      return report(call);
    case 'PROPPATCH':
      return proppatch(call);
    case 'MKCALENDAR':
      return mkcalendar(call);
    case 'MOVE':
    case 'COPY':
      return move(call, method === 'COPY');
    case 'POST':
      return outbox(call);
    case 'PUT':
      return put(call);
    case 'DELETE':
      return remove(call);
    default:
      return get(call, method === 'HEAD');
  }
}
