import type { HTMLAttributes, Key } from 'react';

/** Text as it is searched: without accents, in lower case. */
export const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .trim();

/** Whether a text holds every word typed, in any order, accents or not. */
export const holdsWords = (text: string, typed: string): boolean => {
  const here = plain(text);
  return plain(typed)
    .split(/\s+/)
    .every((word) => here.includes(word));
};

/** Somebody to choose from a list. */
export interface Someone {
  readonly name: string;
  readonly address: string;
}

const SHOWN = 40;

/** Those whose name or address holds what was typed: the first forty, however many there are. */
export const fewPeople = <P extends Someone>(people: P[], { inputValue }: { inputValue: string }): P[] =>
  people.filter((p) => holdsWords(`${p.name} ${p.address}`, inputValue)).slice(0, SHOWN);

/** A person to choose, with the address that tells two of one name apart. */
export function personOption({ key, ...attributes }: HTMLAttributes<HTMLLIElement> & { key: Key }, person: Someone) {
  return (
    <li key={person.address} {...attributes} style={{ display: 'block' }}>
      {person.name}
      <span className="small soft" style={{ display: 'block' }}>
        {person.address}
      </span>
    </li>
  );
}
