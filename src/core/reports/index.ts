export { type TimeShare, type TimeUseItem, timeUse } from './time-use.ts';
