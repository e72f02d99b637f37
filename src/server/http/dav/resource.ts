/** What stands at an address of the calendar protocol. */
export type Resource =
  | { readonly kind: 'root' | 'home' | 'inbox' | 'outbox' | 'people' }
  | { readonly kind: 'person'; readonly handle: string }
  | { readonly kind: 'calendar'; readonly calendar: string }
  | { readonly kind: 'object'; readonly calendar: string; readonly name: string }
  | { readonly kind: 'invitation'; readonly name: string };

export const ROOT = '/dav/';
const MOST_PART = 250;

const part = (text: string): string => encodeURIComponent(text);

/** The addresses of what one person's programs find. */
export const hrefs = {
  people: `${ROOT}people/`,
  person: (handle: string) => `${ROOT}people/${part(handle)}/`,
  home: (me: string) => `${ROOT}calendars/${part(me)}/`,
  calendar: (me: string, key: string) => `${ROOT}calendars/${part(me)}/${part(key)}/`,
  object: (me: string, key: string, name: string) => `${ROOT}calendars/${part(me)}/${part(key)}/${part(name)}`,
  inbox: (me: string) => `${ROOT}inbox/${part(me)}/`,
  invitation: (me: string, name: string) => `${ROOT}inbox/${part(me)}/${part(name)}`,
  outbox: (me: string) => `${ROOT}outbox/${part(me)}/`,
};

/** The path of an address, whole or as a path alone; `null` where it can't be read. */
function pathOf(href: string): string | null {
  try {
    return new URL(href.trim(), 'http://here').pathname;
  } catch {
    return null;
  }
}

/** What stands at an address for the person `me` is the handle of; `null` where nothing does, another's addresses among them. */
export function resourceAt(href: string, me: string): Resource | null {
  const path = pathOf(href);
  if (path === null || !`${path}/`.startsWith(ROOT)) return null;
  let parts: string[];
  try {
    parts = path.split('/').slice(2).filter(Boolean).map(decodeURIComponent);
  } catch {
    return null;
  }
  if (parts.length > 4 || parts.some((one) => one.length > MOST_PART)) return null;
  const [first, whose, a, b] = parts;
  if (first === undefined) return { kind: 'root' };
  if (first === 'people') {
    if (whose === undefined) return { kind: 'people' };
    return a === undefined ? { kind: 'person', handle: whose } : null;
  }
  if (whose !== me) return null;
  switch (first) {
    case 'calendars':
      if (a === undefined) return { kind: 'home' };
      return b === undefined ? { kind: 'calendar', calendar: a } : { kind: 'object', calendar: a, name: b };
    case 'inbox':
      if (b !== undefined) return null;
      return a === undefined ? { kind: 'inbox' } : { kind: 'invitation', name: a };
    case 'outbox':
      return a === undefined ? { kind: 'outbox' } : null;
    default:
      return null;
  }
}
