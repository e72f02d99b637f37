import { hasThreads, Lane, Thread } from '../workers/thread.ts';
import { Turns } from '../workers/turns.ts';
import { type Invitations, readInvitations } from './read-invitations.ts';
import { type ReadMail, readHead, readMail } from './read-mail.ts';

const LONGEST_MS = 15_000;
const MEGABYTES = 512;
const holder = globalThis as { paramoMailLane?: Lane<ForMailThread> };

/** What the thread is asked to read: a mail, or the calendar parts of one. */
export type ForMailThread =
  | { readonly kind: 'mail'; readonly bytes: Uint8Array }
  | {
      readonly kind: 'invitations';
      readonly parts: readonly string[];
      readonly sender: string;
      readonly clocks: readonly string[];
    };
type Invited = Record<string, Invitations>;

/** Reads in place what the thread is asked to read. */
export const readHere = (what: ForMailThread): Promise<ReadMail> | Invited =>
  what.kind === 'mail' ? readMail(what.bytes) : readInvitations(what.parts, what.sender, what.clocks);

/** Reads beside the thread that serves requests, one mail after the other, within bounds of time and memory; `null` for what goes beyond them. */
async function inThread<T>(what: ForMailThread): Promise<T | null> {
  const begin = () => new Thread<ForMailThread>('mail-worker', MEGABYTES);
  holder.paramoMailLane ??= new Lane(
    begin,
    LONGEST_MS,
    new Turns(1, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY),
  );
  return holder.paramoMailLane.run(what, 'mail').then(
    (read) => read as T,
    () => null,
  );
}

/** Reads a mail; what goes beyond the thread's bounds comes as what its header says, marked. */
export async function readMailInWorker(bytes: Uint8Array): Promise<ReadMail> {
  if (!hasThreads()) return readMail(bytes);
  return (await inThread<ReadMail>({ kind: 'mail', bytes })) ?? readHead(bytes);
}

/** Reads the calendar parts of a mail, once for each clock; `null` for what goes beyond the thread's bounds. */
export async function readInvitationsInWorker(
  parts: readonly string[],
  sender: string,
  clocks: readonly string[],
): Promise<Invited | null> {
  if (parts.length === 0 || clocks.length === 0) return {};
  return hasThreads()
    ? inThread<Invited>({ kind: 'invitations', parts, sender, clocks })
    : readInvitations(parts, sender, clocks);
}
