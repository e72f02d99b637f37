export { KINS, type Kin, type Known, kinOf, LADDER, type Least, leastFor } from './least.ts';
export { type OwnWord, plainWord, TOPICS, topicOf } from './topics.ts';
