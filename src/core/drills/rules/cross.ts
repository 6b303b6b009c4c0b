import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/** Each phrase goes through a change. */
export type CrossRule = { readonly kind: 'cross' };

export const CROSS: RuleKind<CrossRule> = {
  id: 'cross',
  judge: (_, { report }) => overPhrases(report, ({ changesCrossed }) => changesCrossed > 0),
  counted: () => 'phrases',
  words: () => 'Every phrase goes through a change.',
};
