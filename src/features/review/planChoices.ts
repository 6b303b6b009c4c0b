import { homeOf, readChart } from '@/core/chart';
import { PLANS, PLAN_IDS } from '@/core/plan';

/** Every plan a take can be judged by, with its name. */
export const PLAN_CHOICES = PLAN_IDS.map((id) => [id, PLANS[id].name] as const);

/** The home scale of a chart without a choice of the player's. */
export function homeNameOf(chartText: string): string {
  const read = readChart(chartText);
  return read.ok ? homeOf(read.value).name : '';
}
