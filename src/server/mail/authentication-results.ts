/** One result of a mail host's checks (RFC 8601, 2.2): `dkim=pass header.d=example.com`. Methods, results and property names are in small letters. */
interface AuthenticationResult {
  readonly method: string;
  readonly result: string;
  /** What was checked, as `ptype.property`: every value it was given, in order. */
  readonly properties: ReadonlyMap<string, readonly string[]>;
}

/** An Authentication-Results field: which host wrote it, and what it found; `null` for `results` that don't follow the grammar. */
export interface AuthenticationResults {
  readonly host: string;
  readonly results: readonly AuthenticationResult[] | null;
}

/** The longest field that is read, in characters, and the most results of one. */
const MOST_FIELD = 10_000;
const MOST_RESULTS = 100;

const WHITE = /[ \t\r\n]/;
/** `token` of RFC 2045, 5.1. */
const TOKEN = /[^\p{Cc}\s()<>@,;:\\"/[\]?=]/u;
/** `Keyword` of RFC 5321, 4.1.2, and the underscore that hosts in use write into names of properties. */
const KEYWORD = /[A-Za-z0-9_-]/;
/** What an address or a domain has beside a token's characters (`pvalue` of RFC 8601, 2.2). */
const ADDRESS = /[^\p{Cc}\s()<>,;:\\"[\]]/u;

class NoMatch extends Error {}

/** Reads a field by its grammar, one character after the other; what doesn't follow it throws `NoMatch`. */
class Reader {
  private at = 0;
  constructor(private readonly text: string) {}

  get isOver(): boolean {
    return this.at >= this.text.length;
  }

  /** Passes over white space and comments, which may hold comments and quoted characters; answers whether there were any (RFC 5322, 3.2.2). */
  cfws(): boolean {
    const begun = this.at;
    let depth = 0;
    for (; this.at < this.text.length; this.at++) {
      const c = this.text[this.at] as string;
      if (c === '(') depth++;
      else if (depth === 0 && !WHITE.test(c)) break;
      else if (c === ')') depth--;
      else if (c === '\\' && depth > 0) this.at++;
    }
    if (depth > 0 || this.at > this.text.length) throw new NoMatch();
    return this.at > begun;
  }

  isAt(c: string): boolean {
    return this.text[this.at] === c;
  }

  take(c: string): boolean {
    if (!this.isAt(c)) return false;
    this.at++;
    return true;
  }

  expect(c: string): void {
    if (!this.take(c)) throw new NoMatch();
  }

  private run(of: RegExp): string {
    const begun = this.at;
    while (this.at < this.text.length && of.test(this.text[this.at] as string)) this.at++;
    return this.text.slice(begun, this.at);
  }

  keyword(): string {
    const found = this.run(KEYWORD).toLowerCase();
    if (found === '' || found.endsWith('-')) throw new NoMatch();
    return found;
  }

  private quoted(): string {
    let found = '';
    while (!this.take('"')) {
      if (this.take('\\') && this.isOver) throw new NoMatch();
      if (this.isOver) throw new NoMatch();
      found += this.text[this.at++];
    }
    return found;
  }

  /** A `value` of RFC 2045: a token or a quoted string. */
  value(): string {
    if (this.take('"')) return this.quoted();
    const found = this.run(TOKEN);
    if (found === '') throw new NoMatch();
    return found;
  }

  /** A property's value: a `value`, or an address or domain as it stands. */
  propertyValue(): string {
    if (!this.take('"')) {
      const found = this.run(ADDRESS);
      if (found === '') throw new NoMatch();
      return found;
    }
    const found = this.quoted();
    // A local part may be quoted, its domain isn't.
    return this.take('@') ? `${found}@${this.run(ADDRESS)}` : found;
  }
}

/**
 * Reads an Authentication-Results field (RFC 8601, 2.2) without its name. Never throws; `null` where it doesn't even name a host. Comments and
 * quoted strings are read as such, so that nothing in them is taken for a result.
 */
export function readAuthenticationResults(field: string): AuthenticationResults | null {
  if (field.length > MOST_FIELD) return null;
  const reader = new Reader(field);
  let host: string;
  try {
    reader.cfws();
    host = reader.value().toLowerCase();
  } catch {
    return null;
  }
  try {
    return { host, results: resultsIn(reader) };
  } catch {
    return { host, results: null };
  }
}

function resultsIn(reader: Reader): AuthenticationResult[] {
  // A version may follow the host; only the first one is defined.
  if (reader.cfws() && !reader.isOver && reader.take('1')) reader.cfws();
  const results: AuthenticationResult[] = [];
  while (!reader.isOver) {
    reader.expect(';');
    reader.cfws();
    const method = reader.keyword();
    reader.cfws();
    if (method === 'none' && results.length === 0 && reader.isOver) return [];
    if (reader.take('/')) {
      reader.cfws();
      if (reader.keyword() !== '1') throw new NoMatch();
      reader.cfws();
    }
    reader.expect('=');
    reader.cfws();
    const result = reader.keyword();
    results.push({ method, result, properties: propertiesIn(reader) });
    if (results.length > MOST_RESULTS) throw new NoMatch();
  }
  if (results.length === 0) throw new NoMatch();
  return results;
}

function propertiesIn(reader: Reader): Map<string, string[]> {
  const properties = new Map<string, string[]>();
  let apart = reader.cfws();
  while (!reader.isOver && !reader.isAt(';')) {
    if (!apart) throw new NoMatch();
    const type = reader.keyword();
    reader.cfws();
    let name = type;
    if (reader.take('.')) {
      reader.cfws();
      name = `${type}.${reader.keyword()}`;
      reader.cfws();
    } else if (type !== 'reason' || properties.size > 0) throw new NoMatch();
    reader.expect('=');
    reader.cfws();
    const value = name === 'reason' ? reader.value() : reader.propertyValue();
    properties.set(name, [...(properties.get(name) ?? []), value]);
    apart = reader.cfws();
  }
  return properties;
}
