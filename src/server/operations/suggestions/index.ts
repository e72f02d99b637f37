export { suggestionsWaiting } from './suggestions.ts';
