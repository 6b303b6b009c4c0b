import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import { isLinked } from '../notes/voice';
import { formPositionOf } from '../../chart';

/** How the line moves; counts of linked moves. `longestRun` is the most moves one way. */
export type LineReport = {
  readonly repeats: number;
  readonly steps: number;
  readonly skips: number;
  readonly leaps: number;
  readonly rising: number;
  readonly falling: number;
  readonly directionChanges: number;
  readonly longestRun: number;
  readonly tiesAcrossBars: number;
  readonly slurred: number;
};

/**
 * Rule T11.2: Line: repeats, steps, skips, leaps, direction changes, longest run, ties across bars, share
 * slurred. Repeats 0, steps 1–2, skips 3–4,
 * leaps 5 semitones and more, between linked line notes.
 */
export function lineShapeOf({ line, timeline, windows }: AnalysisScene): LineReport {
  const counts = {
    repeats: 0,
    steps: 0,
    skips: 0,
    leaps: 0,
    rising: 0,
    falling: 0,
    directionChanges: 0,
    longestRun: 0,
  };
  let [way, run] = [0, 0];
  line.forEach((note, place) => {
    const next = line[place + 1];
    if (!next || !isLinked(note, next)) {
      [way, run] = [0, 0];
      return;
    }
    const move = next.pitch - note.pitch;
    const size = Math.abs(move);
    counts[moveKind(size)]++;
    if (move === 0) return;
    counts[move > 0 ? 'rising' : 'falling']++;
    if (way !== 0 && Math.sign(move) !== way) counts.directionChanges++;
    run = Math.sign(move) === way ? run + 1 : 1;
    way = Math.sign(move);
    counts.longestRun = Math.max(counts.longestRun, run);
  });
  const barOf = (beat: number) => {
    const place = formPositionOf(timeline, Math.max(0, beat));
    return place.chorus * timeline.bars.length + place.bar;
  };
  return {
    ...counts,
    tiesAcrossBars: line.filter(
      (note) => note.onset >= 0 && barOf(note.onset + windows.on) < barOf(note.end - windows.on),
    ).length,
    slurred: line.filter((note) => note.played.slide !== undefined || (note.played.bend?.length ?? 0) > 0)
      .length,
  };
}

function moveKind(size: number) {
  if (size === 0) return 'repeats';
  if (size <= 2) return 'steps';
  if (size <= 4) return 'skips';
  return 'leaps';
}
