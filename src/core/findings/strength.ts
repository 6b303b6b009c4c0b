import type { FindingContext } from './finding';

export type StrengthKind =
  | 'landings-met'
  | 'heard-without-band'
  | 'theme-kept'
  | 'even-time'
  | 'came-home'
  | 'built-up'
  | 'left-space'
  | 'half-steps-home'
  | 'best-landing';

/** One true strength of a take, with the bar to hear again (T13.6); `bar` counts from 1 through all choruses. */
export type Strength = {
  readonly kind: StrengthKind;
  readonly sentence: string;
  readonly bar: number;
  /** How much of a strength it is, 0 to 1. */
  readonly score: number;
};

/** A kind of strength: one file has all of it. `F` is what its sentence says. */
export type StrengthOf<F> = {
  readonly id: StrengthKind;
  /** Null where the take has not got it. */
  readonly detect: (
    context: FindingContext,
  ) => { readonly bar: number; readonly score: number; readonly facts: F } | null;
  /** At most twenty words. */
  readonly say: (facts: F) => string;
  /** Made-up facts, for the table of sentences. */
  readonly examples: readonly F[];
};

export type AnyStrength = {
  readonly id: StrengthKind;
  readonly find: (context: FindingContext) => Strength | null;
  readonly samples: () => string[];
};

/** Closes a strength's own facts in, so that all can stand in one list. */
export const defineStrength = <F>({ id, detect, say, examples }: StrengthOf<F>): AnyStrength => ({
  id,
  find: (context) => {
    const found = detect(context);
    return found && { kind: id, sentence: say(found.facts), bar: found.bar, score: found.score };
  },
  samples: () => examples.map(say),
});
