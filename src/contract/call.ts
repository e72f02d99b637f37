import type { z } from 'zod';
import { ADDRESSES, OUTSIDE_HEADER, type ParamOf, type RouteName } from './addresses.ts';
import type { ErrorBody } from './errors.ts';
import type { ROUTES } from './routes.ts';

type R<N extends RouteName> = (typeof ROUTES)[N];
type In<N extends RouteName, K extends 'body' | 'query'> =
  R<N> extends Record<K, infer S> ? (S extends z.ZodType ? Record<K, z.input<S>> : unknown) : unknown;
type Params<N extends RouteName> = [ParamOf<N>] extends [never]
  ? unknown
  : { readonly params: Readonly<Record<ParamOf<N>, string>> };
export type CallInput<N extends RouteName> = Params<N> & In<N, 'body'> & In<N, 'query'>;
export type Answer<N extends RouteName> =
  R<N> extends { answer: infer S } ? (S extends z.ZodType ? z.output<S> : never) : never;

/** A refusal as the browser holds it: the server's code and sentence, and the fields it speaks of. */
export class CallRefused extends Error {
  constructor(
    readonly status: number,
    readonly body: ErrorBody,
  ) {
    super(body.sentence);
  }
}

/** The server couldn't be reached at all. */
class Unreachable extends Error {}

type ConfirmFirst = (people: readonly string[]) => Promise<boolean>;
let confirmFirst: ConfirmFirst | null = null;

/** Has a window ask its person before a meeting leaves the house: with the names of those outside, answering whether it may. Returns the end of that. */
export function confirmBeforeItLeaves(confirming: ConfirmFirst): () => void {
  confirmFirst = confirming;
  return () => {
    if (confirmFirst === confirming) confirmFirst = null;
  };
}

/** Calls a route of the API. Throws `CallRefused` for a refusal and `Unreachable` where no answer came. */
export async function call<N extends RouteName>(name: N, input: CallInput<N>): Promise<Answer<N>> {
  const [method, address] = ADDRESSES[name];
  const {
    params = {},
    query,
    body,
  } = input as { params?: Record<string, string>; query?: Record<string, unknown>; body?: unknown };
  const path = address.replace(/\{(\w+)\}/g, (_, key: string) => encodeURIComponent(params[key] ?? ''));
  const search = query ? `?${new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]))}` : '';
  return (await send(path + search, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  })) as Answer<N>;
}

/** Sends a file as it is; `signal` stops both the sending and the reading of it. */
export async function sendFile(calendar: string, file: Blob, signal: AbortSignal): Promise<Answer<'previewImport'>> {
  return (await send(`/api/calendars/${encodeURIComponent(calendar)}/imports`, {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'text/calendar' },
    signal,
  })) as Answer<'previewImport'>;
}

/** Brings the tasks of a file into a list. */
export async function sendTasks(list: string, file: Blob): Promise<Answer<'importTasks'>> {
  return (await send(`/api/lists/${encodeURIComponent(list)}/file`, {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'text/calendar' },
  })) as Answer<'importTasks'>;
}

/** Brings the cards of a file into an address book. */
export async function sendContacts(book: string, file: Blob): Promise<Answer<'importContacts'>> {
  return (await send(`/api/books/${encodeURIComponent(book)}/file`, {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'text/vcard' },
  })) as Answer<'importContacts'>;
}

/** Gives a contact a picture. */
export async function sendPicture(contact: string, version: number, file: Blob): Promise<Answer<'setContactPicture'>> {
  return (await send(`/api/contacts/${encodeURIComponent(contact)}/picture?version=${version}`, {
    method: 'PUT',
    body: file,
    headers: { 'content-type': 'application/octet-stream' },
  })) as Answer<'setContactPicture'>;
}

/** Adds a file to an item, as it is. */
export async function sendAttachment(item: string, file: File): Promise<Answer<'addAttachment'>> {
  const query = new URLSearchParams({ name: file.name });
  return (await send(`/api/items/${encodeURIComponent(item)}/attachments?${query}`, {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'application/octet-stream' },
  })) as Answer<'addAttachment'>;
}

/** Sends a request; what would leave the house is asked about once, and then sent again or refused. */
async function send(url: string, init: RequestInit): Promise<unknown> {
  const confirming = init.method === 'GET' ? null : confirmFirst;
  if (!confirming) return sendOnce(url, init);
  try {
    return await sendOnce(url, { ...init, headers: { ...init.headers, [OUTSIDE_HEADER]: 'ask' } });
  } catch (error) {
    if (!(error instanceof CallRefused) || error.body.code !== 'leavesHouse') throw error;
    const { people } = error.body.data as { people: readonly string[] };
    if (!(await confirming(people))) throw error;
    return sendOnce(url, init);
  }
}

async function sendOnce(url: string, init: RequestInit): Promise<unknown> {
  let answer: Response;
  try {
    answer = await fetch(url, { ...init, cache: 'no-store', credentials: 'same-origin' });
  } catch {
    throw new Unreachable();
  }
  const json: unknown = await answer.json().catch(() => null);
  if (answer.ok) return json;
  const body = (json ?? { code: 'broken', sentence: '' }) as ErrorBody;
  throw new CallRefused(answer.status, body);
}
