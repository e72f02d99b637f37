import type { DateOrder } from '../sentence/index.ts';
import { readSentence } from '../sentence/index.ts';
import { partsOf } from './quoted.ts';

/** A meeting that somebody asks for in their own words. Times are texts on the clock of whoever reads; `null` is what isn't said. */
export interface ProposedMeeting {
  /** The sentence it was read from, as it stands. */
  readonly said: string;
  readonly day: string | null;
  readonly from: string | null;
  /** Minutes. */
  readonly length: number | null;
  readonly place: string | null;
}

interface Known {
  /** The day it was written, as if UTC: "Tuesday" is the one after that. */
  readonly today: number;
  readonly dateOrder: DateOrder;
  readonly places: readonly string[];
}

const MOST_TEXT = 8000;
const MOST_SENTENCES = 60;

/** Numbers that are written out, the hours of a clock. */
const EN_NUMBERS = 'one two three four five six seven eight nine ten eleven twelve'.split(' ');
const PT_NUMBERS = 'uma duas tres quatro cinco seis sete oito nove dez onze doze'.split(' ');

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

interface Language {
  readonly language: 'en' | 'pt';
  /** What asks somebody to meet. Read on text in small letters, without accents. */
  readonly proposals: readonly RegExp[];
  readonly plainly: (text: string) => string;
}

const MEET_EN =
  '(?:meet|talk|speak|call|chat|see (?:you|each other)|get together|catch up|sit down|come (?:by|over|and see))';
const MEET_PT = '(?:encontrar|reunir|falar|conversar|ver-nos|vermo-nos|encontrarmo-nos|passar (?:por|ai)|ligar)';
const numbered = (text: string, before: string, names: readonly string[]): string =>
  text.replace(
    new RegExp(`\\b(${before})\\s+(${names.join('|')})\\b`, 'g'),
    (_, word, name) => `${word} ${names.indexOf(name) + 1}`,
  );

const LANGUAGES: readonly Language[] = [
  {
    language: 'en',
    proposals: [
      new RegExp(`\\b(?:could|can|shall|may|might|would)\\b.{0,60}\\b(?:we|you|i|us)\\b.{0,80}\\b${MEET_EN}\\b`),
      new RegExp(`\\b(?:like|love|want|hope|wonder(?:ing)?|possible|suggest|propose)\\b.{0,60}\\b${MEET_EN}\\b`),
      new RegExp(`\\b(?:let us|let's|let’s)\\s+${MEET_EN}\\b`),
      /\b(?:are|would) you (?:be )?(?:free|available|around)\b/,
      /\b(?:do|would|might|could) you have (?:time|an? (?:slot|moment|minute|hour)|half an hour|\d+ ?min)/,
      /\b(?:a|another|the) (?:meeting|call|conversation)\b.{0,80}\?/,
      /\bwould .{1,60}\b(?:suit|work for)\b/,
    ],
    plainly: (text) =>
      numbered(
        text
          .replace(/\b(?:half an hour|half-hour|half hour)\b/g, '30m')
          .replace(/\ban hour and a half\b/g, '90m')
          .replace(/\b(?:an|one) hour\b/g, '60m')
          .replace(/\ba quarter of an hour\b/g, '15m')
          .replace(
            new RegExp(`\\bhalf past (${EN_NUMBERS.join('|')}|\\d{1,2})\\b`, 'g'),
            (_, h) => `at ${hourOf(h, EN_NUMBERS)}:30`,
          )
          .replace(
            new RegExp(`\\bquarter past (${EN_NUMBERS.join('|')}|\\d{1,2})\\b`, 'g'),
            (_, h) => `at ${hourOf(h, EN_NUMBERS)}:15`,
          )
          .replace(/\bo['’]?clock\b/g, ''),
        'at|around|about|from|till|until|to',
        EN_NUMBERS,
      ).replace(/\b(?:around|about)\s+(?=\d)/g, 'at '),
  },
  {
    language: 'pt',
    proposals: [
      new RegExp(
        `\\b(?:podemos|podiamos|poderiamos|pode|podia|poderia|posso|podem|vamos|seria possivel|sera que)\\b.{0,80}\\b${MEET_PT}`,
      ),
      new RegExp(`\\b(?:gostava|gostaria|queria|proponho|sugiro)\\b.{0,60}\\b${MEET_PT}`),
      /\b(?:esta|estaria|estas) (?:livre|disponivel)\b/,
      /\b(?:tem|teria|tens) (?:tempo|disponibilidade|meia hora|uma hora|um momento|\d+ ?min)/,
      /\b(?:uma|outra|a) (?:reuniao|chamada|conversa)\b.{0,80}\?/,
      /\b(?:da|dava|daria)(?:-lhe|-te)? jeito\b/,
    ],
    plainly: (text) =>
      numbered(
        text
          .replace(/\bmeia hora\b/g, '30m')
          .replace(/\buma hora e meia\b/g, '90m')
          .replace(/\buma hora\b/g, '60m')
          .replace(/\bum quarto de hora\b/g, '15m')
          .replace(
            new RegExp(`\\bas (${PT_NUMBERS.join('|')}|\\d{1,2}) e (meia|um quarto)\\b`, 'g'),
            (_, h, rest) => `as ${hourOf(h, PT_NUMBERS)}:${rest === 'meia' ? '30' : '15'}`,
          ),
        'as|pelas|das|ate as',
        PT_NUMBERS,
      ).replace(/\b(?:pelas|pela)\s+(?=\d)/g, 'as '),
  },
];
const hourOf = (text: string, names: readonly string[]): string =>
  /^\d/.test(text) ? text : String(names.indexOf(text) + 1);

/**
 * Reads a mail for a meeting its writer asks for, in English or Portuguese: the first sentence of their own that asks to meet, with the day, hour,
 * length and place said there or in the next one. `null` where nobody asks. It is an offer to whoever reads it, and nothing is done by it. An hour
 * before eight, said without more, is one of the afternoon. Never throws.
 */
export function readProposedMeeting(text: string, known: Known): ProposedMeeting | null {
  const own = partsOf(text.slice(0, MOST_TEXT))
    .filter((part) => !part.quoted)
    .map((part) => part.text)
    .join('\n');
  const sentences = own
    .split(/(?<=[.!?])\s+|\n+/)
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .slice(0, MOST_SENTENCES);
  for (const [i, said] of sentences.entries()) {
    const words = plain(said).slice(0, 300);
    const language = LANGUAGES.find(({ proposals }) => proposals.some((pattern) => pattern.test(words)));
    if (!language) continue;
    const here = whenIn(words, language, known);
    const next = sentences[i + 1];
    const there =
      here.day === null && here.from === null && next ? whenIn(plain(next).slice(0, 300), language, known) : here;
    return {
      said,
      day: here.day ?? there.day,
      from: here.from ?? there.from,
      length: here.length ?? there.length,
      place: here.place ?? there.place,
    };
  }
  return null;
}

function whenIn(words: string, { language, plainly }: Language, known: Known): Omit<ProposedMeeting, 'said'> {
  const text = plainly(words).replace(/[?!.]+(?=\s|$)/g, ' ');
  const { day, from, length, place, allDay } = readSentence(text, { ...known, language, people: [] });
  const sensible = length !== null && length >= 5 && length <= 720 ? length : null;
  return { day, from: from === null || allDay ? null : afternoon(from, text), length: sensible, place };
}

/** An hour from one to seven is one of the afternoon, unless the text says that it is early. */
function afternoon(from: string, text: string): string {
  const hour = Number(from.slice(0, 2));
  if (hour === 0 || hour > 7 || /\b(?:am|a\.m|morning|manha|madrugada)\b|\b0\d[:h]/.test(text)) return from;
  return `${String(hour + 12).padStart(2, '0')}${from.slice(2)}`;
}
