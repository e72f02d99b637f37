export { expand, type Occurrence, recurrenceWall, type Series } from './expand.ts';
export { type Rule, type RuleProblem, readRule } from './rule.ts';
