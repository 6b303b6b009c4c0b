import type { RuleCheck } from '../rule';
import type { Recipe } from '../recipe';
import type { AttemptContext } from './context';

/* Methods, so that a kind can stand where a kind of any rule is asked for: it is looked up by its rule's name. */
/** One kind of rule, whole: what passes it, how it is said, and how an example that passes it is made. */
export type RuleKind<R extends { readonly kind: string }> = {
  readonly id: R['kind'];
  /** How each place of an attempt went by it. */
  judge(rule: R, attempt: AttemptContext): RuleCheck[];
  /** What is counted by it, in the plural. */
  counted(rule: R): string;
  /** The rule in a sentence, as it is said to a player. */
  words(rule: R): string;
  /**
   * The recipe of the nearest drill of the catalogue, changed to follow this rule; the same where that passes
   * already.
   */
  example?(rule: R, recipe: Recipe): Recipe;
};
