import type { RuleKind } from './ruleKind';

/** From the first bar to the last: the tempo is kept. */
export type SteadyRule = { readonly kind: 'steady' };

/** Less than this over a whole attempt is nobody's rushing (T1.7). */
const LEAST_MS = 30;

export const STEADY: RuleKind<SteadyRule> = {
  id: 'steady',
  judge: (_, { report }) => {
    const { drift } = report.time;
    return drift === null ? [] : [{ beat: 0, met: !(drift.isSure && Math.abs(drift.ms) >= LEAST_MS) }];
  },
  counted: () => 'passes',
  words: () => 'No faster and no slower at the end than at the beginning.',
};
