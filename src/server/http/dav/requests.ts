import { CARD_VERSIONS, type CardVersion } from '@/core/contacts/index.ts';
import type { CardFilter, CardText, CompFilter, PropFilter, TextMatch } from '@/core/formats/index.ts';
import { parseBasicInstant } from '@/core/time/index.ts';
import type { Instants } from '../../operations/dav/index.ts';
import type { Wanted } from './properties.ts';
import { cal, card, childOf, childrenOf, dav, type Name, type Xml } from './xml.ts';

/** Addresses that one request may name. */
export const MOST_NAMED = 2000;

/** What a body asks for, or the precondition of RFC 4791 that it fails. */
export type Read<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly failed: Name };
const read = <T>(value: T): Read<T> => ({ ok: true, value });
const failed = (name: Name): Read<never> => ({ ok: false, failed: name });

/** Properties that one request may name: each is answered for every resource. */
export const MOST_PROPERTIES = 200;

/** Which properties a PROPFIND or a REPORT wants; a PROPFIND without a body wants all (RFC 4918 9.1). `null` where it names too many. */
export function wantedIn(body: Xml | null): Wanted | null {
  const wanted = allWantedIn(body);
  return wanted.kind !== 'names' && wanted.names.length > MOST_PROPERTIES ? null : wanted;
}

function allWantedIn(body: Xml | null): Wanted {
  if (childOf(body, dav('propname'))) return { kind: 'names' };
  const prop = childOf(body, dav('prop'));
  if (prop) return { kind: 'some', names: prop.children.map((child) => child.name) };
  return { kind: 'all', names: childOf(body, dav('include'))?.children.map((child) => child.name) ?? [] };
}

/** A time range (RFC 4791 9.9): an end that isn't given is as far as there is anything. */
function instantsIn(xml: Xml | null): Read<Instants | undefined> {
  if (!xml) return read(undefined);
  const { start, end } = xml.attributes;
  const from = start === undefined ? Number.NEGATIVE_INFINITY : parseBasicInstant(start);
  const to = end === undefined ? Number.POSITIVE_INFINITY : parseBasicInstant(end);
  if (from === null || to === null || to <= from || (start === undefined && end === undefined))
    return failed(cal('valid-filter'));
  return read({ from, to });
}

/** What is wanted of calendar data: that it is, and whether every occurrence by itself between two instants. */
export interface DataWanted {
  readonly wanted: boolean;
  readonly expand: Instants | undefined;
}

export function dataIn(body: Xml): Read<DataWanted> {
  const data = childOf(childOf(body, dav('prop')), cal('calendar-data'));
  if (!data) return read({ wanted: false, expand: undefined });
  const type = data.attributes['content-type'];
  if (type !== undefined && type.toLowerCase() !== 'text/calendar') return failed(cal('supported-calendar-data'));
  const expand = childOf(data, cal('expand'));
  if (expand && (expand.attributes.start === undefined || expand.attributes.end === undefined))
    return failed(cal('valid-filter'));
  const instants = instantsIn(expand);
  return instants.ok ? read({ wanted: true, expand: instants.value }) : instants;
}

const COLLATIONS = ['i;ascii-casemap', 'i;octet', 'default'];

function textMatchIn(xml: Xml | null): Read<TextMatch | null> {
  if (!xml) return read(null);
  const collation = xml.attributes.collation ?? 'i;ascii-casemap';
  if (!COLLATIONS.includes(collation)) return failed(cal('supported-collation'));
  return read({
    value: xml.text,
    negate: xml.attributes['negate-condition'] === 'yes',
    exact: collation === 'i;octet',
  });
}

function propFilterIn(xml: Xml): Read<PropFilter> {
  if (childOf(xml, cal('time-range'))) return failed(cal('supported-filter'));
  const text = textMatchIn(childOf(xml, cal('text-match')));
  if (!text.ok) return text;
  const params: PropFilter['params'][number][] = [];
  for (const param of childrenOf(xml, cal('param-filter'))) {
    const match = textMatchIn(childOf(param, cal('text-match')));
    if (!match.ok) return match;
    const absent = childOf(param, cal('is-not-defined')) !== null;
    params.push({ name: param.attributes.name ?? '', absent, text: match.value });
  }
  const absent = childOf(xml, cal('is-not-defined')) !== null;
  return read({ name: xml.attributes.name ?? '', absent, text: text.value, params });
}

/** A query's filter: its time, and what else it asks of the text; `null` for a text where the time alone decides. */
export interface QueryFilter {
  readonly range: Instants | undefined;
  readonly filter: CompFilter | undefined;
}

/** Reads the filter of a calendar-query (RFC 4791 9.7). Times are those of what the calendar holds: one asked of anything else is said not to be supported. */
export function filterIn(xml: Xml | null, holds: 'VEVENT' | 'VTODO'): Read<QueryFilter> {
  const [root, ...others] = childrenOf(xml, cal('comp-filter'));
  if (root?.attributes.name !== 'VCALENDAR' || others.length > 0) return failed(cal('valid-filter'));
  if (childOf(root, cal('time-range'))) return failed(cal('supported-filter'));
  let range: Instants | undefined;
  const comp = (of: Xml, depth: number): Read<CompFilter> => {
    const time = childOf(of, cal('time-range'));
    if (time) {
      // Alarms have no times here: there are none.
      if (depth !== 1 || of.attributes.name !== holds || range) return failed(cal('supported-filter'));
      const instants = instantsIn(time);
      if (!instants.ok) return instants;
      range = instants.value;
    }
    const props: PropFilter[] = [];
    for (const one of childrenOf(of, cal('prop-filter'))) {
      const prop = propFilterIn(one);
      if (!prop.ok) return prop;
      props.push(prop.value);
    }
    const comps: CompFilter[] = [];
    for (const one of childrenOf(of, cal('comp-filter'))) {
      const inner = comp(one, depth + 1);
      if (!inner.ok) return inner;
      comps.push(inner.value);
    }
    const absent = childOf(of, cal('is-not-defined')) !== null;
    return read({ name: of.attributes.name ?? '', absent, props, comps });
  };
  const filter = comp(root, 0);
  return filter.ok ? read({ range, filter: isPlain(filter.value, holds) ? undefined : filter.value }) : filter;
}

/** Whether a filter asks for nothing but that it is what the calendar holds: everything in it is. */
const isPlain = ({ absent, props, comps }: CompFilter, holds: string): boolean =>
  !absent &&
  props.length === 0 &&
  comps.every((one) => one.name === holds && !one.absent && one.props.length === 0 && one.comps.length === 0);

/** The instants of a free-busy-query. */
export function freeBusyIn(body: Xml): Read<Instants> {
  const instants = instantsIn(childOf(body, cal('time-range')));
  if (!instants.ok) return instants;
  return instants.value ? read(instants.value) : failed(cal('valid-filter'));
}

/** The addresses that a multiget names. */
export const hrefsIn = (body: Xml): string[] =>
  childrenOf(body, dav('href'))
    .slice(0, MOST_NAMED + 1)
    .map((one) => one.text);

/** What is wanted of address data: that it is, and in which version (RFC 6352 10.4). */
export interface CardsWanted {
  readonly wanted: boolean;
  readonly version: CardVersion | undefined;
}

export function cardDataIn(body: Xml): Read<CardsWanted> {
  const data = childOf(childOf(body, dav('prop')), card('address-data'));
  if (!data) return read({ wanted: false, version: undefined });
  const { version } = data.attributes;
  const type = data.attributes['content-type'];
  const known = version === undefined ? undefined : CARD_VERSIONS.find((one) => one === version);
  if ((version !== undefined && known === undefined) || (type !== undefined && type.toLowerCase() !== 'text/vcard'))
    return failed(card('supported-address-data'));
  return read({ wanted: true, version: known });
}

const CARD_COLLATIONS = [...COLLATIONS, 'i;unicode-casemap'];
const HOW = ['equals', 'contains', 'starts-with', 'ends-with'] as const;

function cardTextIn(xml: Xml): Read<CardText> {
  const { collation = 'i;unicode-casemap', 'match-type': type = 'contains' } = xml.attributes;
  const how = HOW.find((one) => one === type);
  if (!CARD_COLLATIONS.includes(collation)) return failed(card('supported-collation'));
  if (!how) return failed(card('supported-filter'));
  return read({
    value: xml.text,
    how,
    negate: xml.attributes['negate-condition'] === 'yes',
    exact: collation === 'i;octet',
  });
}

const isAll = (xml: Xml): boolean => xml.attributes.test === 'allof';

/** Conditions of one query. */
const MOST_CONDITIONS = 100;

/** Reads the filter of an addressbook-query (RFC 6352 10.5); `undefined` where it asks for every card. */
export function cardFilterIn(xml: Xml | null): Read<CardFilter | undefined> {
  if (!xml) return failed(card('supported-filter'));
  const props: CardFilter['props'][number][] = [];
  let conditions = 0;
  for (const prop of childrenOf(xml, card('prop-filter'))) {
    const texts: CardText[] = [];
    for (const one of childrenOf(prop, card('text-match'))) {
      const text = cardTextIn(one);
      if (!text.ok) return text;
      texts.push(text.value);
    }
    const params: CardFilter['props'][number]['params'][number][] = [];
    for (const param of childrenOf(prop, card('param-filter'))) {
      const match = childOf(param, card('text-match'));
      const text = match ? cardTextIn(match) : null;
      if (text && !text.ok) return text;
      const absent = childOf(param, card('is-not-defined')) !== null;
      params.push({ name: param.attributes.name ?? '', absent, text: text?.ok ? text.value : null });
    }
    conditions += 1 + texts.length + params.length;
    if (conditions > MOST_CONDITIONS) return failed(card('supported-filter'));
    const absent = childOf(prop, card('is-not-defined')) !== null;
    props.push({ name: prop.attributes.name ?? '', absent, all: isAll(prop), texts, params });
  }
  return read(props.length === 0 ? undefined : { all: isAll(xml), props });
}

/** How many are wanted at most (RFC 6352 10.6; RFC 6578 3.2 names it in `DAV:`); `null` for as many as there are. */
export function limitIn(body: Xml, named: (local: string) => Name = card): number | null {
  const text = childOf(childOf(body, named('limit')), named('nresults'))?.text ?? '';
  return /^\d{1,6}$/.test(text.trim()) ? Number(text) : null;
}
