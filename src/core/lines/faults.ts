import { elementAt, type Beats, type Midi } from '../shared';

/** A note of a line as it is measured: in beats. */
export type LineNoteLike = { readonly onsetBeat: Beats; readonly durationBeats: Beats; readonly midi: Midi };

/** What keeps a line from being worth copying. */
export type LineFault =
  | 'swings-between-two'
  | 'never-breathes'
  | 'few-note-lengths'
  | 'range'
  | 'leaps'
  | 'stops-short'
  | 'repeats';

const EPS = 1e-6;

/** So many notes to and fro between two pitches are no line any more. */
const SWINGING = 5;
/** A player breathes at least once in so many beats (common practice, no source). */
const LONGEST_WITHOUT_BREATH: Beats = 17;
const BREATH: Beats = 0.75;

/**
 * Faults of a line that no teacher would write: tests hold every drill's examples against them.
 * Bounds: shares of steps, leaps and repeats as published corpora of improvised lines have them (steps about
 * half, leaps over a fifth under a tenth; from memory); the rest is common practice, no source.
 * @param line single notes in order of onset; chords struck in between are to be left out
 * @param end where the line was to end, in beats
 */
export function lineFaults(line: readonly LineNoteLike[], end: Beats): LineFault[] {
  const pitches = line.map(({ midi }) => midi);
  const faults: LineFault[] = [];
  if (longestSwing(pitches) >= SWINGING) faults.push('swings-between-two');
  if (longestWithoutBreath(line, end) > LONGEST_WITHOUT_BREATH) faults.push('never-breathes');
  if (noteLengths(line) < 3) faults.push('few-note-lengths');
  const range = Math.max(...pitches) - Math.min(...pitches);
  if (line.length > 0 && (range < 5 || range > 26)) faults.push('range');
  const moves = pitches.slice(1).map((pitch, index) => Math.abs(pitch - elementAt(pitches, index)));
  if (
    moves.filter((size) => size > 7).length > Math.max(1, 0.12 * moves.length) ||
    moves.some((size) => size > 16)
  )
    faults.push('leaps');
  const last = line[line.length - 1];
  if (last && last.durationBeats < 1 - EPS) faults.push('stops-short');
  if (moves.filter((size) => size === 0).length > Math.max(1, 0.15 * moves.length)) faults.push('repeats');
  return faults;
}

/** The most notes in a row that go to and fro between two pitches: 61 63 61 63 are four. */
export function longestSwing(pitches: readonly Midi[]): number {
  let longest = 0;
  let run = 0;
  for (let index = 2; index < pitches.length; index++) {
    const swings = pitches[index] === pitches[index - 2] && pitches[index] !== pitches[index - 1];
    run = swings ? run + 1 : 0;
    if (run > 0) longest = Math.max(longest, run + 2);
  }
  return longest;
}

/** Beats from one breath to the next, at most. */
function longestWithoutBreath(line: readonly LineNoteLike[], end: Beats): Beats {
  let from = line[0]?.onsetBeat ?? 0;
  let longest = 0;
  line.forEach(({ onsetBeat, durationBeats }, index) => {
    const next = line[index + 1]?.onsetBeat ?? end;
    if (next - (onsetBeat + durationBeats) < BREATH - EPS && index < line.length - 1) return;
    longest = Math.max(longest, onsetBeat + durationBeats - from);
    from = next;
  });
  return longest;
}

/** How many note values a line has, to a twelfth of a beat, from onset to onset or to its end before a rest. */
function noteLengths(line: readonly LineNoteLike[]): number {
  const lengths = line.map(({ onsetBeat, durationBeats }, index) => {
    const gap = (line[index + 1]?.onsetBeat ?? Infinity) - onsetBeat;
    return Math.round(Math.min(gap, durationBeats * 1.06) * 6);
  });
  return new Set(lengths).size;
}
