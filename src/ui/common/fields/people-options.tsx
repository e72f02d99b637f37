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

/** Who or what can be chosen by typing, with a line under the name that says more. */
export interface Choice {
  readonly key: string;
  readonly name: string;
  readonly about: string;
  /** It was found by what was typed, be it in words that aren't shown. */
  readonly found?: boolean;
}

/** Those that hold what was typed: none before a word is, then the first forty. */
export const fewChoices = <C extends Choice>(all: C[], { inputValue }: { inputValue: string }): C[] =>
  inputValue.trim() === ''
    ? []
    : all.filter((o) => o.found || holdsWords(`${o.name} ${o.about}`, inputValue)).slice(0, SHOWN);

type Attributes = HTMLAttributes<HTMLLIElement> & { key: Key };

/** A choice as the list shows it. */
export function choiceOption({ key: _key, ...attributes }: Attributes, choice: Choice) {
  return (
    <li key={choice.key} {...attributes} className="block">
      {choice.name}
      <span className="small soft block">{choice.about}</span>
    </li>
  );
}

/** A person to choose, with the address that tells two of one name apart. */
export const personOption = (attributes: Attributes, { name, address }: Someone) =>
  choiceOption(attributes, { key: address, name, about: address });
