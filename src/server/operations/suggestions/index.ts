export { answerSuggestion, listSuggestions, suggestionsWaiting } from './suggestions.ts';
