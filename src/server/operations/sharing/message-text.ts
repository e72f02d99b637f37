import { createTranslator } from 'use-intl/core';
import type { MessageAnswer, MessageBody } from '@/contract/sharing/sharing.ts';
import { NO_RIGHTS, type Rights } from '@/core/access/index.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { type Language, LOCALES } from '@/messages/languages.ts';
import { rightsSentence } from '@/messages/rights-sentence.ts';
import { TEXTS } from '@/messages/texts.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { firstCollectionOf, type Shareable } from '../../repositories/shareables.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  type Context,
  Directory,
  decideOnShared,
  findAudience,
  findShared,
  isRefusal,
  nextRights,
  rulesOf,
} from '../deciding/index.ts';
import { readSpan } from './span.ts';

const lettersIn = (language: Language) =>
  createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'letters' });
const textsIn = (language: Language) => createTranslator({ locale: LOCALES[language], messages: TEXTS[language] });

/**
 * Which of an owner's calendars, lists or folders a letter is about, as its texts ask for it. The calendar and the lists that everybody begins with
 * need no name; the folders do, in the letter's language.
 */
export function whichOf(of: Shareable | null, language: Language) {
  const first = of && firstCollectionOf(of);
  const folder = of?.kind === 'folder' && first ? textsIn(language)(`lists.${first}`) : null;
  return {
    kind: of?.kind ?? 'calendar',
    further: of && (first === null || folder) ? 'yes' : 'no',
    calendar: folder ?? of?.name ?? '',
  };
}

/**
 * All the access that the viewer has to something, by whichever grants, and when it ends by itself; `null` where there is none. With a grant
 * that has yet to begin, the access from that day on.
 */
export function wholeAccess(ctx: Context, of: Shareable, grant: Pick<Access, 'starts'> | null): Access | null {
  const starts = grant?.starts && grant.starts > ctx.now ? grant.starts : null;
  const now = starts ?? ctx.now;
  const decided = decideOnShared({ ...ctx, now }, of);
  const { rights } = decided.decision;
  if (rights.sight === 'nothing') return null;
  const next = nextRights(decided, now, rulesOf(ctx.db, of));
  return { rights, starts, ends: next?.rights.sight === 'nothing' ? next.at : null };
}

/** A day as a letter writes it. */
export const dayText = (instant: number, timeZone: string, language: Language): string =>
  new Intl.DateTimeFormat(LOCALES[language], { dateStyle: 'long', timeZone }).format(instant);

/** Access as a letter describes it. */
export interface Access {
  readonly rights: Rights;
  readonly starts: number | null;
  readonly ends: number | null;
}

interface Reading {
  /** What the access is to. */
  readonly kind: CollectionKind;
  readonly language: Language;
  readonly zone: string;
  readonly now: number;
}

/** What a letter says of access: what one sees and may do with it, from when and until when. */
export function accessLines(
  owner: string,
  { rights, starts, ends }: Access,
  { kind, language, zone, now }: Reading,
): string[] {
  const t = lettersIn(language);
  const ts = createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'sentence' });
  const { does, cannot } = rightsSentence(ts, rights, owner.split(' ')[0] ?? '', false, kind);
  const lines = [t('what', { does, cannot })];
  if (starts !== null && starts > now) lines.push(t('from', { day: dayText(starts, zone, language) }));
  if (ends !== null) lines.push(t('until', { day: dayText(ends - 1, zone, language) }));
  return lines;
}

/**
 * The message that would tell an audience of what is thought of for it, in the reader's language, composed of the same sentences as the one
 * that is sent. What a group is told each of its members reads in their own; it is shown as the giver would read it.
 */
export function previewMessage(ctx: Context, key: string, body: MessageBody): Result<MessageAnswer> {
  const shared = findShared(ctx, key);
  if (isRefusal(shared)) return shared;
  const of = shared.shared;
  const audience = findAudience(ctx, body.audience, of);
  if (isRefusal(audience)) return audience;
  if (audience.stored.kind === 'everyone' || audience.stored.kind === 'link')
    return refuse('badInput', { fields: { audience: 'audience' } });
  const span = readSpan(ctx, body.span, grantsOn(ctx.db, of.id).find((g) => g.key === body.seen) ?? null);
  if (isRefusal(span)) return span;
  // Somebody typed by address who was never named here is written to as anybody is: known elsewhere or not, nobody learns of it.
  const person = audience.toMake ? null : audience.person;
  const letter = audience.outside;
  // Somebody outside who never said how they read is written to as whoever gives reads.
  const language = person && (person.inside || person.account !== null) ? person.language : ctx.viewer.language;
  const zone = person?.zone ?? ctx.viewer.zone;
  const owner = new Directory(ctx.db).name(of.ownerId);
  const kind = body.rights === null ? 'taken' : body.seen === null ? 'given' : 'changed';
  const byOwner = ctx.viewer.id === of.ownerId;
  const given = body.rights && { rights: body.rights, ...span };
  const reading = { kind: of.kind, language, zone, now: ctx.now };
  const note = body.note.trim() ? [`“${body.note.trim()}”`] : [];
  if (letter) {
    const t = lettersIn(language);
    const names = { owner, by: ctx.viewer.name, byOwner: byOwner ? 'yes' : 'no', day: '', ...whichOf(of, language) };
    const lines = [
      t('hello', { name: audience.name }),
      t(kind, names),
      ...(given ? accessLines(owner, given, reading) : []),
      ...note,
      ...(given ? [t('wayInHere', { address: '…' })] : []),
      t('close'),
    ];
    return ok({ letter, language, subject: t('subject', names), lines });
  }
  const t = textsIn(language);
  const first = owner.split(' ')[0] ?? '';
  const words = { by: byOwner ? 'same' : 'other', byName: ctx.viewer.name, owner, first, kind: of.kind };
  const ts = createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'sentence' });
  const said = given && rightsSentence(ts, given.rights, first, false, of.kind);
  const lines = [
    t(`messages.${kind}`, words),
    ...(said ? [`${t('messages.withIt', { what: said.does })} ${said.cannot}`.trim()] : []),
    ...(span.ends === null || !given ? [] : [t('messages.until', { date: dayText(span.ends - 1, zone, language) })]),
    ...note,
  ];
  const inReturn = body.asks && body.asks !== 'nothing' ? { ...NO_RIGHTS, sight: body.asks } : null;
  if (inReturn)
    lines.push(
      `${owner} ${t('ask.asks', { own: 'yes', owner: '', kind: 'calendar', name: 'none', what: t(`sights.${inReturn.sight}`) })}`,
    );
  return ok({ letter, language, subject: null, lines });
}
