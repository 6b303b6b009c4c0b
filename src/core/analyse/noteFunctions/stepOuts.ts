import { isOnStrongBeat } from '../../chart';
import { type Beats, defined } from '../../shared';
import type { Walk } from './figures';
import type { AssignedFunction } from './functions';
import { movedName, type MovedShape } from './movedShapes';
import { isLinked, type TensionLevel } from '../notes/voice';
import { EPSILON } from '../notes/windows';

/**
 * A stretch of the line that left the chords; indices into the report's notes. `shape` says how it moved,
 * where it was one shape.
 */
export type StepOut = {
  readonly noteIndices: readonly number[];
  readonly beats: Beats;
  readonly shape?: string;
  readonly homeIndex: number | null;
};

/** Places of the line that are outside, in order; several runs where the line went back and forth. */
export type OutRun = {
  readonly first: number;
  readonly last: number;
  readonly places: readonly number[];
  readonly shape?: MovedShape;
};

/** Runs closer together than this are one step-out. */
const TOGETHER: Beats = 1;
/** A rest of so many beats ends the phrase, and with it the way home. */
const REST: Beats = 0.7;
/** Coming home later than this many notes is another matter. */
const MOST_ON_THE_WAY = 16;

/**
 * Where the line stepped out, and whether it came home.
 * Rules T7.10 and T7.15: ≥ 3 linked notes over ≥ 1 beat at height ≥ 3 that are not all in figures that resolve, or the
 * statements of a moved shape of which at least half are at height ≥ 3; what is a beat or less apart is one. Home is
 * the first chord tone on a strong beat, held a beat, or before a rest.
 * @param heights of the line notes, blue notes lowered
 */
export function stepOutsOf(
  walk: Walk,
  functions: readonly AssignedFunction[],
  heights: readonly TensionLevel[],
  moved: readonly MovedShape[],
): StepOut[] {
  return outRuns(walk, functions, heights, moved).map((run) => {
    const { line } = walk.scene;
    const home = homeAfter(walk, run.last, heights);
    return {
      noteIndices: run.places.map((place) => defined(line[place]).index),
      beats: defined(line[run.last]).end - defined(line[run.first]).onset,
      ...(run.shape ? { shape: movedName(run.shape) } : {}),
      homeIndex: home === null ? null : defined(line[home]).index,
    };
  });
}

export function outRuns(
  walk: Walk,
  functions: readonly AssignedFunction[],
  heights: readonly TensionLevel[],
  moved: readonly MovedShape[],
): OutRun[] {
  const { line } = walk.scene;
  const statements = moved.flatMap((shape) => displacedStatements(shape, heights));
  const runs = highRuns(walk, functions, heights).filter(
    (run) => !statements.some(({ first, last }) => run.first <= last && run.last >= first),
  );
  const joined: OutRun[] = [];
  for (const run of [...statements, ...runs].sort((a, b) => a.first - b.first)) {
    const before = joined[joined.length - 1];
    const isNear =
      before && defined(line[run.first]).onset - defined(line[before.last]).end <= TOGETHER + EPSILON;
    if (before && isNear)
      joined[joined.length - 1] = {
        first: before.first,
        last: run.last,
        places: [...before.places, ...run.places],
        ...(before.shape && before.shape === run.shape ? { shape: before.shape } : {}),
      };
    else joined.push(run);
  }
  return joined;
}

/** The statements of a moved shape that left the chords; a shape is out only where it holds a height 4. */
function displacedStatements(shape: MovedShape, heights: readonly TensionLevel[]): OutRun[] {
  if (!heights.slice(shape.first, shape.last + 1).includes(4)) return [];
  return Array.from({ length: shape.statements }, (_, index) => shape.first + index * shape.size).flatMap(
    (first): OutRun[] => {
      const places = Array.from({ length: shape.size }, (_, index) => first + index);
      const high = places.filter((place) => defined(heights[place]) >= 3).length;
      return high * 2 >= shape.size ? [{ first, last: first + shape.size - 1, places, shape }] : [];
    },
  );
}

/** The first chord tone after a step-out that stays: on a strong beat, held a beat, or before a rest. */
function homeAfter(walk: Walk, last: number, heights: readonly TensionLevel[]): number | null {
  const { line, timeline, windows } = walk.scene;
  if (walk.isChordTone(last) && stays(last)) return last;
  for (let place = last + 1; place <= last + MOST_ON_THE_WAY; place++) {
    if (!isLinked(line[place - 1], line[place], REST)) return null;
    if (walk.isChordTone(place) && stays(place)) return place;
  }
  return null;

  function stays(place: number): boolean {
    const note = defined(line[place]);
    const next = line[place + 1];
    const isSettled =
      isOnStrongBeat(timeline, note.onset, windows.on) ||
      note.end - note.onset >= 1 - EPSILON ||
      !isLinked(note, next, 0.5);
    // a chord tone on the way to another outside note is no home
    return isSettled && !(isLinked(note, next) && (heights[place + 1] ?? 0) >= 4);
  }
}

function highRuns(
  walk: Walk,
  functions: readonly AssignedFunction[],
  heights: readonly TensionLevel[],
): OutRun[] {
  const { line } = walk.scene;
  const found: OutRun[] = [];
  for (let first = 0; first < line.length;) {
    let last = first;
    while (
      defined(heights[first]) >= 3 &&
      line[last + 1] &&
      isLinked(line[last], line[last + 1]) &&
      defined(heights[last + 1]) >= 3
    )
      last++;
    const beats = defined(line[last]).end - defined(line[first]).onset;
    const unresolved = functions.slice(first, last + 1).some((assigned) => assigned.target === undefined);
    if (last - first >= 2 && beats >= 1 - EPSILON && unresolved)
      found.push({ first, last, places: Array.from({ length: last - first + 1 }, (_, at) => first + at) });
    first = last + 1;
  }
  return found;
}
