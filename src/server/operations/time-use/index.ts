export { readTimeUse, saveTimeShares } from './time-use.ts';
export { timeUseFile } from './time-use-file.ts';
