import type { Phrase, Report } from '../../analyse';
import { elementAt, present, type Beats, type Semitones } from '../../shared';
import { formulaOf, formulaWords, isSameDegree, type FormulaNote } from '../../phrases';
import type { AttemptContext } from './context';
import type { RuleCheck } from '../rule';
import type { RuleKind } from './ruleKind';

/** A phrase as its rhythm and contour: beats and semitones from note to note. */
export type Motif = {
  readonly gaps: readonly Beats[];
  readonly moves: readonly Semitones[];
  /** Its notes by degree over their chords: it is the same phrase where these are the same. */
  readonly formula?: readonly FormulaNote[];
};

/**
 * Each phrase has the rhythm and the contour of one before it, or of a phrase of the player's own, and ends on
 * a chord tone.
 */
export type MotifRule = { readonly kind: 'motif'; readonly like?: Motif };

/**
 * Two rhythms are the same where their gaps agree to a sixteenth; two contours, where every move goes the same
 * way within two semitones.
 */
const SAME_GAP: Beats = 0.15;
const SAME_MOVE: Semitones = 2;

function motifPlaces(context: AttemptContext, like?: Motif): RuleCheck[] {
  const { report } = context;
  if (like?.formula) return formulaPlaces(context, like, like.formula);
  const shaped = report.phrases.map((phrase) => ({ phrase, shape: shapeOf(report, phrase) }));
  const model = like ?? shaped[0]?.shape;
  if (!model) return [];
  const isLike = ({ gaps, moves }: Motif) =>
    gaps.length === model.gaps.length &&
    gaps.length > 0 &&
    gaps.every((gap, index) => Math.abs(gap - elementAt(model.gaps, index)) <= SAME_GAP) &&
    moves.every(
      (move, index) =>
        Math.sign(move) === Math.sign(elementAt(model.moves, index)) &&
        Math.abs(move - elementAt(model.moves, index)) <= SAME_MOVE,
    );
  const ends = ({ noteIndices }: Phrase) =>
    present(report.notes[elementAt(noteIndices, noteIndices.length - 1)]).height === 0;
  return shaped
    .slice(like ? 0 : 1)
    .map(({ phrase, shape }) => ({ beat: phrase.startBeat, met: isLike(shape) && ends(phrase) }));
}

/** One note of a phrase may be another than the formula says: it is fitted, and still the same phrase. */
const FITTED = 1;

function formulaPlaces(
  context: AttemptContext,
  { gaps }: Motif,
  formula: readonly FormulaNote[],
): RuleCheck[] {
  const { report } = context;
  return report.phrases.map((phrase) => {
    const shape = shapeOf(report, phrase);
    const own = formulaOf(report, phrase, context);
    const isRhythm =
      shape.gaps.length === gaps.length &&
      shape.gaps.every((gap, index) => Math.abs(gap - elementAt(gaps, index)) <= SAME_GAP);
    const same = formula.filter((note, index) => {
      const played = own?.[index];
      return played !== undefined && isSameDegree(note, played);
    }).length;
    return { beat: phrase.startBeat, met: isRhythm && same >= formula.length - FITTED };
  });
}

/** The line of a phrase as rhythm and contour. */
export function shapeOf(report: Report, { noteIndices }: Phrase): Motif {
  const line = noteIndices
    .map((index) => elementAt(report.notes, index))
    .filter(({ top, function: role }) => top && role !== 'grace');
  return {
    gaps: line.slice(1).map(({ onsetBeat }, index) => onsetBeat - elementAt(line, index).onsetBeat),
    moves: line.slice(1).map(({ midi }, index) => Math.round(midi) - Math.round(elementAt(line, index).midi)),
  };
}

export const MOTIF: RuleKind<MotifRule> = {
  id: 'motif',
  judge: ({ like }, context) => motifPlaces(context, like),
  counted: () => 'phrases',
  words: ({ like }) => {
    if (like?.formula) return `Your phrase by its degrees on every chord: ${formulaWords(like.formula)}.`;
    return like
      ? 'Every phrase is your phrase: its rhythm, its contour, its end on a chord tone.'
      : 'Every phrase is the first one again, fitted: its rhythm, its contour, its end on a chord tone.';
  },
  example: ({ like }, recipe) => ({ ...recipe, written: { kind: 'motif', ...(like && { like }) } }),
};
