import { PLANS, PLAN_IDS } from '@/core/plan';

/** Every plan a take can be judged by, with its name. */
export const PLAN_CHOICES = PLAN_IDS.map((id) => [id, PLANS[id].name] as const);
