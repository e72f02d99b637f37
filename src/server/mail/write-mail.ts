import { createTranslator } from 'use-intl/core';
import { writeMessage } from '@/core/formats/index.ts';
import type { MeetingTime } from '@/core/meetings/index.ts';
import { fromWallLenient, parseDate, parseWall } from '@/core/time/index.ts';
import { type Language, LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import type { Mail } from './mail.ts';

const wordsIn = (language: Language) =>
  createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'mail' });

/** A mail in the parts it goes out in. */
export interface WrittenMail {
  readonly subject: string;
  readonly text: string;
  /** The scheduling message, and by which method; `null` for plain mail. */
  readonly calendar: { readonly method: string; readonly text: string } | null;
}

/**
 * Writes a mail: of a meeting what it says in words, and beside it the scheduling message itself. Nothing of anybody's own copy is in it:
 * the message it is made of has none.
 */
export function writeMail({ from, sender, subject, text, meeting, language = 'en' }: Mail): WrittenMail {
  const t = wordsIn(language);
  const name = from.name ?? from.address;
  const both = sender ? t('sentFor', { sender: sender.name ?? sender.address, name }) : null;
  if (!meeting) return { subject: oneLine(subject), text: [text, both].filter(Boolean).join('\n\n'), calendar: null };
  const { message, title, organiserName, series } = meeting;
  const words = { name, title: oneLine(title) };
  const lines = [t(`${message.method}.says`, { ...words, answer: 'answer' in message ? message.answer : 'none' })];
  const time = 'time' in message ? message.time : null;
  if (time) lines.push(whenText(time, language));
  if ('matter' in message) {
    const { place, link, notes } = message.matter;
    if (place) lines.push(t('where', { place }));
    if (link) lines.push(t('link', { link }));
    if (notes) lines.push(notes);
    const people = message.invited.map((one) => one.name ?? one.address).join(', ');
    if (message.method === 'REQUEST' && people) lines.push(t('people', { people }));
  }
  if ('comment' in message && message.comment) lines.push(`“${message.comment}”`);
  if (both) lines.push(both);
  const written = writeMessage(message, { organiserName, ...(series ? { series } : {}) });
  return {
    subject: oneLine(
      t(`${message.method}.subject`, { ...words, answer: 'answer' in message ? message.answer : 'none' }),
    ),
    text: lines.join('\n\n'),
    calendar: { method: message.method, text: written },
  };
}

/** When a meeting is, on its own clock, whose place is named: whoever reads it may be anywhere. */
function whenText(time: MeetingTime, language: Language): string {
  const t = wordsIn(language);
  const read = (text: string) => (time.allDay ? parseDate(text.slice(0, 10)) : parseWall(text));
  const instant = (text: string) => (time.allDay ? (read(text) ?? 0) : fromWallLenient(time.zone, read(text) ?? 0));
  const timeZone = time.allDay || time.zone.startsWith('~') ? 'UTC' : time.zone;
  const day = new Intl.DateTimeFormat(LOCALES[language], {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone,
  });
  const clock = new Intl.DateTimeFormat(LOCALES[language], { hour: '2-digit', minute: '2-digit', timeZone });
  const [start, end] = [instant(time.start), instant(time.end)];
  const repeats = time.rule === null ? '' : ` ${t('repeats')}`;
  if (time.allDay) return `${day.format(start)}${repeats}`;
  const place = timeZone.split('/').at(-1)?.replace(/_/g, ' ') ?? timeZone;
  return `${day.format(start)}, ${clock.format(start)} – ${clock.format(end)} (${place})${repeats}`;
}

/** A header's text: one line, without anything that could begin another. */
const oneLine = (text: string): string => text.replace(/[\p{Cc}\s]+/gu, ' ').trim();
