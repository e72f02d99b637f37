/** A content line (RFC 5545 3.1), cut into its name, its parameters and its value as it stands. */
export interface Property {
  readonly name: string;
  readonly params: ReadonlyMap<string, string>;
  readonly value: string;
  readonly line: string;
}

/** A parameter as it stands in a content line: its name, and where `;NAME=value` begins and ends. */
interface Parameter {
  readonly key: string;
  readonly from: number;
  readonly value: number;
  readonly to: number;
}

/** Cuts an unfolded content line into its name, its parameters, and where its value begins; `null` for what is none. */
function cutLine(
  line: string,
): { readonly name: string; readonly params: readonly Parameter[]; readonly at: number } | null {
  const params: Parameter[] = [];
  const name = /^[A-Za-z0-9-]+/.exec(line)?.[0];
  if (!name) return null;
  let at = name.length;
  while (line[at] === ';') {
    const from = at;
    const key = /^[A-Za-z0-9-]+/.exec(line.slice(at + 1))?.[0];
    if (!key || line[at + 1 + key.length] !== '=') return null;
    at += key.length + 2;
    const value = at;
    let quoted = false;
    for (; at < line.length; at++) {
      const c = line[at];
      if (c === '"') quoted = !quoted;
      else if (!quoted && (c === ';' || c === ':')) break;
    }
    params.push({ key: key.toUpperCase(), from, value, to: at });
  }
  return line[at] === ':' ? { name: name.toUpperCase(), params, at: at + 1 } : null;
}

const CARETS: Readonly<Record<string, string>> = { '^^': '^', "^'": '"', '^n': '\n' };

/** The text of a parameter: its quotes taken off, and what stands behind a caret read (RFC 6868). */
const parameterText = (text: string): string =>
  text.replace(/"/g, '').replace(/\^[\^'n]/g, (two) => CARETS[two] as string);

/** Cuts an unfolded content line; `null` for what is none. A parameter that is a list stays one text. */
export function propertyOf(line: string): Property | null {
  const cut = cutLine(line);
  if (!cut) return null;
  const params = new Map(cut.params.map(({ key, value, to }) => [key, parameterText(line.slice(value, to))]));
  return { name: cut.name, params, value: line.slice(cut.at), line };
}

/** An unfolded content line without one of its parameters; what is none stays as it is. */
export function withoutParameter(line: string, key: string): string {
  const found = cutLine(line)?.params.filter((one) => one.key === key) ?? [];
  return found.reduceRight((text, { from, to }) => text.slice(0, from) + text.slice(to), line);
}

/** The component's own properties and the components within it, of a block's unfolded lines. */
export function insideOf(text: string): { readonly properties: Property[]; readonly parts: string[] } {
  const lines = text.split('\r\n').slice(1, -1);
  const properties: Property[] = [];
  const parts: string[] = [];
  let open: string[] | null = null;
  let depth = 0;
  for (const line of lines) {
    const begins = /^BEGIN:/i.test(line);
    if (begins && depth++ === 0) open = [];
    if (open) {
      open.push(line);
      if (/^END:/i.test(line) && --depth === 0) {
        parts.push(open.join('\r\n'));
        open = null;
      }
      continue;
    }
    const property = propertyOf(line);
    if (property) properties.push(property);
  }
  return { properties, parts };
}

/** Folds a content line at 75 octets of UTF-8 (RFC 5545 3.1), never within a character. */
export function fold(line: string): string {
  let out = '';
  let octets = 0;
  for (const c of line) {
    const code = c.codePointAt(0) as number;
    const size = code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
    if (octets + size > 75) {
      out += '\r\n ';
      octets = 1;
    }
    out += c;
    octets += size;
  }
  return out;
}

/** Text without what a content line can't carry: line ends become line feeds, other control characters go. */
export function plainText(text: string): string {
  // biome-ignore lint/suspicious/noControlCharactersInRegex: exactly these are taken out
  return text.replace(/\r\n?/g, '\n').replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u2028\u2029]/g, '');
}

const ESCAPED: Readonly<Record<string, string>> = { '\\': '\\', ';': ';', ',': ',', n: '\n', N: '\n' };

/**
 * The texts of a property that holds several, at the commas that aren't escaped (RFC 5545 3.3.11). The parser takes a comma behind an escaped
 * backslash for an escaped one.
 */
export function textsOf({ value }: Pick<Property, 'value'>): string[] {
  const texts = [''];
  for (let at = 0; at < value.length; at++) {
    const c = value[at] as string;
    const escaped = c === '\\' ? ESCAPED[value[at + 1] ?? ''] : undefined;
    if (escaped !== undefined) at++;
    if (escaped === undefined && c === ',') texts.push('');
    else texts[texts.length - 1] += escaped ?? c;
  }
  return texts;
}
