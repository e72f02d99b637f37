import type { DeskAct, DeskRowWire } from '@/contract/desk.ts';
import type { TimeStyle } from '../common/times.ts';
import type { Step } from './desk-steps.ts';
import { shortAt } from './desk-words.ts';

/** What a step is sent with: a few words, which of several choices, a place or a link, and whether it answers for both who are asked. */
export interface Given {
  readonly words: string;
  /** `null`: the first there is. */
  readonly choice: string | null;
  readonly text: string;
  readonly twin: boolean;
}

export const NOTHING_GIVEN: Given = { words: '', choice: null, text: '', twin: false };

/** Of what a step may take one: openings, held times, or those who propose another time; the best first. */
export interface Choice {
  readonly value: string;
  readonly label: string;
  /** When it would be. */
  readonly start: string;
}

export function choicesOf(
  row: DeskRowWire,
  act: DeskAct | undefined,
  openings: readonly string[],
  style: TimeStyle,
): readonly Choice[] {
  const { about } = row;
  if (act === 'another') return openings.map((start) => ({ value: start, label: shortAt(start, style), start }));
  if (act === 'fix' && about?.of === 'hold')
    return about.times.map(({ item, start }) => ({ value: item, label: shortAt(start, style), start }));
  if ((act === 'take' || act === 'keep') && about?.of === 'meeting')
    return about.people.flatMap(({ address, name, proposes }) =>
      proposes ? [{ value: address, label: `${name}, ${shortAt(proposes.start, style)}`, start: proposes.start }] : [],
    );
  return [];
}

/** The choice that was made, or the first there is. */
export const chosenOf = (choices: readonly Choice[], { choice }: Given): Choice | undefined =>
  choices.find(({ value }) => value === choice) ?? choices[0];

/** A step of a row as it is sent; `null` where it needs more than was given, or is taken on another screen. */
export function stepToSend(
  row: DeskRowWire,
  act: DeskAct,
  given: Given,
  openings: readonly string[],
  style: TimeStyle,
): Step | null {
  const choice = chosenOf(choicesOf(row, act, openings, style), given)?.value;
  const text = given.text.trim();
  switch (act) {
    case 'accepted':
    case 'tentative':
    case 'declined':
      return { act, comment: given.words, twin: given.twin && row.twin !== null };
    case 'take':
      return choice ? { act, attendee: choice } : null;
    case 'keep':
      return choice ? { act, attendee: choice, comment: given.words } : null;
    case 'another': {
      const item = row.steps.find((one) => one.act === act)?.item;
      return choice && item ? { act: 'move', item, start: choice } : null;
    }
    case 'fix':
      return choice ? { act, item: choice } : null;
    case 'place':
      return text ? { act, place: text } : null;
    case 'link':
      return text ? { act, link: text } : null;
    case 'yes':
    case 'no':
      return { act, note: given.words };
    case 'without':
    case 'off':
    case 'nudge':
    case 'longer':
    case 'free':
    case 'count':
    case 'again':
    case 'takeAccess':
    case 'extend':
    case 'cover':
    case 'done':
    case 'tomorrow':
    case 'left':
      return { act };
    case 'move':
    case 'answerAsk':
    case 'reply':
    case 'mend':
    case 'notice':
    case 'whoCovers':
      return null;
  }
}
