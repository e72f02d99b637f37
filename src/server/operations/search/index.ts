export { search } from './search.ts';
