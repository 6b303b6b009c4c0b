import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/** Every second phrase answers the one before it. */
export type AnswerRule = { readonly kind: 'answer' };

export const ANSWER: RuleKind<AnswerRule> = {
  id: 'answer',
  judge: (_, { report }) =>
    overPhrases(report, ({ answers }) => answers !== undefined).filter((_check, index) => index % 2 === 1),
  counted: () => 'phrases',
  words: () =>
    'Every second phrase answers the one before it: as long, from the same beat, a breath between.',
};
