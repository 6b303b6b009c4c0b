import type { Phrase } from '../../analyse';
import { beatsPerBar } from '../../chart';
import { elementAt, type Beats } from '../../shared';
import type { RuleCheck } from '../rule';
import type { RuleKind } from './ruleKind';

/** After each phrase so many bars of nothing. */
export type SpaceRule = { readonly kind: 'space'; readonly bars: number };

const COUNTS = ['No bar', 'A bar', 'Two bars', 'Three bars', 'Four bars'] as const;

function spaced(phrases: readonly Phrase[], least: Beats): RuleCheck[] {
  return phrases.slice(0, -1).map((phrase, index) => ({
    beat: phrase.startBeat,
    met: elementAt(phrases, index + 1).startBeat - phrase.endBeat >= least - 0.5,
  }));
}

export const SPACE: RuleKind<SpaceRule> = {
  id: 'space',
  judge: ({ bars }, { report, chart }) => spaced(report.phrases, bars * beatsPerBar(chart.meter)),
  counted: () => 'phrases',
  words: ({ bars }) => `${COUNTS[bars] ?? 'Many bars'} of nothing after every phrase.`,
  example: ({ bars }, recipe) => ({
    ...recipe,
    phrase: { beat: recipe.phrase?.beat ?? 1, bars: 1, rest: bars + 1 },
  }),
};
