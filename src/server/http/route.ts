import { headers as nextHeaders } from 'next/headers';
import type { z } from 'zod';
import { ERRORS } from '@/contract/errors.ts';
import { ROUTES, type RouteName } from '@/contract/routes.ts';
import { log } from '../log.ts';
import { type Context, contextFor } from '../operations/context.ts';
import { personOf } from '../operations/session.ts';
import { type Refusal, refuse } from '../result.ts';
import { refusalBody } from './sentences.ts';

type R<N extends RouteName> = (typeof ROUTES)[N];
type Out<N extends RouteName, K extends 'body' | 'query'> =
  R<N> extends Record<K, infer S> ? (S extends z.ZodType ? z.output<S> : undefined) : undefined;

/** What a route's handler gets: the context of whoever is signed in, and everything the contract has already read. */
interface Call<N extends RouteName> {
  readonly ctx: R<N>['who'] extends 'person' ? Context : null;
  readonly params: Readonly<Record<string, string>>;
  readonly query: Out<N, 'query'>;
  readonly body: Out<N, 'body'>;
  readonly request: Request;
}
type Handled = Response | Refusal | { readonly ok: true; readonly value: unknown };

const MOST_BODY = 256_000;
const MOST_PARAM = 128;
// In production a projection is right by construction; elsewhere every answer is held against its strict schema.
const checkAnswers = process.env.NODE_ENV !== 'production' || process.env.PARAMO_CHECK_ANSWERS === '1';

/**
 * Makes a route handler from the contract: reads who asks, the parameters, the query and the body, calls one operation and
 * turns its result into an answer. Every refusal of every route leaves through here.
 */
export function route<N extends RouteName>(name: N, handle: (call: Call<N>) => Handled | Promise<Handled>) {
  const spec: (typeof ROUTES)[RouteName] & { body?: z.ZodType; query?: z.ZodType; answer?: z.ZodType } = ROUTES[name];
  return async (
    request: Request,
    { params }: { params: Promise<Record<string, string> | undefined> },
  ): Promise<Response> => {
    const started = performance.now();
    let answer: Response;
    try {
      answer = await respond(request, (await params) ?? {});
    } catch (error) {
      log().error({ route: name, error: error instanceof Error ? error.stack : String(error) }, 'broken');
      answer = refusalResponse(refuse('broken'));
    }
    log().debug({ route: name, status: answer.status, ms: Math.round(performance.now() - started) });
    return answer;
  };

  async function respond(request: Request, params: Record<string, string>): Promise<Response> {
    const person = spec.who === 'person' ? await personOf(await nextHeaders()) : null;
    if (spec.who === 'person' && !person) return refusalResponse(refuse('signedOut'));
    if (Object.values(params).some((p) => p.length > MOST_PARAM)) return refusalResponse(refuse('notFound'));
    const query = spec.query
      ? spec.query.safeParse(Object.fromEntries(new URL(request.url).searchParams))
      : ({ success: true, data: undefined } as const);
    if (!query.success) return refusalResponse(badInput(query.error));
    const body = spec.body ? await readBody(request, spec.body) : ({ success: true, data: undefined } as const);
    if (!body.success) return refusalResponse(body.refusal);
    const handled = await handle({
      ctx: (person && contextFor(person)) as Call<N>['ctx'],
      params,
      query: query.data as Out<N, 'query'>,
      body: body.data as Out<N, 'body'>,
      request,
    });
    if (handled instanceof Response) return handled;
    if (!handled.ok) return refusalResponse(handled);
    if (checkAnswers && spec.answer) spec.answer.parse(handled.value);
    return json(handled.value, 200);
  }
}

async function readBody(
  request: Request,
  schema: z.ZodType,
): Promise<{ success: true; data: unknown } | { success: false; refusal: Refusal }> {
  const text = await request.text();
  if (text.length > MOST_BODY) return { success: false, refusal: refuse('fileTooLarge', { facts: { most: 0.25 } }) };
  let raw: unknown;
  try {
    raw = JSON.parse(text);
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

export function refusalResponse(refusal: Refusal): Response {
  return json(refusalBody(refusal), ERRORS[refusal.code]);
}

export function json(value: unknown, status: number, cookies: readonly string[] = []): Response {
  const headers = new Headers({ 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store' });
  for (const cookie of cookies) headers.append('set-cookie', cookie);
  return new Response(JSON.stringify(value), { status, headers });
}
