import { ERRORS, type ErrorCode } from '@/contract/errors.ts';
import type { Context } from '../../operations/deciding/context/context.ts';
import type { Refusal } from '../../result.ts';
import { refusalBody } from '../sentences.ts';
import { statusFor } from './properties.ts';
import { cal, card, dav, documentOf, el, type Name, type Written } from './xml.ts';

/*
 * What the calendar protocol answers with: XML, text or nothing, and refusals by the conditions of the standards.
 */

const CALENDAR = 'text/calendar; charset=utf-8';
const SPEAKS = '1, 3, calendar-access, calendar-auto-schedule, addressbook';

/** Those of an address book (RFC 6352 6.3.2.1), where they are other ones. */
const CARD_CONDITION: Partial<Record<ErrorCode, Name>> = {
  badInput: card('valid-address-data'),
  notCards: card('valid-address-data'),
  wrongEncoding: card('valid-address-data'),
  fileTooLarge: card('max-resource-size'),
  alreadyThere: card('no-uid-conflict'),
};

/** The conditions of the standards by which some refusals are told apart, by their codes. */
const CONDITION: Partial<Record<ErrorCode, Name>> = {
  badInput: cal('valid-calendar-data'),
  notACalendar: cal('valid-calendar-data'),
  wrongEncoding: cal('valid-calendar-data'),
  tooManyItems: cal('max-resource-size'),
  tooManyZones: cal('max-resource-size'),
  tooManyLines: cal('max-resource-size'),
  calledPrivate: dav('need-privileges'),
  tooManyApart: cal('max-instances'),
  fileTooLarge: cal('max-resource-size'),
  alreadyThere: cal('no-uid-conflict'),
  calledByOthers: cal('allowed-attendee-scheduling-object-change'),
  meetingOff: cal('allowed-attendee-scheduling-object-change'),
  mayNotAdd: dav('need-privileges'),
  mayNotChange: dav('need-privileges'),
  mayNotRemove: dav('need-privileges'),
  mayNotAnswer: dav('need-privileges'),
  tokenReads: dav('need-privileges'),
  tokenOnly: dav('need-privileges'),
};

export const xml = (status: number, root: Written, headers: Record<string, string> = {}): Response =>
  new Response(documentOf(root), {
    status,
    headers: { 'content-type': 'application/xml; charset=utf-8', 'cache-control': 'no-store', dav: SPEAKS, ...headers },
  });

export const bare = (status: number, headers: Record<string, string> = {}): Response =>
  new Response(null, { status, headers: { 'cache-control': 'no-store', dav: SPEAKS, ...headers } });

export const notLetIn = (): Response => bare(401, { 'www-authenticate': 'Basic realm="Paramo", charset="UTF-8"' });

export const multistatus = (...responses: Written[]): Response => xml(207, el(dav('multistatus'), ...responses));

/** What one answer holds, in characters, and for how long it is written before others have their turn. */
const MOST_ANSWER = 16_000_000;
const A_TURN_MS = 8;

/**
 * A multistatus of many resources, written in turns. Where it holds no more, or `cut` says that there is more, that is said of `path`. `after` is its
 * last element.
 */
export async function multistatusInTurns(
  path: string,
  responses: Iterable<Written>,
  cut: boolean,
  after?: Written,
): Promise<Response> {
  const parts: string[] = [];
  let size = 0;
  let isCut = cut;
  let begun = performance.now();
  for (const { xml: text } of responses) {
    size += text.length;
    if (size > MOST_ANSWER) {
      isCut = true;
      break;
    }
    parts.push(text);
    if (performance.now() - begun > A_TURN_MS) {
      await new Promise((others) => setImmediate(others));
      begun = performance.now();
    }
  }
  if (isCut) parts.push(statusFor(path, 507, el(dav('error'), el(dav('number-of-matches-within-limits')))).xml);
  if (after) parts.push(after.xml);
  return multistatus({ xml: parts.join('') });
}

export const conditionFailed = (name: Name, status = 403): Response => xml(status, el(dav('error'), el(name)));

/**
 * A refusal as a program hears it: the condition that failed, and our sentence for whoever reads it. `home` is the address of the collection
 * written to, in which what is there already by another name is named (RFC 4791 5.3.2.1).
 */
export function refused(ctx: Context | null, refusal: Refusal, cards = false, home = ''): Response {
  const body = refusalBody(refusal, ctx?.viewer.language ?? 'en');
  const fields = Object.entries(body.fields ?? {}).map(([name, says]) => `${name}: ${says}`);
  const oneThing = !cards && Object.values(refusal.fields ?? {}).includes('oneThing');
  const own = cards ? CARD_CONDITION[refusal.code] : undefined;
  const condition = oneThing ? cal('valid-calendar-object-resource') : (own ?? CONDITION[refusal.code]);
  const there =
    home && refusal.code === 'alreadyThere' && typeof refusal.data === 'string'
      ? el(dav('href'), `${home}${encodeURIComponent(refusal.data)}`)
      : null;
  // A condition that the same request would fail again is Forbidden (RFC 4918 16).
  const status = condition ? 403 : ERRORS[refusal.code];
  return xml(
    status,
    el(
      dav('error'),
      condition ? el(condition, there) : null,
      el(dav('responsedescription'), [body.sentence, ...fields].join(' ')),
    ),
  );
}

/** A card as an answer, with its tag. */
export const cardResponse = (text: string, tag: string, head: boolean): Response =>
  new Response(head ? null : text, {
    headers: {
      'content-type': 'text/vcard; charset=utf-8',
      'cache-control': 'private, no-cache',
      dav: SPEAKS,
      etag: `"${tag}"`,
    },
  });

/** Calendar text as an answer, with its tags where it is one thing. */
export function calendarResponse(
  text: string,
  tags: { tag: string; scheduleTag: string } | null,
  head: boolean,
): Response {
  const headers = {
    'content-type': CALENDAR,
    'cache-control': 'private, no-cache',
    dav: SPEAKS,
    ...(tags ? { etag: `"${tags.tag}"`, 'schedule-tag': `"${tags.scheduleTag}"` } : {}),
  };
  return new Response(head ? null : text, { headers });
}
