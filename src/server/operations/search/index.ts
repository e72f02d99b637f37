export { findDays } from './find-days.ts';
export { metWith } from './met-with.ts';
export { search } from './search.ts';
export { contactsFound } from './search-contacts.ts';
export { wordsOf } from './words.ts';
