import { type Property, plainText, propertyOf } from '../ical/property.ts';

/** A card cut out of a file: the line it began on, and its own lines, unfolded. */
export interface Card {
  readonly line: number;
  readonly lines: readonly string[];
  /** It never ended: another began, or the file was over. */
  readonly unended: boolean;
}

/** A line of a card: `group` is what stands before its name ("item1."). */
export interface CardLine extends Property {
  readonly group: string;
}

/** Units of one line: what is longer is cut there. */
const MOST_LINE = 1_000_000;

/** Cuts text into cards in one pass, so that one that is broken doesn't spoil the others; at most `most`, `null` where there are more. */
export function cutIntoCards(text: string, most: number): Card[] | null {
  const cards: Card[] = [];
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  let open: { line: number; lines: string[] } | null = null;
  for (let i = 0; i < lines.length; i++) {
    const from = i;
    const parts = [lines[i] as string];
    let length = (lines[i] as string).length;
    while (i + 1 < lines.length && /^[ \t]/.test(lines[i + 1] as string) && length < MOST_LINE) {
      const next = (lines[++i] as string).slice(1);
      parts.push(next);
      length += next.length;
    }
    const line = plainText(parts.join('')).replace(/\n/g, ' ');
    const mark = /^(BEGIN|END)\s*:\s*VCARD\s*$/i.exec(line)?.[1]?.toUpperCase();
    if (mark === 'BEGIN') {
      if (open) cards.push({ ...open, unended: true });
      open = { line: from + 1, lines: [] };
    } else if (mark === 'END' && open) {
      cards.push({ ...open, unended: false });
      open = null;
    } else if (open && line.trim() !== '') open.lines.push(line);
    if (cards.length > most) return null;
  }
  if (open) cards.push({ ...open, unended: true });
  return cards.length > most ? null : cards;
}

/** A content line with its group taken off; `null` for what is none. */
export function cardLine(line: string): CardLine | null {
  const group = /^[A-Za-z0-9-]+\./.exec(line)?.[0] ?? '';
  const property = propertyOf(line.slice(group.length));
  return property && { ...property, group, line };
}

/** A line anew from its parts. Parameters stand as they are given. */
export const lineOf = (group: string, name: string, params: readonly (readonly [string, string])[], value: string) =>
  `${group}${name}${params.map(([key, text]) => `;${key}=${text}`).join('')}:${value}`;

/** The parameters of a line as they stand, also those that are there twice, with their quotes. */
export function paramsOf({ line, group, value }: CardLine): (readonly [string, string])[] {
  const head = line.slice(group.length, line.length - value.length - 1);
  const parts = head.match(/;(?:"[^"]*"|[^;"])*/g) ?? [];
  return parts.map((part) => {
    const at = part.indexOf('=');
    return [part.slice(1, at).toUpperCase(), part.slice(at + 1)] as const;
  });
}

/** The words of a line's TYPE parameters, in small letters. */
export const typesOf = (line: CardLine): readonly string[] =>
  paramsOf(line)
    .filter(([key]) => key === 'TYPE')
    .flatMap(([, text]) => text.replace(/"/g, '').split(','))
    .map((word) => word.trim().toLowerCase())
    .filter((word) => word !== '');

/** A text as it stands in a line, read (RFC 6350 3.4): each escape once, from left to right. */
export const unescaped = (value: string): string =>
  value.replace(/\\(.)/gs, (whole, c: string) => (c === 'n' || c === 'N' ? '\n' : /[\\;,:]/.test(c) ? c : whole));

/** The lines of a text that was folded. */
export const unfolded = (text: string): string[] =>
  text
    .replace(/\r\n[ \t]/g, '')
    .split('\r\n')
    .filter((line) => line !== '');
