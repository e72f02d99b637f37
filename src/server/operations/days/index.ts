export { dayLetter } from './day-letter.ts';
export { readDay } from './read-day.ts';
export { dayLettersDue, readDayLetters, saveDayLetters } from './wishes.ts';
