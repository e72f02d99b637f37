import { cutIntoBlocks } from './lines.ts';
import { insideOf, type Property } from './property.ts';

/** What a text has to hold: somewhere in it, whatever its case (the collation `i;ascii-casemap`), or, negated, nowhere. */
export interface TextMatch {
  readonly value: string;
  readonly negate: boolean;
  /** Compares letters exactly, case included (`i;octet`). */
  readonly exact: boolean;
}

interface ParamFilter {
  readonly name: string;
  readonly absent: boolean;
  readonly text: TextMatch | null;
}

export interface PropFilter {
  readonly name: string;
  readonly absent: boolean;
  readonly text: TextMatch | null;
  readonly params: readonly ParamFilter[];
}

/** Which components are wanted (RFC 4791 9.7): by name, by what stands in them, and not at all where `absent`. Times are matched elsewhere. */
export interface CompFilter {
  readonly name: string;
  readonly absent: boolean;
  readonly props: readonly PropFilter[];
  readonly comps: readonly CompFilter[];
}

interface Component {
  readonly name: string;
  readonly properties: readonly Property[];
  readonly parts: readonly Component[];
}

/** The deepest a component lies within others that is looked into. */
const DEEPEST = 4;

function componentOf(text: string, depth = 0): Component {
  const name = /^BEGIN:([A-Za-z0-9-]+)/i.exec(text)?.[1]?.toUpperCase() ?? '';
  const { properties, parts } = insideOf(text);
  return { name, properties, parts: depth < DEEPEST ? parts.map((part) => componentOf(part, depth + 1)) : [] };
}

const folded = (text: string): string => text.replace(/[A-Z]/g, (c) => c.toLowerCase());

function holds(value: string, match: TextMatch | null): boolean {
  if (match === null) return true;
  const found = match.exact ? value.includes(match.value) : folded(value).includes(folded(match.value));
  return found !== match.negate;
}

/** A TEXT value as it is meant (RFC 5545 3.3.11). */
const plain = (value: string): string => value.replace(/\\([\\;,nN])/g, (_, c: string) => (/n/i.test(c) ? '\n' : c));

function hasProperty(of: Component, filter: PropFilter): boolean {
  const named = of.properties.filter((p) => p.name === filter.name.toUpperCase());
  if (filter.absent) return named.length === 0;
  return named.some(
    (p) =>
      holds(plain(p.value), filter.text) &&
      filter.params.every((param) => {
        const value = p.params.get(param.name.toUpperCase());
        return param.absent ? value === undefined : value !== undefined && holds(value, param.text);
      }),
  );
}

const fits = (component: Component, filter: CompFilter): boolean =>
  filter.props.every((prop) => hasProperty(component, prop)) &&
  filter.comps.every((inner) => {
    const named = component.parts.filter((part) => part.name === inner.name.toUpperCase());
    return inner.absent ? named.length === 0 : named.some((part) => fits(part, inner));
  });

/** Whether calendar text is what a filter for its VCALENDAR asks for: by nothing but what stands in the text. */
export function fitsFilter(text: string, filter: CompFilter): boolean {
  if (filter.name.toUpperCase() !== 'VCALENDAR' || filter.absent) return false;
  const { blocks, header } = cutIntoBlocks(text, 1000);
  const whole = insideOf(['BEGIN:VCALENDAR', ...header, 'END:VCALENDAR'].join('\r\n'));
  return fits(
    { name: 'VCALENDAR', properties: whole.properties, parts: blocks.map((b) => componentOf(b.text)) },
    filter,
  );
}
