import { intervalOver, isAdjacentIn, type IntervalName } from '../../music';
import type { Walk } from './figures';
import { movedName, type MovedShape } from './movedShapes';
import { isLinked } from '../notes/voice';

export type ShapeKind = 'arpeggio' | 'scale-run' | 'sequence' | 'moved-shape';
/** A shape of the line, beside what its notes do; places in the line. */
export type LineShape = {
  readonly kind: ShapeKind;
  readonly places: readonly number[];
  readonly name: string;
  readonly relation?: IntervalName;
};

export function shapesOf(walk: Walk, moved: readonly MovedShape[]): LineShape[] {
  const sequences = walk.sequences.map((run): LineShape => ({
    kind: 'sequence',
    places: range(run.first, run.last),
    name: 'sequence',
  }));
  const moving = moved.map((shape): LineShape => ({
    kind: 'moved-shape',
    places: range(shape.first, shape.last),
    name: movedName(shape),
  }));
  return [...arpeggios(walk), ...scaleRuns(walk), ...sequences, ...moving].sort(
    (a, b) => a.places[0]! - b.places[0]!,
  );
}

const range = (first: number, last: number): number[] =>
  Array.from({ length: last - first + 1 }, (_, index) => first + index);

/** Arpeggios with their root's relation to the chord they are played over. */
const arpeggios = (walk: Walk): LineShape[] =>
  walk.arpeggios().map(({ first, last, root, name }) => {
    const over = walk.context(first).chord;
    return {
      kind: 'arpeggio',
      places: range(first, last),
      name,
      ...(over ? { relation: intervalOver(over, root) } : {}),
    };
  });

/**
 * Rule T7.8: `scale-run` (≥ 4 adjacent scale tones one way), all by the scales of their chords or all by the
 * home scale.
 */
function scaleRuns(walk: Walk): LineShape[] {
  const { line } = walk.scene;
  const shapes: LineShape[] = [];
  for (let first = 0; first < line.length - 3;) {
    const last = Math.max(endOfRun(walk, first, 'bareScale'), endOfRun(walk, first, 'home'));
    if (last - first >= 3)
      shapes.push({
        kind: 'scale-run',
        places: range(first, last),
        name: walk.step(first, last) > 0 ? 'rising' : 'falling',
      });
    first = Math.max(first + 1, last);
  }
  return shapes;
}

/** The last note of a run of one kind of scale that starts here. */
function endOfRun(walk: Walk, first: number, kind: 'bareScale' | 'home'): number {
  const { line } = walk.scene;
  const way = Math.sign(walk.step(first, first + 1));
  let last = first;
  while (
    way !== 0 &&
    isLinked(line[last], line[last + 1]) &&
    Math.sign(walk.step(last, last + 1)) === way &&
    isScaleStep(walk, last, kind)
  )
    last++;
  return last;
}

const isScaleStep = (walk: Walk, place: number, kind: 'bareScale' | 'home'): boolean =>
  Math.abs(walk.step(place, place + 1)) <= 4 &&
  isAdjacentIn(walk.context(place)[kind], walk.at(place)!.pc, walk.at(place + 1)!.pc);
