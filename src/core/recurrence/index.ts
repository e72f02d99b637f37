export { ruleBefore, ruleFrom, shiftedRule } from './change-rule.ts';
export { endOf, expand, type Length, type Series } from './expand.ts';
export { type Rule, type RuleProblem, readRule, ruleStarts } from './rule.ts';
