import { present } from '../../shared';
import type { AttemptContext } from './context';
import type { RuleCheck } from '../rule';
import type { Rule } from './index';
import type { RuleKind } from './ruleKind';

/**
 * Two or three rules at once: each of them has to be passed. What was missing is required (T13.9), beside what
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
  judge: ({ rules }, attempt) =>
    rules.flatMap((rule) => judge(rule, attempt)).sort((a, b) => a.beat - b.beat),
  counted: () => 'places',
  words: ({ rules }) => rules.map(words).join(' '),
  example: (_, recipe) => recipe,
});

/** The rules a rule is made of: itself, or those it joins. */
export const partsOf = (rule: Rule): readonly Rule[] => (rule.kind === 'all' ? rule.rules : [rule]);

/** The first of its parts: what a picture or a list shows of it. */
export const mainPart = (rule: Rule): Rule => present(partsOf(rule)[0]);
