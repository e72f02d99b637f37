export { TOPICS, topicOf } from './topics.ts';
