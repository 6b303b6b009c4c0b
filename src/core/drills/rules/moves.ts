import { elementAt, type Semitones } from '../../shared';
import { overChords } from './context';
import type { RuleKind } from './ruleKind';

/** Over each chord that is played on: no move inside a phrase wider than so many semitones. */
export type MovesRule = { readonly kind: 'moves'; readonly most: Semitones };

const NAMES: Readonly<Record<number, string>> = { 2: 'a step', 4: 'a third', 5: 'a fourth', 7: 'a fifth' };

export const MOVES: RuleKind<MovesRule> = {
  id: 'moves',
  judge: ({ most }, { report }) => {
    const wide = new Set(
      report.phrases.flatMap(({ noteIndices }) =>
        noteIndices.filter((index, at) => {
          const before = at > 0 ? report.notes[elementAt(noteIndices, at - 1)] : undefined;
          return before && Math.abs(elementAt(report.notes, index).midi - before.midi) > most + 0.5;
        }),
      ),
    );
    return overChords(report, (notes) => notes.every(({ index }) => !wide.has(index)));
  },
  counted: () => 'chords',
  words: ({ most }) => `Inside a phrase no move wider than ${NAMES[most] ?? `${most} half steps`}.`,
  example: ({ most }, recipe) => ({ ...recipe, widest: most }),
};
