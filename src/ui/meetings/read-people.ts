import type { InvitedPerson } from './heard.ts';

const ADDRESS = /^[^\s@<>,;:"]+@[^\s@<>,;:"]+\.[^\s@<>,;:"]+$/;

/** Reads what was typed or pasted as people: addresses, with or without names before them, one after the other. What is none comes back. */
export function readPeople(text: string): { readonly people: InvitedPerson[]; readonly rest: string } {
  const people: InvitedPerson[] = [];
  const rest: string[] = [];
  for (const part of text.split(/[,;\n]+/)) {
    const one = part.trim();
    if (one === '') continue;
    const [, name = '', inside = ''] = /^(.*?)<([^<>]*)>$/.exec(one) ?? [];
    const address = (inside || one).trim().toLowerCase();
    if (ADDRESS.test(address))
      people.push({ address, name: name.replace(/["']/g, '').trim() || null, role: 'must', group: null });
    else rest.push(one);
  }
  return { people, rest: rest.join(', ') };
}
