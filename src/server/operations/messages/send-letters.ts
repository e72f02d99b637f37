import { createTranslator } from 'use-intl/core';
import { sharedPath } from '@/contract/sharing/shared-path.ts';
import { toWall } from '@/core/time/index.ts';
import { type Language, LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import { makeBareAccount, makeGuestToken } from '../../auth/accounts.ts';
import type { Connection } from '../../db/index.ts';
import { log } from '../../log.ts';
import { isFinal, type Post, type ReadyLetter } from '../../mail/post.ts';
import { grantById, type StoredGrant } from '../../repositories/grants.ts';
import { claim, giveUpClaimed, markFailed, markSent, type Outgoing, outgoingDue } from '../../repositories/outbox.ts';
import { outsiderName } from '../../repositories/outsider-names.ts';
import { type Person, personById, saveAccount } from '../../repositories/people.ts';
import { type Shareable, shareableById } from '../../repositories/shareables.ts';
import { settings } from '../../settings.ts';
import type { Context } from '../deciding/index.ts';
import { reminderFor } from '../reminders/index.ts';
import { type Access, accessLines, dayText, whichOf, wholeAccess } from '../sharing/index.ts';

const lettersIn = (language: Language) =>
  createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'letters' });

const MOST = 20;
const MINUTE = 60_000;
const DAY = 86_400_000;
/** How long to wait after each try that failed; after the last the letter is given up and its giver sees so. */
const AGAIN = [MINUTE, 10 * MINUTE, 60 * MINUTE, 6 * 60 * MINUTE];

/**
 * Writes and sends the letters that wait. Each is claimed before it goes: a process that ends in between sends nothing twice, and
 * what it had claimed is given up at the next start, for its giver to send again.
 */
export async function sendLetters(
  db: Connection,
  now: number,
  post: Post | null,
  ofDay: WriteDay = async () => null,
): Promise<void> {
  for (const outgoing of outgoingDue(db, now, MOST)) {
    db.write(() => claim(db, outgoing.id));
    try {
      const person = personById(db, outgoing.personId);
      const letter = person && (await write(db, now, outgoing, person, ofDay));
      if (letter) {
        if (!post) throw new Error('no mail service is set');
        await post(letter);
      }
      db.write(() => markSent(db, outgoing.id, now));
    } catch (error) {
      log().warn({ letter: outgoing.key, error: String(error) }, 'a letter could not be sent');
      const wait = post && !isFinal(error) ? AGAIN[outgoing.tries] : undefined;
      db.write(() => markFailed(db, outgoing.id, wait === undefined ? null : now + wait));
    }
  }
}

/** Gives up what a process that ended had claimed and may or may not have sent. */
export function settleLetters(db: Connection): void {
  db.write(() => giveUpClaimed(db));
}

/** The text of a letter; `null` where what it would tell of no longer stands. */
async function write(
  db: Connection,
  now: number,
  outgoing: Outgoing,
  person: Person,
  ofDay: WriteDay,
): Promise<ReadyLetter | null> {
  if (outgoing.kind === 'morning' || outgoing.kind === 'evening') return writeDay(now, outgoing, person, ofDay);
  if (outgoing.kind === 'reminder') return writeReminder(db, now, outgoing, person);
  const shared = outgoing.collectionId === null ? null : shareableById(db, outgoing.collectionId);
  const owner = shared && personById(db, shared.ownerId);
  const by = outgoing.byId === null ? null : personById(db, outgoing.byId);
  const grant = outgoing.grantId === null ? null : grantById(db, outgoing.grantId);
  const told = toldOf({ db, now, viewer: person }, outgoing.kind, shared, grant);
  if (!told) return null;
  const { kind, access } = told;
  // Somebody outside who never said how they read is written to as whoever gave reads.
  const language = person.inside || person.account !== null ? person.language : (by?.language ?? person.language);
  const t = lettersIn(language);
  const day = grant?.ends ? dayText(grant.ends - 1, person.zone, language) : '';
  const names = {
    owner: owner?.name ?? '',
    by: by?.name ?? '',
    byOwner: by?.id === owner?.id ? 'yes' : 'no',
    ...whichOf(shared, language),
  };
  const called = shared && !person.inside ? outsiderName(db, shared.id, person.id) : null;
  const lines = [t('hello', { name: called ?? person.name }), t(kind, { ...names, day })];
  if (access && shared)
    lines.push(...accessLines(names.owner, access, { kind: shared.kind, language, zone: person.zone, now }));
  if (outgoing.note) lines.push(`“${outgoing.note}”`);
  const ofSignIn = outgoing.kind === 'wayInMade' || outgoing.kind === 'passwordMade';
  if (kind !== 'taken' && !ofSignIn) lines.push(t('wayInHere', { address: await wayIn(db, person, shared) }));
  return {
    key: outgoing.key,
    to: { name: oneLine(called ?? person.name), address: person.address },
    subject: oneLine(t(ofSignIn ? 'signInSubject' : kind === 'wayIn' ? 'wayInSubject' : 'subject', names)),
    text: [...lines, t('close')].join('\n\n'),
  };
}

/** What letters tell that are neither of a day nor a reminder. */
type Told = Exclude<Outgoing['kind'], 'morning' | 'evening' | 'reminder'>;

/**
 * What a letter says happened, and which access it describes, if any; `null` where there is nothing to tell any more. A grant to the person
 * themselves is described as it stands. Where none names them, their access as a whole is: house rules may cut what a group was given.
 */
function toldOf(
  reader: Context,
  kind: Told,
  shared: Shareable | null,
  grant: StoredGrant | null,
): { readonly kind: Told; readonly access: Access | null } | null {
  const stands = grant?.recordedUntil === null;
  if (kind === 'ending') return stands && (grant.ends ?? 0) > reader.now ? { kind, access: null } : null;
  if (kind !== 'given' && kind !== 'changed' && kind !== 'taken') return { kind, access: null };
  if (grant && !stands && kind !== 'taken') return null;
  if (grant?.audience.kind === 'person') return { kind, access: kind === 'taken' ? null : grant };
  const access = shared && wholeAccess(reader, shared, kind === 'taken' ? null : grant);
  if (!access) return kind === 'given' || !shared ? null : { kind: 'taken', access };
  return { kind: kind === 'given' ? kind : 'changed', access };
}

/** Writes the letter of somebody's day as they see it at this instant; `null` where there is nothing to tell. */
export type WriteDay = (
  person: Person,
  of: 'morning' | 'evening',
) => Promise<{ readonly subject: string; readonly lines: readonly string[] } | null>;

/** The letter of a day, on that day alone. */
async function writeDay(
  now: number,
  { key, kind, at }: Outgoing,
  person: Person,
  ofDay: WriteDay,
): Promise<ReadyLetter | null> {
  const day = (instant: number) => Math.floor(toWall(person.zone, instant) / DAY);
  if (!person.inside || person.leftAt !== null || day(at) !== day(now)) return null;
  const written = await ofDay(person, kind === 'morning' ? kind : 'evening');
  if (!written) return null;
  const t = lettersIn(person.language);
  return {
    key,
    to: { name: oneLine(person.name), address: person.address },
    subject: oneLine(written.subject),
    text: [...written.lines, t('close')].join('\n\n'),
  };
}

/** What is about to happen, as whoever is reminded sees it when the letter is written. */
function writeReminder(db: Connection, now: number, { key, note }: Outgoing, person: Person): ReadyLetter | null {
  const due = reminderFor({ db, now, viewer: person }, note);
  if (!due) return null;
  const at = Date.parse(due.start);
  const t = lettersIn(person.language);
  const when = new Intl.DateTimeFormat(LOCALES[person.language], {
    dateStyle: 'full',
    ...(due.allDay ? { timeZone: 'UTC' } : { timeStyle: 'short' as const, timeZone: person.zone }),
  }).format(at);
  const names = { own: due.owner.own ? 'yes' : 'no', owner: due.owner.name, title: due.title ?? '' };
  const lines = [t('reminder', { ...names, when }), due.place ?? '', due.link ?? ''].filter(Boolean);
  return {
    key,
    to: { name: oneLine(person.name), address: person.address },
    subject: oneLine(t('reminderSubject', names)),
    text: [...lines, t('close')].join('\n\n'),
  };
}

/** A header's text: one line, without anything that could begin another. */
const oneLine = (text: string): string => text.replace(/\p{Cc}+/gu, ' ').trim();

/** A single-use address for somebody outside, their account made where they never came in before. */
async function wayIn(db: Connection, person: Person, shared: Shareable | null): Promise<string> {
  const account = await makeBareAccount(person.address, person.name);
  if (person.account !== account) db.write(() => saveAccount(db, person.id, account));
  // Whoever comes in by a letter about something lands on it.
  const owner = shared && personById(db, shared.ownerId);
  const goal = owner && sharedPath(person.handle, owner.handle, shared.main ? null : shared);
  const to = goal ? `?to=${encodeURIComponent(goal)}` : '';
  return `${settings().address}/guest/${await makeGuestToken(person.address)}${to}`;
}
