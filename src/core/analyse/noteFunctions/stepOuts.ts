import type { Beats } from '../../shared';
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

/**
 * Where the line stepped out, and whether it came home.
 * Rule T7.10: ≥ 3 linked notes over ≥ 1 beat at height ≥ 3 that are not all in figures that resolve, or a
 * moved shape with a statement that holds a
 * height 4; with its length, shape, and the chord tone it came home to (a moved shape that ends on a chord
 * tone has come home to it), or that it did not.
 * @param heights of the line notes, blue notes lowered
 */
export function stepOutsOf(
  walk: Walk,
  functions: readonly AssignedFunction[],
  heights: readonly TensionLevel[],
  moved: readonly MovedShape[],
): StepOut[] {
  const shapes = moved
    .filter(({ first, last }) => heights.slice(first, last + 1).includes(4))
    .map((shape) => ({ first: shape.first, last: shape.last, shape }));
  const runs = highRuns(walk, functions, heights).filter(
    (run) => !shapes.some(({ first, last }) => run.first <= last && run.last >= first),
  );
  return [...shapes, ...runs].sort((a, b) => a.first - b.first).map((out) => describe(walk, out));
}

type Out = { readonly first: number; readonly last: number; readonly shape?: MovedShape };

function describe(walk: Walk, { first, last, shape }: Out): StepOut {
  const notes = walk.scene.line.slice(first, last + 1);
  const beats = notes[notes.length - 1]!.end - notes[0]!.onset;
  let home: number | null;
  if (shape && walk.isChordTone(last)) home = last;
  else if (isLinked(walk.at(last), walk.at(last + 1)) && walk.isChordTone(last + 1)) home = last + 1;
  else home = null;
  return {
    noteIndices: notes.map((note) => note.index),
    beats,
    ...(shape ? { shape: movedName(shape) } : {}),
    homeIndex: home === null ? null : walk.at(home)!.index,
  };
}

function highRuns(
  walk: Walk,
  functions: readonly AssignedFunction[],
  heights: readonly TensionLevel[],
): Out[] {
  const { line } = walk.scene;
  const found: Out[] = [];
  for (let first = 0; first < line.length;) {
    let last = first;
    while (
      heights[first]! >= 3 &&
      line[last + 1] &&
      isLinked(line[last], line[last + 1]) &&
      heights[last + 1]! >= 3
    )
      last++;
    const beats = line[last]!.end - line[first]!.onset;
    const unresolved = functions.slice(first, last + 1).some((assigned) => assigned.target === undefined);
    if (last - first >= 2 && beats >= 1 - EPSILON && unresolved) found.push({ first, last });
    first = last + 1;
  }
  return found;
}
