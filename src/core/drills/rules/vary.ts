import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/** No phrase has the shape of one before it. */
export type VaryRule = { readonly kind: 'vary' };

export const VARY: RuleKind<VaryRule> = {
  id: 'vary',
  judge: (_, { report }) =>
    overPhrases(
      report,
      ({ motif }, index) =>
        motif === undefined || report.phrases.findIndex((other) => other.motif === motif) === index,
    ),
  counted: () => 'phrases',
  words: () => 'No phrase in the shape of one before it.',
};
