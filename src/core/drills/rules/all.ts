import { present } from '../../shared';
import type { AttemptContext } from './context';
import type { RuleCheck } from '../rule';
import type { Rule } from './index';
import type { RuleKind } from './ruleKind';

/**
 * Two or three rules at once: each of them has to be passed; one that finds no place asks for nothing. What was missing is required (T13.9), beside what
 * may be played.
 */
export type AllRule = { readonly kind: 'all'; readonly rules: readonly Rule[] };

type Parts = {
  readonly judge: (rule: Rule, attempt: AttemptContext) => RuleCheck[];
  readonly words: (rule: Rule) => string;
};

/** Made over the other kinds, which it joins: they are given, so that no kind has to know the list of all. */
export const allOf = ({ judge, words }: Parts): RuleKind<AllRule> => ({
  id: 'all',
  // what is counted is the part that is furthest from its share: where that passes, all do
  judge: ({ rules }, attempt) => {
    const parts = rules.map((rule) => judge(rule, attempt)).filter((places) => places.length > 0);
    return [...parts].sort((a, b) => shareOf(a) - shareOf(b))[0] ?? [];
  },
  counted: () => 'places',
  words: ({ rules }) => rules.map(words).join(' '),
  example: (_, recipe) => recipe,
});

const shareOf = (places: readonly RuleCheck[]): number =>
  places.filter(({ met }) => met).length / places.length;

/** The rules a rule is made of: itself, or those it joins. */
export const partsOf = (rule: Rule): readonly Rule[] => (rule.kind === 'all' ? rule.rules : [rule]);

/** The first of its parts: what a picture or a list shows of it. */
export const mainPart = (rule: Rule): Rule => present(partsOf(rule)[0]);
