import type { Report } from '../analyse';
import type { Chart, Timeline } from '../chart';
import type { Attempt } from './rule';
import { judgeRule, type Rule } from './rules';

/** What was heard, place by place, by one rule. Changes at rest are no places: nobody was playing. */
export function attemptOf(rule: Rule, report: Report, chart: Chart, timeline: Timeline): Attempt {
  const places = judgeRule(rule, { report, chart, timeline });
  return { places, met: places.filter(({ met }) => met).length, of: places.length };
}
