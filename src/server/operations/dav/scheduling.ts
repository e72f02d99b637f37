import { calendarText, type WrittenItem, withoutOwn, writeCalendar } from '@/core/formats/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { unansweredIn } from '../../repositories/items.ts';
import { personByAddress } from '../../repositories/people.ts';
import { clearedFromInbox, clearFromInbox } from '../../repositories/program-names.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, decideOn, findCalendar, isRefusal } from '../deciding/index.ts';
import { freeBusyOf } from './free-busy.ts';
import { Programs } from './objects.ts';
import type { Instants } from './program-object.ts';

/*
 * The inbox and the outbox of RFC 6638, for the meetings there are: invitations of one's own calendar that wait for an answer, and the question
 * when others are free.
 */

const MOST_WAITING = 200;
/** Whom one question may ask about. */
export const MOST_ASKED = 60;
/** Over how many days one question may go. */
export const MOST_ASKED_DAYS = 400;

export interface InboxObject {
  readonly name: string;
  readonly tag: string;
  readonly text: string;
}

const nameOf = (item: StoredItem): string => `${item.key}.ics`;

/**
 * The invitations that wait in the inbox of the viewer, as they are held in their own calendar, without those they took out of it; of a name, that
 * one.
 */
function waiting(ctx: Context, name?: string): { readonly item: StoredItem; readonly object: InboxObject }[] {
  const programs = own(ctx);
  if (!programs) return [];
  const cleared = clearedFromInbox(ctx.db, ctx.viewer.id);
  return unansweredIn(ctx.db, programs.decided.calendar.id, ctx.now, MOST_WAITING).flatMap((item) => {
    if ((cleared.get(item.id) ?? -1) >= item.version || (name !== undefined && nameOf(item) !== name)) return [];
    const written = programs.writtenWhole(item);
    return written ? [{ item, object: objectOf(item, written) }] : [];
  });
}

/** What stands in the inbox of the viewer. */
export const listInbox = (ctx: Context): Result<InboxObject[]> => ok(waiting(ctx).map(({ object }) => object));

function own(ctx: Context): Programs | null {
  const calendar = mainCalendarOf(ctx.db, ctx.viewer.id);
  const decided = calendar && findCalendar(ctx, calendar.key);
  return decided && !isRefusal(decided) ? new Programs(ctx, decided) : null;
}

function objectOf(item: StoredItem, written: readonly WrittenItem[]): InboxObject {
  // What is asked is the invitation; what its reader made of it for themselves isn't part of it.
  const plain = written.map((one) => ({
    ...one,
    visibility: 'follow' as const,
    shows: 'busy' as const,
    categories: [],
  }));
  const text = withoutOwn(writeCalendar(plain, null)).replace(
    /^VERSION:2\.0\r\n/m,
    'VERSION:2.0\r\nMETHOD:REQUEST\r\n',
  );
  return { name: nameOf(item), tag: `${item.key}-${item.version}`, text };
}

export function readInbox(ctx: Context, name: string): Result<InboxObject> {
  const [found] = waiting(ctx, name);
  return found ? ok(found.object) : refuse('notFound');
}

/** Takes an invitation out of the inbox: it was read. In the calendar it stays as it is, and what changes of it comes again. */
export function clearInbox(ctx: Context, name: string): Result<{ done: true }> {
  const [found] = waiting(ctx, name);
  if (!found) return refuse('notFound');
  const { item } = found;
  ctx.db.write(() => clearFromInbox(ctx.db, ctx.viewer.id, item.id, item.version));
  return ok({ done: true });
}

/** When each of some addresses is taken, as far as the viewer sees it; `null` for whom they see nothing of, and for who isn't here. */
export function requestFreeBusy(
  ctx: Context,
  addresses: readonly string[],
  instants: Instants,
  uid: string,
): Result<{ readonly address: string; readonly text: string | null }[]> {
  const answers = addresses.slice(0, MOST_ASKED).map((address) => {
    // What comes back in a line of text has to be an address and nothing else.
    const person = /^[^\s@:;,"]+@[^\s@:;,"]+$/.test(address) ? personByAddress(ctx.db, address.toLowerCase()) : null;
    const calendar = person && mainCalendarOf(ctx.db, person.id);
    const decided = calendar && decideOn(ctx, calendar);
    if (!decided || decided.decision.rights.sight === 'nothing') return { address, text: null };
    const lines = freeBusyOf(ctx, decided, instants, uid);
    const about = [`ORGANIZER:mailto:${ctx.viewer.address}`, `ATTENDEE:mailto:${address}`];
    lines.splice(2, 0, ...about);
    return { address, text: calendarText(lines, { method: 'REPLY' }) };
  });
  return ok(answers);
}
