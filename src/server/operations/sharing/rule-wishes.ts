import type { NoticesAnswer } from '@/contract/notices.ts';
import type { HouseRulesWire, RuleChange, WishAnswerBody, WishBody } from '@/contract/sharing/rules.ts';
import { houseRulesWire } from '@/contract/sharing/rules.ts';
import { instantText } from '@/core/time/index.ts';
import { newKey } from '../../ids.ts';
import { allPeople } from '../../repositories/people.ts';
import {
  answerRuleRequest,
  insertRuleRequest,
  openRuleRequests,
  type RuleRequest,
  ruleRequestByKey,
  ruleRequestsOf,
} from '../../repositories/rule-requests.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, storedRules, tellPeople, trailOwn } from '../deciding/index.ts';
import { changeHouseRules } from './house-rules.ts';

type Rule = RuleChange['rule'];

/** The rules with one of them set to a value; `null` where the rule can't have that value. */
function withRule(rules: HouseRulesWire, rule: Rule, further: boolean, wanted: string): HouseRulesWire | null {
  const value = rule === 'outsideExtras' ? (wanted === 'true' ? true : wanted === 'false' ? false : null) : wanted;
  const next =
    rule === 'linksBy'
      ? { ...rules, linksBy: value }
      : further
        ? { ...rules, further: { ...(rules.further ?? rules.main), [rule]: value } }
        : { ...rules, main: { ...rules.main, [rule]: value } };
  const parsed = houseRulesWire.safeParse(next);
  return parsed.success ? parsed.data : null;
}

const valueIn = (rules: HouseRulesWire, rule: Rule, further: boolean): string =>
  String(rule === 'linksBy' ? rules.linksBy : ((further ? rules.further : null) ?? rules.main)[rule]);

/** Sets one house rule, on main calendars or on further ones. For administrators. */
export function setRule(ctx: Context, { rule, wanted }: RuleChange, further: boolean): Result<{ done: true }> {
  const next = withRule(storedRules(ctx.db), rule, further, wanted);
  return next ? changeHouseRules(ctx, next) : refuse('badInput', { fields: { wanted: 'unclear' } });
}

/** Asks the administrators to set house rules to exactly this. Every administrator finds it in their messages. */
export function wishForRule(ctx: Context, body: WishBody): Result<{ done: true }> {
  if (!ctx.viewer.inside) return refuse('insideOnly');
  const rules = storedRules(ctx.db);
  for (const { rule, wanted } of body.changes)
    if (!withRule(rules, rule, body.further, wanted)) return refuse('badInput', { fields: { wanted: 'unclear' } });
  ctx.db.write(() => {
    for (const { rule, wanted } of body.changes)
      insertRuleRequest(ctx.db, {
        key: newKey(),
        personId: ctx.viewer.id,
        at: ctx.now,
        rule,
        further: body.further,
        wanted,
        note: body.note,
      });
    trailOwn(ctx, 'house rules', 'rule.wished', null, body);
  });
  tellAdministrators(ctx);
  return ok({ done: true });
}

/** Sets a rule to what somebody wished, or leaves it; the one who wished finds the answer in their messages. For administrators. */
export function answerWish(ctx: Context, key: string, body: WishAnswerBody): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const wish = ruleRequestByKey(ctx.db, key);
  if (!wish) return refuse('notFound');
  if (wish.answer !== null) return refuse('changedMeanwhile');
  if (body.answer === 'changed') {
    const next = withRule(storedRules(ctx.db), wish.rule as Rule, wish.further, wish.wanted);
    if (!next) return refuse('changedMeanwhile');
    const changed = changeHouseRules(ctx, next);
    if (!changed.ok) return changed;
  }
  ctx.db.write(() => {
    answerRuleRequest(ctx.db, key, { answer: body.answer, by: ctx.viewer.id, at: ctx.now, note: body.note });
    trailOwn(
      ctx,
      'house rules',
      'rule.answered',
      { rule: wish.rule, further: wish.further, wanted: wish.wanted },
      body,
    );
  });
  tellPeople(ctx.db, [wish.personId]);
  tellAdministrators(ctx);
  return ok({ done: true });
}

function tellAdministrators(ctx: Context): void {
  tellPeople(
    ctx.db,
    allPeople(ctx.db).flatMap((person) => (person.administrator ? [person.id] : [])),
  );
}

const MOST = 20;

/** One's own wishes with their answers, and, for an administrator, everyone's that wait. */
export function wishesFor(ctx: Context): NoticesAnswer['wishes'] {
  const rules = storedRules(ctx.db);
  const directory = new Directory(ctx.db);
  const waiting = ctx.viewer.administrator ? openRuleRequests(ctx.db) : [];
  const own = ruleRequestsOf(ctx.db, ctx.viewer.id, MOST).filter((w) => !waiting.some((o) => o.key === w.key));
  const wire = (wish: RuleRequest): NoticesAnswer['wishes'][number] => ({
    key: wish.key,
    at: instantText(wish.at),
    who: directory.name(wish.personId),
    own: wish.personId === ctx.viewer.id,
    rule: wish.rule,
    further: wish.further,
    wanted: wish.wanted,
    now: valueIn(rules, wish.rule as Rule, wish.further),
    note: wish.note,
    answer: wish.answer,
    answeredBy: wish.answeredBy === null ? null : directory.name(wish.answeredBy),
    answerNote: wish.answerNote,
  });
  return [...waiting, ...own].map(wire);
}

/** How many wishes wait for an administrator's answer; none for anybody else. */
export const wishesWaiting = (ctx: Context): number => (ctx.viewer.administrator ? openRuleRequests(ctx.db).length : 0);
