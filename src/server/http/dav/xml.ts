import { DOMParser, type Element, type Node } from '@xmldom/xmldom';

const DAV = 'DAV:';
const CALDAV = 'urn:ietf:params:xml:ns:caldav';
const CARDDAV = 'urn:ietf:params:xml:ns:carddav';

/** A name in a namespace, written `{namespace}local`. */
export type Name = `{${string}}${string}`;
export const dav = (local: string): Name => `{${DAV}}${local}`;
export const cal = (local: string): Name => `{${CALDAV}}${local}`;
export const card = (local: string): Name => `{${CARDDAV}}${local}`;

/** An element of a request's body. */
export interface Xml {
  readonly name: Name;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Xml[];
  readonly text: string;
}

const MOST_DEEP = 30;
/**
 * Tags, of elements and of whatever else begins like one, attributes with entities, and declarations of namespaces: more than any request needs,
 * and few to read.
 */
const MOST_TAGS = 6000;
const MOST_NAMESPACES = 60;
/** Characters of one name with its namespace: it is written anew wherever it stands. */
const MOST_NAME = 400;

/** Whether text is small enough inside to be parsed: looked at in one pass, since parsing what is nested deep takes long. */
function isSmall(text: string): boolean {
  let tags = 0;
  let depth = 0;
  for (let at = text.indexOf('<'); at >= 0; at = text.indexOf('<', at + 1)) {
    if (++tags > MOST_TAGS) return false;
    const next = text[at + 1];
    if (next === '/') depth--;
    else if (next !== '!' && next !== '?') {
      const end = text.indexOf('>', at);
      if (end >= 0 && text[end - 1] !== '/' && ++depth > MOST_DEEP) return false;
    }
  }
  const count = (what: RegExp): number => text.match(what)?.length ?? 0;
  return count(/xmlns/g) <= MOST_NAMESPACES && count(/[=&]/g) <= MOST_TAGS;
}

/**
 * Reads a request's body; `null` for what is no well-formed XML, declares a document type or entities of its own (RFC 4918 17.6 leaves those to
 * us to refuse), or has more elements, or longer names, than any request needs.
 */
export function readXml(text: string): Xml | null {
  if (/<!(DOCTYPE|ENTITY)/i.test(text) || !isSmall(text)) return null;
  const from = (element: Element, deep: number): Xml | null => {
    if (deep > MOST_DEEP) return null;
    const children: Xml[] = [];
    let words = '';
    for (let node: Node | null = element.firstChild; node; node = node.nextSibling) {
      if (node.nodeType === 1) {
        const child = from(node as Element, deep + 1);
        if (child === null) return null;
        children.push(child);
      } else if (node.nodeType === 3 || node.nodeType === 4) words += node.nodeValue ?? '';
    }
    const attributes = Object.fromEntries([...element.attributes].map((a) => [a.name, a.value]));
    const name: Name = `{${element.namespaceURI ?? ''}}${element.localName ?? ''}`;
    if (name.length > MOST_NAME) return null;
    return {
      name,
      attributes,
      children,
      text: words,
    };
  };
  try {
    const stop = (_level: string, message: string): void => {
      throw new Error(message);
    };
    const parsed = new DOMParser({ onError: stop }).parseFromString(text, 'text/xml');
    return parsed.documentElement ? from(parsed.documentElement, 0) : null;
  } catch {
    return null;
  }
}

export const childOf = (of: Xml | null | undefined, name: Name): Xml | null =>
  of?.children.find((child) => child.name === name) ?? null;
export const childrenOf = (of: Xml | null | undefined, name: Name): readonly Xml[] =>
  of?.children.filter((child) => child.name === name) ?? [];

/** Text as it stands in XML; what XML can't hold is left out. */
const escaped = (text: string): string =>
  text
    // biome-ignore lint/suspicious/noControlCharactersInRegex: those are what XML 1.0 can't hold.
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/\r/g, '&#13;');

const PREFIXES: Readonly<Record<string, string>> = { [DAV]: 'd', [CALDAV]: 'c', [CARDDAV]: 'a' };

/** An element of an answer: what is in it is text, elements written already, or nothing. */
export interface Written {
  readonly xml: string;
}

/** Writes an element. A name of none of the namespaces we use declares its own. */
export function el(name: Name, ...inside: readonly (string | Written | null)[]): Written {
  const [, namespace = '', local = ''] = /^\{([^}]*)\}(.*)$/s.exec(name) ?? [];
  const prefix = PREFIXES[namespace];
  const tag = prefix ? `${prefix}:${local}` : namespace === '' ? local : `x:${local}`;
  const declares = prefix ? '' : namespace === '' ? ' xmlns=""' : ` xmlns:x="${escaped(namespace)}"`;
  const body = inside.map((one) => (one === null ? '' : typeof one === 'string' ? escaped(one) : one.xml)).join('');
  return { xml: body === '' ? `<${tag}${declares}/>` : `<${tag}${declares}>${body}</${tag}>` };
}

/** An element of neither text nor children but attributes. */
export function leaf(name: Name, attributes: Readonly<Record<string, string>>): Written {
  const plain = el(name).xml.slice(0, -2);
  const written = Object.entries(attributes).map(([key, value]) => ` ${key}="${escaped(value)}"`);
  return { xml: `${plain}${written.join('')}/>` };
}

/** A whole document, its root declaring the namespaces we use. */
export function documentOf({ xml }: Written): string {
  const at = xml.search(/[\s/>]/);
  const declares = ` xmlns:d="${DAV}" xmlns:c="${CALDAV}" xmlns:a="${CARDDAV}"`;
  return `<?xml version="1.0" encoding="utf-8"?>\n${xml.slice(0, at)}${declares}${xml.slice(at)}`;
}
