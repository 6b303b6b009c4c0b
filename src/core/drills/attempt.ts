import type { Attempt } from './rule';
import { judgeRule, type AttemptContext, type Rule } from './rules';

/** What was heard, place by place, by one rule. Changes at rest are no places: nobody was playing. */
export function attemptOf(rule: Rule, context: AttemptContext): Attempt {
  const places = judgeRule(rule, context);
  return { places, met: places.filter(({ met }) => met).length, of: places.length };
}
