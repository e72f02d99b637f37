import type { CardVersion } from '../../contacts/index.ts';
import { type CardLine, cardLine, lineOf, paramsOf, typesOf } from './lines.ts';

/*
 * Lines of a card of one version as they stand in the other. What the other has no place for goes under a name of ours, which is taken off on the
 * way back, so that nothing is lost either way.
 */

/** Properties that only one of the versions has. */
const ONLY: Record<CardVersion, ReadonlySet<string>> = {
  '3.0': new Set(['AGENT', 'CLASS', 'LABEL', 'MAILER', 'NAME', 'PROFILE', 'SORT-STRING']),
  '4.0': new Set([
    'ANNIVERSARY',
    'CALADRURI',
    'CALURI',
    'CLIENTPIDMAP',
    'FBURL',
    'GENDER',
    'KIND',
    'LANG',
    'MEMBER',
    'RELATED',
    'XML',
  ]),
};
const aside = (version: CardVersion) => `X-PARAMO-${version[0]}-`;
const BINARY = new Set(['PHOTO', 'LOGO', 'SOUND', 'KEY']);
const MEDIA: Record<string, string> = { PHOTO: 'image', LOGO: 'image', SOUND: 'audio', KEY: 'application' };
const DATES = new Set(['BDAY', 'REV', 'DEATHDATE']);

/** A line that came in one version, for a card of another. */
export function inVersion(text: string, from: CardVersion, to: CardVersion): string {
  const line = from === to ? null : cardLine(text);
  if (!line) return text;
  const back = aside(to);
  const own = line.name.startsWith(back) ? line.name.slice(back.length) : '';
  if (ONLY[to].has(own) || (to === '4.0' && (DATES.has(own) || own === 'GEO'))) return renamed(line, own);
  if (ONLY[from].has(line.name)) return renamed(line, aside(from) + line.name);
  return to === '4.0' ? toFour(line) : toThree(line);
}

const renamed = (line: CardLine, name: string) => lineOf(line.group, name, paramsOf(line), line.value);

function toFour(line: CardLine): string {
  const { group, name, value } = line;
  const types = typesOf(line);
  const params = paramsOf(line).filter(([key]) => key !== 'CHARSET');
  const plain = params.filter(([key]) => key !== 'TYPE');
  const encoded = params.some(([key, text]) => key === 'ENCODING' && /^(b|base64)$/i.test(text));
  if (BINARY.has(name) && encoded) {
    const rest = plain.filter(([key]) => key !== 'ENCODING' && key !== 'VALUE');
    const [type = 'octet-stream'] = types.filter((word) => word !== 'pref');
    const media = type.includes('/') ? type : `${MEDIA[name]}/${type}`;
    return lineOf(group, name, withPref(rest, types), `data:${media};base64,${value.replace(/\s/g, '')}`);
  }
  if (name === 'GEO') return lineOf(group, name, params, `geo:${value.replace(/\\?;/, ',')}`);
  if (DATES.has(name)) return lineOf(group, name, dateParams(params), basicDate(value));
  if (!types.includes('pref')) return lineOf(group, name, params, value);
  const others = types.filter((word) => word !== 'pref');
  const typed = others.length > 0 ? [...plain, ['TYPE', others.join(',')] as const] : plain;
  return lineOf(group, name, withPref(typed, types), value);
}

const withPref = (params: readonly (readonly [string, string])[], types: readonly string[]) =>
  types.includes('pref') && !params.some(([key]) => key === 'PREF') ? [...params, ['PREF', '1'] as const] : params;

/** What a value is, where the other version says it otherwise. */
const dateParams = (params: readonly (readonly [string, string])[]) =>
  params.filter(([key, text]) => !(key === 'VALUE' && /^date(-time)?$|^date-and-or-time$/i.test(text)));
const basicDate = (value: string) =>
  /^\d{4}-\d{2}-\d{2}/.test(value)
    ? value
        .replace(/^(\d{4})-(\d{2})-(\d{2})/, '$1$2$3')
        .replace(/T(\d{2}):(\d{2})(?::(\d{2}))?/, 'T$1$2$3')
        .replace(/([+-]\d{2}):(\d{2})$/, '$1$2')
    : value;

function toThree(line: CardLine): string {
  const { group, name, value } = line;
  const params = paramsOf(line);
  const data = BINARY.has(name) ? /^data:([\w.+-]+\/[\w.+-]+);base64,(.*)$/is.exec(value) : null;
  if (data) {
    const type = (data[1] ?? '').replace(/^(image|audio)\//i, '').toUpperCase();
    return lineOf(
      group,
      name,
      [...params.filter(([key]) => key !== 'VALUE'), ['ENCODING', 'b'], ['TYPE', type]],
      data[2] ?? '',
    );
  }
  if (name === 'GEO') {
    const at = /^geo:(-?[\d.]+),(-?[\d.]+)$/i.exec(value);
    return at ? lineOf(group, name, params, `${at[1]};${at[2]}`) : renamed(line, `${aside('4.0')}GEO`);
  }
  if (DATES.has(name)) {
    const full = /^(\d{4})-?(\d{2})-?(\d{2})(?:T(\d{2}):?(\d{2}):?(\d{2})(.*))?$/.exec(value);
    if (!full) return renamed(line, aside('4.0') + name);
    const [, y, m, d, h, min, s, zone = ''] = full;
    const text = `${y}-${m}-${d}${h === undefined ? '' : `T${h}:${min}:${s}${zone}`}`;
    return lineOf(group, name, dateParams(params), text);
  }
  if (name === 'TEL' && /^tel:/i.test(value))
    return lineOf(group, name, preferred(params.filter(([key]) => key !== 'VALUE')), value.slice(4));
  return lineOf(group, name, preferred(params), value);
}

/** The first choice of its kind, said as the older version says it too. */
const preferred = (params: readonly (readonly [string, string])[]) =>
  params.some(([key, text]) => key === 'PREF' && text === '1') ? [...params, ['TYPE', 'pref'] as const] : params;
