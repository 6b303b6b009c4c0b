import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/** Each phrase comes to rest: on a tone that is at home, held or on a strong beat. */
export type EndRule = { readonly kind: 'end' };

export const END: RuleKind<EndRule> = {
  id: 'end',
  judge: (_, { report }) => overPhrases(report, ({ end }) => end === 'home'),
  counted: () => 'phrases',
  words: () => 'Every phrase comes to rest on a chord tone, held or on a strong beat.',
};
