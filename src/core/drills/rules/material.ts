import { overChords } from './context';
import type { RuleKind } from './ruleKind';

/** Over each chord: nothing but its tones, or nothing but what the plan would play. */
export type MaterialRule = { readonly kind: 'material'; readonly of: 'chord' | 'plan' };

export const MATERIAL: RuleKind<MaterialRule> = {
  id: 'material',
  judge: ({ of }, { report }) =>
    overChords(report, (notes) =>
      notes.every(({ height, inPlan }) => (of === 'chord' ? height === 0 : inPlan)),
    ),
  counted: () => 'chords',
  words: ({ of }) =>
    of === 'chord'
      ? 'Nothing but chord tones over every chord.'
      : 'Nothing but what the plan would play over every chord.',
};
