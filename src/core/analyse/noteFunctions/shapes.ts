import { modulo, type PitchClass } from '../../shared';
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

const bitOf = (pc: number): number => 1 << modulo(pc, 12);

/**
 * Triads and seventh chords an arpeggio may spell, as semitones above the root; a richer one is tried first.
 */
const SPELLED: readonly (readonly [string, readonly number[]])[] = [
  ['major-seventh', [0, 4, 7, 11]],
  ['dominant-seventh', [0, 4, 7, 10]],
  ['minor-seventh', [0, 3, 7, 10]],
  ['half-diminished', [0, 3, 6, 10]],
  ['diminished-seventh', [0, 3, 6, 9]],
  ['minor-major-seventh', [0, 3, 7, 11]],
  ['augmented-major-seventh', [0, 4, 8, 11]],
  ['major', [0, 4, 7]],
  ['minor', [0, 3, 7]],
  ['diminished', [0, 3, 6]],
  ['augmented', [0, 4, 8]],
];

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

/**
 * Rule T7.8: `arpeggio` (≥ 3 linked notes in skips that spell a triad or seventh chord: root, quality,
 * relation to the chord); the longest such stretch from each start.
 */
function arpeggios(walk: Walk): LineShape[] {
  const { line } = walk.scene;
  const shapes: LineShape[] = [];
  for (let first = 0; first < line.length - 2;) {
    const found = longestSpelled(walk, first);
    if (!found) {
      first++;
      continue;
    }
    const over = walk.context(first).chord;
    shapes.push({
      kind: 'arpeggio',
      places: range(first, found.last),
      name: found.name,
      ...(over ? { relation: intervalOver(over, found.root) } : {}),
    });
    first = found.last;
  }
  return shapes;
}

function longestSpelled(
  walk: Walk,
  first: number,
): { readonly last: number; readonly root: PitchClass; readonly name: string } | null {
  const { line } = walk.scene;
  let best: ReturnType<typeof longestSpelled> = null;
  let bits = bitOf(line[first]!.pc);
  for (
    let last = first + 1;
    isLinked(line[last - 1], line[last]) && Math.abs(walk.step(last - 1, last)) >= 3;
    last++
  ) {
    bits |= bitOf(line[last]!.pc);
    if (!FITS[bits]) break;
    const chord = last - first >= 2 ? spelled(bits, line[first]!.pc) : null;
    if (chord) best = { last, ...chord };
  }
  return best;
}

/** All twelve roots of every chord, as a bit per pitch class. */
const CHORDS = SPELLED.flatMap(([name, steps]) =>
  Array.from({ length: 12 }, (_, root) => ({
    name,
    root,
    bits: steps.reduce((bits, step) => bits | bitOf(root + step), 0),
  })),
);
/** By set of pitch classes: is it part of some chord? */
const FITS = Array.from({ length: 4096 }, (_, bits) => CHORDS.some((chord) => (bits & ~chord.bits) === 0));

/**
 * The chord a set spells whole. Of chords that are their own rotations (diminished sevenths, augmented triads)
 * the root is the note that came first.
 */
const spelled = (
  bits: number,
  first: PitchClass,
): { readonly root: PitchClass; readonly name: string } | null =>
  CHORDS.find((chord) => chord.bits === bits && chord.root === first) ??
  CHORDS.find((chord) => chord.bits === bits) ??
  null;

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
