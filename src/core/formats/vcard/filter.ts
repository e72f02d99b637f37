import type { TextMatch } from '../ical/filter.ts';
import { type CardLine, cardLine, paramsOf, unescaped, unfolded } from './lines.ts';

/** How a text is held against another (RFC 6352 10.5.4). */
export interface CardText extends TextMatch {
  readonly how: 'equals' | 'contains' | 'starts-with' | 'ends-with';
}
interface CardProp {
  readonly name: string;
  readonly absent: boolean;
  /** Whether all that is asked of it has to hold, or any of it. */
  readonly all: boolean;
  readonly texts: readonly CardText[];
  readonly params: readonly { readonly name: string; readonly absent: boolean; readonly text: CardText | null }[];
}
/** Which cards are wanted (RFC 6352 10.5): by what stands in them. */
export interface CardFilter {
  readonly all: boolean;
  readonly props: readonly CardProp[];
}

const form = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

function holds(value: string, { value: sought, how, negate, exact }: CardText): boolean {
  const [there, wanted] = exact ? [value, sought] : [form(value), form(sought)];
  const found =
    how === 'equals'
      ? there === wanted
      : how === 'starts-with'
        ? there.startsWith(wanted)
        : how === 'ends-with'
          ? there.endsWith(wanted)
          : there.includes(wanted);
  return found !== negate;
}

const each = (all: boolean, conditions: readonly boolean[]): boolean =>
  conditions.length === 0 || (all ? conditions.every(Boolean) : conditions.some(Boolean));

function hasProp(lines: readonly CardLine[], { name, absent, all, texts, params }: CardProp): boolean {
  const named = lines.filter((line) => line.name === name.toUpperCase());
  if (absent || named.length === 0) return absent && named.length === 0;
  return named.some((line) => {
    const own = paramsOf(line);
    return each(all, [
      ...texts.map((text) => holds(unescaped(line.value), text)),
      ...params.map(({ name: param, absent: without, text }) => {
        const values = own.filter(([key]) => key === param.toUpperCase()).map(([, value]) => value.replace(/"/g, ''));
        if (without || values.length === 0) return without && values.length === 0;
        return text === null || values.some((value) => holds(value, text));
      }),
    ]);
  });
}

/** Whether the text of one card is what a filter asks for; a filter that asks nothing takes every card. */
export function fitsCard(text: string, { all, props }: CardFilter): boolean {
  const lines = unfolded(text).flatMap((line) => cardLine(line) ?? []);
  return each(
    all,
    props.map((prop) => hasProp(lines, prop)),
  );
}
