import { isOnTime, overChanges } from './context';
import type { RuleKind } from './ruleKind';

/** At each change: no rest and no leap: the next note is the same or a step away, and a tone of the new chord. */
export type JoinRule = { readonly kind: 'join' };

export const JOIN: RuleKind<JoinRule> = {
  id: 'join',
  judge: (_, { report }) =>
    overChanges(
      report,
      (change) =>
        (isOnTime(change) || change.landing.timing === 'held') &&
        (change.connection.kind === 'common' || change.connection.kind === 'step') &&
        ['target', 'chord-tone'].includes(change.landing.verdict),
    ),
  counted: () => 'joins',
  words: () => 'Keep going through every change: by the same note or a step, into a chord tone.',
};
