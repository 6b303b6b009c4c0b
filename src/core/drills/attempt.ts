import type { Attempt } from './rule';
import { judgeRule, partsOf, type AttemptContext, type Rule } from './rules';

/** What was heard, place by place, by one rule. Changes at rest are no places: nobody was playing. */
export function attemptOf(rule: Rule, context: AttemptContext): Attempt {
  const places = judgeRule(rule, context);
  return { places, met: places.filter(({ met }) => met).length, of: places.length };
}

/** Does each part of a rule reach its share of places? A part that found none asks for nothing. */
export function isPassed(rule: Rule, context: AttemptContext, share: number): boolean {
  const parts = partsOf(rule).map((part) => attemptOf(part, context));
  return parts.some(({ of }) => of > 0) && parts.every(({ met, of }) => met >= share * of - 1e-9);
}
