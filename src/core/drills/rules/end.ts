import type { Phrase } from '../../analyse';
import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/** Each phrase comes to rest: on a tone that is at home, held or on a strong beat. */
export type EndRule = { readonly kind: 'end' };

/** At home, or on the root of a chord that goes on. */
const isAtRest = ({ end, endInterval }: Phrase): boolean =>
  end === 'home' || (end === 'floats' && endInterval === '1');

export const END: RuleKind<EndRule> = {
  id: 'end',
  judge: (_, { report }) => overPhrases(report, (phrase) => phrase.firm && isAtRest(phrase)),
  counted: () => 'phrases',
  words: () => 'Every phrase comes to rest on a chord tone, held or on a strong beat.',
};
