export { expand, recurrenceWall, type Series } from './expand.ts';
export { type Rule, readRule } from './rule.ts';
