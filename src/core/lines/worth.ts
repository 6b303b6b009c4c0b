import { elementAt, type Beats } from '../shared';
import { lineFaults, type LineNoteLike } from './faults';

/**
 * Shares that published corpora of improvised lines come near: moves by step about half, turns of direction
 * in two moves of five (from memory).
 */
const STEPS = 0.55;
const TURNS = 0.4;
/** A move by step or less, in semitones; into a chord this is the nearest way there. */
const STEP = 2;

/**
 * How much a line is worth copying, 0 to 1: free of faults, moves as players' lines do, reaches its highest
 * note once and not at once, leads into the chords by step, and comes to rest. For ranking lines that pass
 * the same drill.
 * @param line single notes in order of onset
 * @param end where the line was to end, in beats
 * @param changes where chords change, in beats
 */
export function lineWorth(line: readonly LineNoteLike[], end: Beats, changes: readonly Beats[]): number {
  if (line.length < 2) return 0;
  const pitches = line.map(({ midi }) => midi);
  const moves = pitches.slice(1).map((pitch, index) => pitch - elementAt(pitches, index));
  const steps = moves.filter((move) => move !== 0 && Math.abs(move) <= STEP).length / moves.length;
  const turns = moves.filter((move, index) => index > 0 && move * elementAt(moves, index - 1) < 0).length;
  const marks = [
    nearness(steps, STEPS),
    nearness(turns / Math.max(1, moves.length - 1), TURNS),
    peakOf(pitches),
    smoothness(line, changes),
    Math.min(1, elementAt(line, line.length - 1).durationBeats / 2),
  ];
  const mean = marks.reduce((sum, mark) => sum + mark, 0) / marks.length;
  return mean / (1 + lineFaults(line, end).length);
}

const nearness = (share: number, usual: number): number => 1 - Math.min(1, Math.abs(share - usual) / usual);

/** One highest note, in the middle or later: 1; said again and again, or the first note of all: less. */
function peakOf(pitches: readonly number[]): number {
  const highest = Math.max(...pitches);
  const times = pitches.filter((pitch) => pitch === highest).length;
  return (pitches.indexOf(highest) === 0 ? 0.5 : 1) / times;
}

/** The share of changes that the line steps into; 1 where it meets none. */
function smoothness(line: readonly LineNoteLike[], changes: readonly Beats[]): number {
  const moves = changes.flatMap((at) => {
    const into = line.findIndex(({ onsetBeat }) => Math.abs(onsetBeat - at) < 1e-6);
    return into > 0 ? [Math.abs(elementAt(line, into).midi - elementAt(line, into - 1).midi)] : [];
  });
  return moves.length === 0 ? 1 : moves.filter((move) => move <= STEP).length / moves.length;
}
