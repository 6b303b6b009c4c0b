import type { Rule } from '../rules';

/** One way of saying a rule, in plain words: a pattern for the whole of them, and the rule they mean. */
export type WishReader = readonly [
  pattern: string,
  make: (found: readonly (string | undefined)[]) => Rule | null,
];

/** Two or three rules at once. */
export const all = (...rules: readonly Rule[]): Rule => ({ kind: 'all', rules });
/** Where a rule holds, which most of them say anyway. */
export const HERE = '(?: (?:at change|each chord|each bar|at start of chord))?';

const MOST = 8;

/** A rule of a small number of bars or beats; one where no number is said. */
export const few = (text: string | undefined, make: (count: number) => Rule): Rule | null => {
  const count = text === undefined ? 1 : Number(text);
  return count >= 1 && count <= MOST ? make(count) : null;
};
