import { readFreeBusyQuestion } from '@/core/formats/index.ts';
import { clearInbox, MOST_ASKED, MOST_ASKED_DAYS, readInbox, readProgramCalendar } from '../../operations/dav/index.ts';
import type { Context } from '../../operations/deciding/context/context.ts';
import {
  deleteObjectInWorker,
  putObjectInWorker,
  readObjectInWorker,
  requestFreeBusyInWorker,
} from '../../operations/in-worker/in-worker.ts';
import { refuse } from '../../result.ts';
import { utf8 } from '../body.ts';
import { bare, calendarResponse, cardResponse, conditionFailed, refused, xml } from './answers.ts';
import type { DavCall } from './dav-call.ts';
import { knownOf } from './find-properties.ts';
import { hrefs } from './resource.ts';
import { writing } from './writing.ts';
import { cal, card, dav, el } from './xml.ts';

/** Whether what stands there are contacts. */
function holdsCards(ctx: Context, key: string): boolean {
  const on = readProgramCalendar(ctx, key);
  return on.ok && on.value.holds === 'VCARD';
}

export async function get({ ctx, resource, request }: DavCall, head: boolean): Promise<Response> {
  const read =
    resource.kind === 'object'
      ? await readObjectInWorker(ctx, resource.calendar, resource.name)
      : resource.kind === 'invitation'
        ? readInbox(ctx, resource.name)
        : refuse('notFound');
  if (!read.ok) return refused(ctx, read);
  const { tag, text } = read.value;
  const isCard = resource.kind === 'object' && holdsCards(ctx, resource.calendar);
  const scheduleTag = 'scheduleTag' in read.value ? read.value.scheduleTag : tag;
  const known = (request.headers.get('if-none-match') ?? '').split(',').map((one) => one.trim().replace(/^W\//, ''));
  if (known.includes(`"${tag}"`)) return bare(304, { etag: `"${tag}"` });
  if (isCard) return cardResponse(text ?? '', tag, head);
  return calendarResponse(text ?? '', { tag, scheduleTag }, head);
}

/** What a program says that it saw of what it writes over. */
export const seenBy = ({ headers }: Request) => ({
  match: headers.get('if-match'),
  noneMatch: headers.get('if-none-match'),
  scheduleTag: headers.get('if-schedule-tag-match')?.trim().replace(/^"|"$/g, '') ?? null,
});

export async function put({ ctx, me, resource, request, body }: DavCall): Promise<Response> {
  if (resource.kind !== 'object') return bare(405);
  const { calendar, name } = resource;
  const into = readProgramCalendar(ctx, calendar);
  if (!into.ok) return refused(ctx, into);
  const cards = into.value.holds === 'VCARD';
  const mime = cards ? 'text/vcard' : 'text/calendar';
  const type = (request.headers.get('content-type') ?? mime).split(';')[0]?.trim().toLowerCase();
  if (type !== mime) return conditionFailed(cards ? card('supported-address-data') : cal('supported-calendar-data'));
  const text = utf8(body);
  if (text === null || text.includes('\u0000')) return refused(ctx, refuse('wrongEncoding'), cards);
  const home = hrefs.calendar(me, calendar);
  if (cards) {
    const done = await putObjectInWorker(ctx, { key: calendar, name, text, seen: seenBy(request) });
    return done.ok ? bare(done.value.added ? 201 : 204) : refused(ctx, done, true, home);
  }
  // A message to somebody is no thing of a calendar (RFC 4791 4.1).
  if (/^METHOD[:;]/im.test(text)) return conditionFailed(cal('valid-calendar-object-resource'));
  const others = into.value.holds === 'VTODO' ? 'VEVENT' : 'VTODO';
  if (new RegExp(`^BEGIN:(${others}|VJOURNAL|VFREEBUSY|VAVAILABILITY)`, 'im').test(text))
    return conditionFailed(cal('supported-calendar-component'));
  const done = await putObjectInWorker(ctx, { key: calendar, name, text, seen: seenBy(request) });
  // Stored is what a text means, not the text itself, so no ETag is given: a program reads back what it came to (RFC 4791 5.3.4).
  return done.ok ? bare(done.value.added ? 201 : 204) : refused(ctx, done, false, home);
}

export async function remove({ ctx, resource, request }: DavCall): Promise<Response> {
  const done =
    resource.kind === 'object'
      ? await deleteObjectInWorker(ctx, {
          key: resource.calendar,
          name: resource.name,
          seen: seenBy(request),
          // Whoever called it isn't told where the program says so (RFC 6638 8.1).
          quietly: request.headers.get('schedule-reply')?.trim().toUpperCase() === 'F',
        })
      : resource.kind === 'invitation'
        ? await writing(ctx, (now) => clearInbox(now, resource.name))
        : refuse('notFound');
  return done.ok ? bare(204) : refused(ctx, done);
}

/** The question when others are free (RFC 6638 5). People of whom the asker sees nothing are answered like people nobody knows. */
export async function outbox(post: DavCall): Promise<Response> {
  const { ctx, resource } = post;
  const known = await knownOf(post, resource);
  if (!known.ok) return refused(ctx, known);
  const text = utf8(post.body);
  const question = text === null ? null : readFreeBusyQuestion(text);
  if (!question) return conditionFailed(cal('valid-scheduling-message'));
  if (question.organiser !== ctx.viewer.address) return conditionFailed(cal('organizer-allowed'));
  if (question.attendees.length > MOST_ASKED) return conditionFailed(cal('max-attendees-per-instance'));
  const { attendees, uid } = question;
  const { from, to } = question;
  if (to - from > MOST_ASKED_DAYS * 86_400_000)
    return refused(ctx, refuse('tooLong', { facts: { most: MOST_ASKED_DAYS } }));
  const query = { addresses: attendees, instants: { from, to }, uid: uid.replace(/[^\x21-\x7e]/g, '') };
  const answered = await requestFreeBusyInWorker(ctx, query);
  if (!answered.ok) return refused(ctx, answered);
  const answers = answered.value;
  return xml(
    200,
    el(
      cal('schedule-response'),
      ...answers.map(({ address, text: answer }) =>
        el(
          cal('response'),
          el(cal('recipient'), el(dav('href'), `mailto:${address}`)),
          el(cal('request-status'), answer === null ? '3.7;Invalid calendar user' : '2.0;Success'),
          answer === null ? null : el(cal('calendar-data'), answer),
        ),
      ),
    ),
  );
}
