import type { Midi } from '../../shared';
import { overChords } from './context';
import type { RuleKind } from './ruleKind';

/** Over each chord that is played on: nothing below the one pitch and nothing above the other. */
export type RegisterRule = { readonly kind: 'register'; readonly from?: Midi; readonly to?: Midi };

/** The open high string, E4: above it a line lies high on every guitar (common practice, no source). */
export const HIGH_FROM: Midi = 64;
/** The open G string and a whole tone over it, A3. */
export const LOW_TO: Midi = 57;

export const REGISTER: RuleKind<RegisterRule> = {
  id: 'register',
  judge: ({ from = -Infinity, to = Infinity }, { report }) =>
    overChords(report, (notes) => notes.every(({ midi }) => midi >= from - 0.5 && midi <= to + 0.5)),
  counted: () => 'chords',
  words: ({ from, to }) => {
    if (from !== undefined && to !== undefined) return 'Everything in this register.';
    return from === undefined
      ? 'Nothing above the A on the second fret of the third string.'
      : 'Nothing below the open first string.';
  },
  example: ({ from, to }, recipe) => ({ ...recipe, register: [from ?? 40, to ?? 76] }),
};
