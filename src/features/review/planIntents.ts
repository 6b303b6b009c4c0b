import { PLANS, type PlanWords } from '@/core/plan';

/** The height a plan means for each chorus; null where it leaves it free. */
export function planIntents(plan: PlanWords, choruses: number): string[] | null {
  const heights = plan.heights ?? [PLANS[plan.id].height];
  const intents = Array.from(
    { length: choruses },
    (_, chorus) => heights[Math.min(chorus, heights.length - 1)] ?? 'free',
  );
  return intents.every((intent) => intent === 'free') ? null : intents;
}
