import type { Beats } from '../../shared';
import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/** Each phrase is at least so many beats long. */
export type LengthRule = { readonly kind: 'length'; readonly least: Beats };

export const LENGTH: RuleKind<LengthRule> = {
  id: 'length',
  judge: ({ least }, { report }) =>
    overPhrases(report, ({ startBeat, endBeat }) => endBeat - startBeat >= least - 1e-6),
  counted: () => 'phrases',
  words: ({ least }) => `Every phrase ${least} beats or longer.`,
  example: (_, recipe) => ({ ...recipe, phrase: { beat: 1, bars: 3, rest: 0 } }),
};
