import { soundingAt, timelineOf, type Chart } from '../chart';
import { toneByRole, type ToneRole } from '../music';
import {
  accepted,
  elementAt,
  refused,
  type Beats,
  type BeatsPerMinute,
  type Outcome,
  type Semitones,
} from '../shared';
import { NEAR } from './formula';
import type { PhraseNote } from './phrase';
import { nearestOf } from './scaleSteps';
import { rangeOf } from './variations';

/** How a cell moves: by which step, and whether it comes back the way it went. */
export type CellMove = {
  readonly by: Semitones;
  readonly times: number;
  readonly isThereAndBack: boolean;
  /** The tone of the chord sounding then that it comes home to. */
  readonly home: 'root' | 'third' | 'fifth' | 'seventh';
};

const ROLES: Record<CellMove['home'], readonly ToneRole[]> = {
  root: ['root'],
  third: ['third', 'sus'],
  fifth: ['fifth'],
  seventh: ['seventh', 'sixth', 'root'],
};
const HOME_BEATS: Beats = 2;
const LOWEST = 40;
const HIGHEST = 88;

/**
 * A cell that leaves the chord by equal steps and comes home: each statement follows the one before without a gap, and
 * a held tone of the chord sounding then ends it.
 * @param cell notes from beat 0 of the cell
 * @param fromBeat where the first statement begins in the form
 */
export function movedCell(
  { chart, tempo }: { readonly chart: Chart; readonly tempo: BeatsPerMinute },
  cell: readonly PhraseNote[],
  move: CellMove,
  fromBeat: Beats,
): Outcome<PhraseNote[]> {
  const timeline = timelineOf(chart, tempo);
  const { start, end } = rangeOf(cell);
  const length = Math.max(0.5, Math.ceil(2 * (end - start) - 0.1) / 2);
  const shifts = shiftsOf(move);
  const home = fromBeat + length * shifts.length;
  if (home + 1 > timeline.formBeats)
    return refused({
      code: 'cell.too-long',
      message: `${shifts.length} statements of ${length} beats end after the form's last bar.`,
      suggestion: 'Move it fewer times, or begin earlier.',
    });
  const { chord } = soundingAt(timeline, home + NEAR).span;
  const tone = chord && toneByRole(chord, ...ROLES[move.home]);
  if (!tone)
    return refused({ code: 'cell.no-home', message: `No ${move.home} sounds where the cell comes home.` });
  const notes = shifts.flatMap((shift, index) =>
    cell.map(({ onsetBeat, durationBeats, midi }) => ({
      onsetBeat: fromBeat + index * length + onsetBeat - start,
      durationBeats,
      midi: midi + shift,
    })),
  );
  const last = elementAt(notes, notes.length - 1);
  const homeNote = { onsetBeat: home, durationBeats: HOME_BEATS, midi: nearestOf([tone.pc], last.midi) };
  const line = [...notes, homeNote];
  if (line.some(({ midi }) => midi < LOWEST || midi > HIGHEST))
    return refused({
      code: 'cell.out-of-range',
      message: 'The cell moves off the neck.',
      suggestion: 'Move it fewer times, by smaller steps, or the other way.',
    });
  return accepted(line);
}

const shiftsOf = ({ by, times, isThereAndBack }: CellMove): Semitones[] => {
  const there = Array.from({ length: times + 1 }, (_, index) => index * by);
  return isThereAndBack ? [...there, ...there.slice(0, -1).reverse()] : there;
};
