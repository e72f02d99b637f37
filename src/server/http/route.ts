import type { z } from 'zod';
import { OUTSIDE_HEADER } from '@/contract/addresses.ts';
import { ERRORS } from '@/contract/errors.ts';
import type { Route } from '@/contract/route.ts';
import { ROUTES, type RouteName } from '@/contract/routes.ts';
import { type Language, languageOf } from '@/messages/languages.ts';
import { now as clock } from '../clock.ts';
import { writingIsFree } from '../db/gate.ts';
import { database } from '../db/index.ts';
import { log } from '../log.ts';
import { again } from '../operations/deciding/context/again.ts';
import { contextFor } from '../operations/deciding/context/context.ts';
import { noteTokenAct } from '../operations/deciding/context/token-acts.ts';
import { freeLapsed } from '../operations/deciding/writing/lapse.ts';
import { unlessItLeaves } from '../operations/meetings/index.ts';
import { type SignedIn, signedIn } from '../operations/people/session.ts';
import { type Refusal, refuse } from '../result.ts';
import { settings } from '../settings.ts';
import { readLimited } from './body.ts';
import type { Call, Handled, Handler } from './handler.ts';
import { refusalBody } from './sentences.ts';

const MOST_BODY = 256_000;
const MOST_PARAM = 128;
// In production a projection is right by construction; elsewhere every answer is held against its strict schema.
/** Whether what goes out is held against its strict schema: in development and tests. */
export const checkAnswers = process.env.NODE_ENV !== 'production' || process.env.PARAMO_CHECK_ANSWERS === '1';
/** A hidden thing takes longer to look up than a missing one, so both are answered at the same later moment. */
const NOT_THERE_MS = 12;
/** So much earlier a timer is set than it is meant for. */
const TIMER_MS = 3;

/**
 * Answers a request to a route: reads who the viewer is, the parameters, the query and the body by the contract, has the handler call one
 * operation, and turns its result into an answer. Every refusal of every route leaves through here.
 */
export async function answerRoute<N extends RouteName>(
  name: N,
  handler: Handler<N>,
  request: Request,
  params: Readonly<Record<string, string>>,
): Promise<Response> {
  const started = performance.now();
  let answer: Response;
  try {
    answer = await respond(name, handler, request, params);
  } catch (error) {
    log().error({ route: name, error: error instanceof Error ? error.stack : String(error) }, 'broken');
    answer = refusalResponse(refuse('broken'), languageOf(request.headers.get('accept-language')));
  }
  if (answer.status === 404) await evenOut(started);
  log().debug({ route: name, status: answer.status, ms: Math.round(performance.now() - started) });
  return answer;
}

/** Has the work done: at once in one transaction where it writes, in its own time, or on another thread. */
async function handled<N extends RouteName>(name: N, handler: Handler<N>, call: Call<N>): Promise<Handled> {
  const { method, reads }: Route = ROUTES[name];
  const writes = method !== 'GET' && !reads;
  if ('slow' in handler) {
    if (method !== 'GET') await writingIsFree();
    const done = await handler.slow(call);
    const { ctx } = call;
    if (writes && ctx?.token && (done instanceof Response || done.ok))
      ctx.db.write(() => noteTokenAct(ctx, name, call.params));
    return done;
  }
  const [handle, inWorker] = typeof handler === 'function' ? [handler, null] : [handler.handle, handler.inWorker];
  if (!writes || !call.ctx) return handle(call);
  const elsewhere = inWorker?.(call);
  if (elsewhere) return elsewhere;
  await writingIsFree();
  const { ctx } = call;
  return ctx.db.write(() => {
    const now = again(ctx);
    if ('ok' in now) return now;
    const done = handle({ ...call, ctx: now as Call<N>['ctx'] });
    if (done instanceof Promise) throw new Error(`${name} waits for something and can't be one transaction`);
    if (done instanceof Response || done.ok) noteTokenAct(now, name, call.params);
    return done instanceof Response ? done : unlessItLeaves(now, done);
  });
}

async function respond<N extends RouteName>(
  name: N,
  handler: Handler<N>,
  request: Request,
  params: Readonly<Record<string, string>>,
): Promise<Response> {
  const spec: Route = ROUTES[name];
  const { headers } = request;
  const here = spec.who === 'person' ? await signedIn(headers) : null;
  const language = here?.person.language ?? languageOf(headers.get('accept-language'));
  const no = (refusal: Refusal) => refusalResponse(refusal, language);
  if (spec.who === 'person' && !here) return no(refuse('signedOut'));
  const limited = here?.token ? limitedBy(here.token, spec, params) : null;
  if (limited) return no(limited);
  if (Object.values(params).some((p) => p.length > MOST_PARAM)) return no(refuse('notFound'));
  const query = spec.query
    ? spec.query.safeParse(Object.fromEntries(new URL(request.url).searchParams))
    : ({ success: true, data: undefined } as const);
  if (!query.success) return no(badInput(query.error));
  const most = spec.rawBody ? settings().importBytes : (spec.mostBytes ?? MOST_BODY);
  const bytes = spec.body || (spec.rawBody && !spec.streams) ? await readLimited(request.body, most) : new Uint8Array();
  if (bytes === null) return no(refuse('fileTooLarge', { facts: { most: most / 1_000_000 } }));
  const body = spec.body ? readJson(bytes, spec.body) : ({ success: true, data: undefined } as const);
  if (!body.success) return no(body.refusal);
  freeLapsed({ db: database(), now: clock() });
  // A body takes its time to arrive: whoever it came from may be signed out by now.
  const still = here && (spec.body || spec.rawBody) ? await signedIn(headers) : here;
  if (here && !still) return no(refuse('signedOut'));
  const token = still?.token ? { key: still.token.key, only: still.token.collectionId } : null;
  const done = await handled(name, handler, {
    ctx: (still && {
      ...contextFor(still.person, undefined, still.session, token),
      leaving: headers.get(OUTSIDE_HEADER) === 'ask' ? new Map() : null,
    }) as Call<N>['ctx'],
    params: params as Call<N>['params'],
    query: query.data as Call<N>['query'],
    body: body.data as Call<N>['body'],
    bytes,
    request,
  });
  if (done instanceof Response) return done;
  if (!done.ok) return no(done);
  if (checkAnswers && spec.answer) spec.answer.parse(done.value);
  return json(done.value, 200);
}

/**
 * What a token may not do because of its limits: nothing reserved for a window; nothing that writes, where it only reads; and, where it is
 * for one calendar, no route about anything else. Which calendars and items it reaches is decided where all access is.
 */
function limitedBy(
  token: NonNullable<SignedIn['token']>,
  spec: Route,
  params: Readonly<Record<string, string>>,
): Refusal | null {
  if (spec.by === 'session') return refuse('notByToken');
  if (token.reads && spec.method !== 'GET' && !spec.reads) return refuse('tokenReads');
  if (token.collectionId !== null && params.calendar === undefined && params.item === undefined)
    return refuse('tokenOnly');
  return null;
}

/**
 * Waits until the next stroke of a slow clock that began with the request. A timer counts whole milliseconds from when the loop last looked at
 * its clock, so that its end would still tell how long the work took: the last of the time is waited out turn by turn.
 */
export async function evenOut(started: number): Promise<void> {
  const elapsed = performance.now() - started;
  const stroke = started + Math.ceil((elapsed + TIMER_MS) / NOT_THERE_MS) * NOT_THERE_MS;
  await new Promise((go) => setTimeout(go, stroke - performance.now() - TIMER_MS));
  while (performance.now() < stroke) await new Promise((go) => setImmediate(go));
}

function readJson(
  bytes: Uint8Array,
  schema: z.ZodType,
): { success: true; data: unknown } | { success: false; refusal: Refusal } {
  let raw: unknown;
  try {
    raw = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return { success: false, refusal: refuse('badInput') };
  }
  const parsed = schema.safeParse(raw);
  return parsed.success ? { success: true, data: parsed.data } : { success: false, refusal: badInput(parsed.error) };
}

/** Zod's findings as field codes: our own where a schema names one, a general one otherwise. */
function badInput(error: z.ZodError): Refusal {
  const fields: Record<string, string> = {};
  for (const issue of error.issues) {
    const path = issue.path.filter((p) => p !== 'fields' && p !== 'when').join('.') || 'form';
    fields[path] ??= /^[a-z]+(?:[A-Z][a-z]*)*(?::\d+)?$/.test(issue.message) ? issue.message : 'unclear';
  }
  return refuse('badInput', { fields });
}

export function refusalResponse(refusal: Refusal, language: Language = 'en'): Response {
  return json(refusalBody(refusal, language), ERRORS[refusal.code]);
}

export const json = (value: unknown, status: number, cookies: readonly string[] = []): Response =>
  jsonText(JSON.stringify(value), status, cookies);

/** Answers below so many characters go out as they are: packing them costs more than it saves. */
const WORTH_PACKING = 16_000;

/** The same of what is JSON text already: only what is large is compressed on its way. */
export function jsonText(text: string, status: number, cookies: readonly string[] = []): Response {
  const headers = new Headers({
    'content-type': 'application/json; charset=utf-8',
    'cache-control': text.length < WORTH_PACKING ? 'no-store, no-transform' : 'no-store',
  });
  for (const cookie of cookies) headers.append('set-cookie', cookie);
  return new Response(text, { status, headers });
}
