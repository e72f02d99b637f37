export { type OwnWord, plainWord, TOPICS, topicOf } from './topics.ts';
