import { elementAt } from '../../shared';
import { overChords } from './context';
import type { RuleKind } from './ruleKind';

/** Over each chord that is played on: an arpeggio of another chord, its root not the root that sounds. */
export type BorrowRule = { readonly kind: 'borrow' };

export const BORROW: RuleKind<BorrowRule> = {
  id: 'borrow',
  judge: (_, { report }) => {
    const borrowed = new Set(
      report.shapes
        .filter(({ kind, relation }) => kind === 'arpeggio' && relation !== undefined && relation !== '1')
        .flatMap(({ noteIndices }) => noteIndices),
    );
    return overChords(report, (notes) => notes.some((_note, at) => borrowed.has(elementAt(notes, at).index)));
  },
  counted: () => 'chords',
  words: () => 'Over every chord the arpeggio of another one.',
  example: (_, recipe) => ({ ...recipe, land: [], shape: 'arpeggio', borrows: true }),
};
