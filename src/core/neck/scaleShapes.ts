import { elementAt, modulo, pitchClassOf, type Midi, type PitchClass } from '../shared';
import { STANDARD_INSTRUMENT, type Instrument, type Tuning } from './fretboard';
import { fretsOf, layRun, moved, type Run, type RunOptions } from './run';
import type { ScaleLayout } from './scaleLayouts';

/** A movable shape of a scale or an arpeggio: no open strings, the same fingers in every key. */
export type ScaleShape = {
  /**
   * The place in the material of the note it begins with, from 1: shape 1 begins with the root. Of one octave
   * and of one string, the string it begins on.
   */
  readonly number: number;
  /** The lowest string on which the shape holds the root; null where it holds none. */
  readonly rootString: number | null;
  readonly run: Run;
};

export type ScaleShapeOptions = {
  readonly instrument?: Instrument;
  readonly layout?: ScaleLayout;
  /** False: the hand moves rather than reach. */
  readonly reach?: boolean;
  /** The string to begin on, where the layout leaves it open; else the lowest. */
  readonly string?: number;
  readonly finger?: number;
  /** Do not go above this string (by number). */
  readonly highestString?: number;
};

/** Patterns are laid out where no nut is in the way, and then moved to where they fit. */
const FAR_UP = 240;
const PER_STRING: Partial<Record<ScaleLayout, number>> = { one: 1, two: 2, three: 3 };

/**
 * The movable shapes of a scale or an arpeggio, by number, each where it lies lowest on the neck.
 * Rule T15.4.
 * @param pcs the material from its root up
 */
export function scaleShapes(pcs: readonly PitchClass[], options: ScaleShapeOptions = {}): ScaleShape[] {
  const { layout = 'position' } = options;
  if (pcs.length === 0) return [];
  if (layout === 'octave' || layout === 'string') return shapesByString(pcs, layout, options);
  return pcs.flatMap((_, place) => {
    const shape = shapeFrom(pcs, place, options);
    return shape ? [shape] : [];
  });
}

/** One shape a string, from the lowest string on which it fits. */
function shapesByString(
  pcs: readonly PitchClass[],
  layout: 'octave' | 'string',
  options: ScaleShapeOptions,
): ScaleShape[] {
  const { instrument = STANDARD_INSTRUMENT } = options;
  return instrument.tuning
    .map((_, index) => instrument.tuning.length - index)
    .flatMap((string) => {
      const shape = onString(pcs, string, layout, options);
      return shape ? [shape] : [];
    });
}

function onString(
  pcs: readonly PitchClass[],
  string: number,
  layout: 'octave' | 'string',
  options: ScaleShapeOptions,
): ScaleShape | null {
  const { instrument = STANDARD_INSTRUMENT, reach = true, finger } = options;
  const { tuning } = instrument;
  const start = pitchFrom(elementAt(pcs, 0), elementAt(tuning, string - 1) + FAR_UP);
  const pitches = pitchesFrom(pcs, start, start + 12);
  const run = layRun(pitches, {
    tuning,
    string,
    reach,
    ...(finger === undefined ? {} : { finger }),
    highestString: layout === 'string' ? string : 1,
  });
  const isAlong = run?.touches.every((touch) => touch.string === string);
  return !run || (isAlong && layout === 'octave') ? null : placed(run, string, pcs, instrument);
}

function shapeFrom(pcs: readonly PitchClass[], place: number, options: ScaleShapeOptions): ScaleShape | null {
  const { instrument = STANDARD_INSTRUMENT, layout = 'position', reach = true, finger } = options;
  const { tuning } = instrument;
  const { string = tuning.length, highestString = 1 } = options;
  const start = pitchFrom(elementAt(pcs, place), elementAt(tuning, string - 1) + FAR_UP);
  const common = { tuning, string, highestString, ...(finger === undefined ? {} : { finger }) };
  const perString = PER_STRING[layout];
  if (perString !== undefined) {
    const count = perString * (string - highestString + 1);
    const pitches = pitchesFrom(pcs, start, start + 12 * count).slice(0, count);
    const run = layRun(pitches, { ...common, reach, perString });
    return run ? placed(run, place + 1, pcs, instrument) : null;
  }
  const staying = inPosition(pcs, start, common);
  if (!staying) return null;
  // the same notes, with a hand that moves rather than reach
  const run = reach
    ? staying
    : layRun(
        staying.touches.map(({ midi }) => midi),
        { ...common, reach },
      );
  return run ? placed(run, place + 1, pcs, instrument) : null;
}

type Start = {
  readonly tuning: Tuning;
  readonly string: number;
  readonly highestString: number;
  readonly finger?: number;
};

/** Everything under a hand that stays: from the finger that needs to reach least. */
function inPosition(pcs: readonly PitchClass[], start: Midi, common: Start): Run | null {
  const fret = start - elementAt(common.tuning, common.string - 1);
  // a shape begins with the lowest note under its hand: what lies below belongs to another number
  const isLowest = (finger: number) => pitchesFrom(pcs, start - (finger - 1), start - 1).length === 0;
  const fingers = common.finger === undefined ? [1, 2, 3, 4].filter(isLowest) : [common.finger];
  const runs = fingers.flatMap((finger) => {
    const hand = fret - (finger - 1);
    const highest = elementAt(common.tuning, common.highestString - 1) + hand + 3;
    const run = layRun(pitchesFrom(pcs, start, highest), { ...common, finger, shift: false });
    return run ? [run] : [];
  });
  return runs.reduce<Run | null>(
    (least, run) => (least === null || run.reaches < least.reaches ? run : least),
    null,
  );
}

/**
 * A scale upwards with the index at a fret, from the lowest string to the highest; with a move of the hand where
 * it cannot stay.
 * @returns null where it has no notes there, or the neck ends too soon
 */
export function scaleUnderHand(
  pcs: readonly PitchClass[],
  fret: number,
  { tuning, frets }: Instrument = STANDARD_INSTRUMENT,
): Run | null {
  const string = tuning.length;
  const lowest = elementAt(tuning, string - 1) + fret;
  const highest = elementAt(tuning, 0) + Math.min(frets, fret + 3);
  const pitches = pitchesFrom(pcs, lowest, highest);
  const [first] = pitches;
  if (first === undefined) return null;
  const common: RunOptions = { tuning, string, within: [1, frets] };
  const finger = first - lowest + 1;
  return (
    layRun(pitches, { ...common, finger, shift: false }) ??
    layRun(pitches, { ...common, finger }) ??
    layRun(pitches, common)
  );
}

/** The pattern where it lies lowest on the neck with no open string; null where the neck is too short. */
function placed(
  run: Run,
  number: number,
  pcs: readonly PitchClass[],
  { tuning, frets }: Instrument,
): ScaleShape | null {
  const [lowest] = fretsOf(run);
  const down = moved(run, -12 * Math.floor((lowest - 1) / 12));
  if (fretsOf(down)[1] > frets) return null;
  const roots = down.touches.filter(({ midi }) => pitchClassOf(midi) === pcs[0]);
  const rootString = roots.reduce<number | null>(
    (lowestOne, { string }) => Math.max(lowestOne ?? 0, Math.min(string, tuning.length)),
    null,
  );
  return { number, rootString, run: down };
}

/** The shape as near as it can be to a fret, by octaves. */
export function shapeNear(
  shape: ScaleShape,
  fret: number,
  { frets }: Instrument = STANDARD_INSTRUMENT,
): ScaleShape {
  const [from, to] = fretsOf(shape.run);
  const upOctave = to + 12 <= frets && Math.abs(from + 12 - fret) < Math.abs(from - fret);
  return upOctave ? { ...shape, run: moved(shape.run, 12) } : shape;
}

/** The movable shapes of a scale or an arpeggio where they lie nearest to a fret, the nearest first. */
export function shapesNear(
  pcs: readonly PitchClass[],
  fret: number,
  options: ScaleShapeOptions = {},
): ScaleShape[] {
  const away = ({ run }: ScaleShape) => Math.abs(fretsOf(run)[0] - fret);
  return scaleShapes(pcs, options)
    .map((shape) => shapeNear(shape, fret, options.instrument))
    .sort((a, b) => away(a) - away(b));
}

const pitchFrom = (pc: PitchClass, least: Midi): Midi => least + modulo(pc - least, 12);

const pitchesFrom = (pcs: readonly PitchClass[], from: Midi, to: Midi): Midi[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, step) => from + step).filter((midi) =>
    pcs.includes(pitchClassOf(midi)),
  );

/** Two notes of a scale on two strings, so many scale steps apart. */
export type ScalePair = {
  readonly low: { readonly string: number; readonly fret: number; readonly midi: Midi };
  readonly high: { readonly string: number; readonly fret: number; readonly midi: Midi };
};

/** Scale steps between the two notes, and the strings that lie between theirs. */
export const PAIR_KINDS = {
  thirds: { steps: 2, apart: 1 },
  fourths: { steps: 3, apart: 1 },
  sixths: { steps: 5, apart: 2 },
  tenths: { steps: 9, apart: 3 },
} as const;
export type PairKind = keyof typeof PAIR_KINDS;

/** Frets that a hand spans with two fingers. */
const PAIR_SPAN = 4;

/**
 * A scale in thirds, fourths, sixths or tenths along each pair of strings, without open strings.
 * @param pcs the scale from its root up
 * @returns for each pair of strings, the lowest pair last, what lies on it from the nut up
 */
export function scalePairs(
  pcs: readonly PitchClass[],
  kind: PairKind,
  { tuning, frets }: Instrument = STANDARD_INSTRUMENT,
): { readonly strings: readonly [number, number]; readonly pairs: readonly ScalePair[] }[] {
  const { steps, apart } = PAIR_KINDS[kind];
  return Array.from({ length: Math.max(0, tuning.length - apart) }, (_, index) => {
    const [upper, lower] = [index + 1, index + 1 + apart];
    const pairs = Array.from({ length: frets }, (__, fret) => fret + 1).flatMap((fret): ScalePair[] => {
      const midi = elementAt(tuning, lower - 1) + fret;
      const place = pcs.indexOf(pitchClassOf(midi));
      if (place < 0) return [];
      const above = midi + upBy(pcs, place, steps);
      const highFret = above - elementAt(tuning, upper - 1);
      if (highFret < 1 || highFret > frets || Math.abs(highFret - fret) > PAIR_SPAN) return [];
      return [{ low: { string: lower, fret, midi }, high: { string: upper, fret: highFret, midi: above } }];
    });
    return { strings: [upper, lower], pairs };
  });
}

/** Half steps from a tone of a scale to the one so many scale steps above it. */
function upBy(pcs: readonly PitchClass[], place: number, steps: number): number {
  const octaves = Math.floor((place + steps) / pcs.length) - Math.floor(place / pcs.length);
  const inOctave = (at: number) => modulo(elementAt(pcs, at % pcs.length) - elementAt(pcs, 0), 12);
  return 12 * octaves + inOctave(place + steps) - inOctave(place);
}
