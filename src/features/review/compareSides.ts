import { readChart, timelineOf } from '@/core/chart';
import { PLANS, planFromWords, type PlanWords } from '@/core/plan';
import { judgeTake, type Judgement } from '@/core/review';
import type { ReviewData } from './useReview';
import { caseOf } from './useReview';

/** Another take of the same form. */
export type SiblingTake = {
  readonly id: string;
  readonly number: number;
  readonly when: string;
  readonly tempo: number;
};

/** What stands beside the take: other takes, or the same one judged otherwise. */
export type Side = {
  readonly name: string;
  readonly sub: string;
  readonly judgement: Pick<Judgement, 'report' | 'marks'>;
};

/** The take by another plan, over other chords, or begun elsewhere. */
export type Otherwise = { readonly plan: PlanWords; readonly chartText: string; readonly shiftMs: number };

/** The take judged so, or why it cannot be. */
export function judgedOtherwise(
  data: ReviewData,
  { plan, chartText, shiftMs }: Otherwise,
): { ok: true; judgement: Judgement; name: string } | { ok: false; message: string } {
  const chart = readChart(chartText);
  if (!chart.ok) return { ok: false, message: `This chart cannot be read: ${chart.problems[0].message}` };
  const readPlan = planFromWords(plan);
  if (!readPlan.ok) return { ok: false, message: readPlan.problems[0].message };
  const beats = timelineOf(chart.value, 120).formBeats;
  const own = readChart(data.take.chartText);
  if (own.ok && timelineOf(own.value, 120).formBeats !== beats)
    return {
      ok: false,
      message: `The other chart has ${beats} beats, this one ${timelineOf(own.value, 120).formBeats}: they must be as long.`,
    };
  const differs = [
    plan.id !== data.take.plan.id || plan.home !== data.take.plan.home
      ? `by ${PLANS[plan.id].short}${plan.home ? `, home ${plan.home}` : ''}`
      : '',
    chartText !== data.take.chartText ? 'over other chords' : '',
    shiftMs !== 0 ? `${Math.abs(shiftMs)} ms ${shiftMs > 0 ? 'later' : 'earlier'}` : '',
  ]
    .filter(Boolean)
    .join(', ');
  return {
    ok: true,
    name: differs || 'the same',
    judgement: judgeTake({
      ...caseOf(data, data.edits),
      plan,
      chartText,
      offsetSec: data.take.offsetSec - shiftMs / 1000,
    }),
  };
}
