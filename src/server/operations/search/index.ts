export { findDays } from './find-days.ts';
export { search } from './search.ts';
