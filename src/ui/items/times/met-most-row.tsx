'use client';
import type { PersonWire } from '@/contract/people/people.ts';
import { Token } from '../../common/token.tsx';
import css from './met-most-row.module.css';

/** People who are offered, each by a press. */
export function MetMostRow(props: {
  words: string;
  people: readonly PersonWire[];
  onChoose: (person: PersonWire) => void;
}) {
  const { words, people, onChoose } = props;
  if (people.length === 0) return null;
  return (
    <div className={css.row}>
      <span className="small soft">{words}</span>
      {people.map((person) => (
        <button key={person.handle} type="button" className={`plain ${css.one}`} onClick={() => onChoose(person)}>
          <Token name={person.name} colour={person.colour} tiny /> {person.name}
        </button>
      ))}
    </div>
  );
}
