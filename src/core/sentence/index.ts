export { readDate } from './read-date.ts';
export { readNext } from './read-next.ts';
export { readRepeatWords } from './read-repeat-words.ts';
export { readSentence, type Sentence } from './read-sentence.ts';
export type { DateOrder } from './tokens.ts';
