export { answerSuggestion, type PlainSuggestion, suggestionsToAnswer, suggestionsWaiting } from './suggestions.ts';
