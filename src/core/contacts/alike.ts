import type { Way } from '../fields/index.ts';
import type { WrittenContact } from './contact-fields.ts';

/** A mail address in the form in which two are held against each other. */
export const addressForm = (address: string): string => address.trim().toLowerCase();

/** A number likewise: its digits, a leading 00 as +. Too few digits to tell are nothing. */
export function phoneForm(phone: string): string | null {
  const digits = phone.replace(/[^\d+]/g, '').replace(/^00/, '+');
  return digits.replace(/\D/g, '').length < 6 ? null : digits;
}

const nameForm = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** By what one contact may be the same as another: each mail address, each number, and the name. */
const marksOf = (contact: WrittenContact): readonly string[] => [
  ...contact.addresses.map(({ value }) => `@ ${addressForm(value)}`),
  ...contact.phones.flatMap(({ value }) => phoneForm(value) ?? []).map((form) => `# ${form}`),
  ...[nameForm(contact.name)].filter((form) => form.includes(' ')).map((form) => `n ${form}`),
];

/**
 * Groups of contacts that are likely one and the same, each in the order given: they share a mail address, a number, or a name of two words or
 * more. Whoever is like one of a group is in it. Runs in about the number of contacts.
 */
export function likelySame<C extends WrittenContact>(contacts: readonly C[]): C[][] {
  const parent = contacts.map((_, i) => i);
  const rootOf = (i: number): number => {
    let at = i;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at] as number] as number;
      at = parent[at] as number;
    }
    return at;
  };
  const first = new Map<string, number>();
  for (const [i, contact] of contacts.entries())
    for (const mark of marksOf(contact)) {
      const other = first.get(mark);
      if (other === undefined) first.set(mark, i);
      else {
        const [a, b] = [rootOf(other), rootOf(i)];
        parent[Math.max(a, b)] = Math.min(a, b);
      }
    }
  const groups = new Map<number, C[]>();
  for (const [i, contact] of contacts.entries()) {
    const group = groups.get(rootOf(i));
    if (group) group.push(contact);
    else groups.set(rootOf(i), [contact]);
  }
  return [...groups.values()].filter((group) => group.length > 1);
}

/**
 * One contact of several: the first says what only one can say, and where it says nothing the next does; what there can be several of is put
 * together, each once. The most private of them decides who sees it. Nothing of any is lost but what the lists have no room for, which is `left`.
 */
export function mergedContact(
  contacts: readonly [WrittenContact, ...WrittenContact[]],
  most: { readonly ways: number; readonly categories: number; readonly notes: number },
): { readonly merged: WrittenContact; readonly left: boolean } {
  const [first] = contacts;
  const line = (name: 'role' | 'organisation' | 'place' | 'link') =>
    contacts.find((one) => one[name] !== null)?.[name] ?? null;
  const said = (name: 'role' | 'organisation' | 'place' | 'link' | 'name') =>
    contacts.flatMap((one) => one[name] ?? []).filter((text) => text !== (name === 'name' ? first.name : line(name)));
  const ways = <As extends string>(all: readonly Way<As>[], form: (value: string) => string): Way<As>[] => {
    const known = new Map<string, Way<As>>();
    for (const way of all) {
      const key = form(way.value);
      const was = known.get(key);
      if (!was) known.set(key, way);
      else if (was.as === '' && way.as !== '') known.set(key, { ...was, as: way.as });
    }
    return [...known.values()];
  };
  const addresses = ways(
    contacts.flatMap((one) => one.addresses),
    addressForm,
  );
  const phones = ways(
    contacts.flatMap((one) => one.phones),
    (value) => phoneForm(value) ?? value,
  );
  const categories = [...new Set(contacts.flatMap((one) => one.categories))];
  // What only one of them can say is kept in words.
  const others = [
    ...new Set([...said('name'), ...said('role'), ...said('organisation'), ...said('place'), ...said('link')]),
  ];
  const notes = [...new Set([...contacts.flatMap((one) => one.notes ?? []), ...others])].join('\n\n');
  const order = ['open', 'follow', 'outline', 'private'] as const;
  const visibility = order[Math.max(...contacts.map((one) => order.indexOf(one.visibility)))] ?? 'private';
  return {
    merged: {
      name: first.name,
      role: line('role'),
      organisation: line('organisation'),
      place: line('place'),
      link: line('link'),
      addresses: addresses.slice(0, most.ways),
      phones: phones.slice(0, most.ways),
      categories: categories.slice(0, most.categories),
      notes: notes === '' ? null : notes.slice(0, most.notes),
      visibility,
    },
    left:
      addresses.length > most.ways ||
      phones.length > most.ways ||
      categories.length > most.categories ||
      notes.length > most.notes,
  };
}
