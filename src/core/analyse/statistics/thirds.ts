import { modulo, type Beats, type Cents, defined } from '../../shared';
import { rootPc, toneByRole } from '../../music';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { JudgedNote } from '../noteFunctions/noteReport';

/**
 * How high a third was: 0 is the minor third, 100 the major one. `moved` is where a bend carried it, first to
 * last.
 */
export type ThirdHeard = {
  readonly noteIndex: number;
  readonly beat: Beats;
  readonly chord: string;
  readonly cents: Cents;
  readonly moved: Cents;
};

/** So far under the minor and over the major third still counts as a third. */
const AROUND: Cents = 40;

/**
 * The thirds palette, over chords with a major third on a blues chart or a lone dominant vamp.
 * Rule T11.5: how high each blue third really was, in cents, and how it moved, over the form.
 */
export function thirdsPalette({ contexts }: AnalysisScene, notes: readonly JudgedNote[]): ThirdHeard[] {
  return notes.flatMap(({ note, voice, chordSpans }): ThirdHeard[] => {
    const context = defined(contexts[defined(chordSpans[0])]);
    if (
      !context.isBluesy ||
      !context.chord ||
      note.function === 'grace' ||
      toneByRole(context.chord, 'third')?.semitones !== 4
    )
      return [];
    const over = modulo((voice.pitch + voice.bentBy - rootPc(context.chord)) * 100 - 300 + 600, 1200) - 600;
    if (over < -AROUND || over > 100 + AROUND) return [];
    const curve = voice.played.bend;
    const moved =
      curve && curve.length > 0 ? Math.round(defined(curve[curve.length - 1])[1] - defined(curve[0])[1]) : 0;
    return [
      {
        noteIndex: note.index,
        beat: note.onsetBeat,
        chord: context.chord.symbol,
        cents: Math.round(over),
        moved,
      },
    ];
  });
}
